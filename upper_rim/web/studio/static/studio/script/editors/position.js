// Where a picture lies in its box: a point to drag, two sliders, nine places. What is said of one axis stays as it is while
// the other is turned.
import { $, $$ } from "../dom.js";
import { button, dragged, near } from "./values.js";

const NINE = ["Top left", "Top", "Top right", "Left", "Middle", "Right", "Bottom left", "Bottom", "Bottom right"];
const MIDDLE = { number: 50, unit: "%" };
const LEAST_PX = -200, MOST_PX = 400;

export const positionEditor = (root, tools) => {
  const pad = $("[data-pad]", root), sliders = $$("[data-axis]", root);
  let places = [MIDDLE, MIDDLE];
  const share = ({ number, unit }) => (unit === "%" || !number ? number : 50);
  const written = ({ number, unit, word }) => word ?? `${near(number, 0.01)}${unit || (number ? "px" : "%")}`;
  const show = () => {
    const [across, down] = places.map((place) => Math.min(100, Math.max(0, share(place))));
    Object.assign($("[data-pad-point]", root).style, { left: `${across}%`, top: `${down}%` });
    sliders.forEach((slider, axis) => {
      const { number, unit } = places[axis], isShare = unit === "%";
      slider.min = Math.min(isShare ? 0 : LEAST_PX, number);
      slider.max = Math.max(isShare ? 100 : MOST_PX, number);
      if (document.activeElement !== slider) slider.value = number;
      slider.nextElementSibling.value = places[axis].word ?? `${near(number, 0.01)} ${unit}`;
    });
    const at = places.every(({ unit, word }) => unit === "%" && !word) ? (places[1].number / 50) * 3 + places[0].number / 50 : -1;
    $$("button", root).forEach((one, each) => one.setAttribute("aria-pressed", each === at));
  };
  const move = (next) => ((places = next), show(), tools.turned());
  const shares = (...both) => move(both.map((number) => ({ number, unit: "%" })));
  sliders.forEach((slider, axis) => {
    slider.addEventListener("input", () => move(places.with(axis, { number: Number(slider.value), unit: places[axis].unit })));
    slider.addEventListener("change", () => tools.letGo());
  });
  dragged(pad, (x, y) => shares(Math.round(x * 100), Math.round(y * 100)), () => tools.letGo());
  const nine = NINE.map((name, at) => {
    const made = button("", false, () => (shares((at % 3) * 50, Math.floor(at / 3) * 50), tools.letGo()));
    made.setAttribute("aria-label", name);
    made.title = name;
    return made;
  });
  $("[data-nine]", root).replaceChildren(...nine);
  return {
    begin: (parts) => {
      places = [0, 1].map((axis) => ({ ...MIDDLE, ...parts[axis] }));
      show();
    },
    value: () => places.map(written).join(" "),
  };
};
