// The sheets: cut by cut with the part in hand lit, pieces taken hold of, and a search
// for less that goes on while someone looks.
import { $, bench } from "./page.js";
import { put } from "./queue.js";
import { act } from "./keep.js";

const all = (selector, from) => [...from.querySelectorAll(selector)];
const again = () => put({ verb: "GET", url: location.pathname + location.search });

const ways = { ArrowLeft: "left", ArrowRight: "right", ArrowUp: "up", ArrowDown: "down", r: "turn", R: "turn", Enter: "here",
  " ": "here" };
const pieceAt = (e) => e.target.closest && e.target.closest(".laid[tabindex]");

let source = null; // of the search that goes on
let drag = null;

document.addEventListener("alpine:init", () => Alpine.data("cutting", () => ({
  at: -1, held: "", name: "", looked: "", looking: false, ended: false, done: 0, says: "",
  init() { this.shown(); },
  destroy() { this.stop(); },
  shown() {
    this.light(this.at);
    // What was just held may lie elsewhere now; of what was only pointed at the place tells.
    if (this.held) this.hold($("#held-piece", this.$root) || $(`[data-laid="${CSS.escape(this.held)}"]`, this.$root));
    this.look();
  },

  // --- Cut by cut. The place is kept by its number, so that it survives a change.
  on() { this.light(this.at + 1, true); },
  back() { this.light(this.at - 1, true); },
  light(n, follow) {
    const root = this.$root, cuts = all("[data-cut]", root), says = $("[data-step]", root);
    this.at = cuts.length ? Math.max(-1, Math.min(n, cuts.length - 1)) : -1;
    root.classList.toggle("stepping", this.at >= 0);
    cuts.forEach((el, i) => { el.classList.toggle("now", i === this.at); el.classList.toggle("done", i < this.at); });
    if (!says) return;
    if (this.at < 0) { says.textContent = "See the cuts one by one."; return; }
    const [sheet, cut] = cuts[this.at].dataset.cut.split(":"), board = $(`[data-sheet="${sheet}"]`, root);
    says.replaceChildren(`Sheet ${Number(sheet) + 1}, cut ${Number(cut) + 1}: `,
      ...$(`[data-cut-says="${cut}"]`, board).cloneNode(true).childNodes);
    if (follow) board.scrollIntoView({ block: "nearest", behavior: "instant" });
  },

  // --- Taking hold of a piece.
  hold(piece) {
    for (const el of all(".laid.held", this.$root)) el.classList.remove("held");
    this.held = piece ? piece.dataset.laid : "";
    if (!piece) return;
    piece.classList.add("held");
    this.name = $("title", piece).textContent;
  },
  move(how) { act(`${this.$root.dataset.path}/change`, { act: `hold:${this.held}:${how}` }); },
  take(e) { if (pieceAt(e)) this.hold(pieceAt(e)); },
  key(e) {
    const piece = pieceAt(e), how = ways[e.key];
    if (!piece || !how || e.ctrlKey || e.metaKey || e.altKey) return;
    e.preventDefault();
    this.hold(piece);
    this.move(how);
  },
  // Dragged, it follows the pointer and is held where it is let go.
  grip(e) {
    const piece = pieceAt(e);
    if (!piece || e.button !== 0 || e.pointerType === "touch") return;
    drag = { piece, x: e.clientX, y: e.clientY, px: piece.closest("svg").getScreenCTM().a, mm: Number(piece.dataset.mm) };
  },
  pull(e) {
    if (!drag) return;
    const dx = (e.clientX - drag.x) / drag.px, dy = (e.clientY - drag.y) / drag.px;
    drag.far = drag.far || Math.hypot(dx, dy) > 4;
    if (drag.far) drag.piece.setAttribute("transform", `translate(${dx} ${dy})`);
  },
  drop(e) {
    if (!drag) return;
    const { piece, x, y, px, mm, far } = drag;
    drag = null;
    piece.removeAttribute("transform");
    if (!far || e.type === "pointercancel") return;
    this.hold(piece);
    this.move(`here:${[(e.clientX - x) / px / mm, (e.clientY - y) / px / mm].map((n) => n.toFixed(2)).join(":")}`);
  },

  // --- Looking for less.
  look() {
    const { least, key } = this.$root.dataset;
    if (!least) { this.looking = false; return; }
    if (this.looked === key) return;
    this.stop();
    Object.assign(this, { looked: key, looking: true, ended: false, done: 0, says: "Looking for a better layout…" });
    source = new EventSource(least);
    source.onerror = () => this.end("The search stopped. Reload the page to start it again.");
    source.onmessage = (e) => this.told(JSON.parse(e.data));
  },
  told(now) {
    this.done = now.done;
    if (now.html) {
      $("#boards", this.$root).innerHTML = now.html;
      this.light(-1);
      this.hold(null);
    }
    if (now.better) this.says = `Found: ${now.says}`;
    if (!now.ended) return;
    this.end(now.better ? `Found: ${now.says}` : `Nothing better found: ${now.says}`);
    if (now.again) again();
  },
  end(says) {
    this.stop();
    Object.assign(this, { ended: true, says });
  },
  stop() {
    if (source) source.close();
    source = null;
  },
  cancel() {
    this.end("Stopped. You see the best layout found so far.");
    // The server has what was found as soon as it sees that nobody looks on.
    if (bench()) setTimeout(again, 150);
  },
})));
