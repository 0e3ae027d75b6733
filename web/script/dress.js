// What pictures that were held, and the list of steps, say of what is done: as Brevium knows it, and what waits in this
// page on top of it.
import { $ } from "./page.js";
import { items } from "./waiting.js";

// counts gives of each step, in their order, how many of its copies are done.
export function counts(link) {
  const out = new Map();
  for (const row of document.querySelectorAll("[data-aside] li[data-step]")) {
    const { step, done, count, minutes, pictures } = row.dataset;
    out.set(step, { row, now: Number(done), count: Number(count), minutes: Number(minutes), pictures: Number(pictures),
      changed: "changed" in row.dataset });
  }
  for (const item of items()) {
    if (item.link !== link || item.aside) continue;
    if (item.address.endsWith("/again")) for (const s of out.values()) Object.assign(s, { now: 0, changed: false });
    const s = out.get(item.fields.step);
    if (!s || !item.fields.more) continue;
    s.now = Math.max(0, Math.min(s.count, s.now + Number(item.fields.more)));
    s.changed = false;
  }
  return out;
}

const done = (s) => s.now >= s.count && !s.changed;
function row(s, here) {
  const sign = $("[data-sign]", s.row), link = $("a", s.row), undo = $("form", s.row);
  sign.textContent = done(s) ? "✓" : "○";
  sign.classList.toggle("good", done(s));
  $("[data-if-done]", s.row).textContent = done(s) ? "done: " : "";
  $("[data-some]", s.row).textContent = s.changed ? "changed since" : s.now && !done(s) ? `${s.now} of ${s.count}` : "";
  s.row.classList.toggle("here", here);
  if (here) link.setAttribute("aria-current", "step");
  else link.removeAttribute("aria-current");
  if (s.changed) return; // as Brevium wrote it: what was done of what it said before
  undo.hidden = !s.now;
  undo.elements.more.value = -s.now;
}

// dress brings a page at the bench up to what is done.
export function dress(main) {
  const all = counts(main.dataset.link), here = all.get(main.dataset.step), steps = [...all.values()];
  const ready = steps.filter(done).length;
  for (const [id, s] of all) row(s, id === main.dataset.step);
  const bar = $(".at-progress", main);
  bar.value = ready;
  bar.ariaLabel = `${ready} of ${steps.length} steps done`;
  const left = Math.floor(steps.reduce((sum, s) => sum + s.minutes * (1 - (s.changed ? 0 : s.now) / Math.max(1, s.count)), 0.5));
  const togo = $("[data-to-go]", main), ended = $("[data-ended]", main);
  if (togo) togo.textContent = left ? `about ${left} min to go` : "nearly done";
  if (ended) {
    ended.textContent = ready === steps.length ? "All done" : `${ready} of ${steps.length} steps are done`;
    $("[data-if-left]", main).hidden = ready === steps.length;
  }
  for (const form of main.querySelectorAll("[data-sends=away]")) {
    form.closest("li").hidden = items().some((item) => item.address === form.action);
  }
  const camera = $("[data-sends=photo]", main);
  if (camera) camera.elements.step.value = main.dataset.step;
  if (here) ofStep(main, here);
}

function ofStep(main, s) {
  const changed = $("[data-if-changed]", main), one = $("[data-another]", main), rest = $("[data-rest]", main);
  if (changed) changed.hidden = !s.changed;
  if (one) {
    one.hidden = s.now + 1 >= s.count;
    $("[data-so-many]", one).textContent = s.now;
  }
  if (rest) rest.value = s.count - s.now;
}
