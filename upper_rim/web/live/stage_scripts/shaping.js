// How is the body of this page laid out, as this browser computes it? What is meant by it is found out elsewhere.
export const rimShaping = (() => {
  const SIDES = ["top", "right", "bottom", "left"];
  const NAMES = [
    "display", "flex-direction", "flex-wrap", "align-items", "align-content", "justify-content", "justify-items", "row-gap", "column-gap",
    "grid-template-columns", "grid-template-rows", "grid-template-areas", "grid-auto-flow", "grid-auto-rows", "grid-auto-columns",
    ...SIDES.flatMap((side) => [`margin-${side}`, `padding-${side}`, `border-${side}-width`, `border-${side}-style`, `border-${side}-color`]),
    ...["top-left", "top-right", "bottom-left", "bottom-right"].map((corner) => `border-${corner}-radius`), "box-shadow", "background-color", "background-image",
    "box-sizing", "width", "min-width", "max-width", "min-height", "float", "position", "column-count", "column-width",
  ];
  // What goes without saying, but for margins: a body has some by itself.
  const UNSAID = new Set(["", "0px", "none", "auto", "normal", "row", "nowrap", "static", "content-box", "block", "legacy", "rgba(0, 0, 0, 0)"]);
  // Nor what is no plain value.
  const ODD = /[{}<>;@\\]|^.{300}/;
  const EVERY_MS = 8, MOST_MS = 2000;
  const near = (px) => Math.round(px * 100) / 100;

  // As it is computed, not as it is used: `auto` and shares of the width stay what they are.
  const computed = (part) => {
    const style = getComputedStyle(part), map = part.computedStyleMap?.(), found = {};
    for (const name of NAMES) {
      let value = String(map?.get(name) ?? style.getPropertyValue(name));
      if (name === "min-height" && value === `${innerHeight}px`) value = "100vh";
      if (name === "width" && (!map || value === `${innerWidth}px`)) continue;
      if (ODD.test(value)) continue;
      if (UNSAID.has(value) && !name.startsWith("margin")) continue;
      if (/^border-.*-(color|width)$/.test(name) && style.getPropertyValue(name.replace(/[a-z]+$/, "style")) === "none") continue;
      found[name] = value;
    }
    return found;
  };
  const boxOf = (part) => {
    const { left, width } = part.getBoundingClientRect();
    return [near(left), near(width)];
  };
  // Pieces lie across the window where it is so wide, and lays them out one below the other.
  const isPlain = () => {
    const style = getComputedStyle(document.body), [left, width] = boxOf(document.body);
    const holdsNothing = SIDES.every((side) => parseFloat(style.getPropertyValue(`padding-${side}`)) + parseFloat(style.getPropertyValue(`border-${side}-width`)) < 1);
    const isDown = ["block", "flow-root"].includes(style.display) || (style.display === "flex" && style.flexDirection === "column");
    return isDown && holdsNothing && Math.abs(left) <= 1 && Math.abs(width - document.documentElement.clientWidth) <= 1;
  };
  const at = async (width, key) => {
    for (let waited = 0; innerWidth !== width && waited < MOST_MS; waited += EVERY_MS) await new Promise((next) => setTimeout(next, EVERY_MS));
    const stands = document.querySelector(`.${key}-flow:not([class$="-root"])`) ?? document.body;
    return { root: computed(document.documentElement), body: computed(stands), box: boxOf(stands), is_plain: isPlain(), is_quirky: document.compatMode === "BackCompat" };
  };
  return { at };
})();
