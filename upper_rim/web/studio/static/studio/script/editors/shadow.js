// Shadows of a box or of letters: for each a point to drag, its blur, its spread, its colour, whether it lies inside.
import { $, $$ } from "../dom.js";
import { colourEditor } from "./colour.js";
import { button, dragged, near } from "./values.js";

const FAR_PX = 40;
const NEW = { right: "0px", down: "4px", blur: "12px", spread: "", colour: "#00000040", is_inset: false };

export const shadowEditor = (root, tools) => {
  const pad = $("[data-pad]", root), sliders = $$("[data-shadow-of]", root), inset = $("[data-shadow-inset]", root);
  const line = $("[data-layers]", root);
  let layers = [], at = 0, spreads = true;
  const own = { ...tools, turned: () => ((layers[at].colour = colour.value()), tools.turned()) };
  const colour = colourEditor($("[data-colour]", root), own);
  const px = (text) => parseFloat(text) || 0;
  const show = () => {
    const names = layers.map((_, each) => button(layers.length > 1 ? `Shadow ${each + 1}` : "Shadow", each === at, () => ((at = each), begin())));
    const change = (act) => () => (act(), begin(), tools.turned(), tools.letGo());
    const add = button(layers.length ? "Add another" : "Add a shadow", false, change(() => (at = layers.push({ ...NEW }) - 1)));
    const remove = button("Remove it", false, change(() => (layers.splice(at, 1), (at = Math.max(0, at - 1)))));
    add.dataset.test = "add-shadow";
    line.replaceChildren(...names, add, ...(layers.length ? [remove] : []));
    $$("[data-layer]", root).forEach((part) => (part.hidden = !layers.length));
    $$("[data-boxes-only]", root).forEach((part) => (part.hidden = !spreads));
    if (layers.length) showLayer();
  };
  const showLayer = () => {
    const layer = layers[at], share = (text) => `${50 + (px(text) / FAR_PX) * 50}%`;
    Object.assign($("[data-pad-point]", root).style, { left: share(layer.right), top: share(layer.down) });
    for (const slider of sliders) {
      const value = px(layer[slider.dataset.shadowOf]);
      if (document.activeElement !== slider) slider.value = value;
      slider.nextElementSibling.value = `${value} px`;
    }
    inset.checked = layer.is_inset;
  };
  const turn = (changed) => (Object.assign(layers[at], changed), showLayer(), tools.turned());
  sliders.forEach((slider) => {
    slider.addEventListener("input", () => turn({ [slider.dataset.shadowOf]: `${near(slider.value)}px` }));
    slider.addEventListener("change", () => tools.letGo());
  });
  inset.addEventListener("change", () => (turn({ is_inset: inset.checked }), tools.letGo()));
  const away = (share) => `${Math.round((share * 2 - 1) * FAR_PX)}px`;
  dragged(pad, (x, y) => layers.length && turn({ right: away(x), down: away(y) }), () => layers.length && tools.letGo());
  const begin = () => {
    show();
    if (layers.length) colour.begin(layers[at].colour || "currentcolor", {});
  };
  const written = ({ right, down, blur, spread, colour: painted, is_inset }) =>
    [is_inset && spreads ? "inset" : "", right, down, blur || "0px", spreads ? spread || "0px" : "", painted].filter(Boolean).join(" ");
  return {
    begin: (parts, about) => {
      [layers, spreads] = [parts.map((layer) => ({ ...layer })), about.is_inset];
      at = Math.min(at, Math.max(0, layers.length - 1));
      begin();
    },
    value: () => layers.map(written).join(", ") || "none",
  };
};
