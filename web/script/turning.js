// Turning the folded box, and going through its making.
import { $ } from "./page.js";

// turn moves the eye by degrees.
function turn([yaw, pitch]) {
  const form = $("[data-turnable]");
  const wrap = (n) => ((n + 540) % 360) - 180;
  form.yaw.value = wrap(Number(form.yaw.value) + yaw);
  form.pitch.value = Number(form.pitch.value) + pitch;
  form.yaw.dispatchEvent(new Event("input", { bubbles: true }));
}

document.addEventListener("keydown", (e) => {
  if (!e.target.closest || !e.target.closest("[data-turnable] figure") || !e.key.startsWith("Arrow")) return;
  e.preventDefault();
  turn({ ArrowLeft: [-8, 0], ArrowRight: [8, 0], ArrowUp: [0, 6], ArrowDown: [0, -6] }[e.key]);
}, true);

// The address holds how the box is seen, so that a reload shows it so again.
let later = 0;
function remember(form) {
  clearTimeout(later);
  later = setTimeout(() => {
    if (!form.isConnected) return;
    const address = new URL(location.href);
    for (const name of ["at", "lift", "yaw", "pitch"]) address.searchParams.set(name, form[name].value);
    history.replaceState(history.state, "", address);
  }, 250);
}

let able;
const canTurn = () => {
  if (able === undefined) {
    try { able = Boolean(document.createElement("canvas").getContext("webgl2")); } catch { able = false; }
  }
  return able;
};

// The step the slider has come to, in words; buttons and the list go from step to step.
let folding = null;
document.addEventListener("alpine:init", () => Alpine.data("course", () => ({
  at: 0, number: "", says: "", turns: false, playing: false,
  init() { this.open(); },
  // The view that turns in the page is loaded when it is first opened, where the browser can show it; elsewhere the
  // server draws.
  async open() {
    const form = this.$root;
    this.read();
    if (!canTurn()) return;
    try {
      folding ||= await import(form.dataset.view3d);
      await folding.open(form);
      this.turns = true;
      this.read();
    } catch (err) { console.warn("the server draws the folded box:", err); }
  },
  read() {
    const steps = this.$root.querySelectorAll(".course-steps li");
    this.at = Number(this.$root.at.value);
    const n = Math.max(1, Math.ceil(this.at));
    this.number = this.at > 0 ? `${n} of ${steps.length}` : "Flat";
    this.says = this.at > 0 ? steps[n - 1].textContent : "The pieces, cut out and flat.";
  },
  moved() { this.read(); remember(this.$root); },
  to(n) {
    this.$root.at.value = n;
    this.$root.at.dispatchEvent(new Event("input", { bubbles: true }));
  },
  back() { this.to(Math.ceil(this.at) - 1); },
  on() { this.to(Math.floor(this.at) + 1); },
  mark(n) { return this.at > 0 && Math.max(1, Math.ceil(this.at)) === n ? "on" : ""; },
  play() {
    if (!folding) return;
    this.playing = true;
    folding.play(this.$root, () => { this.playing = false; }); // pressed again, it stops
  },
  get presses() { return this.playing ? "Stop" : "Play"; },
})));

// A finger that moves across turns the box; one that moves up or down scrolls
// the page. A mouse does both.
let grip = null;
document.addEventListener("pointerdown", (e) => {
  const figure = e.target.closest("[data-turnable] figure");
  if (!figure || e.button) return;
  grip = { x: e.clientX, y: e.clientY, touch: e.pointerType === "touch" };
  if (!grip.touch) figure.setPointerCapture(e.pointerId);
});
document.addEventListener("pointermove", (e) => {
  if (!grip || !$("[data-turnable]")) return;
  turn([(grip.x - e.clientX) / 2, grip.touch ? 0 : (e.clientY - grip.y) / 2]);
  grip.x = e.clientX;
  grip.y = e.clientY;
});
for (const name of ["pointerup", "pointercancel"]) document.addEventListener(name, () => { grip = null; });
