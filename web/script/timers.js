// Timers, for holding and drying. They run on over steps and end by this device's clock; other devices at the same
// bench show them too.
import { $, remembered, remember, tell } from "./page.js";
import { items, put } from "./waiting.js";

const main = () => $("[data-at-bench]");
const two = (n) => String(n).padStart(2, "0");
export const clockOf = (s) =>
  (s >= 3600 ? `${Math.floor(s / 3600)}:${two(Math.floor(s / 60) % 60)}` : Math.floor(s / 60)) + `:${two(s % 60)}`;

// ends says when each ends, by its key: link, step and what it is for. The page reads it where it stands.
export let time = { now: Date.now(), ends: {} };
try { time.ends = JSON.parse(remembered("timers") || "{}"); } catch { /* none */ }
export function timesIn(store) { time = store; }

const rung = new Set();
const keyOf = (link, step, what) => [link, step, what].join("|");
function endsAt(key, end) {
  if (end) time.ends[key] = end;
  else delete time.ends[key];
  rung.delete(key);
  remember("timers", JSON.stringify(time.ends));
}

// waits lets those ring that have ended, and forgets them ten minutes later.
export function waits(speak) {
  time.now = Date.now();
  for (const [key, end] of Object.entries(time.ends)) {
    if (end <= time.now && !rung.has(key)) {
      rung.add(key);
      tell(`Time is up: ${key.split("|").pop().toLowerCase()}.`);
      if (navigator.vibrate) navigator.vibrate([200, 100, 200]);
      speak("Time is up.");
    }
    if (time.now - end > 600000) endsAt(key);
  }
}

// shared brings the timers to what all devices at this bench have, but for those that have not been sent yet.
export function shared() {
  const { link, timers } = main().dataset;
  if (timers === undefined) return;
  const own = new Set(items().filter((item) => item.address === `${link}/timer`)
    .map((item) => keyOf(link, item.fields.step, item.fields.what)));
  const there = new Map(JSON.parse(timers).map((t) => [keyOf(link, t.step, t.what), Date.now() + t.left]));
  for (const key of Object.keys(time.ends)) if (key.startsWith(`${link}|`) && !there.has(key) && !own.has(key)) endsAt(key);
  for (const [key, end] of there) {
    if (!own.has(key) && Math.abs((time.ends[key] || 0) - end) > 2000) endsAt(key, end);
  }
}

// A thumb that set a timer wants Space to turn the page again, not to stop it.
export const thumbed = (e) => e.detail && $("#at-title").focus({ preventScroll: true });

document.addEventListener("alpine:init", () => {
  Alpine.data("wait", () => ({
    init() {
      this.step = main().dataset.step;
      this.link = main().dataset.link;
      this.key = keyOf(this.link, this.step, this.$el.dataset.what);
    },
    get ms() { return time.ends[this.key] ? time.ends[this.key] - time.now : this.$root.dataset.wait * 1000; },
    get left() { return clockOf(Math.max(0, Math.ceil(this.ms / 1000))); },
    get state() { return time.ends[this.key] ? (this.ms > 0 ? "running" : "over") : ""; },
    press(e) {
      time.now = Date.now();
      const end = time.ends[this.key] ? 0 : time.now + this.$root.dataset.wait * 1000;
      endsAt(this.key, end);
      const fields = { step: this.step, what: this.$root.dataset.what, ...(!end && { stop: "1" }) };
      put(this.link, `${this.link}/timer`, fields, end);
      thumbed(e);
    },
  }));
});
