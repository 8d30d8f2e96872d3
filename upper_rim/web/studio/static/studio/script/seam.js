// Seams: the places between things, on the stage and in the outline, where something is to come. One presses a seam, or the
// Insert key, and types; candidates come from the server, and the first is taken by Enter.
import { $, isTyping } from "./dom.js";
import { send } from "./requests.js";
import { typedList } from "./typed_list.js";

const GAP_PX = 6;
let place = null;

const seam = typedList({
  id: "seam",
  ask: (typed) => {
    const about = { cell: place.cell, typed, page: $("#looked-at")?.value ?? "", width: $("[data-stage-width]")?.value ?? "" };
    if (place.at !== undefined) about.at = place.at;
    return `${$("#outline").dataset.seam}?${new URLSearchParams(about)}`;
  },
  take: ({ dataset: { edit, node } }) => send({ do: "edit", edit, select: node }),
  settle: (box) => {
    const { left, top, bottom } = place.rect, { offsetWidth: wide, offsetHeight: high } = box;
    const y = bottom + GAP_PX + high <= innerHeight ? bottom + GAP_PX : Math.max(GAP_PX, top - GAP_PX - high);
    Object.assign(box.style, { left: `${Math.max(GAP_PX, Math.min(left, innerWidth - wide - GAP_PX))}px`, top: `${y}px` });
  },
  isOwn: (target) => Boolean(target.closest("[data-seam-cell]")),
});
const openSeam = (cell, at, rect) => {
  if (!cell) return;
  place = { cell, at, rect };
  seam.open();
};

document.addEventListener("click", ({ target }) => {
  const mark = target.closest("[data-seam-cell]");
  if (mark) openSeam(mark.dataset.seamCell, mark.dataset.seamAt, mark.getBoundingClientRect());
});
// The Insert key: behind what is chosen in the outline; in a row, a cell or the piece at the end of its cell.
document.addEventListener("keydown", (event) => {
  const outline = $("#outline");
  if (event.key !== "Insert" || !outline || isTyping(event.target) || seam.isOpen()) return;
  event.preventDefault();
  const line = $("[aria-current]", outline)?.closest("li");
  openSeam(line?.dataset.cell || $("#insert-here")?.dataset.seamCell, line?.dataset.after, (line ?? outline).getBoundingClientRect());
});
document.addEventListener("rim:seam", ({ detail: { cell, at, rect } }) => openSeam(cell, at, rect));
