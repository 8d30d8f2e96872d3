// Regions of the screen. The server is told which it shows as they came, and sends those again that are otherwise by now.
import { $$ } from "./dom.js";

// What stands in a region is no longer what the server wrote: it is sent anew, whatever it says.
export const changedHere = (part) => {
  for (let one = part.closest(".region[data-state]"); one; one = one.parentElement.closest(".region[data-state]")) delete one.dataset.state;
};
for (const name of ["input", "change"]) document.addEventListener(name, ({ target }) => changedHere(target), true);

document.addEventListener("htmx:configRequest", ({ detail: { headers } }) => {
  const shown = $$("#screen .region[data-state]").map(({ id, dataset }) => `${id.slice("region-".length)}=${dataset.state}`);
  if (shown.length) headers["X-Rim-Shown"] = shown.join(" ");
});
