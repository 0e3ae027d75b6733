// What is typed and pressed becomes changes in the queue.
import { $, bench, tell } from "./page.js";
import { entries, isOnItsWay, put, ready, flush, waiting, unstick, stuck } from "./queue.js";
import { typing } from "./swap.js";

// Keys typed in one visit to one field are undone together.
let visit = 0;
document.addEventListener("focusin", () => { visit++; });
const windowName = Math.random().toString(36).slice(2, 8);
// opened is the newest change there was when this window was: later ones that are not its own are another's.
const opened = bench() ? bench().dataset.base : "";

const base = () => bench().dataset.base;
const read = (el) => (el.type === "checkbox" ? (el.checked ? "yes" : "no") : el.value);
const isField = (el) => Boolean(el.name && el.form && el.form.id === "brief" && el.closest("[data-kept]"));

// keptOf gives what the page knows to be kept of a field.
const keptOf = (name) => {
  const field = $(`#brief [name="${CSS.escape(name)}"]`), holder = field && field.closest("[data-kept]");
  return holder ? holder.dataset.kept : undefined;
};

// lastOf gives what waits of a field, the newest of it.
function lastOf(name) {
  for (const entry of entries().toReversed()) if (entry.fields && entry.fields.has(name)) return entry.fields.get(name);
  return null;
}

// openEntry gives the entry that a change of a field goes into: the last that
// has not been sent, if it is of the same visit and the same state of the page.
function openEntry(el) {
  const burst = `${windowName}:${visit}:${el.name}`, last = entries().at(-1);
  const open = last && last.fields && !last.sent && !isOnItsWay(last);
  if (open && last.burst === burst && last.base === base()) return last;
  const entry = {
    verb: "POST", url: `${bench().dataset.path}/change`, fields: new Map(), base: base(), burst, after: 1,
    values() {
      const values = { base: this.base, burst: this.burst, nudge: [] };
      for (const [name, f] of this.fields) {
        if (f.value !== undefined) {
          values[name] = f.value;
          // Typed behind steps that were on their way, it was what they came to.
          const was = f.was === undefined ? keptOf(name) : f.was;
          if (was !== undefined) values[`was.${name}`] = was;
        }
        if (f.steps) { values.nudge.push(`${name}:${f.steps}`); values["nudged-from"] = f.from; }
      }
      return values;
    },
  };
  return put(entry);
}

const pause = 350; // ms without a key before what is typed is sent
const lastTyped = new WeakMap();

// shownIn is what the page knows of a field: what waits, what was typed in this
// visit, or what the server wrote there. Of a choice that is made, nothing.
function shownIn(el, before) {
  if (before && before.value !== undefined) return before.value;
  if (lastTyped.has(el)) return lastTyped.get(el);
  return el.matches("input[type=text], textarea") ? el.defaultValue : undefined;
}

function change(el, now) {
  const value = read(el), before = lastOf(el.name);
  if (value !== shownIn(el, before)) {
    const entry = openEntry(el), f = entry.fields.get(el.name) || {};
    if (!entry.fields.has(el.name)) {
      if (!before) f.was = el.closest("[data-kept]").dataset.kept;
      else if (!before.steps) f.was = before.value;
    }
    f.value = value;
    f.steps = 0;
    entry.fields.set(el.name, f);
    lastTyped.set(el, value);
    unstick(el.name);
    clearTimeout(entry.after);
    entry.after = setTimeout(() => ready(entry), pause);
  }
  if (now) flush();
}

// nudge moves a field by steps of the tools; the server reckons.
export function nudge(el, steps) {
  typing(null);
  const entry = openEntry(el), f = entry.fields.get(el.name) || {};
  f.steps = (f.steps || 0) + steps;
  f.from = el.placeholder;
  entry.fields.set(el.name, f);
  lastTyped.delete(el);
  ready(entry);
}

document.addEventListener("input", (e) => {
  if (!isField(e.target) || !e.target.matches("input[type=text], textarea")) return;
  typing(e.target);
  change(e.target, false);
});
document.addEventListener("change", (e) => {
  if (isField(e.target)) change(e.target, true);
  const form = e.target.closest("form[data-bench-get]");
  if (form) go(`${form.getAttribute("action")}?${new URLSearchParams(new FormData(form))}`);
});
document.addEventListener("focusout", (e) => lastTyped.delete(e.target));

// Enter commits the field and does nothing else.
document.addEventListener("keydown", (e) => {
  if (e.key !== "Enter" || e.isComposing || !isField(e.target) || !e.target.matches("input")) return;
  e.preventDefault();
  if (e.target.type === "text") change(e.target, true);
});

// What stood in a field and was not kept stands there again, as soon as the page has that field.
function putBack() {
  for (const [name, text] of [...stuck]) {
    const el = document.querySelector(`#brief [name="${CSS.escape(name)}"]:is(input[type=text], textarea)`);
    if (!el || text === undefined) continue;
    if (el.defaultValue === text) unstick(name);
    if (el.value === text) continue;
    el.value = text;
    setTimeout(tell, 0, "What you typed was not saved. It is back in its field. Press Enter there to try again.");
  }
}
document.addEventListener("bench:shown", putBack);
putBack();

// --- Buttons. What each does is undone by itself.
let presses = 0;
const pressed = () => `${windowName}:press${++presses}`;
function press(form, button, values, url) {
  const all = { base: base(), burst: pressed(), window: windowName, ...values };
  if ("since" in all) all.since = opened;
  if (button && button.name) all[button.name] = button.value;
  // Behind changes of this window, the page will show their outcome by then. A
  // button that goes back to an older state names it.
  const behind = waiting() && all.base === base();
  flush();
  put({ verb: "POST", url, values: () => (behind ? { ...all, base: base() } : all) });
}

document.addEventListener("submit", (e) => {
  const form = e.target, button = e.submitter;
  if (form.id === "brief") {
    e.preventDefault();
    if (!button || !button.name) { flush(); return; }
    const to = button.getAttribute("formaction") || form.getAttribute("action");
    const along = [...form.querySelectorAll("[data-along]")].map((el) => [el.name, el.value]);
    press(form, button, Object.fromEntries(along), to);
  } else if (form.matches("[data-bench]")) {
    e.preventDefault();
    press(form, button, Object.fromEntries(new FormData(form)), form.getAttribute("action"));
    if (form.dataset.then) go(form.dataset.then);
  } else if (form.matches("[data-bench-get], [data-turnable]")) {
    e.preventDefault();
  } else if (bench() && waiting()) {
    e.preventDefault();
    flush().then(() => form.submit());
  }
});

export function act(url, values) {
  const burst = pressed();
  flush();
  put({ verb: "POST", url, values: () => ({ base: base(), burst, ...values }) });
}

// --- Other ways to look at the box.
export function go(url, focus) {
  flush();
  put({ verb: "GET", url, focus, done: () => history.pushState({ bench: true }, "", url) });
}
addEventListener("popstate", () => { if (bench()) put({ verb: "GET", url: location.pathname + location.search }); });

document.addEventListener("click", (e) => {
  const link = e.target.closest("a[href]");
  const held = e.ctrlKey || e.metaKey || e.shiftKey || e.altKey;
  if (!link || e.defaultPrevented || e.button || held || link.getAttribute("target")) return;
  if (link.matches("[data-go]")) {
    e.preventDefault();
    go(link.getAttribute("href"));
  } else if (bench() && waiting() && !link.getAttribute("href").startsWith("#") && !link.hasAttribute("hx-get")) {
    e.preventDefault();
    flush().then(() => location.assign(link.href));
  }
});
