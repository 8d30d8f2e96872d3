// The ends of times are dragged, or moved with the arrow keys; what moment that is, the server says.
import { $ } from "./dom.js";
import { send } from "./requests.js";

const DAY = 1440, HOUR = 60;
const table = () => $("#timetable");
const most = () => Number(table().dataset.minutes);
const within = (minutes) => Math.min(most(), Math.max(0, minutes));
const show = (end, minutes) => (end.style.left = `${(100 * minutes) / most()}%`);
const turn = (end, minutes) => {
  const { node, at, end: name } = end.dataset;
  show(end, minutes);
  send({ do: "turn-time", node, at, end: name, from: table().dataset.from, minutes: Math.round(minutes) });
};

let held = null;
document.addEventListener("pointerdown", (event) => {
  const end = event.target.closest?.(".time-end");
  if (!end || event.button) return;
  const { left, width } = end.parentElement.getBoundingClientRect(), begun = Number(end.ariaValueNow);
  held = { end, left, width, begun, minutes: begun };
  end.setPointerCapture(event.pointerId);
});
document.addEventListener("pointermove", ({ clientX }) => {
  if (!held) return;
  const { end, left, width } = held;
  held.minutes = within(((clientX - left) / width) * most());
  show(end, held.minutes);
});
document.addEventListener("pointerup", () => {
  const { end, begun, minutes } = held ?? {};
  held = null;
  if (end && Math.abs(minutes - begun) >= HOUR / 2) turn(end, minutes);
  else if (end) show(end, begun);
});
document.addEventListener("keydown", (event) => {
  const end = event.target.closest?.(".time-end"), step = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
  if (event.key === "Escape" && held) return show(held.end, held.begun), void (held = null);
  if (!end || !step) return;
  event.preventDefault();
  turn(end, within(Number(end.ariaValueNow) + step * (event.shiftKey ? HOUR : DAY)));
});
