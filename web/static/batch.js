// A batch: what is ticked is kept without the page jumping under the hand. Only what it
// changes is put in: what is typed under Orders and When stays.
import { $, tell } from "./page.js";

const page = () => $(".page.batch");
const parts = ["verdict", "elsewhere", "sittings", "batch-tally"];
let going = false;

function put(fresh, nth) {
  const open = [...page().querySelectorAll("details[open][id]")].map((el) => el.id);
  const ids = [...parts, ...[...page().querySelectorAll(".order-left")].map((el) => el.id)];
  for (const id of ids) {
    const was = document.getElementById(id), now = $(`#${CSS.escape(id)}`, fresh);
    if (!was || !now) continue;
    was.replaceWith(now);
    htmx.process(now);
  }
  for (const id of open) if ($(`#${CSS.escape(id)}`)) $(`#${CSS.escape(id)}`).open = true;
  if (document.activeElement !== document.body) return;
  const next = [...page().querySelectorAll("#sittings .btn")].at(nth) || $("#sit-title");
  next.focus({ preventScroll: true });
}

document.addEventListener("submit", async (e) => {
  const form = e.target;
  if (!page() || !page().contains(form) || !form.action.endsWith("/tick")) return;
  e.preventDefault();
  if (going) return;
  going = true;
  const nth = [...page().querySelectorAll("#sittings .btn")].indexOf(e.submitter);
  try {
    const answer = await fetch(form.action, { method: "POST", body: new URLSearchParams(new FormData(form, e.submitter)) });
    const fresh = $("main", new DOMParser().parseFromString(await answer.text(), "text/html"));
    if (answer.ok && fresh && fresh.matches(".batch")) {
      tell("");
      put(document.importNode(fresh, true), Math.max(0, nth));
    } else {
      tell(fresh ? fresh.textContent.replace(/\s+/g, " ").trim() : "That was not kept. Load the page again.");
    }
  } catch {
    tell("That did not arrive: is Brevium still running? What was ticked before is kept. Try again.");
  } finally {
    going = false;
  }
});
