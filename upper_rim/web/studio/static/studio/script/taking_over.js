// An old part of a page is measured as this browser shows it, in a window as wide as sites are designed for; what begins with
// it is the server's to say.
import { $ } from "./dom.js";

const WIDE_PX = 1280, HIGH_PX = 800, MOST_MS = 20000;

const measured = (form) => new Promise((found, failed) => {
  const frame = document.createElement("iframe"), { stage, origin, selector } = form.dataset;
  frame.title = "The page, measured";
  frame.className = "measured";
  frame.tabIndex = -1;
  frame.setAttribute("aria-hidden", "true");
  frame.setAttribute("sandbox", "allow-scripts allow-same-origin");
  Object.assign(frame.style, { width: `${WIDE_PX}px`, height: `${HIGH_PX}px` });
  let late = 0;
  const end = () => (removeEventListener("message", hear), clearTimeout(late), frame.remove());
  const hear = ({ source, origin: from, data, ports }) => {
    if (source !== frame.contentWindow || from !== origin) return;
    if (data?.rim === "ready") ports[0].postMessage({ rim: "measure", selector });
    if (data?.rim === "taken") end(), data.measured ? found(data.measured) : failed();
  };
  late = setTimeout(() => (end(), failed()), MOST_MS);
  addEventListener("message", hear);
  frame.src = stage;
  document.body.append(frame);
});

document.addEventListener("submit", async (event) => {
  const form = event.target, slot = event.submitter;
  if (form.id !== "take-over" || form.elements.measured.value) return;
  event.preventDefault();
  const tell = (name, shows) => ($(`[data-${name}]`).hidden = !shows);
  tell("unmeasured", false);
  tell("measuring", true);
  try {
    form.elements.measured.value = JSON.stringify(await measured(form));
    form.requestSubmit(slot);
  } catch {
    tell("measuring", false);
    tell("unmeasured", true);
  }
});
