// A length, a share or a time: a slider in its unit, and the words that can stand instead; or words alone.
import { $ } from "../dom.js";
import { button, near } from "./values.js";

const NAMES = { "": "times", "%": "%" };

export const lengthEditor = (root, tools) => {
  const slider = $("[data-length-slider]", root), output = slider.nextElementSibling;
  let about = { units: [""], words: [], least: 0, most: 100, step: 1, reach: {} }, number = 0, unit = "", word = null;

  const share = () => about.reach[unit] / about.reach[about.units[0]];
  const step = () => (share() < 0.2 ? 0.01 : about.step);
  const show = () => {
    // What is further than the slider reaches makes it reach further.
    slider.min = Math.min(near(about.least * share(), 0.01), number);
    slider.max = Math.max(near(about.most * share(), 0.01), number);
    slider.step = step();
    if (document.activeElement !== slider) slider.value = number;
    output.value = word ?? `${near(number, step())} ${unit}`;
    $("[data-length-units]", root).replaceChildren(...(about.units.length < 2 ? [] : about.units.map((one) => button(NAMES[one] ?? one, word === null && one === unit, () => inUnit(one)))));
    $("[data-length-words]", root).replaceChildren(...about.words.map((one) => button(one, one === word, () => set(() => (word = one)))));
  };
  const set = (change) => {
    change();
    show();
    tools.turned();
    tools.letGo();
  };
  const inUnit = (other) =>
    set(() => {
      number = near(number * (about.reach[other] / about.reach[unit]), about.reach[other] < 0.2 ? 0.01 : about.step);
      [unit, word] = [other, null];
    });
  slider.addEventListener("input", () => {
    [number, word] = [Number(slider.value), null];
    show();
    tools.turned();
  });
  slider.addEventListener("change", () => tools.letGo());
  return {
    begin: (parts, given, label) => {
      about = given;
      $("[data-length-name]", root).textContent = label;
      [number, unit, word] = [parts.number ?? 0, parts.unit || about.units[0], parts.number === undefined ? parts.word : null];
      if (!(unit in about.reach)) unit = about.units[0];
      show();
    },
    value: () => word ?? `${near(number, step())}${unit}`,
  };
};

export const wordsEditor = (root, tools) => {
  let value = "", words = [];
  const show = () => $("[data-words]", root).replaceChildren(...words.map((one) => button(one, one === value, () => take(one))));
  const take = (one) => {
    value = one;
    show();
    tools.turned();
    tools.letGo();
  };
  return { begin: (parts, about) => (([value, words] = [parts, about.words]), show()), value: () => value };
};
