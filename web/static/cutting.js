// The sheets: cut by cut with the part in hand lit, pieces taken hold of, and a search
// for less that goes on while someone looks.
import { $, bench } from "./page.js";
import { put } from "./queue.js";

const all = (selector, from) => [...from.querySelectorAll(selector)];

// --- Cut by cut. The place is kept by sheet and cut, so that it survives a change.
let at = -1;
const cutsIn = (root) => all("[data-cut]", root);
function light(root, n, follow) {
  const cuts = cutsIn(root);
  at = cuts.length ? Math.max(-1, Math.min(n, cuts.length - 1)) : -1;
  root.classList.toggle("stepping", at >= 0);
  cuts.forEach((el, i) => { el.classList.toggle("now", i === at); el.classList.toggle("done", i < at); });
  const says = $("[data-step]", root);
  if (!says) return;
  if (at < 0) { says.textContent = "The cuts one after another, the part in hand lit."; return; }
  const [sheet, cut] = cuts[at].dataset.cut.split(":");
  const board = $(`[data-sheet="${sheet}"]`, root);
  const text = $(`[data-cut-says="${cut}"]`, board);
  says.innerHTML = "";
  says.append(`Sheet ${Number(sheet) + 1}, cut ${Number(cut) + 1}: `, ...text.cloneNode(true).childNodes);
  if (follow) board.scrollIntoView({ block: "nearest", behavior: "instant" });
}

document.addEventListener("click", (e) => {
  const button = e.target.closest("[data-stepper] button");
  if (!button) return;
  const root = button.closest(".cutting");
  light(root, at + (button.matches("[data-back]") ? -1 : 1), true);
});

// --- Taking hold of a piece.
let held = null;
function hold(piece) {
  for (const el of all(".laid.held", document)) el.classList.remove("held");
  held = piece && piece.dataset.laid;
  const form = $("#holding");
  if (!form) return;
  form.hidden = !piece;
  if (!piece) return;
  piece.classList.add("held");
  $("#held-name", form).textContent = piece.querySelector("title").textContent;
  for (const button of all("[data-hold]", form)) button.value = `hold:${held}:${button.dataset.hold}`;
}
document.addEventListener("click", (e) => {
  const piece = e.target.closest && e.target.closest(".laid[tabindex]");
  if (piece) hold(piece);
});

// Dragged, it follows the pointer and is held where it is let go.
let drag = null;
document.addEventListener("pointerdown", (e) => {
  const piece = e.target.closest && e.target.closest(".laid[tabindex]");
  if (!piece || e.button !== 0 || e.pointerType === "touch") return;
  const svg = piece.closest("svg");
  drag = { piece, x: e.clientX, y: e.clientY, px: svg.getScreenCTM().a, mm: Number(piece.dataset.mm) };
});
document.addEventListener("pointermove", (e) => {
  if (!drag) return;
  const dx = (e.clientX - drag.x) / drag.px, dy = (e.clientY - drag.y) / drag.px;
  drag.far = drag.far || Math.hypot(dx, dy) > 4;
  if (drag.far) drag.piece.setAttribute("transform", `translate(${dx} ${dy})`);
});
document.addEventListener("pointercancel", () => {
  if (drag) drag.piece.removeAttribute("transform");
  drag = null;
});
document.addEventListener("pointerup", (e) => {
  if (!drag) return;
  const { piece, x, y, px, mm, far } = drag;
  drag = null;
  piece.removeAttribute("transform");
  if (!far) return;
  hold(piece);
  const button = $('#holding [data-hold="here"]');
  const by = [(e.clientX - x) / px / mm, (e.clientY - y) / px / mm].map((n) => n.toFixed(2));
  button.value = `hold:${piece.dataset.laid}:here:${by.join(":")}`;
  button.click();
});

const ways = { ArrowLeft: "left", ArrowRight: "right", ArrowUp: "up", ArrowDown: "down", r: "turn", R: "turn", Enter: "here",
  " ": "here" };
document.addEventListener("keydown", (e) => {
  const piece = e.target.closest && e.target.closest(".laid[tabindex]");
  const how = ways[e.key];
  if (!piece || !how || e.ctrlKey || e.metaKey || e.altKey) return;
  e.preventDefault();
  hold(piece);
  $(`#holding [data-hold="${how}"]`).click();
});

// --- Looking for less.
let source = null;
let looked = null;
function stop() {
  if (source) source.close();
  source = null;
}
function end(root, text) {
  stop();
  const live = $("[data-live]", root);
  if (!live) return;
  live.classList.add("ended");
  $("[data-says]", live).textContent = text;
}

function look(root) {
  const address = root.dataset.least;
  if (!address || looked === root.dataset.key) return;
  stop();
  looked = root.dataset.key;
  const live = $("[data-live]", root);
  live.hidden = false;
  live.classList.remove("ended");
  source = new EventSource(address);
  source.onerror = () => end(root, "The search was broken off. Load the page to look again.");
  source.onmessage = (e) => {
    const now = JSON.parse(e.data);
    if (!root.isConnected) { stop(); return; }
    $("progress", live).value = now.done;
    if (now.html) {
      $("#boards", root).innerHTML = now.html;
      light(root, -1);
      hold(null);
    }
    if (now.better) $("[data-says]", live).textContent = `Found: ${now.says}`;
    if (!now.ended) return;
    end(root, now.better ? `Found: ${now.says}` : `Looked long: ${now.says}`);
    if (now.again) put({ verb: "GET", url: location.pathname + location.search });
  };
}
document.addEventListener("click", (e) => {
  if (!e.target.closest("[data-cancel]")) return;
  end(e.target.closest(".cutting"), "Stopped. What was found so far stands.");
  // The server has what was found as soon as it sees that nobody looks on.
  if (bench()) setTimeout(() => put({ verb: "GET", url: location.pathname + location.search }), 150);
});

function begin() {
  const root = $(".cutting");
  if (!root) { stop(); at = -1; return; }
  light(root, at);
  // What was just held may lie elsewhere now; of what was only pointed at the place tells.
  if (held) hold($("#held-piece", root) || root.querySelector(`[data-laid="${CSS.escape(held)}"]`));
  look(root);
}
document.addEventListener("bench:shown", begin);
begin();
