// The movement study: a way of scrolling, drawn (turns are dragged, added by a press, taken away by Delete), and played:
// every frame was worked out beforehand.
import { $, $$ } from "./dom.js";
import { place } from "./slider.js";

const MOST_TURNS = 20, PAUSE_MS = 400, FRAME_MS = 12;
let turning = null, waiting = null, playing = 0;
const turns = () => $$("#way-pad [data-turn]").map((turn) => Number(turn.getAttribute("aria-valuenow")));
const showWay = (points) => {
  const field = $("#movement-way [name=path]");
  field.value = points.join(", ");
  field.dispatchEvent(new Event("change", { bubbles: true }));
};
const onPad = (event) => {
  const pad = $("#way-pad"), box = pad.getBoundingClientRect(), edge = Number(pad.dataset.edge), to = Number(pad.dataset.to);
  const share = (at, room) => Math.min(1, Math.max(0, (at - edge) / (room - 2 * edge)));
  return { px: Math.round(share(event.clientY - box.top, box.height) * to), along: share(event.clientX - box.left, box.width) };
};
const placeTurn = (turn, px) => {
  const pad = $("#way-pad"), edge = Number(pad.dataset.edge);
  turn.setAttribute("cy", edge + (px / Number(pad.dataset.to)) * (Number(pad.getAttribute("height")) - 2 * edge));
  place(turn, px);
  const points = $$("[data-turn]", pad).map((one) => `${one.getAttribute("cx")},${one.getAttribute("cy")}`);
  $("polyline", pad).setAttribute("points", points.join(" "));
};
document.addEventListener("pointerdown", (event) => {
  if (!event.target.closest("#way-pad")) return;
  event.preventDefault();
  const turn = event.target.closest("[data-turn]"), points = turns(), { px, along } = onPad(event);
  if (turn) return (turning = turn), turn.focus();
  const at = Math.ceil(along * (points.length - 1));
  if (points.length < MOST_TURNS) showWay([...points.slice(0, at), px, ...points.slice(at)]);
});
document.addEventListener("pointermove", (event) => turning && placeTurn(turning, onPad(event).px));
document.addEventListener("pointerup", () => {
  if (turning) (turning = null), showWay(turns());
});
document.addEventListener("keydown", (event) => {
  const turn = event.target.closest?.("[data-turn]");
  const step = { ArrowUp: -10, ArrowDown: 10, PageUp: -100, PageDown: 100 }[event.key];
  if (!turn || (!step && event.key !== "Delete")) return;
  event.preventDefault();
  if (!step) return turns().length > 2 && showWay(turns().filter((_, at) => at !== Number(turn.dataset.turn)));
  placeTurn(turn, Math.max(0, Number(turn.getAttribute("aria-valuenow")) + step));
  clearTimeout(waiting);
  waiting = setTimeout(() => showWay(turns()), PAUSE_MS);
});

const scrolledUntil = (frames, last) =>
  frames.reduce((sum, [y], at) => (at && at <= last ? sum + Math.abs(y - frames[at - 1][0]) : sum), 0);
const showMoment = (at) => {
  const frames = JSON.parse($("#frames").textContent), player = $("#player"), [y, left, pieces] = frames[at];
  const { wide, high } = player.dataset, scale = Math.min(236 / high, 240 / wide);
  const study = $("#along-title").closest("section").querySelector(".study svg"), line = $(".study-at", study);
  const share = scrolledUntil(frames, at) / (scrolledUntil(frames, frames.length) || 1);
  const { left: begins, right: ends } = study.dataset;
  const x = study.viewBox.baseVal.width * (Number(begins) + share * (ends - begins));
  line.setAttribute("x1", x);
  line.setAttribute("x2", x);
  player.setAttribute("viewBox", `0 0 ${wide} ${high}`);
  player.setAttribute("width", wide * scale);
  player.setAttribute("height", high * scale);
  const colours = player.dataset.colours?.split(" ") ?? [];
  const drawn = (box, index) =>
    box ? `<rect class="piece-${colours[index] ?? index % 6}" x="${box[0]}" y="${box[1]}" width="${box[2]}" height="${box[3]}"/>` : "";
  player.innerHTML = `<rect class="study-screen" width="${wide}" height="${high}"/>` + pieces.map(drawn).join("");
  $("#moment").value = at;
  $("#moment-said").textContent = `${y} px, ${left} % left`;
};
document.addEventListener("input", ({ target }) => {
  if (target.id !== "moment") return;
  cancelAnimationFrame(playing);
  showMoment(Number(target.value));
});
document.addEventListener("click", ({ target }) => {
  if (target.id !== "play") return;
  cancelAnimationFrame(playing);
  const last = Number($("#moment").max), started = performance.now();
  const step = (now) => {
    if (!$("#moment")) return;
    const at = Math.min(last, Math.max(0, Math.floor((now - started) / FRAME_MS)));
    showMoment(at);
    if (at < last) playing = requestAnimationFrame(step);
  };
  playing = requestAnimationFrame(step);
});
// What else is shown anew leaves it where it is.
const ready = () => $("#player:empty") && showMoment(0);
document.addEventListener("htmx:afterSwap", ready);
ready();
