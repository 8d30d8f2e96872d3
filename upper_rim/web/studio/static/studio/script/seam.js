// Seams: the places between things, on the stage and in the outline, where something is to come. One presses a seam, or the
// Insert key, and types; candidates come from the server, and the first is taken by Enter.
import { $, $$, isTyping } from "./dom.js";
import { send } from "./requests.js";

const TYPED_MS = 120, GAP_PX = 6;
let place = null, waiting = 0, asked = 0;

const box = () => $("#seam");
const typed = () => $("#seam-typed");
const list = () => $("#seam-list");

const ask = async () => {
  const outline = $("#outline"), number = ++asked;
  const about = { cell: place.cell, typed: typed().value, page: $("#looked-at")?.value ?? "", width: $("[data-stage-width]")?.value ?? "" };
  if (place.at !== undefined) about.at = place.at;
  const answer = await fetch(`${outline.dataset.seam}?${new URLSearchParams(about)}`).catch(() => null);
  if (!answer?.ok) return void ($("#offline").hidden = false);
  if (number !== asked || !place) return;
  list().innerHTML = await answer.text();
  list().dataset.typed = about.typed;
  mark(options()[0]);
  settle();
};
const options = () => $$("[role=option]", list());
const mark = (option) => {
  options().forEach((one) => one.setAttribute("aria-selected", one === option));
  if (!option) return typed().removeAttribute("aria-activedescendant");
  option.id ||= `seam-${option.dataset.node}`;
  typed().setAttribute("aria-activedescendant", option.id);
  option.scrollIntoView({ block: "nearest" });
};
const settle = () => {
  const { left, top, bottom } = place.rect, { offsetWidth: wide, offsetHeight: high } = box();
  const y = bottom + GAP_PX + high <= innerHeight ? bottom + GAP_PX : Math.max(GAP_PX, top - GAP_PX - high);
  Object.assign(box().style, { left: `${Math.max(GAP_PX, Math.min(left, innerWidth - wide - GAP_PX))}px`, top: `${y}px` });
};
export const openSeam = (cell, at, rect) => {
  if (!cell || !box()) return;
  place = { cell, at, rect, back: document.activeElement };
  typed().value = "";
  list().replaceChildren();
  delete list().dataset.typed;
  if (!box().matches(":popover-open")) box().showPopover();
  settle();
  typed().focus({ preventScroll: true });
  ask();
};
const close = () => {
  if (!place) return;
  const { back } = place;
  place = null;
  box().hidePopover();
  back?.focus?.({ preventScroll: true });
};
const take = (option) => {
  if (!option) return;
  const { edit, node } = option.dataset;
  close();
  send({ do: "edit", edit, select: node });
};

document.addEventListener("input", ({ target }) => {
  if (target.id !== "seam-typed") return;
  clearTimeout(waiting);
  waiting = setTimeout(ask, TYPED_MS);
});
document.addEventListener("keydown", (event) => {
  if (!place) return;
  const steps = { ArrowDown: 1, ArrowUp: -1 }, { key } = event;
  if (key === "Escape") return event.preventDefault(), close();
  if (key === "Tab") return close();
  const all = options(), at = all.findIndex((one) => one.getAttribute("aria-selected") === "true");
  if (steps[key] && all.length) return event.preventDefault(), mark(all[(at + steps[key] + all.length) % all.length]);
  if (key !== "Enter") return;
  event.preventDefault();
  // What was typed just now is asked for first.
  clearTimeout(waiting);
  if (list().dataset.typed === typed().value) take(all[Math.max(0, at)]);
  else ask().then(() => take(options()[0]));
});
document.addEventListener("click", ({ target }) => {
  const option = target.closest("#seam [role=option]"), seam = target.closest("[data-seam-cell]");
  if (option) return take(option);
  if (seam) openSeam(seam.dataset.seamCell, seam.dataset.seamAt, seam.getBoundingClientRect());
});
document.addEventListener("pointerdown", ({ target }) => place && !box().contains(target) && !target.closest("[data-seam-cell]") && close());

// The Insert key: behind what is chosen in the outline; in a row, a cell or the piece at the end of its cell.
document.addEventListener("keydown", (event) => {
  const outline = $("#outline");
  if (event.key !== "Insert" || !outline || isTyping(event.target) || place) return;
  event.preventDefault();
  const line = $("[aria-current]", outline)?.closest("li");
  openSeam(line?.dataset.cell || outline.dataset.into, line?.dataset.after, (line ?? outline).getBoundingClientRect());
});
document.addEventListener("rim:seam", ({ detail: { cell, at, rect } }) => openSeam(cell, at, rect));
