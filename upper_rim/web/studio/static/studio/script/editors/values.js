// What all editors share: numbers as they are written, colours as they are painted, points that are dragged.
import { $ } from "../dom.js";

export const editing = () => JSON.parse($("#editing")?.textContent || "{}");
export const near = (number, step = 1) => Number(Number(number).toFixed(step < 0.01 ? 3 : step < 1 ? 2 : 1));

const REFERENCE = /@(:?[a-z][a-z0-9-]*)(?:\/(\d{1,3})%)?/g;
// A value as a browser paints it: references to swatches are replaced by their colours.
export const painted = (text) => {
  const { colours = {} } = editing();
  return text.replace(REFERENCE, (_, swatch, opacity) => {
    const colour = colours[swatch] ?? "transparent";
    return opacity ? `color-mix(in srgb, ${colour} ${opacity}%, transparent)` : colour;
  });
};

export const press = (button, isPressed) => button.setAttribute("aria-pressed", isPressed);
export const button = (text, isPressed, onPress) => {
  const made = Object.assign(document.createElement("button"), { type: "button", className: "facet", textContent: text });
  press(made, isPressed);
  made.addEventListener("click", onPress);
  return made;
};

// Follows a pointer from where it is pressed until it is let go: `move` gets shares of the box, from 0 to 1.
export const dragged = (box, move, letGo) => {
  const told = ({ clientX, clientY }) => {
    const { left, top, width, height } = box.getBoundingClientRect();
    const within = (share) => Math.min(1, Math.max(0, share));
    move(within((clientX - left) / width), within((clientY - top) / height));
  };
  box.addEventListener("pointerdown", (event) => {
    if (event.button) return;
    event.preventDefault();
    box.setPointerCapture(event.pointerId);
    told(event);
    box.addEventListener("pointermove", told);
    const end = () => (box.removeEventListener("pointermove", told), letGo());
    box.addEventListener("lostpointercapture", end, { once: true });
  });
};
