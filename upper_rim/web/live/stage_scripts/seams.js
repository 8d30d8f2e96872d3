// On the stage only, never published: seams, the places before, between or behind a cell's items, where something can come. Near
// enough to one a mark shows, like a text cursor. `mayShow`: whether a press there means one.
const rimSeams = (mayShow) => {
  const NEAR_PX = 9, CURSOR_PX = 3;
  const cursor = document.createElement("div");
  cursor.dataset.rimSeam = "";
  const seamAt = (x, y) => {
    const under = document.elementFromPoint(x, y), cell = under?.closest('[data-rim-node^="cl-"]');
    if (!cell || under.closest('[data-rim-node^="it-"]')) return null;
    const rtl = rimDrawn.isRtl(cell), whole = cell.getBoundingClientRect();
    // An item with a hint has a wrapper around it.
    const nodeOf = (one) => one.dataset.rimNode ?? one.querySelector(":scope > [data-rim-node]")?.dataset.rimNode;
    const parts = [...cell.children].filter((one) => nodeOf(one) && one.getClientRects().length);
    const items = parts.map((one) => one.getBoundingClientRect());
    if (!items.length) return { cell, rect: { left: x, top: whole.top, height: whole.height } };
    const isBefore = (one) => one.bottom <= y || (one.top <= y && (rtl ? one.left >= x : one.right <= x));
    const at = items.filter(isBefore).length, [before, after] = [items[at - 1], items[at]];
    const end = before && (rtl ? before.left : before.right), ahead = after && (rtl ? after.right : after.left);
    const beside = before && after && before.bottom > after.top ? (end + ahead) / 2 : end !== undefined && y < before.bottom ? end + (rtl ? -4 : 4) : ahead + (rtl ? 4 : -4);
    const { top, height } = after && y >= after.top ? after : (before ?? after);
    if (Math.abs(beside - x) > NEAR_PX || y < top || y > top + height) return null;
    return { cell, behind: parts[at - 1] && nodeOf(parts[at - 1]), before: parts[at] && nodeOf(parts[at]), rect: { left: beside, top, height } };
  };
  const showCursor = (seam) => {
    cursor.remove();
    if (!seam) return;
    const { left, top, height } = seam.rect;
    rimDrawn.mark(cursor, [left - CURSOR_PX / 2, top, CURSOR_PX, height]);
  };
  addEventListener("pointermove", ({ clientX, clientY }) => showCursor(mayShow() && seamAt(clientX, clientY)));
  document.documentElement.addEventListener("pointerleave", () => showCursor(null));
  // As it is told to the studio, which opens it there.
  const at = (x, y) => {
    const seam = mayShow() && seamAt(x, y);
    if (!seam) return null;
    const { cell, behind, before, rect: { left, top, height } } = seam;
    return { cell: cell.dataset.rimNode, behind, before, left, right: left, top, bottom: top + height };
  };
  return { at };
};
