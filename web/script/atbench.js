// The work at the bench: one step fills the screen. All pictures are in the page, and what is done waits in it until it
// has arrived, so that the work goes on without a line.
import { $, remembered, remember, tell } from "./page.js";
import { begin as keepAwake, wake } from "./awake.js";
import { dropAll, hold, pictureAt } from "./held.js";
import { counts, dress } from "./dress.js";
import { clockOf, shared, thumbed, timesIn, waits } from "./timers.js";
import { flush, forget, items, load, onChange, put, sendAgain } from "./waiting.js";

const main = () => $("[data-at-bench]");
const link = () => main().dataset.link;

// What the page shows of all this: Alpine tells it wherever it stands.
let bench = { now: 0, ends: {}, seconds: 0, awake: false, aloud: remembered("aloud") === "yes", line: "", aside: "" };
const canSpeak = "speechSynthesis" in window;

// --- How long a step takes: while it is looked at, and not while the page is away. It is measured by a clock that
// nobody sets.
let step = "", spent = 0, since = 0;
const tick = () => performance.now();
const lapse = () => spent + (since ? tick() - since : 0);
function begin() {
  if (main().dataset.step !== step) { step = main().dataset.step; spent = 0; }
  since = document.hidden ? 0 : since || tick();
}
function clock() {
  bench.seconds = Math.floor(lapse() / 1000);
  const field = $("[data-seconds]");
  if (field) field.value = Math.round(lapse() / 100) / 10;
}
async function stayAwake() { bench.awake = await wake(); }

// --- Reading aloud, with the browser's own voice.
function read() {
  if (!canSpeak) return;
  speechSynthesis.cancel();
  const says = $("[data-says]");
  // A slash between figures is read as a fraction where it is spelt as one.
  if (says) speak(says.dataset.says.replaceAll("×", "by").replaceAll("⁄", "/"));
}
function speak(text) {
  if (!bench.aloud || !canSpeak) return;
  const voice = new SpeechSynthesisUtterance(text);
  voice.lang = document.documentElement.lang;
  speechSynthesis.speak(voice);
}

document.addEventListener("alpine:init", () => {
  Alpine.store("bench", Object.assign(bench, { ends: {} }));
  bench = Alpine.store("bench");
  timesIn(Alpine.store("bench"));
  Alpine.data("benchClock", () => ({
    get says() { return bench.seconds < 5 ? "" : `· ${clockOf(bench.seconds)}`; },
  }));
  Alpine.data("voice", () => ({
    canSpeak,
    turn(e) {
      bench.aloud = !bench.aloud;
      remember("aloud", bench.aloud ? "yes" : "no");
      if (bench.aloud) read();
      else if (canSpeak) speechSynthesis.cancel();
      thumbed(e);
    },
  }));
  Alpine.data("aside", () => ({
    get has() { return Boolean(bench.aside); },
    get says() { return bench.aside; },
    again() { for (const item of aside()) sendAgain(item); },
    drop() { for (const item of aside()) forget(item); say(); },
  }));
});

// --- From one picture to another: out of those the page holds, or from Brevium while it holds none.
let going = null;
async function go(address, { push = true, instead = false, quiet = false } = {}) {
  const here = quiet ? null : pictureAt(address, firstLeft());
  going?.abort();
  if (here) {
    show(here, { aside: $("[data-aside]") });
    return came(address, push, instead);
  }
  const mine = going = new AbortController();
  const late = setTimeout(() => mine.abort(new Error("no answer")), 30000);
  try {
    const answer = await fetch(address, { signal: mine.signal });
    const page = new DOMParser().parseFromString(await answer.text(), "text/html");
    const fresh = page.querySelector("[data-at-bench]");
    if (!fresh || !answer.ok) {
      if (quiet && answer.redirected) return lineIs("out");
      location.assign(answer.url);
      return;
    }
    // What was pressed since it was asked for is not turned back.
    if (!quiet || new URL(answer.url).search === new URL(address, location.href).search) {
      if (quiet && address !== location.href) return;
      show(document.adoptNode(fresh), { quiet });
      came(answer.url, push, instead);
    }
  } catch (e) {
    if (e.name === "AbortError" || quiet) return;
    begin();
    lineIs("line");
    tell("There is no connection to Brevium. Try again when it is back.");
  } finally {
    clearTimeout(late);
    if (going === mine) going = null;
  }
}

function came(address, push, instead) {
  if (instead) history.replaceState(null, "", address);
  else if (push) history.pushState(null, "", address);
  remember(place(), location.search);
}

// show puts a page in place of the one there was; quietly, what one looks at and has in hand stays where it is. A
// picture that was held gets the list of steps of the page before it.
function show(fresh, { quiet = false, aside = null }) {
  const was = main(), held = quiet && was.contains(document.activeElement) ? document.activeElement : null;
  for (const el of was.querySelectorAll(quiet ? "details[id]" : "#at-list")) {
    const same = $(`#${el.id}`, fresh);
    if (same) same.open = el.open;
  }
  if (aside) ($(".at-work", fresh) || $(".at-done", fresh)).append(aside);
  was.replaceWith(fresh);
  document.title = fresh.dataset.title;
  if (quiet) {
    const alike = (el) => el.tagName === held.tagName && el.ariaLabel === held.ariaLabel && el.textContent === held.textContent;
    if (held) ([...fresh.querySelectorAll(held.tagName)].find(alike) || $("#at-title")).focus({ preventScroll: true });
  } else {
    tell("");
    $("#at-title").focus({ preventScroll: true });
    scrollTo(0, 0);
  }
  if (aside) fresh.dataset.stamp = stamp;
  stamp = fresh.dataset.stamp;
  shown(quiet);
}
let stamp = "";

