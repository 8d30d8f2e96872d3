// The tray is as high as one wants it (ARIA Authoring Practices, window splitter): its edge is dragged or moved by keys, and
// stays where it was left.
import { $ } from "./dom.js";

const KEPT = "rim-tray-height", USUAL_PX = 272, STEP_PX = 16;
let high = Number(localStorage.getItem(KEPT)) || USUAL_PX, held = null;

const show = () => {
  const edge = $("#tray-height");
  if (!edge) return;
  edge.setAttribute("aria-valuenow", high);
  document.documentElement.style.setProperty("--tray-height", `${high}px`);
};
const setHeight = (px) => {
  const edge = $("#tray-height"), [least, most] = ["valuemin", "valuemax"].map((name) => Number(edge.getAttribute(`aria-${name}`)));
  high = Math.round(Math.min(most, Math.max(least, px)));
  localStorage.setItem(KEPT, high);
  show();
  // The stage has the room that is left.
  dispatchEvent(new Event("resize"));
};

// Over the stage, a window of its own, the pointer is still ours.
const hold = (from) => {
  held = from;
  const stage = $("#stage-ground");
  if (stage) stage.style.pointerEvents = held ? "none" : "";
};
document.addEventListener("pointerdown", (event) => {
  if (!event.target.matches?.("#tray-height")) return;
  hold({ y: event.clientY, high });
  event.target.focus();
  event.preventDefault();
});
document.addEventListener("pointermove", ({ clientY }) => held && setHeight(held.high + held.y - clientY));
for (const name of ["pointerup", "pointercancel"]) document.addEventListener(name, () => held && hold(null));
document.addEventListener("dblclick", ({ target }) => target.matches?.("#tray-height") && setHeight(USUAL_PX));
document.addEventListener("keydown", (event) => {
  const to = { ArrowUp: high + STEP_PX, ArrowDown: high - STEP_PX, Home: 0, End: Infinity }[event.key];
  if (to === undefined || !event.target.matches?.("#tray-height")) return;
  event.preventDefault();
  setHeight(to);
});
document.addEventListener("htmx:afterSwap", show);
show();
