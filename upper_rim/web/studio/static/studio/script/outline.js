// Drag and drop in the outline and in menus; the buttons beside each entry and the keys do the same. And what is chosen when
// what was is removed.
import { $, $$, isTyping, isUnsent } from "./dom.js";
import { changedHere } from "./regions.js";
import { send } from "./requests.js";
import { markOnStage } from "./stage.js";

const ANIMATION_MS = 120, AT_THE_END = 999;
const RANK = { stage: 0, row: 1, cell: 2, item: 3 };

// The line that is chosen, and by which the keys come in. It is marked when it is pressed, before the answer.
const mark = (chosen) => {
  for (const line of $$("#outline [data-select]")) {
    const isChosen = line.dataset.select === chosen;
    for (const name of ["aria-current", "aria-selected"]) isChosen ? line.setAttribute(name, "true") : line.removeAttribute(name);
    line.tabIndex = isChosen ? 0 : -1;
  }
};
document.addEventListener("click", ({ target }) => {
  const line = target.closest("#outline [data-select]");
  if (!line) return;
  mark(line.dataset.select);
  if ($("#stage")) markOnStage(line.dataset.select);
});

const sortable = (list) => {
  list.sorting ??= Sortable.create(list, {
    group: list.dataset.sort, handle: "[data-grip]", animation: ANIMATION_MS, fallbackOnBody: true, invertSwap: true,
    onEnd: ({ item, to, newIndex, oldIndex, from }) => {
      if (to === from && newIndex === oldIndex) return;
      send({ do: list.dataset.does || "move", node: item.dataset.id, parent: to.dataset.parent, slot: to.dataset.slot || "entries", at: newIndex });
    },
  });
};
const moveItem = (outline, item, parent, at) => {
  changedHere(outline);
  send({ do: "move", node: item.dataset.id, parent, slot: "items", at });
};
// The cell in which an item was let go, and its place there; between rows, at the beginning of the next cell.
const placeOf = (item, lines) => {
  const at = lines.indexOf(item);
  let cell = null, place = 0;
  for (const line of lines.slice(0, at)) {
    if (line.dataset.kind === "cell") (cell = line.dataset.id), (place = 0);
    else if (line.dataset.kind === "row") cell = null;
    else if (line.dataset.kind === "item") place += 1;
  }
  cell ??= lines.slice(at).find((line) => line.dataset.kind === "cell")?.dataset.id;
  return { cell, place };
};
const sortableOutline = (outline) => {
  outline.sorting ??= Sortable.create(outline, {
    draggable: 'li[data-kind="item"]', animation: ANIMATION_MS,
    onEnd: ({ item, originalEvent }) => {
      const { clientX, clientY } = originalEvent.changedTouches?.[0] || originalEvent;
      const other = document.elementFromPoint(clientX, clientY)?.closest("[data-drop]");
      if (other) return moveItem(outline, item, other.dataset.drop, AT_THE_END);
      const { cell, place } = placeOf(item, $$("li[data-id]", outline));
      if (cell) moveItem(outline, item, cell, place);
    },
  });
};

// What is removed on the workbench gives its place to the one beside it.
document.addEventListener("htmx:configRequest", ({ detail: { parameters } }) => {
  if (parameters.do !== "remove" || !parameters.select || parameters.select !== parameters.node) return;
  const line = $(`#outline li[data-id="${CSS.escape(parameters.node)}"]`);
  const alike = (step) => {
    for (let one = line?.[step]; one && one.dataset.kind >= ""; one = one[step]) {
      if (one.dataset.kind === line.dataset.kind) return one.dataset.id;
      if (RANK[one.dataset.kind] < RANK[line.dataset.kind]) return null;
    }
  };
  const parent = () => {
    for (let one = line?.previousElementSibling; one; one = one.previousElementSibling)
      if (RANK[one.dataset.kind] < RANK[line.dataset.kind]) return one.dataset.id;
  };
  parameters.select = alike("nextElementSibling") || alike("previousElementSibling") || parent() || "";
});

// Escape goes out: from an item to its cell, its row, the piece.
const goOut = () => {
  const chosen = $("#outline [aria-current]")?.closest("li");
  const above = (line) => {
    for (let one = line.previousElementSibling; one; one = one.previousElementSibling)
      if (!one.dataset.kind || RANK[one.dataset.kind] < RANK[line.dataset.kind]) return one;
  };
  const next = chosen?.dataset.kind && $("[data-select]", above(chosen));
  if (next) next.click(), next.focus({ preventScroll: true });
};
document.addEventListener("rim:out", goOut);
document.addEventListener("keydown", ({ key, target, defaultPrevented }) => {
  // From a field of the tray in which nothing is unsaid back to what is chosen.
  if (key === "Escape" && !defaultPrevented && isTyping(target) && target.closest(".tray") && !isUnsent(target))
    return $("#outline [aria-current]")?.focus({ preventScroll: true });
  const isElsewhere = defaultPrevented || isTyping(target) || document.querySelector(":popover-open, dialog[open]");
  if (key === "Escape" && $("#outline") && !isElsewhere) goOut();
});

const ready = () => {
  $$("[data-sort]").forEach(sortable);
  if (!$("#outline")) return;
  sortableOutline($("#outline"));
  mark($("#place [name=select]")?.value);
};
document.addEventListener("htmx:afterSwap", ready);
ready();
