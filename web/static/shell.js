// The frame of the page: light and dark, the list of keys, what moves.
import { $, remembered, remember } from "./page.js";

const openKeys = () => {
  $("#single-keys").checked = remembered("keys") !== "off";
  $("#keys").showModal();
};
document.addEventListener("alpine:init", () => {
  Alpine.data("shell", () => ({
    openKeys,
    setKeys() { remember("keys", $("#single-keys").checked ? "on" : "off"); },
    turnTheme() {
      const root = document.documentElement.dataset;
      root.bsTheme = root.bsTheme === "dark" ? "light" : "dark";
      remember("theme", root.bsTheme);
    },
  }));
});

// --- Moving pictures: they stand still where motion is not wanted, and one
// button holds them all.
const unwanted = matchMedia("(prefers-reduced-motion: reduce)");
const still = () => unwanted.matches || remembered("still") === "yes";
function move() {
  for (const img of document.querySelectorAll("img[data-moving]")) {
    const src = still() ? `${img.dataset.moving}&still=1` : img.dataset.moving;
    if (img.getAttribute("src") !== src) img.src = src;
  }
  const hold = $("[data-hold]");
  if (hold) hold.setAttribute("aria-pressed", still());
}
document.addEventListener("click", (e) => {
  if (e.target.closest("[data-hold]")) { remember("still", remembered("still") === "yes" ? "no" : "yes"); move(); }
  if (e.target.closest("[data-print-now]")) window.print();
});
unwanted.addEventListener("change", move);
document.addEventListener("bench:shown", move);
move();

// Asked for with Ctrl P elsewhere, the plan prints when it is there.
if ($(".print-sheet") && new URLSearchParams(location.search).has("now")) addEventListener("load", () => window.print());
