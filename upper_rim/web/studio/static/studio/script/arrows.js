// Where keys go besides Tab. F6 goes to the next region of the screen, and skip links to those that one wants most. The arrow
// keys go from one to the next: in the outline, which is one stop for the Tab key, and among choices that stand
// beside and below each other (`data-arrows`), where letters go to a name, too. In a grid of texts (`data-grid`) Enter goes
// to the next one below in the same column, with Shift to the one above.
import { $, $$ } from "./dom.js";

const STOPS = "a[href], button:not([disabled], [tabindex='-1']), input:not([type=hidden]), select, textarea, summary, iframe, [tabindex='0']";
const enter = (region) => {
  const stop = $("#outline [tabindex='0']", region) ?? $$(STOPS, region).find((one) => one.checkVisibility());
  stop?.focus({ preventScroll: true });
};
const goOn = (step) => {
  const regions = $$("[data-region]"), at = regions.findIndex((one) => one.contains(document.activeElement));
  if (regions.length) enter(regions[(at < 0 && step < 0 ? 0 : at + step + regions.length) % regions.length]);
};
document.addEventListener("keydown", (event) => {
  if (event.key !== "F6" || !$("[data-region]")) return;
  event.preventDefault();
  goOn(event.shiftKey ? -1 : 1);
});
document.addEventListener("rim:region", ({ detail: { back } }) => goOn(back ? -1 : 1));
document.addEventListener("click", (event) => {
  const link = event.target.closest("[data-to-region]");
  if (!link) return;
  event.preventDefault();
  enter($(`[data-region="${link.dataset.toRegion}"]`));
});

// The nearest in the direction of the key.
const nearest = (all, from, key) => {
  const middle = (one) => {
    const { left, top, width, height } = one.getBoundingClientRect();
    return [left + width / 2, top + height / 2];
  };
  const [x, y] = middle(from), along = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[key];
  const far = (one) => {
    const [dx, dy] = [middle(one)[0] - x, middle(one)[1] - y], ahead = dx * along[0] + dy * along[1];
    return ahead > 1 ? ahead + 3 * Math.abs(dx * along[1] + dy * along[0]) : Infinity;
  };
  const next = all.reduce((best, one) => (far(one) < far(best) ? one : best), all[0]);
  return next && far(next) < Infinity ? next : null;
};
// The next whose name begins with the letter.
const called = (all, { key, target }) => {
  const at = all.indexOf(target), begins = (one) => one.textContent.trim().toLowerCase().startsWith(key.toLowerCase());
  return key.length === 1 && key.trim() ? [...all.slice(at + 1), ...all.slice(0, at)].find(begins) : null;
};
const lines = () => $$("#outline [data-select]");
const inOutline = (event) => {
  const all = lines(), at = all.indexOf(event.target);
  const to = { ArrowDown: at + 1, ArrowUp: at - 1, Home: 0, End: all.length - 1 }[event.key];
  if (at < 0 || to === undefined || !all[to]) return;
  event.preventDefault();
  all[to].focus();
};
const inGrid = (event) => {
  const column = event.target.dataset.column, all = $$(`[data-column="${column}"]`, event.target.closest("[data-grid]"));
  const next = all[all.indexOf(event.target) + (event.shiftKey ? -1 : 1)];
  event.preventDefault();
  if (next) next.focus();
  else event.target.blur();
};
document.addEventListener("keydown", (event) => {
  if (event.altKey || event.ctrlKey || event.metaKey || event.isComposing) return;
  if (event.key === "Enter" && event.target.matches?.("[data-grid] textarea[data-column]")) return inGrid(event);
  if (event.target.closest?.("#outline")) return inOutline(event);
  const choices = event.target.closest?.("[data-arrows]"), all = choices ? $$("button", choices) : [];
  const next = event.key.startsWith("Arrow") ? nearest(all.filter((one) => one !== event.target), event.target, event.key) : called(all, event);
  if (!next) return;
  event.preventDefault();
  next.focus();
});
// The line that one comes to by Tab is the one that was come to last, at first what is chosen.
document.addEventListener("focusin", ({ target }) => {
  if (!target.matches("#outline [data-select]")) return;
  for (const line of lines()) line.tabIndex = line === target ? 0 : -1;
});
document.addEventListener("htmx:afterSwap", ({ detail: { target } }) => {
  // What came to be chosen among has the keys.
  if (target.matches("[data-arrows]")) $("button", target)?.focus();
});
