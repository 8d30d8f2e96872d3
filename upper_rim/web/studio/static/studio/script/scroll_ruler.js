// The scroll ruler: a handle for the stage's position, and a grip where each of a header's stages begins.
import { $ } from "./dom.js";
import { set } from "./requests.js";
import { isHeld, place, slider } from "./slider.js";
import { scrollTo, stageWidth } from "./stage.js";

const MEASURED_MS = 120;
let scrolled = 0;
const scale = () => {
  const { to, scrolls } = $("#scroll-ruler")?.dataset ?? {};
  return { to: Number(to), most: Number(scrolls ?? 0) };
};
const top = (px) => `${(100 * Math.min(px, scale().to)) / scale().to}%`;
const showHandle = () => {
  const handle = $("#scroll-ruler") && $("#scroll-handle");
  if (!handle) return;
  handle.style.top = top(scrolled);
  place(handle, scrolled);
  $("span", handle).textContent = scrolled;
};
const scroll = (px) => {
  scrolled = Math.round(Math.max(0, Math.min(px, scale().most)));
  scrollTo(scrolled);
  showHandle();
};
const showGrip = (grip, after) => {
  grip.style.top = top(after + Number(grip.dataset.from));
  place(grip, after, `after ${after} px`);
  $("span", grip).textContent = after;
  return after;
};

const ruler = slider({
  ground: "#scroll-ruler",
  own: "#scroll-handle",
  grips: "[data-grip-stage]",
  skips: "[data-scroll-at], [aria-disabled]",
  upKeys: "less",
  along: (event, line) => {
    const box = line.getBoundingClientRect();
    return Math.round(((event.clientY - box.top) / box.height) * scale().to);
  },
  act: scroll,
  show: (grip, px, exactly = false) => showGrip(grip, exactly ? px : Math.max(0, px - Number(grip.dataset.from))),
  change: (grip, after) => set(grip.dataset.gripStage, "after", after, { unit: "px" }),
});
document.addEventListener("pointerdown", ({ target }) => {
  const mark = target.closest("[data-scroll-at]");
  if (mark) scroll((Number(mark.dataset.scrollAt) * scale().to) / 100);
});
document.addEventListener("rim:scrolled", ({ detail: px }) => {
  if (isHeld()) return;
  scrolled = px;
  showHandle();
});

// What the stage has measured; until then the ruler rests on an estimate.
let shape = "", measuring = null;
document.addEventListener("htmx:configRequest", ({ detail }) => {
  if (shape) detail.headers["X-Rim-Shape"] = shape;
});
const measured = (told) => {
  clearTimeout(measuring);
  measuring = setTimeout(() => {
    const now = `${Math.round(told.whole)} ${Math.round(told.high)}`, holder = $("[data-ruler]");
    if (ruler.isBusy()) return measured(told);
    if (now === shape && $("#scroll-ruler")?.matches("[data-measured]")) return;
    shape = now;
    if (!holder) return;
    const looked = new URLSearchParams({ page: $("#looked-at")?.value ?? "", width: stageWidth() });
    htmx.ajax("GET", `${holder.dataset.ruler}?${looked}`, { target: "#scroll-ruler", swap: "morph:outerHTML" });
  }, MEASURED_MS);
};
document.addEventListener("rim:measured", ({ detail }) => measured(detail));
document.addEventListener("htmx:afterSwap", showHandle);
showHandle();
