// The workbench is changed in place: fields that were changed since keep their
// text, and focus and scroll stay where the hand was.
import { $, bench } from "./page.js";
import { entries, isOnItsWay, held, shown, stuck } from "./queue.js";

// typedIn is the field that someone is typing in: its text is theirs until they
// leave it.
let typedIn = null;
export const typing = (el) => { typedIn = el; };
document.addEventListener("focusout", (e) => {
  const el = e.target;
  if (el !== typedIn) return;
  typedIn = null;
  // Left alone, it shows what is kept.
  setTimeout(() => {
    const busy = stuck.has(el.name) || entries().some((entry) => entry.fields && entry.fields.has(el.name));
    if (busy || !el.isConnected || el === document.activeElement || el.defaultValue === undefined) return;
    el.value = el.defaultValue;
  }, 0);
});

const state = (el) => (el.type === "checkbox" || el.type === "radio" ? el.checked : el.value);
function setState(el, was) {
  if (el.type === "checkbox" || el.type === "radio") el.checked = was;
  else if (el.value !== was) el.value = was;
}

// fields finds the fields of the page that go by a name.
const fields = (name) => document.querySelectorAll(`#brief [name="${CSS.escape(name)}"]:not([type=hidden])`);

// whence notes where the focus is, from the element out to the page.
function whence() {
  const ids = [];
  for (let el = document.activeElement; el && el !== document.body; el = el.parentElement) if (el.id) ids.push(el.id);
  return ids;
}

export function focusOn(el) {
  if (!el || el.disabled) return false;
  el.focus({ preventScroll: false });
  if (document.activeElement === el) {
    if (el.matches("input[type=text]")) el.select();
    return true;
  }
  el.tabIndex = -1;
  el.focus();
  return document.activeElement === el;
}

// refocus puts the focus where a person would look for it.
function refocus(ids, wanted) {
  for (const id of wanted) if (id && focusOn(document.getElementById(id))) return;
  const now = document.activeElement;
  if (now && now !== document.body && now.isConnected && !now.disabled) return;
  if (ids.length === 0) return; // it was nowhere before
  const other = { undo: "redo", redo: "undo" };
  for (const id of ids) {
    if (focusOn(document.getElementById(id)) || focusOn(document.getElementById(other[id]))) return;
  }
  focusOn(bench());
}

// selectionIn notes what is selected in a field, to select it again when its text
// has changed: who stepped a number and types over it means all of it.
function selectionIn(el) {
  if (!el || !el.matches("input[type=text]")) return () => {};
  const { value, selectionStart: from, selectionEnd: to } = el;
  const whole = value && from === 0 && to === value.length;
  return () => {
    if (el !== document.activeElement || el.value === value) return;
    if (whole) el.select();
    else el.setSelectionRange(from, to);
  };
}

// redrawn puts a picture or a long text in another's place whole: that takes less time than to find what of it has changed.
function redrawn(picture, now) {
  if (picture.isEqualNode(now)) return true;
  for (const { name } of [...picture.attributes]) if (!now.hasAttribute(name)) picture.removeAttribute(name);
  for (const { name, value } of now.attributes) picture.setAttribute(name, value);
  picture.replaceChildren(...now.childNodes);
  return true;
}

htmx.defineExtension("bench", {
  isInlineSwap: (style) => style === "bench",
  handleSwap: (style, target, fragment) => {
    if (style !== "bench") return false;
    const fresh = fragment.firstElementChild;
    if (!fresh) return []; // an answer with nothing in it changes nothing
    const entry = entries().find(isOnItsWay) || {};
    const keep = new Map();
    const hold = (el) => keep.set(el, state(el));
    for (const name of held()) fields(name).forEach(hold);
    const active = document.activeElement;
    if (typedIn && typedIn === active) hold(active);
    const chosen = selectionIn(active);
    const inPicture = Boolean(active && active.closest("svg"));
    const ids = whence(), stage = target.dataset.stage, view = target.dataset.view;
    // Marks within pictures are no state to keep: around what keeps marks, the
    // morph makes elements anew, and it knows no pictures.
    for (const el of target.querySelectorAll("svg [id]")) el.removeAttribute("id");
    // What someone opened stays open, and what Alpine says of an element is the page's own: no answer knows of it.
    const own = (name, node) => (name === "open" && node.tagName === "DETAILS") || node.hasAttribute(`:${name}`) ||
      name === "x-cloak" || (name === "style" && node.matches("[x-show], [x-show\\.important]"));
    const twin = active && active.id && fresh.querySelector(`#${CSS.escape(active.id)}`);
    const text = !twin ? null : twin.getAttribute("value");
    fresh.remove();
    const out = Idiomorph.morph(target, fresh, {
      morphStyle: "outerHTML", ignoreActiveValue: keep.has(active), callbacks: {
        beforeAttributeUpdated: (name, node) => !own(name, node),
        beforeNodeMorphed: (node, now) => !(node.matches && (node.matches("svg, [data-whole]") ? redrawn(node, now) :
          node.matches("[x-text]"))),
      },
    });
    for (const [el, was] of keep) if (el.isConnected) setState(el, was);
    if (text !== null && keep.has(active)) active.setAttribute("value", text);
    chosen();
    const now = bench();
    document.title = now.dataset.title;
    if (now.dataset.stage !== stage && $(".brief")) $(".brief").scrollTop = 0;
    if (now.dataset.view !== view && $(".worktable")) $(".worktable").scrollTop = 0;
    refocus(ids, [now.dataset.focus, entry.focus, inPicture && ids[0]]);
    delete now.dataset.focus;
    document.dispatchEvent(new CustomEvent("bench:shown"));
    shown();
    return out;
  },
});
