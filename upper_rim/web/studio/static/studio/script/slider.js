// Handles on a ruler (ARIA Authoring Practices, slider): dragged, or moved by keys. One of them is the ruler's own and acts
// at once; the others stand for something of the site, which changes when they are let go, or a moment after the last key.
import { $ } from "./dom.js";

const PAUSE_MS = 500, PAGE_PX = 100, FAST = 10;
let held = null;
export const isHeld = () => held !== null;

export const within = (grip, px) =>
  Math.min(Number(grip.getAttribute("aria-valuemax")), Math.max(Number(grip.getAttribute("aria-valuemin")), px));
export const place = (grip, px, words = `${px} px`) => {
  grip.setAttribute("aria-valuenow", px);
  grip.setAttribute("aria-valuetext", words);
};

/* `ground`: the ruler. `own`: its own handle. `grips`: the others. `along(event, ruler)`: the pointer's place in px.
   `onward`: the arrow key that leads to greater values. `act(px)` of the own handle; `show(grip, px)` of another, which gives
   the value that it then has; `change(grip, value)`. `skips`: what is pressed for something else. */
export const slider = ({ ground, own, grips, along, upKeys, act, show, change, skips }) => {
  const ours = {};
  let waiting = null;
  document.addEventListener("pointerdown", (event) => {
    const ruler = $(ground), pressed = event.target;
    const grip = pressed.closest(grips), onHandle = grip || pressed.closest(own);
    if (!ruler || pressed.closest(skips) || (!onHandle && !pressed.closest(ground))) return;
    held = { ours, grip, ruler, value: null };
    if (!grip) act(along(event, ruler));
    (grip || $(own)).focus();
    $("#stage-ground").style.pointerEvents = "none";
    event.preventDefault();
  });
  document.addEventListener("pointermove", (event) => {
    if (held?.ours !== ours) return;
    const px = along(event, held.ruler);
    if (held.grip) held.value = show(held.grip, px);
    else act(px);
  });
  document.addEventListener("pointerup", () => {
    if (held?.ours !== ours) return;
    const { grip, value } = held;
    held = null;
    $("#stage-ground").style.pointerEvents = "";
    if (grip && value !== null) change(grip, value);
  });
  document.addEventListener("keydown", (event) => {
    const grip = event.target.closest?.(`${grips}, ${own}`), step = steps[upKeys][event.key];
    if (!grip || !step || event.altKey || grip.matches("[aria-disabled]")) return;
    event.preventDefault();
    const px = within(grip, Number(grip.getAttribute("aria-valuenow")) + step * (event.shiftKey ? FAST : 1));
    if (!grip.matches(grips)) return act(px);
    show(grip, px, true);
    clearTimeout(waiting);
    waiting = setTimeout(() => ((waiting = null), change(grip, px)), PAUSE_MS);
  });
  return { isBusy: () => held?.ours === ours || waiting !== null };
};

const ends = { Home: -Infinity, End: Infinity, ArrowLeft: -1, ArrowRight: 1 };
// On a ruler that lies, up is more; on one that runs down the page, down is.
const steps = {
  more: { ...ends, ArrowDown: -1, ArrowUp: 1, PageDown: -PAGE_PX, PageUp: PAGE_PX },
  less: { ...ends, ArrowDown: 1, ArrowUp: -1, PageDown: PAGE_PX, PageUp: -PAGE_PX },
};
