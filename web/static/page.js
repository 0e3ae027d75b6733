// What the other scripts share.
export const $ = (selector, from = document) => from.querySelector(selector);
export const bench = () => $("#workbench");

const notice = $("#notice");
export function tell(text, link) {
  if (text && !notice.hidden && notice.firstChild.data === text) return; // said again, it would take the focus from its link
  notice.textContent = text;
  notice.hidden = !text;
  if (link) notice.append(" ", Object.assign(document.createElement("a"), { target: "_blank", ...link }));
}
// enter links to the passphrase in a new tab: changes that wait here are kept after it.
export const enter = { href: "/enter?to=/", textContent: "Enter the passphrase (in a new tab)" };

// remembered is a choice kept in this browser, where it may keep any.
export function remembered(name) {
  try { return localStorage.getItem(name); } catch { return null; }
}
export function remember(name, value) {
  try { localStorage.setItem(name, value); } catch { /* storage may be off */ }
}

// The address the workbench's own requests go to: of this path, seen as now.
export const asSeen = (address) => new URL(address, location.href).pathname + location.search;
