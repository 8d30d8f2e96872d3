// The frame with the real page: as wide as the ruler says, drawn smaller where the screen is narrower; it tells what was
// pressed on it, and is told that something changed and what is chosen. There may be others beside it, of a width of their
// own.
import { $, $$ } from "./dom.js";
import { send } from "./requests.js";

const USUAL_PX = 1120, LEAST_PX = 280, MOST_PX = 2560;
// Specimens come after the stage, which is what one looks at; at the latest after so long.
const SPECIMENS_MS = 800;
const ROOM_PX = 40, ROOM_BELOW_PX = 28;
let chosenWidth = null, newest = 0, stageIsDue = false;
const ports = new Map();
const frames = () => $$("iframe[data-stage-src]");

const announce = (name, detail) => document.dispatchEvent(new CustomEvent(name, { detail }));

export const stageWidth = () => chosenWidth ?? Number($("[data-stage-width]")?.value || USUAL_PX);
export const setWidth = (px) => {
  chosenWidth = Math.min(MOST_PX, Math.max(LEAST_PX, Math.round(px)));
  fitStage();
};

const widthOf = (frame) => Number(frame.dataset.width) || stageWidth();
const scaleOf = (frame) => {
  const ground = frame.parentElement, wide = widthOf(frame);
  return { wide, tall: ground.clientHeight - ROOM_BELOW_PX, scale: Math.min(1, (ground.clientWidth - (frame.dataset.width ? 16 : ROOM_PX)) / wide) };
};
const fitted = new WeakMap();
const fitFrame = (frame) => {
  const { wide, tall, scale } = scaleOf(frame);
  fitted.set(frame, { wide, scale });
  frame.style.width = `${wide}px`;
  frame.style.height = `${tall / scale}px`;
  frame.style.transform = `scale(${scale})`;
  frame.style.marginLeft = `${(-wide * scale) / 2}px`;
  // It is loaded once it has its size: what a page asks of the window's width while it loads is true then.
  load(frame);
};
const fitStage = () => {
  const stage = $("#stage");
  if (!stage) return;
  if (!$("#stage-ground")) return load(stage);
  frames().forEach(fitFrame);
  frames().forEach((frame) => watch(frame.parentElement));
  showWidth();
};
const showWidth = () => {
  const wide = stageWidth();
  $$("[data-width-input]").forEach((input) => (input.value = wide));
  const number = $("[data-stage-width]");
  if (number && document.activeElement !== number) number.value = wide;
  announce("rim:width", wide);
};
const loaded = new WeakMap();
const load = (frame) => {
  if (loaded.get(frame) === frame.dataset.stageSrc) return;
  loaded.set(frame, frame.dataset.stageSrc);
  frame.src = frame.dataset.stageSrc;
};
addEventListener("resize", fitStage);
// After an answer nothing is measured before it is painted: a frame is fitted once its ground has a size, or another one.
const fitLater = () => {
  const stage = $("#stage");
  if (!stage || !$("#stage-ground")) return fitStage();
  for (const frame of frames()) {
    if (fitted.has(frame)) fitted.get(frame).wide === widthOf(frame) ? load(frame) : fitFrame(frame);
    watch(frame.parentElement);
  }
  showWidth();
};
const watched = new WeakSet();
const watch = (ground) => {
  if (watched.has(ground)) return;
  watched.add(ground);
  grounds.observe(ground);
};
const grounds = new ResizeObserver((seen) => {
  const there = new Set(seen.map(({ target }) => target));
  frames().filter((frame) => there.has(frame.parentElement)).forEach(fitFrame);
});
document.addEventListener("change", ({ target }) => {
  if (target.matches("[data-stage-width]")) setWidth(Number(target.value) || USUAL_PX);
});
document.addEventListener("submit", (event) => {
  if (event.target.id === "width-form") event.preventDefault();
});

