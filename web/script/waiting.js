// What was done at the bench and has not arrived yet. It is kept in this browser, over a reload too, and sent in its
// order, one after the other. Each has a name: what arrives twice is done once.
const base = "brevium-bench", table = "waiting";
let list = [];
let told = () => {};
export const items = () => list;
// onChange is told whenever the list or the line changes: (trouble) is "", "line" or "out".
export function onChange(does) { told = does; }

// --- The browser's own store. Where it may keep nothing, the list lives as long as the page.
const asked = (request) => new Promise((done, fail) => {
  request.onsuccess = () => done(request.result);
  request.onerror = () => fail(request.error);
});
let opened = null;
function db() {
  opened ||= new Promise((done, fail) => {
    const request = indexedDB.open(base, 1);
    request.onupgradeneeded = () => request.result.createObjectStore(table, { keyPath: "at", autoIncrement: true });
    request.onsuccess = () => done(request.result);
    request.onerror = () => fail(request.error);
  });
  return opened;
}
async function stored(way, does) {
  try {
    const all = (await db()).transaction(table, way), kept = new Promise((done, fail) => {
      all.oncomplete = done;
      all.onabort = fail;
    });
    const found = await asked(does(all.objectStore(table)));
    await kept;
    return found;
  } catch { return undefined; }
}

// load brings back what an earlier page left here.
export async function load() {
  const kept = await stored("readonly", (t) => t.getAll());
  const known = new Set(list.map((item) => item.at));
  list = [...(kept || []).filter((item) => !known.has(item.at)), ...list];
  told("");
}

// newName works on plain HTTP too.
const newName = () => [...crypto.getRandomValues(new Uint8Array(12))].map((n) => n.toString(36)).join("");

// put takes in what is to be sent to an address: its fields, and where a timer ends by this device's clock. It is done
// when this browser has it, before it is sent.
export async function put(link, address, fields, ends = 0) {
  const item = { link, address, fields: { ...fields, "sent-as": newName(), waited: "1" }, ends };
  item.at = await stored("readwrite", (t) => t.add({ ...item }));
  list.push(item);
  told("", "", true);
  flush();
}

export function forget(item) {
  list = list.filter((other) => other !== item);
  if (item.at !== undefined) stored("readwrite", (t) => t.delete(item.at));
}
// setAside leaves what the other end will not take for the maker to decide on; what comes behind it goes on.
function setAside(item, why) {
  item.aside = why;
  if (item.at !== undefined) stored("readwrite", (t) => t.put({ ...item }));
}
export function sendAgain(item) {
  delete item.aside;
  flush();
}

const isFile = (value) => value instanceof Blob;
function body(item) {
  const fields = Object.entries(item.fields);
  if (item.ends) fields.push(["left", (item.ends - Date.now()) / 1000]);
  const form = fields.some(([, value]) => isFile(value)) ? new FormData() : new URLSearchParams();
  for (const [name, value] of fields) form.append(name, value);
  return form;
}
// A line may hang without breaking.
const patience = (item) => (Object.values(item.fields).some(isFile) ? 120000 : 8000);

async function send(item) {
  const answer = await fetch(item.address, { method: "POST", body: body(item), signal: AbortSignal.timeout(patience(item)) });
  if (answer.status === 401) throw new Error("out");
  if (answer.status >= 500 || answer.status === 429 || answer.status === 403) throw new Error("line");
  if (!answer.ok) return "This couldn't be saved. The box may have been changed or deleted.";
  return answer.headers.get("Content-Type")?.includes("json") ? (await answer.json()).says : "";
}

// flush sends what waits. It comes to nothing while it is being done, or without a line, and is tried again.
let sending = false;
export async function flush() {
  if (sending) return;
  sending = true;
  let trouble = "", says = "";
  try {
    for (let item; (item = list.find((one) => !one.aside));) {
      const wrong = await send(item);
      if (wrong && Object.values(item.fields).some(isFile)) setAside(item, wrong);
      else { forget(item); says ||= wrong; }
      told("", "", true);
    }
  } catch (e) { trouble = e.message === "out" ? "out" : "line"; }
  sending = false;
  told(trouble, says);
}
