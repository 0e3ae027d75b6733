// Number and line light each other up.
const light = (on) => (e) => {
  const mark = e.target.closest && e.target.closest("[data-link]");
  const link = mark && mark.dataset.link;
  if (!link) return;
  for (const other of document.querySelectorAll(`[data-link="${CSS.escape(link)}"]`)) other.classList.toggle("lit", on);
};
for (const [on, events] of [[true, ["mouseover", "focusin"]], [false, ["mouseout", "focusout"]]]) {
  for (const name of events) document.addEventListener(name, light(on));
}