// The keys go to the first handle at what is chosen.
export const grip = () => {
  if (!handles().length) return;
  $("#stage").focus();
  tellFrame($("#stage"), { rim: "grip" });
};
export const scrollTo = (px) => ports.get($("#stage"))?.postMessage({ rim: "scroll", to: px });
export const tellFrame = (frame, message) => ports.get(frame)?.postMessage(message);
// Which frame is at a place of the screen, and where that is on its page.
export const frameAt = (x, y) => {
  const isWithin = ({ left, right, top, bottom }) => x >= left && x < right && y >= top && y < bottom;
  const frame = frames().find((one) => isWithin(one.parentElement.getBoundingClientRect()) && isWithin(one.getBoundingClientRect()));
  if (!frame) return null;
  const { left, top } = frame.getBoundingClientRect(), { scale } = scaleOf(frame);
  return { frame, x: (x - left) / scale, y: (y - top) / scale };
};
// What was pressed on the stage and is let go beside it is let go.
document.addEventListener("pointerup", () => $("#stage") && tellFrame($("#stage"), { rim: "released" }));
const isPointing = () => Boolean($("#tray-groups input[name=field][value=list_on]"));
// The sizes of what is chosen that have a handle there: the server knows them, and what letting one go sends.
const handles = () => JSON.parse($("#handles")?.textContent || "[]");
const handleOf = (name) => handles().find((one) => one.name === name);
const tell = (message) =>
  frames().forEach((frame) => {
    const { chosen, scroll, opens, opened, lifts } = frame.dataset, own = frame.id === "stage" ? { handles: handles(), scale: (fitted.get(frame) ?? scaleOf(frame)).scale } : {};
    tellFrame(frame, { rim: message, chosen, scroll, opened, lifts, opens: opens !== undefined, pointing: frame.dataset.points ?? isPointing(), bench: Boolean($("#outline")), ...own });
  });

// What was pressed is marked before the answer.
export const markOnStage = (chosen) => tellFrame($("#stage"), { rim: "mark", chosen });

const showSpecimens = () => {
  stageIsDue = false;
  $$("iframe[data-src]").forEach((frame) => frame.getAttribute("src") === frame.dataset.src || (frame.src = frame.dataset.src));
};

// Words are written on the stage, in the language of its page: the server knows in which field they are said.
let writing = null;
const writeAt = async (node) => {
  const outline = $("#outline"), stage = $("#stage");
  if (!outline || !stage) return;
  const answer = await fetch(`${outline.dataset.words}?${new URLSearchParams({ node, page: $("#looked-at")?.value ?? "" })}`);
  if (!answer.ok) return;
  writing = { node, ...(await answer.json()) };
  stage.focus();
  tellFrame(stage, { rim: "write", node, text: writing.text });
};
document.addEventListener("keydown", (event) => {
  if (event.key !== "F2" || !$("#outline")) return;
  event.preventDefault();
  writeAt($("#stage")?.dataset.chosen ?? "");
});
document.addEventListener("htmx:beforeSwap", ({ detail: { xhr } }) => {
  if (xhr.getResponseHeader("X-Rim-Refused")) tellFrame($("#stage"), { rim: "unsaid" });
});

// A handle is taken hold of: where its row begins or ceases to fit is worked out meanwhile.
const tellFitting = async ({ name, least, most, said, sends, takes_room }, now) => {
  if (!takes_room) return;
  const query = new URLSearchParams({ ...sends, said, least, most, now, width: stageWidth() });
  const answer = await fetch(`${$("#outline").dataset.fitting}?${query}`);
  if (answer.ok) tellFrame($("#stage"), { rim: "fitting", name, ...(await answer.json()) });
};

