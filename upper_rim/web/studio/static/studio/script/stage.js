// The frame with the real page: as wide as the ruler says, drawn smaller where the screen is narrower; it tells what was
// pressed on it, and is told that something changed and what is chosen.
import { $, $$ } from "./dom.js";
import { send } from "./requests.js";

const USUAL_PX = 1120, LEAST_PX = 280, MOST_PX = 2560;
// Specimens come after the stage, which is what one looks at; at the latest after so long.
const SPECIMENS_MS = 800;
let chosenWidth = null, port = null, newest = 0, stageIsDue = false;

const announce = (name, detail) => document.dispatchEvent(new CustomEvent(name, { detail }));

export const stageWidth = () => chosenWidth ?? Number($("[data-stage-width]")?.value || USUAL_PX);
export const setWidth = (px) => {
  chosenWidth = Math.min(MOST_PX, Math.max(LEAST_PX, Math.round(px)));
  fitStage();
};

const fitStage = () => {
  const stage = $("#stage"), ground = $("#stage-ground");
  if (!stage) return;
  if (!ground) return load(stage);
  const wide = stageWidth(), room = ground.clientWidth - 40, tall = ground.clientHeight - 28;
  const scale = Math.min(1, room / wide);
  stage.style.width = `${wide}px`;
  stage.style.height = `${tall / scale}px`;
  stage.style.transform = `scale(${scale})`;
  stage.style.marginLeft = `${(-wide * scale) / 2}px`;
  $$("[data-width-input]").forEach((input) => (input.value = wide));
  const number = $("[data-stage-width]");
  if (number && document.activeElement !== number) number.value = wide;
  announce("rim:width", wide);
  // It is loaded once it has its size: what a page asks of the window's width while it loads is true then.
  load(stage);
};
let loaded = null;
const load = (stage) => {
  if (loaded?.stage === stage && loaded.src === stage.dataset.stageSrc) return;
  loaded = { stage, src: stage.dataset.stageSrc };
  stage.src = loaded.src;
};
addEventListener("resize", fitStage);
document.addEventListener("change", ({ target }) => {
  if (target.matches("[data-stage-width]")) setWidth(Number(target.value) || USUAL_PX);
});
document.addEventListener("submit", (event) => {
  if (event.target.id === "width-form") event.preventDefault();
});

export const scrollTo = (px) => port?.postMessage({ rim: "scroll", to: px });
const isPointing = () => Boolean($("#tray-groups input[name=field][value=list_on]"));
const tell = (message) => {
  const { chosen, scroll } = $("#stage")?.dataset ?? {};
  port?.postMessage({ rim: message, chosen, scroll, pointing: isPointing() });
};

const showSpecimens = () => {
  stageIsDue = false;
  $$("iframe[data-src]").forEach((frame) => frame.getAttribute("src") === frame.dataset.src || (frame.src = frame.dataset.src));
};

const HEARD = {
  pressed: ({ nodes }) => {
    const named = (node) => $(`[data-select="${CSS.escape(node)}"], [data-shares="${CSS.escape(node)}"] [data-select]`);
    const line = nodes.map((node) => named(String(node))).find(Boolean);
    // The keys are the studio's again.
    if (line) line.click(), line.focus({ preventScroll: true });
  },
  pointed: ({ selector }, stage) => {
    if (!isPointing()) return;
    const set = (field, value) => ({ kind: "set", node: stage.dataset.chosen, field, value });
    const edits = [set("selector", String(selector)), set("list_on", stage.dataset.page)];
    send({ do: "edit", edit: JSON.stringify({ kind: "together", edits }) });
  },
  shown: showSpecimens,
  measured: (told) => announce("rim:measured", told),
  scrolled: ({ at }) => announce("rim:scrolled", Math.round(Number(at) || 0)),
  ready: ({ revision }, stage, ports) => {
    port = ports[0];
    tell(revision < newest ? "changed" : "chosen");
  },
};
addEventListener("message", ({ source, origin, data, ports }) => {
  const stage = $("#stage");
  if (!stage || source !== stage.contentWindow || origin !== stage.dataset.origin) return;
  if (Object.hasOwn(HEARD, data?.rim)) HEARD[data.rim](data, stage, ports);
});

// Said as soon as the answer begins: the stage, a process of its own, need not wait until the screen is drawn.
document.addEventListener("htmx:beforeSend", ({ detail: { xhr } }) => {
  xhr.addEventListener("readystatechange", () => {
    const revision = xhr.readyState === XMLHttpRequest.HEADERS_RECEIVED && Number(xhr.getResponseHeader("X-Rim-Revision"));
    if (!revision) return;
    newest = Math.max(newest, revision);
    stageIsDue = Boolean(port && $("#stage"));
    tell("changed");
  });
});
// Whether a revision is one that this screen does not show yet.
export const isNews = (revision) => revision > newest;
export const changedElsewhere = (revision) => {
  newest = revision;
  return () => tell("changed");
};

const ready = () => {
  fitStage();
  if (!stageIsDue) showSpecimens();
};
document.addEventListener("htmx:afterSwap", () => {
  ready();
  tell("chosen");
  if (stageIsDue) setTimeout(showSpecimens, SPECIMENS_MS);
});
ready();
