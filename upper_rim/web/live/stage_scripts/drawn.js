// On the stage only, never published: what its other scripts draw over the page, and where.
const rimDrawn = (() => {
  const CLAY = "#a84b29", FAINT = "#a84b2944", ABOVE_ALL = 2147483647;
  // In the top layer, where something is open there.
  const layer = () => document.querySelector(":popover-open, dialog[open]") ?? document.documentElement;
  const place = (element, [left, top, width, height]) => Object.assign(element.style, { left: `${left}px`, top: `${top}px`, width: `${width}px`, height: `${height}px` });
  const mark = (element, box, background = CLAY) => {
    place(element, box);
    Object.assign(element.style, { position: "fixed", zIndex: ABOVE_ALL, pointerEvents: "none", background, borderRadius: "2px" });
    layer().append(element);
  };
  const isRtl = (part) => getComputedStyle(part).direction === "rtl";
  const shows = (part) => part.checkVisibility({ visibilityProperty: true }) && part.getClientRects().length > 0;
  return { CLAY, FAINT, ABOVE_ALL, layer, place, mark, isRtl, shows };
})();
