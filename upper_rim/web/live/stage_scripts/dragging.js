// On the stage only, never published: what is pressed there and moved on, with a mark where it would come; letting go tells it.
// A kind of thing that is dragged: `take` gives what is pressed, with its `part` and what it is called; `spotAt` where it would
// come, and `drop` lets it go there. A spot is `before` or `after` a box, beside it (`across`) or in its column, or the box.
const rimDragging = (() => {
  const { FAINT, CLAY, mark, isRtl } = rimDrawn, THICK_PX = 4;
  const bar = document.createElement("div"), style = document.createElement("style");
  document.head.append(style);
  let drag = null;

  const show = (spot, zoom = 1) => {
    bar.remove();
    if (!spot?.rect) return;
    const { rect: { left, top, width, height }, where, across, rtl } = spot, thick = THICK_PX * zoom;
    const isBeside = where === "before" || where === "after", isAtEnd = (where === "after") !== Boolean(across && rtl);
    const box = !isBeside ? [left, top, width, height] : across ? [isAtEnd ? left + width : left - thick, top, thick, height] : [left, isAtEnd ? top + height : top - thick, width, thick];
    bar.dataset.rimLanding = `${where} ${spot.beside}`;
    mark(bar, box, isBeside ? CLAY : FAINT);
  };
  const end = () => {
    show(null);
    style.textContent = "";
    const was = drag;
    drag = null;
    return was;
  };
  const add = ({ parts, take, spotAt, drop, fewPx, zoom = () => 1, isAway = false }) => {
    addEventListener("dragstart", (event) => event.target.closest?.(parts) && take(event.target) && event.preventDefault());
    addEventListener("pointerdown", (event) => {
      const what = !event.button && event.target.closest?.(parts) && take(event.target);
      if (what) drag = { what, spotAt, drop, few: fewPx * zoom(), zoom, isAway, x: event.clientX, y: event.clientY, isMoving: false };
    });
  };
  addEventListener("pointermove", ({ clientX, clientY }) => {
    if (!drag || (!drag.isMoving && Math.hypot(clientX - drag.x, clientY - drag.y) < drag.few)) return;
    // What goes away from its place is faint there.
    if (!drag.isMoving && drag.isAway) style.textContent = `[data-rim-node="${drag.what.node}"]{opacity:.5!important}*{user-select:none!important;cursor:grabbing!important}`;
    drag.isMoving = true;
    show(drag.spotAt(clientX, clientY, drag.what), drag.zoom());
  });
  addEventListener("pointerup", ({ clientX, clientY }) => {
    const was = drag && end();
    if (!was?.isMoving) return;
    // What was dragged was not pressed; let go outside, nothing is.
    const swallow = (event) => (event.preventDefault(), event.stopImmediatePropagation());
    addEventListener("click", swallow, { capture: true, once: true });
    setTimeout(() => removeEventListener("click", swallow, { capture: true }));
    const spot = was.spotAt(clientX, clientY, was.what);
    if (spot) was.drop(was.what, spot);
  });
  addEventListener("pointercancel", end);
  addEventListener("keydown", (event) => event.key === "Escape" && drag?.isMoving && (event.stopImmediatePropagation(), end()), true);
  return { add, show, letGo: () => drag?.isMoving && end(), isMoving: () => Boolean(drag?.isMoving) };
})();

