// What lies over a ground's colour: gradients, whose stops stand on a line, and pictures of the site's, the uppermost first.
import { $, $$ } from "../dom.js";
import { colourEditor } from "./colour.js";
import { button, dragged, editing, near, painted, press } from "./values.js";

const NAMES = { linear: "Gradient", radial: "Gradient", picture: "Picture" };
const TOWARDS = { "to top": 0, "to top right": 45, "to right": 90, "to bottom right": 135, "to bottom": 180, "to bottom left": 225, "to left": 270, "to top left": 315, "": 180 };
const NEAR_SHARE = 0.03;

export const imageEditor = (root, tools) => {
  const line = $("[data-stops]", root), angle = $("[data-angle]", root);
  let layers = [], at = 0, stop = 0;
  const layer = () => layers[at], isGradient = () => Boolean(layer()?.stops);
  const own = { ...tools, turned: () => ((layer().stops[stop].colour = colour.value()), showStops(), tools.turned()) };
  const colour = colourEditor($("[data-colour]", root), own);
  const thumbnails = (editing().pictures ?? []).map(([path, address]) => {
    const made = button("", false, () => change(() => (layers[at] = { kind: "picture", path })));
    Object.assign(made, { className: "thumbnail", title: path });
    made.dataset.picture = path;
    made.append(Object.assign(new Image(), { src: address, alt: path, loading: "lazy" }));
    return made;
  });
  const none = Object.assign(document.createElement("p"), { className: "text-soft", textContent: "The site has no pictures yet: upload one at a picture or a logo, or bring it in with pages." });
  $("[data-thumbnails]", root).replaceChildren(...(thumbnails.length ? thumbnails : [none]));

  const change = (act) => (act(), begin(), tools.turned(), tools.letGo());
  const degrees = () => TOWARDS[layer().shape] ?? (parseFloat(layer().shape) || 0);
  const stopsOf = ({ stops }) => [...stops].sort((one, other) => one.at - other.at).map((one) => `${one.colour} ${near(one.at)}${one.unit ?? "%"}`).join(", ");
  const written = (one) =>
    one.kind === "picture" ? `url("${one.path}")` : `${one.kind}-gradient(${[one.shape, stopsOf(one)].filter(Boolean).join(", ")})`;

  const showStops = () => {
    line.style.background = painted(`linear-gradient(to right, ${stopsOf(layer())})`);
    $$("[data-stop]", line).forEach((mark, each) => {
      const one = layer().stops[each];
      mark.style.left = `${one.at}%`;
      mark.style.background = painted(one.colour);
      mark.setAttribute("aria-valuenow", near(one.at));
      mark.setAttribute("aria-current", each === stop);
    });
  };
  const makeStops = () => {
    line.replaceChildren(
      ...layer().stops.map((_, each) => {
        const mark = document.createElement("span");
        mark.dataset.stop = each;
        for (const [name, value] of Object.entries({ role: "slider", tabindex: 0, "aria-label": `Stop ${each + 1}`, "aria-valuemin": 0, "aria-valuemax": 100 }))
          mark.setAttribute(name, value);
        mark.addEventListener("focus", () => choose(each));
        mark.addEventListener("keydown", (event) => {
          const by = { ArrowLeft: -1, ArrowRight: 1, ArrowDown: -1, ArrowUp: 1, PageDown: -10, PageUp: 10 }[event.key];
          if (event.key === "Delete") return remove();
          if (!by) return;
          event.preventDefault();
          move(layer().stops[each].at + by);
          tools.letGo();
        });
        return mark;
      }),
    );
    showStops();
  };
  const choose = (each) => {
    if (stop === each) return;
    stop = each;
    showStops();
    colour.begin(layer().stops[stop].colour, {});
  };
  const move = (place) => ((layer().stops[stop].at = Math.min(100, Math.max(0, near(place)))), showStops(), tools.turned());
  const add = () => {
    const { stops } = layer(), sorted = [...stops].sort((one, other) => one.at - other.at);
    const here = sorted.indexOf(stops[stop]), other = sorted[here + 1] ?? sorted[here - 1];
    change(() => (stop = stops.push({ colour: stops[stop].colour, at: near((stops[stop].at + other.at) / 2) }) - 1));
    $(`[data-stop="${stop}"]`, line).focus();
  };
  const remove = () => layer().stops.length > 2 && change(() => (layer().stops.splice(stop, 1), (stop = Math.max(0, stop - 1))));
  $("[data-add-stop]", root).addEventListener("click", add);
  $("[data-remove-stop]", root).addEventListener("click", remove);
  let isHeld = false;
  dragged(
    line,
    (x) => {
      if (!isHeld) {
        const { stops } = layer(), nearest = stops.reduce((best, one, each) => (Math.abs(one.at - x * 100) < Math.abs(stops[best].at - x * 100) ? each : best), 0);
        isHeld = true;
        choose(nearest);
        $(`[data-stop="${nearest}"]`, line).focus();
        if (Math.abs(stops[nearest].at / 100 - x) < NEAR_SHARE) return;
      }
      move(x * 100);
    },
    () => ((isHeld = false), tools.letGo()),
  );
  angle.addEventListener("input", () => ((layer().shape = `${angle.value}deg`), show(), tools.turned()));
  angle.addEventListener("change", () => tools.letGo());
  const becoming = (kind) => {
    if (kind === "none") return layers.splice(at, 1), (at = Math.max(0, at - 1));
    if (kind === "picture") return (layers[at] = { kind, path: layer()?.path ?? editing().pictures?.[0]?.[0] ?? "" });
    const { swatches = [] } = editing();
    const begun = [["#1f5c57", "#ffffff"], swatches.slice(0, 2).map(([swatch]) => `@${swatch}`)].findLast((two) => two.length === 2);
    const stops = layer()?.stops ?? begun.map((one, each) => ({ colour: one, at: each * 100 }));
    layers[at] = { kind, shape: kind === "linear" ? "180deg" : "", stops };
  };
  $$("[data-kind]", root).forEach((one) =>
    one.addEventListener("click", () => {
      if (one.dataset.kind === "picture" && !thumbnails.length) return (layers.length ? null : show("picture"));
      change(() => becoming(one.dataset.kind));
    }),
  );
  const show = (kind = layer()?.kind ?? "none") => {
    const names = layers.map((one, each) => button(`${NAMES[one.kind]} ${each + 1}`, each === at, () => (([at, stop] = [each, 0]), begin())));
    const another = button("Another below", false, () => change(() => ((at = layers.length), becoming("linear"))));
    $("[data-layers]", root).replaceChildren(...(layers.length ? [...names, another] : []));
    $$("[data-kind]", root).forEach((one) => press(one, one.dataset.kind === kind));
    $$("[data-of-kind]", root).forEach((part) => (part.hidden = part.dataset.ofKind !== (NAMES[kind] ?? "").toLowerCase()));
    $("[data-angled]", root).hidden = kind !== "linear";
    thumbnails.forEach((one) => press(one, one.dataset.picture === layer()?.path));
    if (kind !== "linear") return;
    if (document.activeElement !== angle) angle.value = degrees();
    angle.nextElementSibling.value = `${near(degrees())}°`;
  };
  const begin = () => {
    show();
    if (!isGradient()) return;
    stop = Math.min(stop, layer().stops.length - 1);
    makeStops();
    colour.begin(layer().stops[stop].colour, {});
  };
  return {
    begin: (parts) => {
      layers = structuredClone(parts);
      at = Math.min(at, Math.max(0, layers.length - 1));
      begin();
    },
    value: () => layers.map(written).join(", ") || "none",
  };
};
