// Find: one key, and by a few letters one is at a control, a part of the piece, another piece, a page or a screen; where it
// goes the focus is, and it lights up.
import { $ } from "./dom.js";
import { showAnew } from "./requests.js";
import { typedList } from "./typed_list.js";

const LIT_MS = 1600;

const light = (id) => {
  const part = id && document.getElementById(id), field = part?.closest(".style-control, form, li") ?? part;
  if (!part) return;
  const folded = part.closest("details");
  if (folded) folded.open = true;
  part.focus({ preventScroll: true });
  part.scrollIntoView({ block: "nearest" });
  field.classList.add("lit");
  setTimeout(() => field.classList.remove("lit"), LIT_MS);
};
const go = ({ dataset: { href, at } }) => {
  const here = $("#find").dataset.here;
  if (!here || !href.startsWith(`${here}?`)) return location.assign(at ? `${href}#lit:${at}` : href);
  history.pushState(null, "", href);
  showAnew(href).then(() => light(at));
};
// From another screen: the address says what is lit up.
const lit = /^#lit:([\w.-]+)$/.exec(location.hash);
if (lit) light(lit[1]);
const find = typedList({ id: "find", ask: (q) => `${$("#find").dataset.finds}&${new URLSearchParams({ q, select: $("#stage")?.dataset.chosen ?? "", page: $("#looked-at")?.value ?? "", width: $("[data-stage-width]")?.value ?? "" })}`, take: go });

export const openFind = () => $("#find") && !find.isOpen() && find.open();
document.addEventListener("click", ({ target }) => target.closest("[data-finds-here]") && openFind());
