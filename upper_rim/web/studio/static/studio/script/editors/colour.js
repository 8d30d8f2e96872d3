// A colour: one of the site's swatches, or any, turned by lightness, chroma, hue and opacity (OKLCH), with its contrast to what
// it is seen with.
import { clampChroma, converter, formatHex, formatHex8, inGamut, parse, wcagContrast, wcagLuminance } from "../../culori.min.js";
import { $, $$ } from "../dom.js";
import { button, dragged, editing, near, painted, press } from "./values.js";

const oklch = converter("oklch"), rgb = converter("rgb"), isShown = inGamut("rgb");
const MOST_CHROMA = 0.37, NOT_TEXT = 3, LIGHTNESSES = 40;
const AS_TEXT = "currentcolor";

// How far chroma goes at a hue: the plane shows no more.
const mostChroma = (hue) => {
  const most = (_, at) => clampChroma({ mode: "oklch", l: (at + 1) / LIGHTNESSES, c: MOST_CHROMA, h: hue }, "oklch", "rgb").c ?? 0;
  return Math.max(0.05, ...Array.from({ length: LIGHTNESSES - 1 }, most));
};

const channelsOf = (value) => {
  const { ink = "#000" } = editing();
  const [whole, opacity] = value.split("/"), share = value.startsWith("@") && opacity ? parseFloat(opacity) / 100 : null;
  const colour = oklch(parse(value === AS_TEXT ? ink : painted(whole.startsWith("@") ? whole : value))) ?? { l: 0, c: 0, h: 0 };
  return { l: colour.l, c: colour.c ?? 0, h: colour.h ?? 0, alpha: share ?? colour.alpha ?? 1 };
};
const over = (colour, ground) => {
  const { r, g, b, alpha = 1 } = rgb(colour), below = rgb(ground);
  const mixed = (one, other) => one * alpha + other * (1 - alpha);
  return { mode: "rgb", r: mixed(r, below.r), g: mixed(g, below.g), b: mixed(b, below.b) };
};
// With what a colour is seen, and which contrast it needs to that (WCAG 2.2, 1.4.3 and 1.4.11).
const seenWith = (property) => {
  const { ink, ground, needed } = editing();
  if (!ground || !property) return null;
  if (property === "color") return { other: ground, needed, said: "to what lies behind it" };
  if (property === "background-color") return { other: ink, needed, said: "to the text on it" };
  return /^(border|outline|text-decoration)/.test(property) ? { other: ground, needed: NOT_TEXT, said: "to what lies behind it" } : null;
};

