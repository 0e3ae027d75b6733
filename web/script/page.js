// What the other scripts share.
export const $ = (selector, from = document) => from.querySelector(selector);
export const bench = () => $("#workbench");

// tell says something on the page, with the way to the passphrase where that is wanted; "" and it is gone.
let notice = { says: "", enter: false };
export function tell(says, enter = false) { Object.assign(notice, { says, enter }); }
document.addEventListener("alpine:init", () => {
  Alpine.store("notice", notice);
  notice = Alpine.store("notice");
});

// remembered is a choice kept in this browser, where it may keep any.
export function remembered(name) {
  try { return localStorage.getItem(name); } catch { return null; }
}
export function remember(name, value) {
  try { localStorage.setItem(name, value); } catch { /* storage may be off */ }
}

// The address the workbench's own requests go to: of this path, seen as now.
export const asSeen = (address) => new URL(address, location.href).pathname + location.search;
