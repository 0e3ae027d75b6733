// The screen is kept awake at the bench: with the browser's own lock, or where it has none, as on plain HTTP, with a
// silent film, which needs a touch to begin.
let lock = null, film = null;

export async function wake() {
  if (!navigator.wakeLock) return Boolean(film && film.isEnabled);
  try {
    if (!document.hidden && (!lock || lock.released)) lock = await navigator.wakeLock.request("screen");
  } catch { lock = null; }
  return Boolean(lock && !lock.released);
}

// begin makes ready for the film, where it is needed.
export function begin(address, says) {
  if (navigator.wakeLock || !address) return;
  const script = Object.assign(document.createElement("script"), { src: address });
  script.onload = () => { film = new window.NoSleep(); };
  document.head.append(script);
  document.addEventListener("click", async () => {
    try { if (film && !film.isEnabled) await film.enable(); } catch { /* the next touch tries again */ }
    says(Boolean(film && film.isEnabled));
  });
}
