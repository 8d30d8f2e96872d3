// The board is one stop: arrow keys walk over its cells, from the paths to the last slot.
import { $, $$ } from "./dom.js";

const cellsIn = (row) => $$("[data-cell]", row);
const rows = () => $$("#board tbody tr").filter((row) => cellsIn(row).length);
const STEPS = { ArrowUp: [-1, 0], ArrowDown: [1, 0], ArrowLeft: [0, -1], ArrowRight: [0, 1] };

const setStop = () => {
  const cells = $$("#board [data-cell]");
  const stop = cells.find((cell) => cell === document.activeElement) ?? $("#board [aria-selected] [data-cell]") ?? cells[0];
  cells.forEach((cell) => (cell.tabIndex = cell === stop ? 0 : -1));
};
document.addEventListener("keydown", (event) => {
  const cell = event.target.closest?.("#board [data-cell]"), step = STEPS[event.key];
  if (!cell || !step || event.altKey || event.ctrlKey || event.metaKey) return;
  event.preventDefault();
  const all = rows(), row = all.indexOf(cell.closest("tr")), column = cellsIn(all[row]).indexOf(cell);
  const next = cellsIn(all[row + step[0]] ?? all[row])[column + step[1]];
  if (!next) return;
  next.focus();
  setStop();
});
document.addEventListener("focusin", ({ target }) => target.closest?.("#board [data-cell]") && setStop());
document.addEventListener("htmx:afterSwap", setStop);
setStop();
