// One way to post, one request for one press, each on the newest state that the screen shows when it goes.
import { $ } from "./dom.js";

// The screen's own place: on which revision, what is chosen, on which page, at which width, with which tray.
const place = () => Object.fromEntries(new FormData($("#place") ?? undefined));
export const send = (values) =>
  htmx.ajax("POST", location.pathname + location.search, {
    source: "#screen", target: "#screen", swap: "morph:innerHTML", values,
  });
export const set = (node, field, value, more = {}) => send({ do: "set", node, field, value, ...more });

export const showAnew = (address = location.pathname + location.search) =>
  htmx.ajax("GET", address, { source: "#screen", target: "#screen", swap: "morph:innerHTML" });

// An edit may move what is chosen; the address says so, for all that shows the screen again.
document.addEventListener("htmx:afterSwap", ({ detail: { target, requestConfig } }) => {
  if (requestConfig?.verb !== "post" || target.id !== "screen") return;
  const address = new URL(location);
  for (const [name, value] of Object.entries(place())) {
    if (name === "base") continue;
    if (value) address.searchParams.set(name, value);
    else address.searchParams.delete(name);
  }
  if (address.href !== location.href) history.replaceState(history.state, "", address);
});

// Where a link leads is written into the history here, once, and nothing of the screen is kept for the way back: that is asked
// for again.
const here = () => location.pathname + location.search;
const leads = new WeakSet();
let shown = here();
document.addEventListener("htmx:beforeRequest", ({ detail: { elt, etc, xhr, boosted } }) => {
  if (!boosted && elt.closest("[hx-push-url]")?.getAttribute("hx-push-url") !== "true") return;
  etc.push = "false";
  leads.add(xhr);
});
document.addEventListener("htmx:beforeSwap", ({ detail: { xhr, pathInfo, shouldSwap } }) => {
  if (!shouldSwap || !leads.has(xhr)) return;
  const to = pathInfo.responsePath || pathInfo.finalRequestPath;
  if (to !== here()) history.pushState(null, "", to);
});
document.addEventListener("htmx:afterSwap", () => (shown = here()));
addEventListener("popstate", () => here() !== shown && location.reload());

// What is under way; the question whether there is news changes nothing and does not count.
const underWay = new Set();
let waiting = [];
document.addEventListener("htmx:beforeSend", ({ detail: { elt, xhr } }) => {
  if (elt.id === "watch") return;
  underWay.add(xhr);
  xhr.addEventListener("loadend", () => {
    underWay.delete(xhr);
    if (underWay.size > 0) return;
    const acts = waiting;
    waiting = [];
    for (const act of acts) act();
  });
});
// At once, or when all that is under way has been answered: what the server says of itself never overtakes an answer to
// what was pressed, and shows nothing that was chosen before.
export const whenQuiet = (act) => void (underWay.size > 0 ? waiting.push(act) : act());

// Requests go one after the other; each is made on the newest state that is on the screen when it goes, and says where it was
// made from, unless it means another place.
document.addEventListener("htmx:configRequest", ({ detail: { verb, parameters } }) => {
  if (verb !== "post" || !$("#place")) return;
  const { base, ...rest } = place();
  parameters.base = base;
  for (const [name, value] of Object.entries(rest)) if (parameters[name] === undefined) parameters[name] = value;
});

// A form that sends itself when it changes has done so before it is submitted by Enter.
document.addEventListener("submit", (event) => event.target.getAttribute("hx-trigger") === "change" && event.preventDefault(), true);
export const resend = (form) => htmx.trigger(form, "change");
document.addEventListener("change", (event) => {
  if (event.target.matches("[data-submit]")) event.target.form.requestSubmit();
});

// Where there was no answer, or one that says what is wrong: the screen stays as it is.
const unanswered = $("#offline").textContent;
for (const failure of ["htmx:sendError", "htmx:responseError", "htmx:timeout"])
  document.addEventListener(failure, ({ detail }) => {
    const words = detail.xhr?.getResponseHeader("X-Rim-Wrong");
    $("#offline").textContent = words ? decodeURIComponent(words) : unanswered;
    $("#offline").hidden = false;
  });
document.addEventListener("htmx:afterSwap", () => ($("#offline").hidden = true));

// What happened is said outside of what is drawn anew.
document.addEventListener("htmx:afterSettle", ({ detail }) => {
  const words = detail.xhr?.getResponseHeader("X-Rim-Said");
  if (words) $("#said").textContent = decodeURIComponent(words);
});
