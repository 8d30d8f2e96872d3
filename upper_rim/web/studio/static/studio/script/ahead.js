// What may be chosen next in the outline is asked for while the pointer rests on it, or the focus comes to it: who presses it then
// finds the answer under way, or there. The browser keeps it for a moment, for the same question about the same state alone.
import { $, $$ } from "./dom.js";

const REST_MS = 40, AHEAD = "X-Rim-Ahead", LINE = "#outline [data-select]:not([aria-current])";
let resting = 0, asked = "";

// What a press would ask with is told by those who are asked then, too.
const headersOf = (line) => {
  const detail = { elt: line, verb: "get", parameters: {}, headers: { "HX-Request": "true" } };
  document.dispatchEvent(new CustomEvent("htmx:configRequest", { detail }));
  return detail.headers;
};
const ask = (line) => {
  const kept = $$("#looking-at [data-keep]").map(({ name, value }) => [name, value]);
  const address = `${line.getAttribute("href")}${kept.length ? `&${new URLSearchParams(kept)}` : ""}`;
  const headers = headersOf(line), question = address + JSON.stringify(headers);
  if (question === asked) return;
  asked = question;
  fetch(address, { headers }).catch(() => (asked = ""));
};
for (const name of ["pointerover", "focusin"])
  document.addEventListener(name, ({ target }) => {
    const line = target.closest?.(LINE);
    if (!line && name === "focusin") return;
    clearTimeout(resting);
    if (line) resting = setTimeout(() => line.isConnected && line.matches(LINE) && ask(line), REST_MS);
  });
document.addEventListener("htmx:configRequest", ({ detail: { elt, headers } }) => {
  if (!elt.matches("#outline [data-select]")) return;
  clearTimeout(resting);
  headers[AHEAD] = $("#place [name=base]")?.value ?? "";
});
