// All pictures of all steps of a box, held by the page, so that it turns them without a line. Over HTTPS they are put by
// for the next time it is opened, too.

let of = "", pictures = new Map();
const name = (step, picture) => `${step}|${picture}`;

// hold fetches them, unless they are here as the box is now.
export async function hold(main) {
  const { link, plan } = main.dataset, wanted = `${link} ${plan}`;
  if (of === wanted) return;
  of = wanted;
  try {
    const answer = await fetch(`${link}/whole`);
    if (!answer.ok || answer.redirected) throw new Error("not now");
    const page = new DOMParser().parseFromString(await answer.text(), "text/html");
    pictures = new Map();
    for (const one of page.querySelectorAll("[data-at-bench]")) pictures.set(name(one.dataset.step, one.dataset.picture), one);
    document.documentElement.dataset.held = link;
    putBy(link);
  } catch { if (of === wanted) of = ""; }
}

// pictureAt gives the picture that an address names, drawn anew; null while it is not held.
export function pictureAt(address, first) {
  const asked = new URL(address, location.href).searchParams;
  const step = asked.get("step") === "all" ? "" : asked.get("step") || first;
  const any = pictures.get(name(step, 1));
  if (!any) return null;
  const at = Math.min(Number(asked.get("picture")) || 1, Math.max(1, Number(any.dataset.pictures)));
  return document.importNode(pictures.get(name(step, at)), true);
}

// --- Put by, where the browser lets a page: what this bench needs to open without a line, and of others nothing old.
const shelf = "bench";
async function putBy(link) {
  if (!("serviceWorker" in navigator) || !window.isSecureContext) return;
  try {
    await navigator.serviceWorker.register("/bench/worker.js", { scope: link });
    const parts = performance.getEntriesByType("resource").map((one) => one.name)
      .filter((at) => at.startsWith(`${location.origin}/static/`));
    const all = await caches.open(shelf);
    for (const old of await all.keys()) {
      const at = new URL(old.url);
      if (at.pathname.startsWith("/static/") && !parts.includes(old.url)) await all.delete(old);
    }
    await all.addAll([...new Set([link, `${link}/whole`, `${link}/app.webmanifest`, ...parts])]);
    document.documentElement.dataset.putBy = link;
  } catch { /* it then needs a line to be opened */ }
}
// dropAll takes away what was put by: this device was sent away.
export async function dropAll() { if (window.caches) await caches.delete(shelf); }
