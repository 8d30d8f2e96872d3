// Shortcuts. Where one types they are the field's own; single letters can be switched off (WCAG 2.2, 2.1.4). AltGr is a way
// to type.
import { $, $$, isTyping, isUnsent } from "./dom.js";
import { send } from "./requests.js";
import { grip } from "./stage.js";
import { openFind } from "./find.js";
import { ofFindings } from "./findings.js";

const OFF = "rim-letters-off", COPIED = "rim-copied";
const WITH_ALT = { ArrowUp: "back", ArrowDown: "on", ArrowLeft: "out", ArrowRight: "in", Delete: "remove", d: "double", D: "double" };
const PLACES = { p: "pages", f: "foundations", m: "menus", w: "pieces", i: "inbox", e: "editions", d: "findings" };
const lettersAct = () => localStorage.getItem(OFF) === null;
let going = false;

document.addEventListener("change", ({ target }) => {
  if (target.id !== "letters") return;
  if (target.checked) localStorage.removeItem(OFF);
  else localStorage.setItem(OFF, "");
});
const press = (event, name) => {
  const button = $(`[data-key="${name}"]`);
  if (!button || button.disabled) return;
  event.preventDefault();
  button.click();
};
const withAlt = (event) => {
  const outline = $("#outline"), chosen = $("#stage")?.dataset.chosen, copied = sessionStorage.getItem(COPIED);
  if (outline && event.key === "c" && /^(it|rw)-/.test(chosen)) return sessionStorage.setItem(COPIED, chosen);
  if (outline && event.key === "v" && copied) {
    event.preventDefault();
    return send({ do: "copy", node: copied, parent: copied.startsWith("rw-") ? outline.dataset.piece : $("#insert-here")?.dataset.seamCell });
  }
  if (WITH_ALT[event.key]) press(event, WITH_ALT[event.key]);
};
// Lines that stand elsewhere in another order say which (`data-at`); what has no place there is passed over.
const inTheirOrder = (lines) =>
  lines.some((line) => line.dataset.at) ? lines.filter((line) => line.dataset.at).sort((one, other) => one.dataset.at - other.dataset.at) : lines;
const letter = (event) => {
  const { key } = event;
  if (!going && ofFindings(key)) return event.preventDefault();
  if (key === "?") return $("#shortcuts").showModal();
  if (going && PLACES[key]) $(`nav a[href$="/${PLACES[key]}/"]`)?.click();
  going = key === "g";
  if (key === "h") return grip();
  if (key === "/") return event.preventDefault(), openFind();
  if (key === "n") return press(event, "create");
  if (key !== "[" && key !== "]") return;
  const lines = inTheirOrder($$("[data-select]")), at = lines.findIndex((line) => line.hasAttribute("aria-current"));
  const next = lines[at + (key === "]" ? 1 : -1)];
  if (next) next.click(), next.focus();
};
document.addEventListener("keydown", (event) => {
  if (event.getModifierState("AltGraph")) return;
  const control = event.ctrlKey || event.metaKey, { target } = event;
  if (control && event.key.toLowerCase() === "z" && !isUnsent(target) && !target.matches?.("[contenteditable]"))
    return press(event, event.shiftKey ? "redo" : "undo");
  if (control && event.key === "k") return event.preventDefault(), openFind();
  if (isTyping(target)) return;
  if (event.altKey) return withAlt(event);
  if (!control && lettersAct() && !$("dialog[open]")) letter(event);
});

// Dialogs, and the one in which an icon is chosen.
document.addEventListener("click", ({ target }) => {
  const icon = target.closest("[data-icon]"), opener = target.closest("[data-open]");
  if (icon) {
    $("#icon-chooser").close();
    send({ do: "set", node: $("#stage").dataset.chosen, field: $("#icon-chooser").dataset.field || "icon", value: icon.dataset.icon });
  }
  if (!opener) return;
  const dialog = $(`#${opener.dataset.open}`);
  dialog.dataset.field = opener.dataset.field || "";
  dialog.showModal();
});
const ready = () => $("#letters") && ($("#letters").checked = lettersAct());
document.addEventListener("htmx:afterSwap", ready);
ready();
// What a sheet lists was drawn for what there was: the next time it is drawn anew.
document.addEventListener("close", ({ target }) => $$("[data-waiting]", target).forEach((list) => list.replaceChildren()), true);