// Things of a piece: an item goes beside another, or into a cell; a cell beside another; a row above or below another. `isBusy`:
// whether a press means something else; `chosen`: what is dragged where it holds what is pressed.
const rimThings = ({ tell, isBusy, chosen, zoom }) => {
  const { isRtl, shows } = rimDrawn, FEW_PX = 4;
  const NODE = ["it", "cl", "rw"].map((kind) => `[data-rim-node^="${kind}-"]`).join(), HOLDERS = { it: "cl", cl: "rw", rw: "pc" };
  const take = (target) => {
    if (isBusy()) return null;
    const chain = [];
    for (let part = target.closest(NODE); part; part = part.parentElement.closest(NODE)) chain.push(part);
    const part = chain.find((one) => one.dataset.rimNode === chosen()) ?? chain[0];
    return part && { part, node: part.dataset.rimNode, kind: part.dataset.rimNode.slice(0, 2) };
  };
  const isBesideNext = (one, other) => Math.min(one.bottom, other.bottom) - Math.max(one.top, other.top) > Math.min(one.height, other.height) / 2;
  // A hint is around its item.
  const boxOf = (part) => (part.parentElement.matches("[data-rim-node]") ? part : part.parentElement);
  const far = (part, x, y) => {
    const { left, right, top, bottom } = part.getBoundingClientRect();
    return Math.hypot(Math.max(left - x, 0, x - right), Math.max(top - y, 0, y - bottom));
  };
  const spotAt = (x, y, { node, kind }) => {
    const own = `[data-rim-node^="${kind}-"]`, holder = `[data-rim-node^="${HOLDERS[kind]}-"]`;
    const under = document.elementFromPoint(x, y), target = under?.closest(own), within = (target ?? under)?.closest(holder);
    if (!within || target?.dataset.rimNode === node) return null;
    const parts = [...within.querySelectorAll(own)].filter((part) => part.closest(holder) === within && shows(part));
    const others = parts.filter((part) => part.dataset.rimNode !== node);
    if (!others.length) return kind === "cl" ? null : { beside: within.dataset.rimNode, where: "in", rect: within.getBoundingClientRect() };
    const part = others.includes(target) ? target : others.reduce((one, other) => (far(other, x, y) < far(one, x, y) ? other : one));
    const at = others.indexOf(part), next = others[at + 1] ?? others[at - 1] ?? (kind === "it" ? null : parts.find((one) => one !== part));
    const rect = part.getBoundingClientRect(), rtl = isRtl(part);
    const across = kind !== "rw" && (next ? isBesideNext(rect, next.getBoundingClientRect()) : getComputedStyle(boxOf(part).parentElement).flexDirection !== "column");
    const isBefore = across ? x < rect.left + rect.width / 2 !== rtl : y < rect.top + rect.height / 2;
    return { beside: part.dataset.rimNode, where: isBefore ? "before" : "after", rect, across, rtl, part };
  };
  // It stands there at once; told no, it is back where it was.
  const nothing = () => {};
  let takeBack = nothing;
  const drop = ({ part, node }, spot) => {
    const thing = boxOf(part), [holder, next] = [thing.parentElement, thing.nextSibling];
    if (spot.part) {
      takeBack = () => holder.insertBefore(thing, next);
      boxOf(spot.part)[spot.where](thing);
    }
    tell({ rim: "moved", what: node, beside: spot.beside, where: spot.where });
  };
  rimDragging.add({ parts: NODE, take, spotAt, drop, fewPx: FEW_PX, zoom, isAway: true });
  return { settled: () => (takeBack = nothing), refused: () => (takeBack(), (takeBack = nothing)) };
};

// Entries of a menu: beside one another, or below one; in a row to its sides, else above and below. Pages are dragged onto them
// from the studio, too.
const rimEntries = ({ tell, isOpen }) => {
  const ENTRY = '[data-rim-node^="en-"],[data-rim-node^="pg-"]', EDGE = 0.3, FEW_PX = 6;
  const isInRow = (line) => {
    const next = (line.nextElementSibling ?? line.previousElementSibling)?.getBoundingClientRect(), own = line.getBoundingClientRect();
    return next ? Math.abs(next.top - own.top) < own.height / 2 : line.parentElement.getBoundingClientRect().height < own.height * 1.5 && !line.parentElement.closest("li");
  };
  const spotAt = (x, y) => {
    const under = x < 0 ? null : document.elementFromPoint(x, y), entry = under?.closest("li")?.querySelector(ENTRY);
    if (!entry) return under?.closest('[data-rim-node^="it-"]') ? { beside: "", where: "after" } : null;
    const line = entry.closest("li"), rect = entry.getBoundingClientRect(), beside = entry.dataset.rimNode;
    const across = isInRow(line), rtl = rimDrawn.isRtl(line);
    let at = across ? (x - rect.left) / rect.width : (y - rect.top) / rect.height;
    if (across && rtl) at = 1 - at;
    return { beside, rect, across, rtl, where: at < EDGE ? "before" : at > 1 - EDGE ? "after" : "below" };
  };
  const letGo = (what, spot) => {
    rimDragging.show(null);
    if (spot && spot.beside !== what) tell({ rim: "dropped", what, beside: spot.beside, where: spot.where });
  };
  const take = (target) => isOpen() && { node: target.closest(ENTRY).dataset.rimNode };
  rimDragging.add({ parts: ENTRY, take, spotAt, drop: ({ node }, spot) => letGo(node, spot), fewPx: FEW_PX });
  return { isInRow, over: (x, y) => rimDragging.show(spotAt(x, y)), letGo: (what, x, y) => letGo(what, spotAt(x, y)) };
};
