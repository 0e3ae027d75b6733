// One queue for all that changes the box or shows it otherwise. One request is
// on its way at a time, in the order they were made, so no answer comes out of
// turn; what is typed meanwhile waits behind it and is safe from its answer.
// A change that may not have arrived is sent again under the same name, and
// the server makes it once.
import { $, bench, tell, asSeen } from "./page.js";

const queue = [];
let onItsWay = null;
let answered = null;
let tries = 0; // of the first in the queue
let again = 0; // the timer of the next try

const windowName = Math.random().toString(36).slice(2, 10);
let count = 0;
const nextName = () => `${windowName}:${++count}`;

export const waiting = () => queue.length > 0;
export const entries = () => queue;
// shown is told when the answer to what is on its way is on the page.
export function shown() { answered = onItsWay; sayState(); }
export const isOnItsWay = (entry) => entry === onItsWay;

// stuck are the fields whose text was not kept and stands as it was typed, until
// it is changed again. It stands there too when the page is loaded again.
const place = () => `unkept ${location.pathname}?${new URLSearchParams(location.search).get("box") || ""}`;
export const stuck = new Map(unkept());
export function stick(name, text) {
  stuck.set(name, text);
  remembering();
}
export function unstick(name) { if (stuck.delete(name)) remembering(); }
function remembering() {
  try {
    if (stuck.size) sessionStorage.setItem(place(), JSON.stringify([...stuck]));
    else sessionStorage.removeItem(place());
  } catch { /* storage may be off */ }
}
// unkept gives what stood in the fields of this page's document and was not kept when it was left.
function unkept() {
  try { return JSON.parse(sessionStorage.getItem(place()) || "[]"); } catch { return []; }
}

// held gives the fields that no answer may touch now: those that were changed
// since the request that is answered.
export function held() {
  const names = new Set(stuck.keys());
  for (const entry of queue) {
    if (entry === onItsWay || !entry.fields) continue;
    for (const name of entry.fields.keys()) names.add(name);
  }
  return names;
}

// --- The state of keeping.
export function say(text, trouble) {
  const kept = $("#kept");
  if (!kept) return;
  if (kept.textContent !== text) kept.textContent = text;
  kept.classList.toggle("trouble", Boolean(trouble));
}
// sayState says what still waits, beside the change whose answer is here.
export function sayState() {
  const changes = queue.filter((entry) => entry.verb === "POST" && entry !== answered).length;
  const waiting = changes === 1 ? "one change waits" : `${changes} changes wait`;
  if (tries > 1 && changes) say(`Not saved yet: ${waiting}`, true);
  else if (changes) say("Saving…");
}

// put adds to the queue. Of two ways to look at the box that wait, the newer
// counts.
export function put(entry) {
  entry.name = nextName();
  if (entry.verb === "GET") {
    const older = queue.findIndex((e) => e.verb === "GET" && e !== onItsWay);
    if (older >= 0) queue.splice(older, 1);
  }
  queue.push(entry);
  sayState();
  if (!entry.after) deliver();
  return entry;
}

// ready lets an entry go that was held back to gather more.
export function ready(entry) {
  clearTimeout(entry.after);
  entry.after = 0;
  deliver();
}

// flush lets all go at once, and is done when all have arrived.
export function flush() {
  for (const entry of queue) { clearTimeout(entry.after); entry.after = 0; }
  deliver();
  return new Promise((resolve) => {
    const look = () => (queue.length ? setTimeout(look, 30) : resolve());
    look();
  });
}

const answers = new Map();
document.addEventListener("htmx:afterRequest", (e) => {
  const name = e.detail.requestConfig.headers["X-Change"];
  const resolve = answers.get(name);
  answers.delete(name);
  if (resolve) resolve(e.detail.xhr);
});

