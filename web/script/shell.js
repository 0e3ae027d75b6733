// The frame of the page: light and dark, help beside the spot, what moves, printing, what was opened once.
import { $, bench, remembered, remember } from "./page.js";

// --- Help stands beside the page that asks for it: of the field that has the focus, or of the stage.
const help = { open: false };
let asker = null;
function spot() {
  const field = document.activeElement.closest(".field, .group");
  const mark = field && $(".what, .word", field);
  if (mark) return mark.getAttribute("href").split("/").at(-1);
  return bench() ? bench().dataset.stage : document.body.dataset.spot;
}
export function showHelp(topic) {
  const panel = Alpine.store("help");
  if (!panel.open) asker = document.activeElement;
  htmx.ajax("GET", `/help/${encodeURIComponent(topic || spot())}`, { target: "#help-text", swap: "outerHTML" }).then(() => {
    panel.open = true;
    setTimeout(() => $("#help-title") && $("#help-title").focus(), 50); // when it is laid out
  });
}
export function hideHelp() {
  const panel = Alpine.store("help");
  if (!panel.open) return false;
  panel.open = false;
  if (asker && asker.isConnected) asker.focus();
  return true;
}
document.addEventListener("click", (e) => {
  const mark = e.target.closest && e.target.closest('a.what, a.word');
  if (!mark || e.metaKey || e.ctrlKey || e.button !== 0 || !$("#help")) return;
  e.preventDefault();
  showHelp(mark.getAttribute("href").split("/").at(-1));
});

// --- What a person opened under "More" is open the next time, wherever there is such a thing.
const kind = (el) => `open:${(el.dataset.opens || el.id).replace(/-[0-9a-z]{8,}$/, "")}`;
document.addEventListener("toggle", (e) => {
  if (e.target.matches && e.target.matches("details.more[data-opens]")) remember(kind(e.target), e.target.open ? "yes" : "no");
}, true);
function reopen() {
  for (const el of document.querySelectorAll("details.more[data-opens]:not([open])")) {
    if (remembered(kind(el)) === "yes") el.open = true;
  }
}
document.addEventListener("bench:shown", reopen);
reopen();

// --- Moving pictures: they stand still where motion is not wanted, and one
// button holds them all.
const unwanted = matchMedia("(prefers-reduced-motion: reduce)");
const isStill = () => unwanted.matches || remembered("still") === "yes";
function move() {
  for (const img of document.querySelectorAll("img[data-moving]")) {
    const src = isStill() ? `${img.dataset.moving}&still=1` : img.dataset.moving;
    if (img.getAttribute("src") !== src) img.src = src;
  }
}
unwanted.addEventListener("change", move);
document.addEventListener("bench:shown", move);
move();

document.addEventListener("alpine:init", () => {
  Alpine.data("shell", () => ({
    openHelp() { showHelp(); },
    closeHelp() { hideHelp(); },
    turnTheme() {
      const root = document.documentElement.dataset;
      root.bsTheme = root.bsTheme === "dark" ? "light" : "dark";
      remember("theme", root.bsTheme);
    },
    printNow() { window.print(); },
  }));
  Alpine.store("help", help);
  Alpine.data("singleKeys", () => ({
    init() { this.$el.checked = remembered("keys") !== "off"; },
    set() { remember("keys", this.$el.checked ? "on" : "off"); },
  }));
  Alpine.data("holding", () => ({
    still: isStill(),
    init() {
      // What the server sends knows nothing of it.
      document.addEventListener("bench:shown", () => this.$el.setAttribute("aria-pressed", this.still));
    },
    hold() {
      remember("still", this.still ? "no" : "yes");
      this.still = isStill();
      move();
    },
  }));
});

// Asked for with Ctrl P elsewhere, the plan prints when it is there.
const now = new URLSearchParams(location.search).has("now");
if ($(".print-sheet") && now) addEventListener("load", () => window.print());

// --- A file that is dropped on a page with a form for files is sent by it.
const dropForm = () => $("form[data-drop]");
const hasFile = (e) => dropForm() && [...e.dataTransfer.types].includes("Files");
addEventListener("dragover", (e) => {
  if (!hasFile(e)) return;
  e.preventDefault();
  document.body.classList.add("dropping");
});
addEventListener("dragleave", (e) => { if (!e.relatedTarget) document.body.classList.remove("dropping"); });
addEventListener("drop", (e) => {
  if (!hasFile(e)) return;
  e.preventDefault();
  document.body.classList.remove("dropping");
  $("input[type=file]", dropForm()).files = e.dataTransfer.files;
  dropForm().requestSubmit();
});
