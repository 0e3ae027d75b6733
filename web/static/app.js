// What lives only in the page: swapping, lighting up, keys, turning the box.
// Everything that is reckoned is reckoned by the server.
"use strict";

const $ = (selector, from = document) => from.querySelector(selector);

// --- Swapping: the workbench is changed in place, so that the field someone
// is typing in keeps its text and its cursor.
let nudge = "";
let takeAnswer = false; // the answer's text replaces the field's, after a step
htmx.defineExtension("bench", {
  isInlineSwap: (style) => style === "bench",
  handleSwap: (style, target, fragment) => {
    if (style !== "bench") return false;
    const fresh = fragment.firstElementChild || fragment;
    const ignoreActiveValue = !takeAnswer;
    takeAnswer = false;
    // What someone opened stays open.
    const beforeAttributeUpdated = (name, node) => !(name === "open" && node.tagName === "DETAILS");
    return Idiomorph.morph(target, fresh, { morphStyle: "outerHTML", ignoreActiveValue, callbacks: { beforeAttributeUpdated } });
  },
});

// --- Bursts: keys typed in one visit to one field are undone together.
const windowName = "w" + Math.random().toString(36).slice(2, 8);
let visit = 0;
document.addEventListener("focusin", () => { visit++; });

document.addEventListener("htmx:configRequest", (e) => {
  const { verb, elt, parameters } = e.detail;
  if (verb !== "post") return;
  parameters.burst = `${windowName}:${visit}:${elt.id}`;
  if (nudge) { parameters.nudge = nudge; takeAnswer = true; nudge = ""; }
});

// --- Answers out of turn: a slow answer must not take the page back to what it
// showed before. An answer to an older request than the one shown is left
// aside; should it know of newer changes, the page asks for them.
let asked = 0, shown = 0, newest = 0;
document.addEventListener("htmx:beforeRequest", (e) => { e.detail.requestConfig.turn = ++asked; });
document.addEventListener("htmx:beforeSwap", (e) => {
  if (e.detail.target.id !== "workbench" || !e.detail.shouldSwap) return;
  const stamp = Number((/data-stamp="(\d+)"/.exec(e.detail.xhr.responseText) || [])[1] || 0);
  const turn = e.detail.requestConfig.turn;
  newest = Math.max(newest, stamp, Number($("#workbench").dataset.stamp));
  if (turn < shown) e.detail.shouldSwap = false;
  else shown = turn;
  const now = e.detail.shouldSwap ? stamp : Number($("#workbench").dataset.stamp);
  if (now < newest) setTimeout(() => htmx.ajax("GET", location.href, { target: "#workbench", swap: "bench" }), 0);
});

// --- The state of keeping.
const say = (text, trouble) => {
  const kept = $("#kept");
  if (kept) { kept.textContent = text; kept.classList.toggle("trouble", Boolean(trouble)); }
};
const notice = (text) => {
  const n = $("#notice");
  n.textContent = text;
  n.hidden = !text;
};
document.addEventListener("htmx:beforeRequest", (e) => {
  if (e.detail.requestConfig.verb === "post") say("Keeping…");
});
document.addEventListener("htmx:afterRequest", (e) => { if (e.detail.successful) notice(""); });
document.addEventListener("htmx:sendError", () => {
  say("Not kept", true);
  notice("Brevium can't be reached, so the last change is not kept. It is still in its field: start Brevium again and change it once more.");
});
document.addEventListener("htmx:responseError", (e) => {
  const page = new DOMParser().parseFromString(e.detail.xhr.responseText, "text/html");
  say("Not kept", true);
  notice(($("#problem-text", page) || {}).textContent || "That change was not kept. Try again.");
});

// --- Number and line light each other up.
const light = (on) => (e) => {
  const mark = e.target.closest && e.target.closest("[data-link]");
  const link = mark && mark.dataset.link;
  if (!link) return;
  for (const other of document.querySelectorAll(`[data-link="${CSS.escape(link)}"]`)) other.classList.toggle("lit", on);
};
for (const [on, events] of [[true, ["mouseover", "focusin"]], [false, ["mouseout", "focusout"]]]) {
  for (const name of events) document.addEventListener(name, light(on));
}

// --- Keys.
const typing = (el) => el.matches("input:not([type=radio]):not([type=range]), textarea, select");
const press = (selector) => { const el = $(selector); if (el && !el.disabled) el.click(); return Boolean(el); };

document.addEventListener("keydown", (e) => {
  const el = e.target;
  if (el.dataset && el.dataset.nudge && (e.key === "ArrowUp" || e.key === "ArrowDown")) {
    e.preventDefault();
    nudge = `${el.dataset.nudge}:${(e.key === "ArrowUp" ? 1 : -1) * (e.shiftKey ? 8 : 1)}`;
    htmx.trigger(el.form, "submit");
    return;
  }
  if (el.closest && el.closest("[data-turnable] figure") && e.key.startsWith("Arrow")) {
    e.preventDefault();
    turn({ ArrowLeft: [-8, 0], ArrowRight: [8, 0], ArrowUp: [0, 6], ArrowDown: [0, -6] }[e.key]);
    return;
  }
  if (byHandKey(e)) return;
  if (e.key === "Escape" && typing(el)) { el.blur(); return; }
  if (typing(el) || e.altKey) return;
  if (e.ctrlKey || e.metaKey) {
    if (e.key.toLowerCase() === "z" && press(e.shiftKey ? "[data-redo]" : "[data-undo]")) e.preventDefault();
    return;
  }
  if (e.key >= "1" && e.key <= "7") press(`[data-stage="${e.key}"]`);
  const view = { f: "flat", b: "folded", i: "above", a: "styles", w: "ways", s: "sheets", t: "turns" }[e.key.toLowerCase()];
  if (view) press(`[data-view="${view}"]`);
  if (e.key === "<" || e.key === ">") press(`[data-step="${e.key === "<" ? -1 : 1}"]`);
  if (e.key.toLowerCase() === "p") press("[data-print]");
  if (e.key === "?") openKeys();
});

