// The editors of values: one opens at its control, what is turned in it is seen on the stage in the same frame, and letting go
// writes it into the control's field and sends it as if it had been typed.
import { $, $$, nodeOf } from "./dom.js";
import { resend } from "./requests.js";
import { tellFrame } from "./stage.js";
import { colourEditor } from "./editors/colour.js";
import { imageEditor } from "./editors/image.js";
import { lengthEditor, wordsEditor } from "./editors/length.js";
import { positionEditor } from "./editors/position.js";
import { shadowEditor } from "./editors/shadow.js";
import { editing, near, painted, press } from "./editors/values.js";

const KINDS = { colour: colourEditor, length: lengthEditor, words: wordsEditor, position: positionEditor, shadow: shadowEditor, image: imageEditor };
const AFTER_KEYS_MS = 500, GAP_PX = 8;
const box = $("#value-editor");
let open = null;

const fieldOf = (control) => $("[name=value]", control);
// What an editor of the kind of value may give is said once; each control tells what its own begins with.
const { editors, reach } = JSON.parse($("#editor-kinds").textContent);
const aboutOf = (control) => {
  const told = JSON.parse(control.dataset.editor), editor = editors[told.of];
  return { ...editor, reach, sides: editor.axes, ...told };
};
// Four values as few, where sides agree; two as they are, unless one of them says all.
const shorthand = (about, values) => {
  if (about.axes.length) return about.whole.includes(values[0]) && values[0] === values[1] ? values[0] : values.join(" ");
  const [top, end, bottom, start] = values;
  if (values.every((value) => value === top)) return top;
  return top === bottom && end === start ? `${top} ${end}` : values.join(" ");
};

// What is turned shows on the stage; nothing is sent yet. A ground that goes on to the window's edges is painted by its
// border's image.
const turn = (about, values) => {
  const { selector } = editing(), stage = $("#stage");
  if (!stage || !selector) return;
  const said = about.axes.length ? [shorthand(about, values)] : values;
  const declared = Object.fromEntries(about.properties.map((name, at) => [name, painted(said[at] ?? said[0])]));
  if (/^(background|border)/.test(about.properties[0])) declared["border-image-source"] = "none";
  tellFrame(stage, { rim: "turn", rules: [{ selector, declared }] });
};
const unturn = () => $("#stage") && tellFrame($("#stage"), { rim: "turn", rules: [] });

// A word that says both axes says them whichever one was turned; a number of one leaves the other automatic.
const saidOfAll = (about, sides, at) => {
  const isWhole = (value) => about.whole.includes(value) && value !== "auto";
  if (at === "all" || !about.axes.length) return;
  if (isWhole(sides[at])) sides.fill(sides[at]);
  else if (isWhole(sides[1 - at])) sides[1 - at] = "auto";
};

const tools = {
  // What is let go after the editor was shut changes nothing.
  turned: () => {
    if (!open) return;
    const { about, sides, at } = open, value = open.editor.value();
    if (at === "all") sides.fill(value);
    else sides[at] = value;
    saidOfAll(about, sides, at);
    const field = fieldOf(open.control);
    if (field) field.value = shorthand(about, sides);
    turn(about, sides);
  },
  letGo: () => open && send(open.control),
  pick: (take) => {
    open.picking = take;
    tellFrame($("#stage"), { rim: "pick" });
  },
};
const send = (control) => {
  const field = fieldOf(control);
  if (!field || field.value === field.defaultValue) return unturn();
  resend(field.form);
};
document.addEventListener("rim:picked", ({ detail }) => {
  open?.picking?.(detail);
  if (open) open.picking = null;
});

const place = (control) => {
  const tray = control.closest(".tray"), at = control.getBoundingClientRect(), edge = tray?.getBoundingClientRect() ?? at;
  const { offsetWidth: wide, offsetHeight: high } = box, isAbove = edge.top - high - GAP_PX >= 0;
  const left = Math.max(GAP_PX, Math.min(at.left, innerWidth - wide - GAP_PX));
  const top = isAbove ? edge.top - high - GAP_PX : Math.max(GAP_PX, Math.min(at.bottom + GAP_PX, innerHeight - high - GAP_PX));
  Object.assign(box.style, { left: `${left}px`, top: `${top}px` });
};
const partOf = () => open.about.parts[open.at === "all" ? 0 : open.at];
const begin = (control) => {
  const about = aboutOf(control);
  open = { ...open, control, about, sides: [], written: control.dataset.editor, node: nodeOf(control) };
  const { sides, label } = { sides: about.sides, label: control.dataset.label };
  $("#value-editor-title").textContent = label;
  $("[data-sides]", box).hidden = !sides.length;
  if (open.at === undefined) open.at = about.parts.every((one) => JSON.stringify(one) === JSON.stringify(about.parts[0])) ? "all" : 0;
  $$("[data-side]", box).forEach((one) => {
    one.hidden = one.dataset.side >= sides.length;
    one.textContent = one.dataset.side === "all" ? (about.axes.length ? "Both" : "All four") : (sides[one.dataset.side] ?? "");
    press(one, one.dataset.side === String(open.at));
  });
  // What each side says now, as it is written.
  open.sides = about.parts.map((part) => (open.editor.begin(part, about, label), open.editor.value()));
  open.editor.begin(partOf(), about, label);
};
const openAt = (control) => {
  close();
  const { kind } = aboutOf(control), body = $("[data-editor-body]", box);
  body.replaceChildren($(`#editor-${kind}`).content.cloneNode(true));
  open = { editor: KINDS[kind](body, tools) };
  begin(control);
  box.showPopover();
  place(control);
  focusFirst();
};
const STOPS = "button, input, [tabindex='0']";
const stops = (root) => $$(STOPS, root).filter((one) => one.checkVisibility());
const focusFirst = () => (stops($("[data-editor-body]", box))[0] ?? $("[data-editor-close]", box)).focus({ preventScroll: true });
// Buttons are made anew as what they tell changes: the focus stays on the one that says the same, or comes to the first.
let focused = "";
box.addEventListener("focusin", ({ target }) => (focused = target.textContent));
const keepFocus = () => {
  if (!open || document.activeElement !== document.body) return;
  const alike = stops(box).find((one) => focused && one.textContent === focused);
  if (alike) alike.focus({ preventScroll: true });
  else focusFirst();
};
box.addEventListener("click", keepFocus);
const close = (isGivenUp = false) => {
  if (!open) return;
  const { control } = open, field = fieldOf(control);
  open = null;
  box.hidePopover();
  if (isGivenUp && field && field.value !== field.defaultValue) (field.value = field.defaultValue), unturn();
  field?.focus({ preventScroll: true });
};