export const colourEditor = (root, tools) => {
  const plane = $("[data-colour-plane]", root), pen = plane.getContext("2d"), small = new OffscreenCanvas(plane.width / 2, plane.height / 2);
  const told = $("[data-colour-contrast]", root), { swatches = [] } = editing();
  let value = "#000000", channels = channelsOf(value), property = "", drawn = "", reach = MOST_CHROMA;

  const choices = swatches.map(([swatch, name, colour]) => {
    const made = button("", false, () => take(`@${swatch}` + (channels.alpha < 1 ? `/${Math.round(channels.alpha * 100)}%` : "")));
    Object.assign(made, { className: "swatch-choice", title: name });
    made.style.background = colour;
    made.dataset.swatch = swatch;
    made.setAttribute("aria-label", name);
    return made;
  });
  $("[data-swatches]", root).replaceChildren(...choices);

  const draw = () => {
    const seen = seenWith(property), wide = small.width, high = small.height, key = `${channels.h} ${JSON.stringify(seen)}`;
    const paint = small.getContext("2d");
    if (key !== drawn) {
      drawn = key;
      reach = mostChroma(channels.h);
      const picture = paint.createImageData(wide, high), other = seen && wcagLuminance(seen.other);
      const passed = new Uint8Array(wide * high);
      for (let y = 0; y < high; y++)
        for (let x = 0; x < wide; x++) {
          const colour = rgb({ mode: "oklch", l: 1 - y / (high - 1), c: (x / (wide - 1)) * reach, h: channels.h }), at = y * wide + x;
          if (!isShown(colour)) continue;
          const one = seen && wcagLuminance(colour);
          passed[at] = seen && (Math.max(one, other) + 0.05) / (Math.min(one, other) + 0.05) >= seen.needed ? 2 : 1;
          // The line between what is read and what is not.
          const isLine = seen && y > 0 && passed[at - wide] && passed[at - wide] !== passed[at];
          picture.data.set(isLine ? [255, 255, 255, 255] : [colour.r * 255, colour.g * 255, colour.b * 255, 255], at * 4);
        }
      paint.putImageData(picture, 0, 0);
    }
    pen.clearRect(0, 0, plane.width, plane.height);
    pen.drawImage(small, 0, 0, plane.width, plane.height);
    pen.beginPath();
    pen.arc((channels.c / reach) * plane.width, (1 - channels.l) * plane.height, 6, 0, 7);
    pen.lineWidth = 4;
    pen.strokeStyle = "#23292b";
    pen.stroke();
    pen.lineWidth = 2;
    pen.strokeStyle = "#fff";
    pen.stroke();
  };
  const show = () => {
    draw();
    const said = { l: (of) => near(of, 0.01), c: (of) => near(of, 0.001), h: (of) => `${Math.round(of)}°`, alpha: (of) => `${Math.round(of * 100)} %` };
    for (const slider of $$("[data-channel]", root)) {
      const channel = slider.dataset.channel;
      if (document.activeElement !== slider) slider.value = channels[channel];
      slider.nextElementSibling.value = said[channel](channels[channel]);
    }
    choices.forEach((one) => press(one, value === `@${one.dataset.swatch}` || value.startsWith(`@${one.dataset.swatch}/`)));
    $$("[data-colour-word]", root).forEach((one) => press(one, value === one.dataset.colourWord));
    showContrast();
  };
  const showContrast = () => {
    const seen = seenWith(property);
    if (!seen) return (told.textContent = "");
    if (property === "background-color" && channels.alpha < 1) return (told.textContent = "It lets through what lies behind: its contrast is told when you let go.");
    const ratio = wcagContrast(over({ mode: "oklch", ...channels }, seen.other), seen.other), passes = ratio >= seen.needed;
    told.textContent = `${ratio.toFixed(1)} ${seen.said}${passes ? "" : `; ${seen.needed} is needed`}`;
    told.className = `min-h-5 ${passes ? "text-soft" : "font-semibold text-brick"}`;
  };
  const take = (text, isTurning = false) => {
    value = text;
    if (!isTurning) channels = channelsOf(value);
    show();
    tools.turned();
    if (!isTurning) tools.letGo();
  };
  const turn = (changed) => {
    channels = { ...channels, ...changed };
    const swatch = Object.keys(changed).join() === "alpha" && /^@[^/]+/.exec(value);
    if (swatch) return take(channels.alpha < 1 ? `${swatch[0]}/${Math.round(channels.alpha * 100)}%` : swatch[0], true);
    const fitting = clampChroma({ mode: "oklch", ...channels }, "oklch", "rgb");
    channels = { ...channels, c: fitting.c ?? 0 };
    take(channels.alpha < 1 ? formatHex8(fitting) : formatHex(fitting), true);
  };
  $$("[data-channel]", root).forEach((slider) => {
    slider.addEventListener("input", () => turn({ [slider.dataset.channel]: Number(slider.value) }));
    slider.addEventListener("change", () => tools.letGo());
  });
  dragged(plane, (x, y) => turn({ c: x * reach, l: 1 - y }), () => tools.letGo());
  $$("[data-colour-word]", root).forEach((one) => one.addEventListener("click", () => take(one.dataset.colourWord)));
  const picker = $("[data-colour-pick]", root);
  picker.hidden = !$("#stage");
  picker.addEventListener("click", () => {
    press(picker, true);
    tools.pick(({ ink, ground }) => (press(picker, false), take(formatHex(parse(property === "background-color" ? ground : ink) ?? "#000"))));
  });
  return {
    begin: (parts, about) => {
      [value, property] = [parts, about.properties?.[0] ?? ""];
      if (/^border-.*-color$/.test(property)) property = "border-color";
      channels = channelsOf(value);
      $(`[data-colour-word="${AS_TEXT}"]`, root).hidden = property === "color";
      show();
    },
    value: () => value,
  };
};