// --- Arranging by hand: a stack moves by steps of the tools; the server says
// where it may stand.
const byHand = (figure, act) => {
  const held = document.activeElement && document.activeElement.dataset.stack;
  htmx.ajax("POST", figure.dataset.byhand, { source: figure, target: "#workbench", swap: "bench", values: { base: figure.dataset.base, act } })
    .then(() => { const again = held && $(`[data-stack="${held}"]`); if (again) again.focus(); });
};
function byHandKey(e) {
  const stack = e.target.closest && e.target.closest("[data-stack]");
  const figure = stack && stack.closest("[data-byhand]");
  if (!figure) return false;
  const by = e.shiftKey ? 8 : 1;
  const step = { ArrowLeft: [-by, 0], ArrowRight: [by, 0], ArrowUp: [0, by], ArrowDown: [0, -by] }[e.key];
  if (step) byHand(figure, `move:${stack.dataset.stack}:${step[0]}:${step[1]}`);
  else if (e.key.toLowerCase() === "r") byHand(figure, `turn:${stack.dataset.stack}`);
  else return false;
  e.preventDefault();
  return true;
}
let drag = null;
document.addEventListener("pointerdown", (e) => {
  const stack = e.target.closest("[data-byhand] [data-stack]");
  if (!stack) return;
  e.preventDefault();
  stack.focus();
  const svg = stack.ownerSVGElement;
  drag = { stack, x: e.clientX, y: e.clientY, scale: svg.viewBox.baseVal.width / svg.getBoundingClientRect().width, step: Number(stack.dataset.step), by: [0, 0] };
});
document.addEventListener("pointermove", (e) => {
  if (!drag) return;
  const steps = (px) => Math.round(px * drag.scale / drag.step);
  drag.by = [steps(e.clientX - drag.x), steps(e.clientY - drag.y)];
  drag.stack.setAttribute("transform", `translate(${drag.by[0] * drag.step} ${drag.by[1] * drag.step})`);
});
document.addEventListener("pointerup", () => {
  if (!drag) return;
  const { stack, by } = drag;
  drag = null;
  stack.removeAttribute("transform");
  if (by[0] || by[1]) byHand(stack.closest("[data-byhand]"), `move:${stack.dataset.stack}:${by[0]}:${-by[1]}`);
});

// --- Turning the folded box.
function turn([yaw, pitch]) {
  const form = $("[data-turnable]");
  const wrap = (n) => ((n + 540) % 360) - 180;
  form.yaw.value = wrap(Number(form.yaw.value) + yaw);
  form.pitch.value = Number(form.pitch.value) + pitch;
  form.yaw.dispatchEvent(new Event("input", { bubbles: true }));
}
// The step the slider has come to, in words; the buttons go from step to step.
function sayStep(form) {
  const at = Number(form.at.value), steps = form.querySelectorAll(".course-steps li"), n = Math.max(1, Math.ceil(at));
  $("[data-course-number]", form).textContent = at > 0 ? `${n} of ${steps.length}` : "Flat";
  $("[data-course-says]", form).textContent = at > 0 ? steps[n - 1].textContent : "The pieces as they are cut.";
  steps.forEach((li, i) => li.classList.toggle("on", at > 0 && i === n - 1));
}
document.addEventListener("input", (e) => { if (e.target.form && e.target.form.matches("[data-turnable]")) sayStep(e.target.form); }, true);
document.addEventListener("click", (e) => {
  const by = e.target.closest("[data-turnable] [data-step]");
  const form = e.target.closest("[data-turnable]");
  if (!form) return;
  const to = (n) => { form.at.value = n; form.at.dispatchEvent(new Event("input", { bubbles: true })); };
  const step = e.target.closest(".course-steps li");
  if (step) to([...step.parentElement.children].indexOf(step) + 1);
  if (by) to(by.dataset.step > 0 ? Math.floor(Number(form.at.value)) + 1 : Math.ceil(Number(form.at.value)) - 1);
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
document.addEventListener("htmx:afterSettle", (e) => { if (e.detail.target.id === "workbench") openFolded(); });
openFolded();

let grip = null;
document.addEventListener("pointerdown", (e) => {
  const figure = e.target.closest("[data-turnable] figure");
  if (!figure) return;
  grip = [e.clientX, e.clientY];
  figure.setPointerCapture(e.pointerId);
});
document.addEventListener("pointermove", (e) => {
  if (!grip || !$("[data-turnable]")) return;
  turn([(grip[0] - e.clientX) / 2, (e.clientY - grip[1]) / 2]);
  grip = [e.clientX, e.clientY];
});
for (const name of ["pointerup", "pointercancel"]) document.addEventListener(name, () => { grip = null; });

document.addEventListener("click", (e) => { if (e.target.closest("[data-print-now]")) window.print(); });

// --- The frame of the page.
const openKeys = () => $("#keys").showModal();
document.addEventListener("alpine:init", () => {
  Alpine.data("shell", () => ({
    openKeys,
    turnTheme() {
      const root = document.documentElement.dataset;
      root.bsTheme = root.bsTheme === "dark" ? "light" : "dark";
      try { localStorage.setItem("theme", root.bsTheme); } catch { /* storage may be off */ }
    },
  }));
});