$$("[data-side]", box).forEach((one) =>
  one.addEventListener("click", () => {
    open.at = one.dataset.side === "all" ? "all" : Number(one.dataset.side);
    begin(open.control);
  }),
);
$("[data-editor-close]", box).addEventListener("click", () => close());
document.addEventListener("keydown", (event) => {
  if (!open || event.key !== "Escape") return;
  event.preventDefault();
  close(true);
});
box.addEventListener("keydown", (event) => {
  // Past its end one is at the control again.
  if (event.key !== "Tab" || event.target !== stops(box).at(event.shiftKey ? 0 : -1)) return;
  event.preventDefault();
  close();
});
document.addEventListener("pointerdown", ({ target }) => {
  if (open && !box.contains(target) && !open.control.contains(target)) close();
});
document.addEventListener("click", ({ target }) => {
  const control = target.closest("[data-open-editor]")?.closest("[data-editor]");
  if (control) openAt(control);
});
document.addEventListener("click", ({ target }) => {
  const control = target.closest("[data-give-back]")?.closest(".style-control");
  if (!control) return;
  const field = fieldOf(control);
  field.value = "";
  field.focus({ preventScroll: true });
  resend(field.form);
});
addEventListener("resize", () => open && place(open.control));
new ResizeObserver(() => open && place(open.control)).observe(box);

// What came back: the editor shows what is there now, unless it is what it wrote itself.
document.addEventListener("htmx:afterSwap", () => {
  if (!open) return;
  const control = document.getElementById(open.control.id);
  if (!control?.dataset.editor || nodeOf(control) !== open.node) return close();
  if (control.dataset.editor !== open.written && fieldOf(control)?.value === fieldOf(control)?.defaultValue) begin(control), keepFocus();
});

// In the field itself: Alt and the arrow down opens its editor; the arrows and the wheel turn a single number.
const NUMBER = /^([+-]?(?:\d+\.?\d*|\.\d+))([a-z%]*)$/;
let later = 0, stepped = null;
const sendStepped = () => {
  clearTimeout(later);
  const control = stepped?.closest("[data-editor]");
  stepped = null;
  if (control && document.contains(control)) send(control);
};
document.addEventListener("focusout", ({ target }) => target === stepped && sendStepped());
const step = (field, by) => {
  const control = field.closest("[data-editor]"), about = aboutOf(control), found = NUMBER.exec(field.value || field.placeholder);
  if (!found) return;
  const unit = found[2] || about.units[0], fine = about.reach[unit] / about.reach[about.units[0]] < 0.2 ? 0.05 : about.step;
  const next = near(Number(found[1]) + by * fine, fine);
  if (next < 0 && about.least >= 0) return;
  field.value = `${next}${unit}`;
  turn(about, [field.value]);
  stepped = field;
  clearTimeout(later);
  later = setTimeout(sendStepped, AFTER_KEYS_MS);
};
const numberField = (target) => {
  const control = target.matches?.("input[name=value]") && target.closest("[data-editor]");
  return control && aboutOf(control).kind === "length" ? target : null;
};
document.addEventListener("keydown", (event) => {
  const { key, altKey, shiftKey, target } = event, up = { ArrowUp: 1, ArrowDown: -1 }[key];
  if (!up || !target.matches?.("input[name=value]") || !target.closest("[data-editor]")) return;
  if (altKey && key === "ArrowDown") return event.preventDefault(), openAt(target.closest("[data-editor]"));
  if (altKey || !numberField(target)) return;
  event.preventDefault();
  step(target, up * (shiftKey ? 10 : 1));
});
document.addEventListener(
  "wheel",
  (event) => {
    if (document.activeElement !== event.target || !numberField(event.target)) return;
    event.preventDefault();
    step(event.target, event.deltaY < 0 ? 1 : -1);
  },
  { passive: false },
);
