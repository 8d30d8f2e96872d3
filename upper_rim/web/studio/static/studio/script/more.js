// "More" of a group of controls: open where it was opened last, and where something in it was refused.
import { $, $$ } from "./dom.js";

const KEPT = "rim-more";
const kept = () => new Set(JSON.parse(localStorage.getItem(KEPT) ?? "[]"));
const ready = () => {
  const open = kept();
  $$("details[data-more]").forEach((one) => (one.open = open.has(one.dataset.more) || Boolean($("[aria-invalid], .fault", one))));
};
document.addEventListener(
  "toggle",
  ({ target }) => {
    if (!target.matches?.("details[data-more]")) return;
    const open = kept();
    if (target.open) open.add(target.dataset.more);
    else open.delete(target.dataset.more);
    localStorage.setItem(KEPT, JSON.stringify([...open]));
  },
  true,
);
document.addEventListener("htmx:afterSwap", ready);
ready();
