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

// The step the slider has come to, in words; the buttons go from step to step.
function sayStep(form) {
  const at = Number(form.at.value), steps = form.querySelectorAll(".course-steps li"), n = Math.max(1, Math.ceil(at));
  $("[data-course-number]", form).textContent = at > 0 ? `${n} of ${steps.length}` : "Flat";
  $("[data-course-says]", form).textContent = at > 0 ? steps[n - 1].textContent : "The pieces as they are cut.";
  steps.forEach((li, i) => li.classList.toggle("on", at > 0 && i === n - 1));
}

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
document.addEventListener("input", (e) => {
  const form = e.target.form;
  if (!form || !form.matches("[data-turnable]")) return;
  sayStep(form);
  remember(form);
}, true);

document.addEventListener("click", (e) => {
  const form = e.target.closest("[data-turnable]");
  if (!form) return;
  const to = (n) => { form.at.value = n; form.at.dispatchEvent(new Event("input", { bubbles: true })); };
  const step = e.target.closest(".course-steps li");
  if (step) to([...step.parentElement.children].indexOf(step) + 1);
  const by = e.target.closest("[data-step]"), at = Number(form.at.value);
  if (by) to(by.dataset.step > 0 ? Math.floor(at) + 1 : Math.ceil(at) - 1);
  const button = e.target.closest("[data-play]");
  if (button && folding) {
    button.textContent = button.textContent === "Play" ? "Stop" : "Play";
    folding.play(form, () => { button.textContent = "Play"; });
  }
});

// The view that turns in the page is loaded when it is first opened, where the
// browser can show it; elsewhere the server draws.
let folding = null;
let able;
const canTurn = () => {
  if (able === undefined) {
    try { able = Boolean(document.createElement("canvas").getContext("webgl2")); } catch { able = false; }
  }
  return able;
};
async function openFolded() {
  const form = $("[data-turnable]");
  if (!form) return;
  sayStep(form);
  if (!canTurn()) return;
  try {
    folding ||= await import(form.dataset.view3d);
    await folding.open(form);
    $("[data-play]", form).hidden = false;
    sayStep(form);
  } catch (err) { console.warn("the server draws the folded box:", err); }
}
document.addEventListener("bench:shown", openFolded);
openFolded();

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
