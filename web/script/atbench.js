// The work at the bench: one step fills the screen. Steps are turned without the page
// being loaded anew, so that the screen stays awake and timers run on.
import { $, remembered, remember, tell } from "./page.js";

const main = () => $("[data-at-bench]");

// What the page shows of the time: Alpine tells it wherever it stands.
let bench = { now: Date.now(), seconds: 0, awake: false, aloud: remembered("aloud") === "yes", ends: {} };
const canSpeak = "speechSynthesis" in window;

// --- How long a step takes: while it is looked at, and not while the page is away.
let step = "", spent = 0, since = 0;
const lapse = () => spent + (since ? Date.now() - since : 0);
function begin() {
  if (main().dataset.step !== step) { step = main().dataset.step; spent = 0; }
  since = document.hidden ? 0 : since || Date.now();
}
function clock() {
  bench.seconds = Math.floor(lapse() / 1000);
  const field = $("[data-seconds]");
  if (field) field.value = Math.round(lapse() / 100) / 10;
}

// --- The screen is kept awake, where the browser can.
let lock = null;
async function wake() {
  try {
    if (!document.hidden && (!lock || lock.released)) lock = await navigator.wakeLock.request("screen");
  } catch { lock = null; }
  bench.awake = Boolean(lock && !lock.released);
}

// --- Reading aloud, with the browser's own voice.
function read() {
  if (!canSpeak) return;
  speechSynthesis.cancel();
  const says = $("[data-says]");
  // A slash between figures is read as a fraction where it is spelt as one.
  if (bench.aloud && says) speak(says.dataset.says.replaceAll("×", "by").replaceAll("⁄", "/"));
}
function speak(text) {
  const voice = new SpeechSynthesisUtterance(text);
  voice.lang = document.documentElement.lang;
  speechSynthesis.speak(voice);
}

// --- Timers, for holding and drying. They run on over steps, and end by time of day.
const two = (n) => String(n).padStart(2, "0");
const clockOf = (s) => (s >= 3600 ? `${Math.floor(s / 3600)}:${two(Math.floor(s / 60) % 60)}` : Math.floor(s / 60)) + `:${two(s % 60)}`;
function endsAt(key, end) {
  if (end) bench.ends[key] = end;
  else delete bench.ends[key];
  rung.delete(key);
  try { sessionStorage.setItem("timers", JSON.stringify(bench.ends)); } catch { /* storage may be off */ }
}
try { Object.assign(bench.ends, JSON.parse(sessionStorage.getItem("timers") || "{}")); } catch { /* none */ }
const rung = new Set();
function waits() {
  bench.now = Date.now();
  for (const [key, end] of Object.entries(bench.ends)) {
    if (end <= bench.now) ring(key);
    if (bench.now - end > 600000) endsAt(key);
  }
}
function ring(key) {
  if (rung.has(key)) return;
  rung.add(key);
  tell(`Time is up: ${key.split("|").pop().toLowerCase()}.`);
  if (navigator.vibrate) navigator.vibrate([200, 100, 200]);
  if (bench.aloud && canSpeak) speak("Time is up.");
}
// A thumb that set a timer wants Space to turn the page again, not to stop it.
const thumbed = (e) => e.detail && $("#at-title").focus({ preventScroll: true });

document.addEventListener("alpine:init", () => {
  Alpine.store("bench", bench);
  bench = Alpine.store("bench");
  Alpine.data("benchClock", () => ({
    get says() { return bench.seconds < 5 ? "" : `· ${clockOf(bench.seconds)}`; },
  }));
  Alpine.data("voice", () => ({
    canSpeak,
    turn(e) {
      bench.aloud = !bench.aloud;
      remember("aloud", bench.aloud ? "yes" : "no");
      read();
      thumbed(e);
    },
  }));
  Alpine.data("wait", () => ({
    init() { this.key = [main().dataset.link, main().dataset.step, this.$el.dataset.what].join("|"); },
    get ms() { return bench.ends[this.key] ? bench.ends[this.key] - bench.now : this.$root.dataset.wait * 1000; },
    get left() { return clockOf(Math.max(0, Math.ceil(this.ms / 1000))); },
    get state() { return bench.ends[this.key] ? (this.ms > 0 ? "running" : "over") : ""; },
    press(e) {
      bench.now = Date.now();
      endsAt(this.key, bench.ends[this.key] ? 0 : bench.now + this.$root.dataset.wait * 1000);
      thumbed(e);
    },
  }));
});