function ask(entry) {
  return new Promise((resolve) => {
    answers.set(entry.name, resolve);
    const values = entry.values ? entry.values() : {};
    if (entry.verb === "POST") values["sent-as"] = entry.name;
    htmx.ajax(entry.verb, entry.verb === "POST" ? asSeen(entry.url) : entry.url, {
      source: bench(), target: "#workbench", swap: "bench", values, headers: { "X-Change": entry.name },
    }).catch(() => {});
  });
}

async function deliver() {
  const entry = queue[0];
  if (onItsWay || !entry || entry.after || again) return;
  onItsWay = entry;
  entry.sent = true;
  tries++;
  const xhr = await ask(entry);
  onItsWay = null;
  const ended = xhr.status === 401 && queue.some((e) => e.verb === "POST"); // else the way to the page asks who it is
  if (ended || [0, 502, 503, 504].includes(xhr.status)) {
    undelivered(entry, xhr);
    return;
  }
  tries = 0;
  queue.shift();
  if (xhr.status >= 200 && xhr.status < 300) {
    tell("");
    if (entry.done) entry.done();
  } else if (entry.verb === "GET") {
    location.assign(entry.url);
    return;
  } else {
    refused(entry, xhr);
  }
  if (xhr.status < 300) sayState();
  // The answer to a change stands as soon as there is a plan; what would help comes when nothing else waits.
  if (!queue.length && bench().dataset.more) put({ verb: "GET", url: location.pathname + location.search });
  deliver();
}

const said = (xhr) => {
  const page = new DOMParser().parseFromString(xhr.responseText || "", "text/html");
  return ($("#problem-text", page) || {}).textContent;
};

// undelivered keeps a change that did not arrive, or was answered by a trouble
// that may pass, such as a session that has ended, and tries again.
function undelivered(entry, xhr) {
  const what = entry.verb === "POST"
    ? `Your changes wait here and are saved as soon as ${xhr.status === 401 ? "you enter the passphrase" : "it answers"}.`
    : "Brevium keeps trying.";
  if (xhr.status === 401) tell(`You were signed out. ${what} Leave this page open.`, true);
  else tell(said(xhr) || `Brevium can't be reached. ${what} If it was stopped, start it again. Leave this page open.`);
  tries++;
  sayState();
  const pause = Math.min(5000, 400 * 2 ** Math.min(tries, 5));
  again = setTimeout(() => { again = 0; deliver(); }, pause);
}
addEventListener("online", () => { clearTimeout(again); again = 0; deliver(); });

// refused tells of a change that will not be kept. What was typed stays in its
// field.
function refused(entry, xhr) {
  if (entry.fields) for (const [name, f] of entry.fields) stick(name, f.value);
  say("Not saved", true);
  tell(said(xhr) || "That change was not saved. Try again.");
}

// --- Leaving the page.
addEventListener("beforeunload", (e) => { if (queue.some((entry) => entry.verb === "POST")) e.preventDefault(); });
// Should it be left all the same, what waits is sent after it, all at once and
// in any order: so each field goes once, with its newest text and what it was
// before the first.
function newestOnly() {
  const newer = new Map();
  for (const entry of queue.toReversed()) {
    if (!entry.fields || isOnItsWay(entry)) continue;
    for (const [name, f] of [...entry.fields]) {
      const later = newer.get(name);
      if (later) {
        if (!f.steps) later.was = f.was;
        entry.fields.delete(name);
      } else if (f.value !== undefined) {
        newer.set(name, f);
      }
    }
  }
}
addEventListener("pagehide", () => {
  newestOnly();
  if (tries > 1) { // it may not arrive now either
    for (const entry of queue) for (const [name, f] of entry.fields || []) stick(name, f.value);
  }
  for (const entry of queue) {
    if (entry.verb !== "POST" || entry.fields && entry.fields.size === 0) continue;
    const body = new URLSearchParams();
    for (const [name, value] of Object.entries({ ...entry.values(), "sent-as": entry.name })) {
      for (const one of [value].flat()) body.append(name, one);
    }
    fetch(asSeen(entry.url), { method: "POST", body, keepalive: true }).catch(() => {});
  }
});
