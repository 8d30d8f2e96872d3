// Lifting old bits out: what was pointed at on a page of others is looked at as if its selector had been typed.
import { $ } from "./dom.js";

document.addEventListener("rim:pointed", ({ detail: selector }) => {
  const form = $("#lift-look");
  form.elements.selector.value = selector;
  form.requestSubmit();
});
