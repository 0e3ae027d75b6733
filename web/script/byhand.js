// Arranging by hand: a stack moves by steps of the tools; the server says where
// it may stand.
import { act } from "./keep.js";

const move = (figure, what) => act(figure.dataset.byhand, { act: what });

document.addEventListener("keydown", (e) => {
  const stack = e.target.closest && e.target.closest("[data-stack]");
  const figure = stack && stack.closest("[data-byhand]");
  if (!figure || e.ctrlKey || e.metaKey || e.altKey) return;
  const by = e.shiftKey ? 8 : 1;
  const step = { ArrowLeft: [-by, 0], ArrowRight: [by, 0], ArrowUp: [0, by], ArrowDown: [0, -by] }[e.key];
  if (step) move(figure, `move:${stack.dataset.stack}:${step[0]}:${step[1]}`);
  else if (e.key.toLowerCase() === "r") move(figure, `turn:${stack.dataset.stack}`);
  else return;
  e.preventDefault();
}, true);

let drag = null;
document.addEventListener("pointerdown", (e) => {
  const stack = e.target.closest("[data-byhand] [data-stack]");
  if (!stack || e.button) return;
  e.preventDefault();
  stack.focus();
  const svg = stack.ownerSVGElement;
  const scale = svg.viewBox.baseVal.width / svg.getBoundingClientRect().width;
  drag = { stack, x: e.clientX, y: e.clientY, scale, step: Number(stack.dataset.step), by: [0, 0] };
});
document.addEventListener("pointermove", (e) => {
  if (!drag) return;
  const steps = (px) => Math.round(px * drag.scale / drag.step);
  drag.by = [steps(e.clientX - drag.x), steps(e.clientY - drag.y)];
  drag.stack.setAttribute("transform", `translate(${drag.by[0] * drag.step} ${drag.by[1] * drag.step})`);
});
for (const name of ["pointerup", "pointercancel"]) {
  document.addEventListener(name, () => {
    if (!drag) return;
    const { stack, by } = drag;
    drag = null;
    stack.removeAttribute("transform");
    if (name === "pointerup" && stack.isConnected && (by[0] || by[1])) {
      move(stack.closest("[data-byhand]"), `move:${stack.dataset.stack}:${by[0]}:${-by[1]}`);
    }
  });
}
