// How a page is laid out, by itself and with pieces in it, as this browser shows it at each width; what that means is the
// server's to say.
import { $ } from "./dom.js";

const WIDTHS = [320, 360, 480, 600, 720, 840, 960, 1080, 1280, 1600, 1920], HIGH_PX = 800, MOST_MS = 30000, MOST_SPANS = 24;

const opened = (address, origin) => new Promise((ready, failed) => {
  const frame = document.createElement("iframe");
  frame.title = "The page, measured";
  frame.className = "measured";
  frame.tabIndex = -1;
  frame.setAttribute("aria-hidden", "true");
  frame.setAttribute("sandbox", "allow-scripts allow-same-origin");
  Object.assign(frame.style, { width: `${WIDTHS[0]}px`, height: `${HIGH_PX}px` });
  let port = null;
  const asked = new Map();
  const hear = ({ source, origin: from, data, ports }) => {
    if (source !== frame.contentWindow || from !== origin) return;
    if (data?.rim === "ready") (port = ports[0]), ready({ at, end });
    if (data?.rim === "shaped") asked.get(data.width)?.(data.shape);
  };
  const at = (width) => new Promise((told) => {
    asked.set(width, told);
    frame.style.width = `${width}px`;
    port.postMessage({ rim: "shape", width });
  });
  const end = () => (removeEventListener("message", hear), frame.remove(), failed());
  setTimeout(end, MOST_MS);
  addEventListener("message", hear);
  frame.src = address;
  document.body.append(frame);
});

// One width after the other, and between two that are unlike the width from which on it is otherwise.
const spansOf = async (alone, framed) => {
  const known = new Map();
  const at = async (width) => {
    if (!known.has(width)) {
      const [by, among] = await Promise.all([alone.at(width), framed.at(width)]);
      known.set(width, { root: by.root, body: by.body, stands_for_it: among.body, body_box: by.box, box: among.box, is_plain: among.is_plain, is_quirky: by.is_quirky });
    }
    return known.get(width);
  };
  const told = ({ root, body, stands_for_it, is_plain }) => JSON.stringify([root, body, stands_for_it, is_plain]);
  const changes = [];
  const between = async (low, high) => {
    if (changes.length >= MOST_SPANS || told(await at(low)) === told(await at(high))) return;
    if (high - low === 1) return changes.push(high);
    const middle = (low + high) >> 1;
    await between(low, middle);
    await between(middle, high);
  };
  for (let place = 1; place < WIDTHS.length; place += 1) await between(WIDTHS[place - 1], WIDTHS[place]);
  const spans = [];
  // The boxes are those of the first width of a span that was looked at.
  for (const width of [WIDTHS[0], ...changes]) spans.push({ from_px: width === WIDTHS[0] ? 0 : width, ...(await at(width)) });
  const { is_quirky } = spans[0];
  return { spans: spans.map(({ is_quirky: _, ...span }) => span), is_quirky };
};

// On the workbench it is only told.
document.addEventListener("rim:measured", ({ detail: { isAcross } }) => {
  const told = $("[data-not-across]");
  if (told) told.hidden = isAcross !== false;
});

document.addEventListener("submit", async (event) => {
  const form = event.target;
  if (form.id !== "measure-page" || form.elements.measured.value) return;
  event.preventDefault();
  event.stopImmediatePropagation();
  const tell = (name, shows) => ($(`[data-${name}]`).hidden = !shows), { alone, framed, origin } = form.dataset;
  tell("unmeasured", false);
  tell("measuring", true);
  $("#measured-page").replaceChildren();
  let frames = [];
  try {
    frames = await Promise.all([opened(alone, origin), opened(framed, origin)]);
    const late = new Promise((_, failed) => setTimeout(failed, MOST_MS));
    form.elements.measured.value = JSON.stringify(await Promise.race([spansOf(...frames), late]));
    form.requestSubmit();
    // It is sent by now; pressed again, it is measured again.
    form.elements.measured.value = "";
  } catch {
    tell("unmeasured", true);
  }
  tell("measuring", false);
  frames.forEach(({ end }) => end());
}, true);