const HEARD = {
  pressed: ({ nodes }) => {
    const named = (node) => $(`[data-select="${CSS.escape(node)}"], [data-shares="${CSS.escape(node)}"] [data-select]`);
    const line = nodes.map((node) => named(String(node))).find(Boolean);
    // The keys are the studio's again.
    if (line) line.click(), line.focus({ preventScroll: true });
  },
  pointed: ({ selector }, stage) => {
    if (stage.dataset.points) return announce("rim:pointed", String(selector));
    if (!isPointing()) return;
    const set = (field, value) => ({ kind: "set", node: stage.dataset.chosen, field, value });
    const edits = [set("selector", String(selector)), set("list_on", stage.dataset.page)];
    send({ do: "edit", edit: JSON.stringify({ kind: "together", edits }) });
  },
  shown: showSpecimens,
  dropped: (told) => announce("rim:dropped", told),
  // Things that do not show stand between those that do: the outline knows their places.
  seam: ({ cell, behind, before, ...rect }, frame) => {
    const line = (node) => node && $(`#outline [data-id="${CSS.escape(String(node))}"]`), { scale } = scaleOf(frame);
    if (!line(cell)) return;
    const { left, top } = frame.getBoundingClientRect(), [x, y] = [(px) => left + Number(px) * scale, (px) => top + Number(px) * scale];
    const at = Number(line(behind)?.dataset.after ?? (line(before)?.dataset.after ?? 1) - 1);
    announce("rim:seam", { cell, at, rect: { left: x(rect.left), right: x(rect.right), top: y(rect.top), bottom: y(rect.bottom) } });
  },
  write: ({ node }) => writeAt(String(node)),
  out: () => announce("rim:out"),
  region: ({ back }) => announce("rim:region", { back: Boolean(back) }),
  left: () => document.activeElement?.id === "stage" && $("#outline [aria-current]")?.focus({ preventScroll: true }),
  said: ({ node, text }) => {
    if (node !== writing?.node) return;
    const { field, language } = writing;
    send({ do: "set", node, field, value: String(text), ...(language && { language }) });
  },
  held: ({ name, value }) => {
    const handle = handleOf(name);
    if (handle) tellFitting(handle, Math.round(Number(value)) || 0);
  },
  handled: ({ name, value }) => {
    const handle = handleOf(name), number = Math.round(Number(value));
    if (handle && Number.isFinite(number)) send({ ...handle.sends, value: handle.said.replace("#", number) });
  },
  moved: ({ what, beside, where }) => send({ do: `beside:${String(where)}`, node: String(what), beside: String(beside), select: String(what) }),
  picked: (told) => announce("rim:picked", told),
  at: (rect, frame) => {
    const { left, top } = frame.getBoundingClientRect(), ground = frame.parentElement.getBoundingClientRect(), { scale } = scaleOf(frame);
    const across = left - ground.left, down = top - ground.top;
    const [x, y] = [(px) => across + px * scale, (px) => down + px * scale];
    announce("rim:at", { ...rect, left: x(rect.left), right: x(rect.right), top: y(rect.top), bottom: y(rect.bottom) });
  },
  measured: (told) => announce("rim:measured", told),
  scrolled: ({ at }) => announce("rim:scrolled", Math.round(Number(at) || 0)),
  ready: ({ revision }, frame, given) => {
    ports.set(frame, given[0]);
    tell(revision < newest ? "changed" : "chosen");
  },
};
const OF_ANY_FRAME = new Set(["pressed", "dropped", "ready"]);
addEventListener("message", ({ source, origin, data, ports: given }) => {
  const frame = frames().find((one) => source === one.contentWindow);
  if (!frame || origin !== frame.dataset.origin || !Object.hasOwn(HEARD, data?.rim)) return;
  if (frame.id === "stage" || OF_ANY_FRAME.has(data.rim)) HEARD[data.rim](data, frame, given);
});

// Said as soon as the answer begins: the stage, a process of its own, need not wait until the screen is drawn.
document.addEventListener("htmx:beforeSend", ({ detail: { xhr } }) => {
  xhr.addEventListener("readystatechange", () => {
    const revision = xhr.readyState === XMLHttpRequest.HEADERS_RECEIVED && Number(xhr.getResponseHeader("X-Rim-Revision"));
    if (!revision) return;
    newest = Math.max(newest, revision);
    stageIsDue = Boolean(ports.get($("#stage")));
    tell("changed");
  });
});
// Whether a revision is one that this screen does not show yet.
export const isNews = (revision) => revision > newest;
export const changedElsewhere = (revision) => {
  newest = revision;
  return () => tell("changed");
};

document.addEventListener("htmx:afterSwap", () => {
  // Into the band that was chosen, say.
  const stage = $("#stage"), asked = Number(stage?.dataset.goesTo);
  if (asked) (chosenWidth = asked), delete stage.dataset.goesTo;
  fitLater();
  tell("chosen");
  if (stageIsDue) setTimeout(showSpecimens, SPECIMENS_MS);
  else showSpecimens();
});
fitStage();
showSpecimens();
