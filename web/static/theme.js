// Runs before anything is drawn, so that the dark setting never flashes light
// and what needs no script is never hidden.
(() => {
  const dark = matchMedia("(prefers-color-scheme: dark)").matches;
  let kept = null;
  try { kept = localStorage.getItem("theme"); } catch { /* storage may be off */ }
  document.documentElement.dataset.bsTheme = kept || (dark ? "dark" : "light");
  document.documentElement.classList.add("scripted");
})();
