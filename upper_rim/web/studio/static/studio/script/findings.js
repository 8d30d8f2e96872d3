// Findings by keys: walk, mend, let be, show. What is done is what the buttons do.
import { $, $$ } from "./dom.js";

const lines = () => $$("[data-findings] [data-line]");
const walk = (by) => {
  const all = lines(), at = all.findIndex((line) => line.closest("[aria-current]"));
  const next = all[Math.min(Math.max(at + by, 0), all.length - 1)];
  if (!next || next === all[at]) return;
  next.click();
  next.focus({ preventScroll: true });
  next.scrollIntoView({ block: "nearest" });
};
const letBe = () => {
  const box = $("#let-be");
  if (!box) return;
  box.open = true;
  $("#let-be-reason").focus();
};
export const ofFindings = (key) => {
  if (!$("[data-findings]")) return false;
  const act = { j: () => walk(1), k: () => walk(-1), m: () => $('[data-act="mend"]')?.click(), l: letBe, s: () => $('[data-act="show"]')?.click() }[key];
  act?.();
  return Boolean(act);
};
