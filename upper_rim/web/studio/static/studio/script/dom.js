// Short ways to find things on the screen, and what a field is.
export const $ = (selector, root = document) => root.querySelector(selector);
export const $$ = (selector, root = document) => [...root.querySelectorAll(selector)];

export const isText = (field) =>
  Boolean(field.matches?.("input:not([type=hidden], [type=checkbox], [type=radio], [type=file], [type=button], [type=submit]), textarea"));
// The node that a form, or the first one within, is about; the controls of styles say it once for all of them.
const STYLED = "[data-style-node]";
export const nodeOf = (root) =>
  (root && ($("input[name=node]", root)?.value ?? (root.closest(STYLED) ?? $(STYLED, root))?.dataset.styleNode)) ?? "";
// What a field says, and what the server said of it: a mark is on or off, a choice is the first where none is named.
const isMark = (field) => Boolean(field.matches?.("[type=checkbox], [type=radio]"));
const nameOfSaid = (field) => (isMark(field) ? "checked" : "value");
export const said = (field) => field[nameOfSaid(field)];
const saidByServer = (field) => {
  if (isMark(field)) return field.defaultChecked;
  return field.localName === "select" ? ([...field.options].findLast((one) => one.defaultSelected) ?? field.options[0])?.value : field.defaultValue;
};
// Something was typed or chosen that the server does not know yet.
export const isUnsent = (field) => (isText(field) || isMark(field) || field.localName === "select") && said(field) !== saidByServer(field);
export const unsay = (field) => void (field[nameOfSaid(field)] = saidByServer(field));
export const isTyping = (target) =>
  target.matches?.("input:not([type=checkbox]):not([type=radio]), textarea, select, [contenteditable]");
