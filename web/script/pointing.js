// Pointing at a panel: in the folded view, on the drawing, or on the list. All do what
// the panel's button does.
import { $ } from "./page.js";

const buttonOf = (ref) => ref && $(`[data-panel="${CSS.escape(ref)}"]`);

document.addEventListener("face:pointed", (e) => {
  const button = buttonOf(e.detail);
  if (button) button.click();
});

document.addEventListener("click", (e) => {
  const face = e.target.closest && e.target.closest("svg [data-face]");
  const button = face && buttonOf(face.dataset.face);
  if (button) button.click();
});

// The face under the pointer is named, and its button lit.
let lit = null;
function light(button) {
  if (lit === button) return;
  if (lit) lit.classList.remove("pointed");
  lit = button;
  if (lit) lit.classList.add("pointed");
}
document.addEventListener("face:over", (e) => light(buttonOf(e.detail)));
document.addEventListener("pointerover", (e) => {
  const face = e.target.closest && e.target.closest("svg [data-face]");
  if (face || lit) light(face ? buttonOf(face.dataset.face) : null);
});