function shown(quiet) {
  begin();
  clock();
  shared();
  dress(main());
  waits(speak);
  stayAwake();
  if (!quiet && bench.aloud) read();
}

// --- What is done goes into the queue, and the page goes on at once.
const firstLeft = () => ([...counts(link())].find(([, s]) => s.now < s.count) || [""])[0];
function after(of) { // where one goes when so many of a step are done
  const all = [...counts(link())], n = all.findIndex(([id]) => id === of);
  if (n < 0) return ""; // the box was changed: what is next is asked
  const s = all[n][1];
  if (s.now < s.count) return `?${new URLSearchParams({ step: of, picture: Math.max(1, s.pictures) })}`;
  return `?${new URLSearchParams({ step: n + 1 < all.length ? all[n + 1][0] : "all" })}`;
}
let pressed = 0;
async function submit(form, button) {
  const kind = form.dataset.sends;
  clock();
  const fields = Object.fromEntries(new FormData(form, button));
  if (kind === "tick") {
    pressed = Date.now();
    spent = since = 0;
    step = "";
  }
  if (kind !== "tick" || fields.more !== "0") await put(link(), form.action, fields);
  if (kind === "tick") go(link() + after(fields.step));
  else if (kind === "again") { step = ""; go(`${link()}?${new URLSearchParams({ step: firstLeft() })}`); }
  if (kind === "photo") form.reset();
  dress(main());
}

// --- The line, and what waits for it.
const aside = () => items().filter((item) => item.aside);
let trouble = "";
function lineIs(now, says = "") {
  trouble = now;
  if (says) tell(says);
  if (now === "out") {
    dropAll();
    tell("This device was signed out. Scan the code on the computer again. What you ticked is kept here.", true);
  }
  say();
}
function say() {
  const n = items().filter((item) => !item.aside).length;
  const kept = n === 1 ? "One thing you did is kept on this device and sent later." :
    `${n} things you did are kept on this device and sent later.`;
  bench.aside = aside().map((item) => item.aside)[0] || "";
  bench.line = trouble === "line" ? `No connection. ${n ? kept : "You can go on."}` : trouble === "out" && n ? kept : "";
}

// elsewhere looks whether another device has ticked something, or the box was changed.
let looking = false;
async function elsewhere() {
  if (document.hidden || !main() || looking) return;
  if (items().some((item) => !item.aside)) { flush(); return; }
  looking = true;
  try {
    const answer = await fetch(`${link()}/stamp`, { signal: AbortSignal.timeout(8000) });
    if (answer.redirected || answer.status === 401) { lineIs("out"); return; }
    if (!answer.ok) return;
    if (trouble) lineIs("");
    if ((await answer.text()) !== stamp) await go(location.href, { push: false, quiet: true });
    hold(main());
  } catch { lineIs("line"); } finally { looking = false; }
}

const press = (way) => { const el = $(`[data-way="${way}"]`, $(".at-ways") || document); if (el) el.click(); return Boolean(el); };

function listen() {
  document.addEventListener("click", (e) => { // the finger came down twice for one tick
    if (e.detail > 1 && Date.now() - pressed < 400 && e.target.closest(".at-ways")) e.preventDefault();
  }, true);
  document.addEventListener("click", (e) => {
    if (e.defaultPrevented) return;
    const to = e.target.closest("a[data-way]");
    if (to && !e.ctrlKey && !e.metaKey && !e.shiftKey) { e.preventDefault(); go(to.href); }
  });
  document.addEventListener("submit", (e) => {
    if (!e.target.matches("[data-at-bench] [data-sends]")) return;
    e.preventDefault();
    submit(e.target, e.submitter);
  });
  document.addEventListener("change", (e) => {
    if (e.target.matches("#at-photo") && e.target.files.length) e.target.form.requestSubmit();
  });
  document.addEventListener("keydown", (e) => {
    if (e.repeat || e.altKey || e.ctrlKey || e.metaKey || e.target.closest("input, dialog[open], select, textarea")) return;
    const onButton = e.target.closest("a, button, summary");
    if (e.key === "ArrowRight" || (e.key === " " && !onButton)) { if (press("on")) e.preventDefault(); }
    if (e.key === "ArrowLeft") { if (press("back")) e.preventDefault(); }
  });
  addEventListener("popstate", () => go(location.href, { push: false }));
  document.addEventListener("visibilitychange", () => {
    if (document.hidden) { spent = lapse(); since = 0; return; }
    since = tick();
    stayAwake();
    elsewhere();
  });
  addEventListener("online", elsewhere);
  setInterval(() => { clock(); waits(speak); }, 500);
  setInterval(elsewhere, 5000);
  onChange((now, says = "", busy = false) => { // busy: the line is as it was
    if (!busy) lineIs(now, says);
    if (main()) dress(main());
    if (!now && !busy && !items().length) elsewhere();
  });
}

// Opened again, the bench is at the picture where one was, as long as its step is still the next.
const place = () => `bench:${link()}`;
function resume() {
  const was = remembered(place());
  if (location.search || !was || new URLSearchParams(was).get("step") !== firstLeft()) return;
  go(link() + was, { instead: true });
}

if (main()) {
  if (innerWidth >= 900 && $("#at-list")) $("#at-list").open = true;
  stamp = main().dataset.stamp;
  listen();
  keepAwake(main().dataset.film, (is) => { bench.awake = is; });
  load().then(() => {
    shown();
    resume();
    hold(main());
    flush();
  });
}
