// A field in which one types, and below it what that can mean, the likeliest first, as the server says: arrows walk through
// it, Enter takes one, Escape and a press elsewhere leave it.
import { $, $$ } from "./dom.js";

const TYPED_MS = 120;

// `id`: of the box; its field and its list are called `id-typed` and `id-list`. `ask` gives the address that answers what is
// typed; `take` gets the option; `settle`: where the box stands. Gives what opens and closes it.
export const typedList = ({ id, ask, take, settle = () => {}, isOwn = () => false }) => {
  let isOpen = false, back = null, waiting = 0, asked = 0;
  const box = () => $(`#${id}`), typed = () => $(`#${id}-typed`), list = () => $(`#${id}-list`);
  const options = () => $$("[role=option]", list());
  const mark = (option) => {
    options().forEach((one) => one.setAttribute("aria-selected", one === option));
    if (!option) return typed().removeAttribute("aria-activedescendant");
    option.id ||= `${id}-${options().indexOf(option)}`;
    typed().setAttribute("aria-activedescendant", option.id);
    option.scrollIntoView({ block: "nearest" });
  };
  const fetched = async () => {
    const number = ++asked, text = typed().value;
    const answer = await fetch(ask(text)).catch(() => null);
    if (!answer?.ok) return void ($("#offline").hidden = false);
    if (number !== asked || !isOpen) return;
    list().innerHTML = await answer.text();
    list().dataset.typed = text;
    mark(options()[0]);
    settle(box());
  };
  const open = () => {
    if (!box()) return;
    [isOpen, back] = [true, document.activeElement];
    typed().value = "";
    list().replaceChildren();
    delete list().dataset.typed;
    if (!box().matches(":popover-open")) box().showPopover();
    settle(box());
    typed().focus({ preventScroll: true });
    fetched();
  };
  const close = () => {
    if (!isOpen) return;
    isOpen = false;
    box().hidePopover();
    back?.focus?.({ preventScroll: true });
  };
  const taken = (option) => option && (close(), take(option));

  document.addEventListener("input", ({ target }) => {
    if (target.id !== `${id}-typed`) return;
    clearTimeout(waiting);
    waiting = setTimeout(fetched, TYPED_MS);
  });
  document.addEventListener("keydown", (event) => {
    if (!isOpen) return;
    const steps = { ArrowDown: 1, ArrowUp: -1 }, { key } = event;
    if (key === "Escape") return event.preventDefault(), close();
    if (key === "Tab") return close();
    const all = options(), at = all.findIndex((one) => one.getAttribute("aria-selected") === "true");
    if (steps[key] && all.length) return event.preventDefault(), mark(all[(at + steps[key] + all.length) % all.length]);
    if (key !== "Enter") return;
    event.preventDefault();
    // What was typed just now is asked for first.
    clearTimeout(waiting);
    if (list().dataset.typed === typed().value) taken(all[Math.max(0, at)]);
    else fetched().then(() => taken(options()[0]));
  });
  document.addEventListener("click", ({ target }) => {
    const option = target.closest(`#${id} [role=option]`);
    if (option) taken(option);
  });
  document.addEventListener("pointerdown", ({ target }) => isOpen && !box().contains(target) && !isOwn(target) && close());
  return { open, isOpen: () => isOpen };
};
