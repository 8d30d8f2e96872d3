// The site's pages beside a menu: walked, put in and taken out with keys, and dragged to where they are to hang: beside a page
// that is in the menu, or onto the menu itself.
import { $, $$ } from "./dom.js";
import { send } from "./requests.js";
import { frameAt, tellFrame } from "./stage.js";

const FEW_PX = 6, EDGE = 0.3, HAND_PX = 8;
const TITLE = ".menu-pages [data-select]";
const menu = () => $("[data-pages]")?.dataset.pages;

document.addEventListener("keydown", (event) => {
  const title = event.target.closest?.(TITLE), { key } = event;
  if (!title || event.altKey || event.ctrlKey || event.metaKey) return;
  const hand = $("#hand-label");
  // What is chosen already is changed where it stands.
  if (key === "Enter" && hand && title.hasAttribute("aria-current")) return event.preventDefault(), hand.focus(), hand.select();
  const titles = $$(TITLE), next = { ArrowDown: 1, ArrowUp: -1 }[key];
  if (next) titles[titles.indexOf(title) + next]?.focus();
  else if (key === " ") $("[value=hang]", title.closest("li"))?.click();
  else if (key === "*" && title.dataset.page) send({ do: "grow", menu: menu(), page: title.dataset.page });
  else return;
  event.preventDefault();
});

export const put = (what, beside, where) => send({ do: `put:${where}`, menu: menu(), node: what, beside });

let drag = null;
const marked = () => $$("[data-drop]", $(".menu-pages"));
const unmark = () => marked().forEach((line) => delete line.dataset.drop);
const spotIn = (line, y) => {
  const { top, height } = line.getBoundingClientRect(), at = (y - top) / height;
  return at < EDGE ? "before" : at > 1 - EDGE ? "after" : "below";
};
const over = (x, y) => {
  unmark();
  const part = document.elementFromPoint(x, y), line = part?.closest(".page-line.inside");
  if (line && line !== drag.line) line.dataset.drop = spotIn(line, y);
  const frame = frameAt(x, y);
  if (drag.frame && drag.frame !== frame?.frame) tellFrame(drag.frame, { rim: "over", x: -1, y: -1 });
  drag.frame = frame?.frame;
  if (frame) tellFrame(frame.frame, { rim: "over", x: frame.x, y: frame.y });
};
const end = (event, isDropped) => {
  if (!drag) return;
  const { line, ghost, isMoving, what } = drag;
  const target = marked()[0], frame = frameAt(event.clientX, event.clientY);
  ghost?.remove();
  document.body.classList.remove("dragging");
  if (isMoving && isDropped && target) put(what, target.dataset.id, target.dataset.drop);
  else if (isMoving && isDropped && frame) tellFrame(frame.frame, { rim: "let go", what, x: frame.x, y: frame.y });
  else if (drag.frame) tellFrame(drag.frame, { rim: "over", x: -1, y: -1 });
  unmark();
  // What was dragged was not pressed.
  if (isMoving) line.addEventListener("click", (click) => (click.preventDefault(), click.stopPropagation()), { capture: true, once: true });
  drag = null;
};
document.addEventListener("dragstart", (event) => event.target.closest?.(".page-line") && event.preventDefault());
document.addEventListener("pointerdown", (event) => {
  const line = event.target.closest?.(".page-line");
  if (!line || event.button || event.target.closest("button, .page-twist")) return;
  drag = { line, what: line.dataset.id, x: event.clientX, y: event.clientY, isMoving: false };
});
document.addEventListener("pointermove", (event) => {
  if (!drag) return;
  if (!drag.isMoving) {
    if (Math.hypot(event.clientX - drag.x, event.clientY - drag.y) < FEW_PX) return;
    drag.isMoving = true;
    // Over a frame, too, it is ours.
    document.body.classList.add("dragging");
    drag.line.setPointerCapture(event.pointerId);
    drag.ghost = Object.assign(document.createElement("div"), { className: "dragged", textContent: $("[data-select]", drag.line).textContent });
    document.body.append(drag.ghost);
  }
  Object.assign(drag.ghost.style, { left: `${event.clientX + 10}px`, top: `${event.clientY + 6}px` });
  over(event.clientX, event.clientY);
});
document.addEventListener("pointerup", (event) => end(event, true));
document.addEventListener("pointercancel", (event) => end(event, false));
document.addEventListener("keydown", (event) => event.key === "Escape" && drag?.isMoving && end(drag, false));

document.addEventListener("rim:dropped", ({ detail: { what, beside, where } }) => put(String(what), String(beside), String(where)));

// The menu as text: lines of a page's navigation are put behind it; Ctrl+Enter keeps it.
document.addEventListener("click", ({ target }) => {
  const from = target.closest("[data-lines]"), field = from && document.getElementById(from.dataset.into);
  if (!field) return;
  field.value = `${field.value.replace(/\n*$/, field.value.trim() ? "\n" : "")}${from.dataset.lines}`;
  field.focus();
  field.scrollTop = field.scrollHeight;
});
document.addEventListener("keydown", (event) => {
  if (event.target.id !== "menu-text" || event.key !== "Enter" || !event.ctrlKey) return;
  event.preventDefault();
  $("#keep-text").click();
});

// What is chosen is changed where it stands on the menu: beside an entry of a list, above one that opens what it holds, else
// below it.
document.addEventListener("rim:at", ({ detail: { left, right, top, bottom, isBeside, holds } }) => {
  const hand = $("#entry-hand"), ground = $("#stage-ground");
  if (!hand) return;
  hand.hidden = false;
  const [wide, tall] = [ground.clientWidth - hand.offsetWidth - HAND_PX, ground.clientHeight - hand.offsetHeight - HAND_PX];
  const [x, y] = isBeside && right + HAND_PX <= wide ? [right + HAND_PX, top - HAND_PX] : [left, holds ? top - hand.offsetHeight - HAND_PX : bottom + HAND_PX];
  hand.style.left = `${Math.max(HAND_PX, Math.min(x, wide))}px`;
  hand.style.top = `${Math.max(0, Math.min(y, tall))}px`;
});
