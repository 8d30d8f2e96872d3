// Where a picture lies in its box: a point to drag, two sliders, nine places.
import { $, $$ } from "../dom.js";
import { button, dragged, near } from "./values.js";

const NINE = ["Top left", "Top", "Top right", "Left", "Middle", "Right", "Bottom left", "Bottom", "Bottom right"];

export const positionEditor = (root, tools) => {
  const pad = $("[data-pad]", root), sliders = $$("[data-axis]", root);
  let places = [50, 50];
  const show = () => {
    Object.assign($("[data-pad-point]", root).style, { left: `${places[0]}%`, top: `${places[1]}%` });
    sliders.forEach((slider, axis) => {
      if (document.activeElement !== slider) slider.value = places[axis];
      slider.nextElementSibling.value = `${places[axis]} %`;
    });
    const at = (places[1] / 50) * 3 + places[0] / 50;
    $$("button", root).forEach((one, each) => one.setAttribute("aria-pressed", each === at));
  };
  const move = (next) => ((places = next.map((share) => near(share))), show(), tools.turned());
  sliders.forEach((slider, axis) => {
    slider.addEventListener("input", () => move(places.with(axis, Number(slider.value))));
    slider.addEventListener("change", () => tools.letGo());
  });
  dragged(pad, (x, y) => move([Math.round(x * 100), Math.round(y * 100)]), () => tools.letGo());
  const nine = NINE.map((name, at) => {
    const made = button("", false, () => (move([(at % 3) * 50, Math.floor(at / 3) * 50]), tools.letGo()));
    made.setAttribute("aria-label", name);
    made.title = name;
    return made;
  });
  $("[data-nine]", root).replaceChildren(...nine);
  return {
    begin: (parts) => ((places = parts.map((one) => (one.unit === "%" || !one.number ? (one.number ?? 50) : 50))), show()),
    value: () => places.map((place) => `${place}%`).join(" "),
  };
};
