// Short ways to find things on the screen, and what a field is.
export const $ = (selector, root = document) => root.querySelector(selector);
export const $$ = (selector, root = document) => [...root.querySelectorAll(selector)];

export const isText = (field) =>
  Boolean(field.matches?.("input:not([type=hidden], [type=checkbox], [type=radio], [type=file], [type=button], [type=submit]), textarea"));
// The node that a form, or the first one within, is about.
export const nodeOf = (root) => (root && $("input[name=node]", root)?.value) ?? "";
// Something was typed that the server does not know yet.
export const isUnsent = (field) => isText(field) && field.value !== field.defaultValue;
export const isTyping = (target) =>
  target.matches?.("input:not([type=checkbox]):not([type=radio]), textarea, select, [contenteditable]");
