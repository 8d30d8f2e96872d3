// Texts with marks: an editor that keeps what it holds, unless the server has something else.
import { $ } from "./dom.js";
import { resend } from "./requests.js";

// Whether the editor in `old` is to be made anew: never; it takes what the server says where nobody is writing.
export const editorIsMadeAnew = (old, fresh) => {
  const editor = $("trix-editor", old), text = $("input", fresh)?.getAttribute("value") ?? "";
  if (editor && text !== old.dataset.said && document.activeElement !== editor) editor.editor?.loadHTML(text);
  old.dataset.said = text;
  return false;
};

document.addEventListener("trix-before-initialize", () => {
  Trix.config.blockAttributes.default.tagName = "p";
  Trix.config.blockAttributes.heading1.tagName = "h2";
});
document.addEventListener("trix-file-accept", (event) => event.preventDefault());
document.addEventListener("trix-blur", ({ target }) => {
  const holder = target.closest(".rich");
  if (target.value === holder.dataset.said) return;
  holder.dataset.said = target.value;
  resend(target.closest("form"));
});
