// Where the focus goes when what had it is gone, or has become another's: to the next in its list, else the one before, else
// the nearest heading. A row of buttons belongs to the node that its form names.
import { $, $$, nodeOf } from "./dom.js";

const LISTED = "li, tr, [data-listed]";
const FOCUSABLE = "a[href], button:not([disabled], [tabindex='-1']), input:not([type=hidden]), select, textarea, summary, [tabindex='0']";
let before = null;

const ownerOf = (part) => nodeOf(part?.closest("form"));
const keyOf = (line) =>
  line.dataset.id || nodeOf(line) || $("[data-select]", line)?.dataset.select || line.textContent.trim();
const besides = (line) => (line ? [line.nextElementSibling, line.previousElementSibling] : []).filter(Boolean).map(keyOf);

document.addEventListener("htmx:beforeRequest", ({ detail }) => {
  if (detail.elt.id === "watch") return;
  const part = document.activeElement, chosen = $("#outline [aria-current]")?.closest("li");
  const leaves = chosen && part?.closest?.("form")?.id === "node-actions";
  before = part && part !== document.body && part.closest("#screen")
    ? {
        part, owner: ownerOf(part), name: part.name, value: part.value,
        beside: besides(part.closest(LISTED)), around: part.closest("section, aside, main"), leaves: leaves ? besides(chosen) : [],
      }
    : null;
});

const isTheSame = ({ part, owner, name, value }) =>
  part.isConnected && document.activeElement === part && ownerOf(part) === owner && !part.disabled &&
  (part.localName !== "button" || (part.name === name && part.value === value));

document.addEventListener("htmx:afterSwap", () => {
  if (!before) return;
  const { part, beside, around, leaves } = before, same = isTheSame(before);
  before = null;
  if (same || (document.activeElement !== part && document.activeElement !== document.body)) return;
  const chosen = $("#outline [aria-current]");
  if (leaves.length && chosen) return chosen.focus({ preventScroll: true });
  const line = beside.map((key) => $$(LISTED).find((one) => keyOf(one) === key)).find(Boolean);
  const next = line && $(FOCUSABLE, line);
  if (next) return next.focus({ preventScroll: true });
  const heading = (around?.isConnected && $("h1, h2, h3", around)) || chosen || $("#screen h1");
  if (!heading) return;
  if (!heading.matches(FOCUSABLE)) heading.tabIndex = -1;
  heading.focus({ preventScroll: true });
});
