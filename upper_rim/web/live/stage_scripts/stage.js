// On the stage only, never published: shows the newest state without reloading, and tells the studio what was pressed.
(() => {
  const { studio, key } = document.currentScript.dataset;
  let { shown, revision } = document.currentScript.dataset;
  let chosen = null, pointing = false, opens = false, isBench = false, opened = "", wasOpened = false;
  const tell = (told) => parent.postMessage(told, studio);
  const outline = document.createElement("style");
  document.head.append(outline);
  const named = (node) => (/^[a-z0-9-]+$/.test(node || "") ? node : null);
  const LIFTED = "@layer rim-stage{[data-rim-lift]{outline:2px dashed #a84b29!important;outline-offset:-2px!important}[data-rim-chosen]{outline:4px solid #a84b29!important;outline-offset:-4px!important}}";
  const mark = (node) => {
    outline.textContent = pointing === "lift" ? LIFTED : node ? `@layer rim-stage{[data-rim-node="${node}"]{outline:2px solid #a84b29!important;outline-offset:4px!important}}` : "";
  };
  // What is chosen in the outline is brought into view, where nothing of it is. A row of a later stage is there when the
  // page is scrolled so far.
  const IN_VIEW_PX = 24;
  const isInView = (part) => {
    const { top, bottom, height } = part.getBoundingClientRect();
    return Math.min(bottom, innerHeight) - Math.max(top, 0) >= Math.min(IN_VIEW_PX, height);
  };
  const bringIntoView = (scroll) => {
    const part = chosen && chosenPart();
    // What was opened for what was chosen before shuts again.
    if (openedFor && part && !openedFor.contains(part) && (wasOpened || !part.contains(openedFor))) openedFor.hidePopover(), (openedFor = null);
    if (part) openPanel(part);
    if ((opens || opened === "drawer") && part && openAround(part)) return;
    if (opens && part) openBranches(part);
    if (part?.checkVisibility({ visibilityProperty: true }) && part.getClientRects().length && isInView(part)) return;
    if (scroll) return scrollTo({ top: Number(scroll), behavior: "instant" });
    if (!part || openAround(part)) return;
    // Not `scrollIntoView`, which scrolls the studio around this window, too.
    const { top, bottom, height } = part.getBoundingClientRect();
    const by = top < 0 || height > innerHeight ? top : Math.max(0, bottom - innerHeight);
    if (part.getClientRects().length) (part.closest(":popover-open") ?? window).scrollBy({ top: by, behavior: "instant" });
  };
  // Of the places where it stands the first that shows, or can be opened to.
  const chosenPart = () => {
    const parts = [...document.querySelectorAll(`[data-rim-node="${chosen}"]`)];
    const shows = (part) => part?.checkVisibility({ visibilityProperty: true });
    return parts.find(shows) ?? parts.find((part) => shows(openerOf(part.closest("[popover]")))) ?? parts[0];
  };
  // A panel that is styled is open, the first that there is; it shuts when something else is.
  let panelOf = null, isOurs = false;
  const press = (button) => ((isOurs = true), button.click(), (isOurs = false));
  const openPanel = (part) => {
    const button = opened === "panel" ? part.querySelector("[data-rim-branch]") : null;
    if (panelOf && panelOf !== button && panelOf.getAttribute("aria-expanded") === "true") press(panelOf);
    panelOf = button;
    if (button?.getAttribute("aria-expanded") === "false" && button.checkVisibility({ visibilityProperty: true })) press(button);
  };
  const openerOf = (drawer) => drawer && document.querySelector(`[popovertarget="${drawer.id}"]`);
  // Where a menu is worked on, what is below an entry is open, and what it is in.
  const openBranches = (part) => {
    const lines = [];
    for (let line = part.closest("li"); line; line = line.parentElement.closest("li")) lines.unshift(line);
    for (const line of lines) {
      const button = line.querySelector(":scope > [data-rim-branch]");
      if (button?.getAttribute("aria-expanded") === "false" && button.checkVisibility({ visibilityProperty: true })) button.click();
    }
  };
  // Once it shows: what opens may take its time.
  const SETTLED_MS = 60, MOST_TIMES = 40;
  let looking = 0;
  const tellWhere = (times = MOST_TIMES) => {
    clearTimeout(looking);
    const part = opens && chosen && chosenPart();
    if (part && !part.checkVisibility({ visibilityProperty: true })) return (looking = times && setTimeout(tellWhere, SETTLED_MS, times - 1));
    if (!part) return;
    const { left, right, top, bottom } = part.getBoundingClientRect(), line = part.closest("li");
    const isBeside = Boolean(line) && !entries.isInRow(line), holds = Boolean(line?.querySelector(":scope > [data-rim-branch]"));
    tell({ rim: "at", left, right, top, bottom, isBeside, holds });
  };
  // What stands in a drawer shows while that is open. While it opens it is inert, with what it fetches when it is first used
  // there before: the focus stays where the designer types.
  let openedFor = null;
  const openAround = (part) => {
    const drawer = part?.parentElement?.closest("[popover]") ?? (opens || opened === "drawer" ? part?.querySelector("[popover]") : null);
    const opener = openerOf(drawer);
    if (!opener?.checkVisibility({ visibilityProperty: true }) || drawer.matches(":popover-open")) return;
    const open = () => {
      if (drawer.matches(":popover-open")) return;
      drawer.inert = true;
      drawer.addEventListener("toggle", () => setTimeout(() => (drawer.inert = false)), { once: true });
      drawer.showPopover();
      if (!opens) openedFor = drawer;
      if (opens) setTimeout(() => openBranches(chosenPart()));
    };
    if (opener.dataset.rimLate) import(opener.dataset.rimLate).then(open, open);
    else open();
    return true;
  };
  // What a value that is being turned would look like, until the page that says so has come.
  const turned = document.createElement("style");
  let turns = 0, turnedOn = "";
  const turn = (rules) => {
    turns += 1;
    const on = rules.map(({ selector }) => `${selector}{transition:none!important}`).join("");
    if (on !== turnedOn) turned.textContent = on && `@layer rim-stage{${on}}`;
    turnedOn = on;
    const painted = turned.sheet?.cssRules[0]?.cssRules ?? [];
    rules.forEach(({ declared }, at) => {
      for (const [name, value] of Object.entries(painted[at] ? declared : {})) painted[at].style.setProperty(name, value, "important");
    });
  };
  // Words are written where they stand: whoever presses them twice is told which they are, and what is written is told.
  const writing = document.createElement("style");
  const WRITTEN = "data-rim-written";
  let written = null, whenWritten = Promise.resolve(), isWritten = () => {};
  const write = ({ node, text }) => {
    const part = [...document.querySelectorAll(`[data-rim-node="${node}"]`)].find((one) => one.checkVisibility({ visibilityProperty: true }));
    const walker = part && document.createTreeWalker(part, NodeFilter.SHOW_TEXT);
    let found = null;
    while (!found && walker?.nextNode()) if (walker.currentNode.data.trim() === text.trim()) found = walker.currentNode;
    if (!found) return;
    // An element that says something else besides gets one around these words alone.
    let field = found.parentElement;
    if (field.childNodes.length > 1) field = document.createElement("span"), found.replaceWith(field), field.append(found);
    written = { node, text: found.data, field };
    // Nothing is shown anew under who writes.
    whenWritten = new Promise((next) => (isWritten = next));
    writing.textContent = `@layer rim-stage{[${WRITTEN}]{-webkit-user-modify:read-write-plaintext-only!important;user-select:text!important;cursor:text!important;outline:2px dashed #a84b29!important;outline-offset:3px!important}}`;
    field.setAttribute(WRITTEN, "");
    field.tabIndex = -1;
    field.focus();
    getSelection().selectAllChildren(field);
  };
  const endWriting = (isKept) => {
    if (!written) return;
    const { node, text, field } = written, said = field.textContent.replace(/\s+/g, " ").trim();
    written = null;
    isWritten();
    field.removeAttribute(WRITTEN);
    field.blur();
    // The keys are the studio's again.
    tell({ rim: "left" });
    if (!isKept || said === text.trim()) return (field.textContent = text);
    unsaid = () => (field.textContent = text);
    tell({ rim: "said", node, text: said });
  };
  let unsaid = () => {};
  addEventListener("keydown", (event) => {
    if (!written && event.key === "F2" && chosen && parent !== window) return event.preventDefault(), tell({ rim: "write", node: chosen });
    if (!written) return;
    event.stopPropagation();
    if (event.key === "Enter") event.preventDefault(), endWriting(true);
    if (event.key === "Escape") event.preventDefault(), endWriting(false);
  }, true);
  addEventListener("focusout", ({ target }) => written?.field === target && endWriting(true));
  addEventListener("dblclick", (event) => {
    const node = !opens && !written && parent !== window && event.target.closest("[data-rim-node]");
    if (node) event.preventDefault(), tell({ rim: "write", node: node.dataset.rimNode });
  });
  // Our layer must come before the site's own for its importance to win: it stands first in the head.
  document.head.prepend(outline, turned, writing);

  const marksOf = (root) => {
    const found = [], walker = document.createTreeWalker(root, NodeFilter.SHOW_COMMENT);
    while (walker.nextNode()) if (walker.currentNode.data.startsWith("rim:")) found.push(walker.currentNode.data);
    return found.join(" ");
  };
  const sheetOf = (root) => root.querySelector("style[data-rim-sheet]");
  // A pager stands where its list is, outside its piece.
  const pieces = (root) => [...root.querySelectorAll("[data-rim-node]:not([data-rim-pager])")].filter((part) => !part.parentElement.closest("[data-rim-node]"));

  const refresh = async () => {
    const before = turns;
    await shownAnew();
    if (turns === before && !handles.isHeld()) turn([]);
    things.settled();
    handles.again();
  };
  const shownAnew = async () => {
    const answer = await fetch(location.href, { cache: "no-store", headers: { "X-Rim-Shown": shown } });
    if (answer.headers.get("content-type").startsWith("text/css")) {
      restyle(sheetOf(document), await answer.text());
      return tell({ rim: "shown" });
    }
    const next = new DOMParser().parseFromString(await answer.text(), "text/html");
    // Somebody may have begun to write meanwhile.
    await whenWritten;
    const out = next.querySelector("script[data-rim-out]")?.dataset.rimOut;
    if (out === undefined) delete document.documentElement.dataset.rimOut;
    else document.documentElement.dataset.rimOut = out;
    const sheet = sheetOf(document), nextSheet = sheetOf(next);
    const now = pieces(document), then = pieces(next);
    if (!sheet || !nextSheet || now.length !== then.length || marks !== marksOf(next.documentElement)) return reload();
    if (ownText !== withoutPieces(next.documentElement) || codeOf(original) !== codeOf(next.documentElement)) return reload();
    restyle(sheet, nextSheet.textContent);
    // Most edits of looks change the sheet only; markup that is as it came last time is left alone.
    const markup = then.map((piece) => piece.outerHTML);
    if (watched(document.body) !== watched(next.body)) return reload();
    const callbacks = { beforeAttributeUpdated: keepsState, beforeNodeAdded: isNew };
    now.forEach((piece, at) => markup[at] === shownMarkup[at] || Idiomorph.morph(piece, markup[at], { morphStyle: "outerHTML", callbacks }));
    shownMarkup = markup;
    shown = next.querySelector("script[data-shown]").dataset.shown;
    tell({ rim: "shown" });
  };
  // What published scripts read once: what they watch, part and open, and which of them are there. Where that changes the
  // page is loaded anew. What they have found out, and what was opened, stays.
  const WATCHED = "[data-rim-stages],[data-rim-up],[data-rim-until],[data-rim-yields],[data-rim-pager],[data-rim-late],[data-rim-drawer],[data-rim-branch],[data-rim-hover]";
  const watched = (root) => {
    const told = [...root.querySelectorAll(WATCHED)].map(({ dataset }) => Object.entries(dataset).filter(([name]) => !STATES.test(name)).map((pair) => pair.join("=")).sort().join(";"));
    const scripts = [...root.ownerDocument.querySelectorAll("script[src*='_rim/']")].map((script) => script.getAttribute("src"));
    return [...told, ...scripts].sort().join("|");
  };
  const STATES = /^rim(Passed|Early|Down|Away|Quiet)$/;
  const OPENED = /^(aria-expanded|open|inert|hidden)$/;
  const keepsState = (name, node) => {
    if (/^data-rim-(passed|early|down|away|quiet)$/.test(name)) return false;
    if (OPENED.test(name) && (name !== "hidden" || node.matches("[data-rim-pager]"))) return false;
    return !(/^(role|aria-modal|aria-label)$/.test(name) && node.matches(":popover-open"));
  };
  const isNew = (node) => !(node.matches?.("[data-rim-pager]") && document.querySelector(`[data-rim-node="${node.dataset.rimNode}"]`));
  // Only the rules that changed are set: a whole new sheet would have the browser style every element of the page again.
  const restyle = (sheet, text) => {
    if (text === shownSheet) return;
    const next = new CSSStyleSheet();
    next.replaceSync(text);
    if (!patched(sheet.sheet, next)) sheet.textContent = text;
    shownSheet = text;
  };
  const patched = (now, then) => {
    if (now.cssRules.length !== then.cssRules.length) return false;
    return [...now.cssRules].every((rule, at) => {
      const other = then.cssRules[at];
      if (rule.cssText === other.cssText) return true;
      if (rule.constructor !== other.constructor) return false;
      if (rule.style) {
        if (!rule.selectorText || rule.selectorText !== other.selectorText) return false;
        rule.style.cssText = other.style.cssText;
        return true;
      }
      const opening = (grouping) => grouping.cssText.slice(0, grouping.cssText.indexOf("{"));
      return Boolean(rule.cssRules) && opening(rule) === opening(other) && patched(rule, other);
    });
  };
  const original = document.documentElement.cloneNode(true);
  let shownSheet = sheetOf(document)?.textContent;
  let shownMarkup = pieces(original).map((piece) => piece.outerHTML);
  const codeOf = (root) => (root.outerHTML.match(/<!--rim:snippet-->[\s\S]*?<!--\/rim-->/g) || []).join("");
  const withoutPieces = (root) => {
    const copy = root.cloneNode(true);
    copy.querySelectorAll("[data-rim-node], [class$='-target'], script, style, link").forEach((part) => part.remove());
    return (copy.querySelector("body")?.textContent || "").replace(/\s+/g, " ").trim();
  };
  const marks = marksOf(original);
  const ownText = withoutPieces(original);
  // Stages beside each other share what their session stores.
  const KEPT = `rim-kept ${window.name}`;
  const reload = () => {
    const open = [...document.querySelectorAll(":popover-open[id]")].map((part) => part.id);
    sessionStorage.setItem(KEPT, JSON.stringify({ at: [scrollX, scrollY], open }));
    location.reload();
  };
  const kept = JSON.parse(sessionStorage.getItem(KEPT));
  if (kept) {
    sessionStorage.removeItem(KEPT);
    const again = () => {
      kept.open.forEach((id) => document.getElementById(id)?.matches(":not(:popover-open)") && document.getElementById(id).showPopover());
      scrollTo({ left: kept.at[0], top: kept.at[1], behavior: "instant" });
    };
    again();
    addEventListener("load", again);
  }

  // Where the page is made narrower for a part to be seen, what that stands in shows only then; what the page itself does
  // there, shutting what is open, comes before the frame.
  addEventListener("resize", () => opened && requestAnimationFrame(() => bringIntoView()));
  // A drawer that closes shuts the panels of its menu, in a task of its own that may come later than the frame.
  addEventListener("toggle", ({ newState }) => newState === "closed" && opened === "panel" && requestAnimationFrame(() => bringIntoView()), true);
  // A port of its own: what is posted there goes at once, however busy the studio's window is with drawing its screen.
  const heard = ({ data }) => {
    if (data.rim === "scroll") return scrollTo({ top: data.to, behavior: "instant" });
    if (data.rim === "over") return entries.over(data.x, data.y);
    if (data.rim === "let go") return entries.letGo(data.what, data.x, data.y);
    if (data.rim === "turn") return turn(data.rules);
    if (data.rim === "grip") return handles.focus();
    if (data.rim === "fitting") return handles.fitting(data.name, data.snaps);
    if (data.rim === "released") return handles.released(), rimDragging.letGo();
    if (data.rim === "write") return write(data);
    if (data.rim === "unsaid") return unsaid(), things.refused(), turn([]), handles.again();
    if (data.rim === "measure") return tellMeasured(data.selector);
    if (data.rim === "shape") return tellShape(data.width);
    if (data.rim === "pick") return (isPicking = true), (document.documentElement.style.cursor = "crosshair");
    // Before the answer, which brings what else there is to it.
    if (data.rim === "mark") return mark(named(data.chosen));
    const before = chosen, openedBefore = opened, { scroll } = data;
    opened = data.opened ?? "";
    wasOpened = openedBefore === "drawer" && opened !== "drawer";
    [pointing, opens, isBench] = [data.pointing, data.opens, data.bench];
    document.documentElement.style.cursor = pointing ? "crosshair" : "";
    chosen = named(data.chosen);
    mark(chosen);
    if (pointing === "lift" && data.lifts) waiting = waiting.then(() => loaded).then(() => showLifted(data.lifts));
    if (data.rim === "changed") waiting = waiting.then(() => whenWritten).then(refresh).catch(reload);
    // What opens a menu is a script of the page's.
    if (opens) waiting = waiting.then(() => loaded);
    // After layout, and not before what was chosen is there.
    if (chosen !== before || opened !== openedBefore) waiting = waiting.then(() => new Promise((next) => requestAnimationFrame(() => (bringIntoView(scroll), next()))));
    if (data.handles) waiting = waiting.then(() => handles.show(data.handles, data.scale));
    if (opens) waiting = waiting.then(() => (looking = setTimeout(tellWhere, SETTLED_MS)));
  };
  // What an old part of the page is like, once all of it is there.
  const tellMeasured = async (selector) => {
    const { rimMeasuring } = await import("/_rim/stage/measuring.js");
    await Promise.all([loaded, document.fonts.ready]);
    tell({ rim: "taken", selector, measured: rimMeasuring.measured(found(selector)) });
  };
  // How its body is laid out once its window is so wide.
  const tellShape = async (width) => {
    const { rimShaping } = await import("/_rim/stage/shaping.js");
    await loaded;
    tell({ rim: "shaped", width, shape: await rimShaping.at(width, key) });
  };
  // Things are taken hold of where their outline is beside them.
  const isBusy = () => parent === window || !isBench || opens || pointing || isPicking || Boolean(written);
  const handles = rimHandles({ tell, turn });
  const things = rimThings({ tell, isBusy, chosen: () => chosen, zoom: handles.zoom });
  const entries = rimEntries({ tell, isOpen: () => opens });
  const seams = rimSeams(() => !isBusy() && !handles.isHeld() && !rimDragging.isMoving());
  addEventListener("keydown", (event) => {
    const { key, shiftKey } = event;
    if (key === "F6" && parent !== window) return event.preventDefault(), tell({ rim: "region", back: shiftKey });
    if (key !== "Escape") return;
    if (!opens && !document.querySelector(":popover-open, dialog[open]")) tell({ rim: "out" });
  });
  const offer = () => {
    const line = new MessageChannel();
    line.port1.onmessage = heard;
    parent.postMessage({ rim: "ready", revision: Number(revision) }, studio, [line.port2]);
  };
  let waiting = Promise.resolve();
  const loaded = new Promise((next) => addEventListener("load", next, { once: true }));

  // A list of the page's own that is pressed, as a selector that finds it again.
  const selectorOf = (part) => {
    if (part.id) return `#${CSS.escape(part.id)}`;
    if (part === document.body) return "body";
    // From the body on, of the page's own content: pieces around it come and go.
    const beside = part.parentElement.matches(`.${key}-beside-content`);
    const alike = [...part.parentElement.children].filter((other) => other.localName === part.localName && !other.className.startsWith?.(key));
    return `${beside ? "body" : selectorOf(part.parentElement)} > ${part.localName}` + (alike.length > 1 ? `:nth-of-type(${alike.indexOf(part) + 1})` : "");
  };
  // What of the page may be lifted out: the nearest part with a name, by that name, so that other pages have it, too.
  const PLAIN = /^[A-Za-z][\w-]*$/;
  const isRims = (part) => part.matches("html,body") || Boolean(part.closest("[data-rim-node]")) || [...part.classList].some((name) => name.startsWith(key));
  const liftable = (part) => {
    for (let one = part; one && !isRims(one); one = one.parentElement) if (one.matches("header,nav,footer,aside,[id],[class]")) return one;
    return isRims(part) ? null : part;
  };
  const selectorToLift = (part) => {
    const name = [...part.classList].find((one) => PLAIN.test(one));
    return PLAIN.test(part.id) ? `#${part.id}` : name ? `${part.localName}.${name}` : selectorOf(part);
  };
  // Selectors that only the server reads find nothing here.
  const found = (selector) => {
    try {
      return [...document.querySelectorAll(selector)];
    } catch {
      return [];
    }
  };
  const showLifted = (selector) => {
    const parts = found(selector).filter((part) => !isRims(part));
    parts.forEach((part) => part.setAttribute("data-rim-chosen", ""));
    if (parts.length && !isInView(parts[0])) scrollTo({ top: parts[0].getBoundingClientRect().top + scrollY - IN_VIEW_PX, behavior: "instant" });
  };
  document.addEventListener("pointerover", ({ target }) => {
    if (pointing !== "lift") return;
    document.querySelectorAll("[data-rim-lift]").forEach((one) => one.removeAttribute("data-rim-lift"));
    liftable(target)?.setAttribute("data-rim-lift", "");
  });
  // Which colours are seen at a place: of the text there, and of what is painted behind it.
  let isPicking = false;
  const coloursAt = (part) => {
    const ink = getComputedStyle(part).color, isClear = (colour) => /^rgba\(.*, 0\)$|^transparent$/.test(colour);
    for (; part; part = part.parentElement) {
      const ground = getComputedStyle(part).backgroundColor;
      if (!isClear(ground)) return { ink, ground };
    }
    return { ink, ground: "rgb(255, 255, 255)" };
  };
  document.addEventListener("click", (event) => {
    if (written?.field.contains(event.target)) return event.preventDefault();
    if (isOurs) return;
    if (isPicking) {
      event.preventDefault();
      isPicking = false;
      document.documentElement.style.cursor = "";
      return tell({ rim: "picked", ...coloursAt(event.target) });
    }
    const seam = !event.ctrlKey && seams.at(event.clientX, event.clientY);
    if (seam) return event.preventDefault(), tell({ rim: "seam", ...seam });
    const link = event.target.closest("a[href]");
    const node = event.target.closest("[data-rim-node]");
    const list = pointing && !node && event.target.closest("ul,ol,tbody,dl");
    if (pointing === "lift" && !node) {
      event.preventDefault();
      const part = liftable(event.target);
      return part && tell({ rim: "pointed", selector: selectorToLift(part) });
    }
    if (list) {
      event.preventDefault();
      return tell({ rim: "pointed", selector: selectorOf(list) });
    }
    if (node && !event.ctrlKey && parent !== window) {
      if (link) event.preventDefault();
      const ids = [];
      for (let part = node; part; part = part.parentElement.closest("[data-rim-node]")) ids.push(part.dataset.rimNode);
      tell({ rim: "pressed", nodes: ids });
    }
  }, true);
  // Whether pieces lie across the window: a body that only a browser can judge may leave them less.
  const isAcross = () => {
    const { left, width } = document.body.getBoundingClientRect(), { clientWidth } = document.documentElement, style = getComputedStyle(document.body);
    const inset = ["left", "right"].reduce((sum, side) => sum + parseFloat(style.getPropertyValue(`padding-${side}`)) + parseFloat(style.getPropertyValue(`border-${side}-width`)), 0);
    return inset < 1 && Math.abs(left + scrollX) <= 1 && width >= clientWidth - 1;
  };
  // How high the page is, and where it stands.
  const measure = () => tell({ rim: "measured", whole: document.documentElement.scrollHeight, high: innerHeight, isAcross: isAcross() });
  if (parent !== window) {
    new ResizeObserver(measure).observe(document.documentElement);
    addEventListener("load", measure);
    addEventListener("resize", measure);
    for (const moving of ["scroll", "resize"]) addEventListener(moving, () => opens && tellWhere(), { passive: true });
    addEventListener("scroll", () => tell({ rim: "scrolled", at: scrollY }), { passive: true });
  }
  // The studio loads this page, and listens by then.
  if (parent !== window) offer();
})();