// --- From one picture to another. What is sent is waited for: no second press and no look
// for ticks from elsewhere breaks it off.
let going = null;
async function go(address, { sent = null, push = true, instead = false, quiet = false } = {}) {
  if (going && (going.sends || quiet)) return;
  going?.abort();
  const mine = going = new AbortController();
  mine.sends = Boolean(sent);
  const late = setTimeout(() => mine.abort(new Error("no answer")), 30000);
  try {
    const answer = await fetch(address, { signal: mine.signal, ...(sent && { method: "POST", body: sent }) });
    if (sent && answer.status === 401) throw new Error("ended");
    const page = new DOMParser().parseFromString(await answer.text(), "text/html");
    const fresh = page.querySelector("[data-at-bench]");
    if (!fresh || !answer.ok) { // what was sent is told by the page as it is now
      location.assign(sent ? main().dataset.link : answer.url);
      return;
    }
    put(document.adoptNode(fresh), quiet);
    if (instead) history.replaceState(null, "", answer.url);
    else if (push) history.pushState(null, "", answer.url);
    remember(place(), location.search);
  } catch (e) {
    if (e.name === "AbortError" || quiet) return;
    begin();
    if (sent) spent = Number(sent.get("seconds")) * 1000; // it has not arrived: it is sent with the next press
    if (e.message === "ended") tell("You were signed out, so this was not ticked. Enter the passphrase, then try again.", true);
    else tell("That was not ticked. Check that Brevium is running, then try again. Earlier ticks are saved.");
  } finally {
    clearTimeout(late);
    if (going === mine) going = null;
  }
}

// put shows a page in place of the one there was; quietly, what one looks at and has in hand
// stays where it is.
function put(fresh, quiet) {
  const was = main(), held = quiet && was.contains(document.activeElement) ? document.activeElement : null;
  for (const el of was.querySelectorAll(quiet ? "details[id]" : "#at-list")) {
    const same = $(`#${el.id}`, fresh);
    if (same) same.open = el.open;
  }
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
  shown(quiet);
}

function shown(quiet) {
  begin();
  clock();
  waits();
  wake();
  if (!quiet) read();
}

const press = (way) => { const el = $(`[data-way="${way}"]`, $(".at-ways") || document); if (el) el.click(); return Boolean(el); };

function listen() {
  document.addEventListener("click", (e) => {
    const link = e.target.closest("a[data-way]");
    if (link && !e.ctrlKey && !e.metaKey && !e.shiftKey) { e.preventDefault(); go(link.href); }
  });
  document.addEventListener("submit", (e) => {
    if (!e.target.closest("[data-at-bench]")) return;
    e.preventDefault();
    if (going?.sends) return;
    clock();
    spent = since = 0; // what is sent is not sent again
    step = "";
    go(e.target.action, { sent: new URLSearchParams(new FormData(e.target, e.submitter)) });
  });
  document.addEventListener("keydown", (e) => {
    if (e.altKey || e.ctrlKey || e.metaKey || e.target.closest("input, dialog[open], select, textarea")) return;
    const onButton = e.target.closest("a, button, summary");
    if (e.key === "ArrowRight" || (e.key === " " && !onButton)) { if (press("on")) e.preventDefault(); }
    if (e.key === "ArrowLeft") { if (press("back")) e.preventDefault(); }
  });
  addEventListener("popstate", () => go(location.href, { push: false }));
  document.addEventListener("visibilitychange", () => {
    if (document.hidden) { spent = lapse(); since = 0; return; }
    since = Date.now();
    wake();
    elsewhere();
  });
  setInterval(() => { clock(); waits(); }, 500);
  setInterval(elsewhere, 10000);
}

// elsewhere looks whether another device has ticked something.
async function elsewhere() {
  if (document.hidden || !main()) return;
  try {
    const answer = await fetch(`${main().dataset.link}/stamp`);
    if (answer.ok && (await answer.text()) !== main().dataset.stamp) go(location.href, { push: false, quiet: true });
  } catch { /* said when it matters */ }
}

// Opened again, the bench is at the picture where one was, as long as its step is still the next.
const place = () => `bench:${main().dataset.link}`;
function resume() {
  const was = remembered(place());
  if (location.search || !was || new URLSearchParams(was).get("step") !== main().dataset.step) return;
  go(main().dataset.link + was, { instead: true });
}

if (main()) {
  if (innerWidth >= 900 && $("#at-list")) $("#at-list").open = true;
  listen();
  shown();
  resume();
}
