// One way to post, one request for one press, each on the newest state that the screen shows when it goes.
import { $, $$ } from "./dom.js";

const WHERE = [
  ...["base", "select", "page", "width"].map((name) => `#screen form [name=${name}]`),
  ...["tray", "state", "part", "band"].map((name) => `#looking-at [name=${name}]`),
].join(", ");

// The values of the screen's own place, and what is done.
export const send = (values) => {
  const where = Object.fromEntries($$(WHERE).map((input) => [input.name, input.value]));
  return htmx.ajax("POST", location.pathname + location.search, {
    source: "#screen", target: "#screen", swap: "morph:innerHTML", values: { ...where, ...values },
  });
};
export const set = (node, field, value, more = {}) => send({ do: "set", node, field, value, ...more });

export const showAnew = (address = location.pathname + location.search) =>
  htmx.ajax("GET", address, { target: "#screen", swap: "morph:innerHTML" });

// Requests go one after the other; each is made on the newest state that is on the screen when it goes.
document.addEventListener("htmx:configRequest", ({ detail }) => {
  const base = $("#screen form [name=base]");
  if (base && "base" in detail.parameters) detail.parameters.base = base.value;
});

// A form that sends itself when it changes has done so before it is submitted by Enter.
document.addEventListener("submit", (event) => event.target.getAttribute("hx-trigger") === "change" && event.preventDefault(), true);
export const resend = (form) => htmx.trigger(form, "change");
document.addEventListener("change", (event) => {
  if (event.target.matches("[data-submit]")) event.target.form.requestSubmit();
});

for (const failure of ["htmx:sendError", "htmx:responseError", "htmx:timeout"])
  document.addEventListener(failure, () => ($("#offline").hidden = false));
document.addEventListener("htmx:afterSwap", () => ($("#offline").hidden = true));

// What happened is said outside of what is drawn anew.
document.addEventListener("htmx:afterSettle", ({ detail }) => {
  const words = detail.xhr?.getResponseHeader("X-Rim-Said");
  if (words) $("#said").textContent = decodeURIComponent(words);
});
