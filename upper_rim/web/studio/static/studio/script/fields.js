// What is typed or chosen and not sent yet stays, whatever else on the screen is shown anew; so does what was typed on while its
// form was under way, and what was typed and refused: that is marked where it was typed.
import { $, $$, isText, isUnsent, nodeOf, said, unsay } from "./dom.js";
import { send } from "./requests.js";
import { editorIsMadeAnew } from "./rich_text.js";

let sent = null, sentValues = new Map(), isRefused = false;
const underWay = new WeakMap();
const stays = (field) => {
  if (!isUnsent(field) || !field.form) return false;
  return !sent?.contains(field) || (isRefused && isText(field)) || said(field) !== sentValues.get(field);
};

document.addEventListener("htmx:beforeRequest", ({ detail }) => {
  const form = detail.elt.closest("form");
  const values = new Map([...(form?.elements ?? [])].map((field) => [field, said(field)]));
  underWay.set(detail.xhr, { form, values });
});
document.addEventListener("htmx:beforeSwap", ({ detail: { xhr } }) => {
  const request = underWay.get(xhr);
  [sent, sentValues, isRefused] = [request?.form, request?.values ?? new Map(), Boolean(xhr.getResponseHeader("X-Rim-Refused"))];
});
// A region about something else is put as it came: that is less work than to find what of it is otherwise.
const isPutAnew = (old, fresh) => {
  const about = $("[data-about]", fresh)?.dataset.about, first = $("[id]", fresh);
  const isOfTheSame = about ? $("[data-about]", old)?.dataset.about === about : !first || $(`#${CSS.escape(first.id)}`, old);
  if (isOfTheSame || old.contains(document.activeElement)) return false;
  if ($("dialog[open], .rich", old) || $$("input, textarea, select", old).some(stays)) return false;
  old.dataset.state = fresh.dataset.state;
  old.replaceChildren(...fresh.childNodes);
  return true;
};
// The same controls at something else: they are used again, without what was typed for another.
const beginsAnew = (old, fresh) => {
  if (nodeOf(old) !== nodeOf(fresh)) $$("input, textarea, select", old).filter(isUnsent).forEach(unsay);
};
// A hand is hidden until the stage tells where it goes; about the same entry it stays where it is, and what is typed there.
const staysShown = (hand, fresh) => {
  if (nodeOf(hand) === nodeOf(fresh)) fresh.hidden = hand.hidden;
};
// What a field was begun on is said beside it, and stays with what is typed there.
const goesWith = (node) => {
  const field = node.dataset?.with && document.getElementById(node.dataset.with);
  return Boolean(field) && stays(field);
};
const isMerged = (old, fresh) => {
  if (old.matches?.(".rich")) return editorIsMadeAnew(old, fresh);
  if (old.id === "entry-hand") staysShown(old, fresh);
  return !(fresh.dataset && "stays" in fresh.dataset) && !(old.nodeType === 1 && (stays(old) || goesWith(old)));
};
// The stage keeps its size and what it shows; the script alone sets them.
const isSetHere = (name, node) =>
  (name === "src" && (node.dataset?.src || node.dataset?.stageSrc)) || (name === "style" && node.matches("iframe.stage, #entry-hand"));

// An answer is merged into the screen. htmx looks only at what is new there, and at what asks for something else than before.
htmx.defineExtension("morph", {
  isInlineSwap: (style) => style === "morph:outerHTML",
  handleSwap: (style, target, fragment) => {
    const [name, morphStyle] = style.split(":");
    if (name !== "morph") return false;
    const fresh = new Set();
    const callbacks = {
      afterNodeAdded: (node) => void (node.nodeType === 1 && fresh.add(node)),
      beforeNodeMorphed: (old, node) => {
        if (old.matches?.(".region") && !("stays" in node.dataset)) {
          if (isPutAnew(old, node)) {
            fresh.add(old);
            return false;
          }
          beginsAnew(old, node);
        }
        return isMerged(old, node);
      },
      beforeAttributeUpdated: (name, node) => {
        if (isSetHere(name, node)) return false;
        if (name === "href" || name.startsWith("hx-")) fresh.add(node);
      },
    };
    Idiomorph.morph(target, fragment.children, { morphStyle, callbacks });
    return [...fresh].filter((node) => node.isConnected);
  },
});

// The line at fault is chosen in a text of several.
document.addEventListener("htmx:afterSwap", () => {
  const notice = $("[data-refused]"), name = notice?.dataset.name || "value";
  const field = isRefused && sent?.isConnected && [...sent.elements].find((one) => isText(one) && one.name === name);
  if (!field) return;
  field.setAttribute("aria-invalid", "true");
  field.setAttribute("aria-describedby", "notice-said");
  const line = Number(notice?.dataset.line);
  if (line && field.localName === "textarea") {
    const before = field.value.split("\n").slice(0, line - 1).join("\n").length + (line > 1 ? 1 : 0);
    const end = field.value.indexOf("\n", before);
    field.focus();
    field.setSelectionRange(before, end < 0 ? field.value.length : end);
  }
});
const withoutFault = (field) => {
  field.removeAttribute("aria-invalid");
  field.removeAttribute("aria-describedby");
};
document.addEventListener("input", ({ target }) => target.matches("[aria-invalid]") && withoutFault(target));
// Escape gives back what was there.
document.addEventListener("keydown", ({ key, target }) => {
  if (key !== "Escape" || !target.matches?.("[aria-invalid]")) return;
  target.value = target.defaultValue;
  withoutFault(target);
});
document.addEventListener("click", ({ target }) => target.closest("[data-shut-notice]")?.closest(".notice").remove());
// The other lines of a text in which one is at fault.
document.addEventListener("click", ({ target }) => {
  const rest = target.closest("[data-rest]"), field = $("textarea[aria-invalid]");
  if (!rest || !field) return;
  const lines = field.value.split("\n").filter((_, at) => at !== Number(rest.dataset.rest) - 1);
  send({ ...Object.fromEntries(new FormData(field.form)), value: lines.join("\n") });
});
addEventListener("beforeunload", (event) => {
  if ($$("textarea").some(isUnsent)) event.preventDefault();
});

// Paths, and names of icons, are offered while one types.
const OFFER_MS = 150;
let offering = null;
document.addEventListener("input", ({ target }) => {
  const from = target.dataset?.offers;
  if (!from) return;
  clearTimeout(offering);
  const address = `${from}${from.includes("?") ? "&" : "?"}q=${encodeURIComponent(target.value)}`;
  const list = { target: `#${target.getAttribute("list")}`, swap: "innerHTML" };
  offering = setTimeout(() => htmx.ajax("GET", address, list), OFFER_MS);
});
