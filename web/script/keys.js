// Keys. Those of a single letter or figure can be switched off.
import { $, bench, remembered } from "./page.js";
import { flush } from "./queue.js";
import { nudge, go } from "./keep.js";
import { showHelp, hideHelp } from "./shell.js";

const typing = (el) => el.matches("input:not([type=radio], [type=range], [type=checkbox]), textarea, select");
const press = (selector) => { const el = $(selector); if (el && !el.disabled) el.click(); return Boolean(el); };
const single = () => remembered("keys") !== "off";

function print() {
  const link = $("#print-link");
  if (!link) return false;
  const to = new URL(link.href);
  to.searchParams.set("now", "1");
  flush().then(() => location.assign(to));
  return true;
}

const views = { f: "flat", o: "folded", i: "above", a: "styles", w: "ways", s: "sheets", t: "turns", g: "glue" };

document.addEventListener("keydown", (e) => {
  const el = e.target, key = e.key.toLowerCase();
  if (e.defaultPrevented || !(el instanceof Element)) return;
  if ((e.ctrlKey || e.metaKey) && !e.altKey) {
    if (key === "z" && !typing(el) && press(e.shiftKey ? "#redo" : "#undo")) e.preventDefault();
    if (key === "p" && print()) e.preventDefault();
    return;
  }
  if (el.matches("[data-steps]") && (e.key === "ArrowUp" || e.key === "ArrowDown")) {
    e.preventDefault();
    nudge(el, (e.key === "ArrowUp" ? 1 : -1) * (e.shiftKey ? 8 : 1));
    return;
  }
  if (alongRow(e)) return;
  if (e.key === "Escape" && hideHelp()) return;
  if (e.key === "Escape" && typing(el)) { el.blur(); return; }
  if (typing(el) || e.altKey || $("dialog[open]") || !single()) return;
  if (bench()) {
    const stage = e.key >= "1" && e.key <= "7" && $(`#stage-${e.key}`);
    if (stage) go(stage.getAttribute("href"), "brief-title");
    const view = views[key], here = view && $(`#view-${view}`);
    if (view) go(here ? here.getAttribute("href") : `${bench().dataset.path}?view=${view}`, `view-${view}`);
    if (e.key === "<" || e.key === ">") press(`[data-step="${e.key === "<" ? -1 : 1}"]`);
    if (key === "p") press("#print-link");
  }
  if (e.key === "?" && $("#help")) { e.preventDefault(); showHelp(); }
});

// --- Rows: one stop of the Tab key, arrows inside.
const inRow = (row) => [...row.querySelectorAll("a[href], .num[data-link], button:not(:disabled)")];
function alongRow(e) {
  const row = e.target.closest("[data-row]");
  const by = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1, Home: -Infinity, End: Infinity }[e.key];
  if (!row || !by) return false;
  const all = inRow(row), at = all.indexOf(e.target);
  if (at < 0) return false;
  e.preventDefault();
  const next = all[Math.max(0, Math.min(all.length - 1, at + by))];
  if (row.matches(oneStop)) stops(row, next);
  next.focus();
  return true;
}
const oneStop = ".panel-list, .suit-list"; // numbers are read, not pressed: Tab passes them
function stops(row, at) {
  for (const el of inRow(row)) el.tabIndex = el === at ? 0 : -1;
}
function settle() {
  for (const row of document.querySelectorAll(oneStop)) {
    stops(row, inRow(row).find((el) => el === document.activeElement) || inRow(row)[0]);
  }
}
document.addEventListener("bench:shown", settle);
settle();
