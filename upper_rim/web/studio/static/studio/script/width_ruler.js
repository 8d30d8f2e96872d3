// The width ruler: a handle for the stage's width, and a flag where each width band begins. The studies follow the handle.
import { $, $$ } from "./dom.js";
import { set } from "./requests.js";
import { place, slider } from "./slider.js";
import { setWidth, stageWidth } from "./stage.js";

const SNAP_PX = 6;
const scale = () => {
  const { from, to } = $("#ruler").dataset;
  return { from: Number(from), to: Number(to) };
};
const left = (px) => {
  const { from, to } = scale();
  return `${(100 * (Math.min(Math.max(px, from), to) - from)) / (to - from)}%`;
};
// A flag that comes near a width at which something begins to fit goes there.
const snapped = (px) => {
  const near = ($("#ruler").dataset.snaps || "").split(" ").map(Number).find((at) => at && Math.abs(at - px) <= SNAP_PX);
  return near || px;
};
const showFlag = (flag, px, exactly = false) => {
  const at = exactly ? px : snapped(px);
  flag.style.left = left(at);
  place(flag, at);
  const text = $("[data-flag-text]", flag);
  text.textContent = `‹ ${at}`;
  return at;
};

slider({
  ground: "#ruler",
  own: "#handle",
  grips: "[data-flag]",
  skips: "[data-go-width]",
  upKeys: "more",
  along: (event, ruler) => {
    const box = ruler.getBoundingClientRect(), { from, to } = scale();
    return Math.max(1, Math.round(from + ((event.clientX - box.left) / box.width) * (to - from)));
  },
  act: setWidth,
  show: showFlag,
  change: (flag, px) => set(flag.dataset.flag, "from_px", px),
});

const showWidth = (px) => {
  const handle = $("#ruler") && $("#handle");
  if (handle) {
    handle.style.left = left(px);
    place(handle, px);
    $("span", handle).textContent = px;
  }
  $$("[data-study]").forEach((study) => {
    const { from, to, left, right } = study.dataset, wide = study.viewBox.baseVal.width, line = $(".study-at", study);
    const x = px > to ? -9 : wide * (Number(left) + ((px - from) / (to - from)) * (right - left));
    line.setAttribute("x1", x);
    line.setAttribute("x2", x);
  });
};
document.addEventListener("rim:width", ({ detail: px }) => showWidth(px));
if ($("#stage-ground")) showWidth(stageWidth());
document.addEventListener("click", ({ target, clientX }) => {
  const go = target.closest("[data-go-width]"), study = target.closest("[data-study]");
  if (go) return setWidth(Number(go.dataset.goWidth));
  if (!study) return;
  const { from, to, left, right } = study.dataset, box = study.getBoundingClientRect();
  const at = ((clientX - box.left) / box.width - left) / (right - left);
  setWidth(Number(from) + Math.min(1, Math.max(0, at)) * (to - from));
});
