// The frame of the page: light and dark, the list of keys, what moves, printing.
import { $, remembered, remember } from "./page.js";

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
    openKeys() {
      $("#single-keys").checked = remembered("keys") !== "off";
      $("#keys").showModal();
    },
    setKeys() { remember("keys", $("#single-keys").checked ? "on" : "off"); },
    turnTheme() {
      const root = document.documentElement.dataset;
      root.bsTheme = root.bsTheme === "dark" ? "light" : "dark";
      remember("theme", root.bsTheme);
    },
    printNow() { window.print(); },
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
