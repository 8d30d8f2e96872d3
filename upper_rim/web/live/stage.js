// On the stage only, never published: shows the newest state without reloading, and tells the studio what was pressed.
(() => {
  const { studio, key } = document.currentScript.dataset;
  let { shown, revision } = document.currentScript.dataset;
  let chosen = null, pointing = false, opens = false, isBench = false;
  const outline = document.createElement("style");
  document.head.append(outline);
  const mark = () => {
    outline.textContent = chosen ? `@layer rim-stage{[data-rim-node="${chosen}"]{outline:2px solid #a84b29!important;outline-offset:4px!important}}` : "";
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
    if (openedFor && part && !openedFor.contains(part) && !part.contains(openedFor)) openedFor.hidePopover(), (openedFor = null);
    if (opens && part && openAround(part)) return;
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
    const isBeside = Boolean(line) && !isInRow(line), holds = Boolean(line?.querySelector(":scope > [data-rim-branch]"));
    parent.postMessage({ rim: "at", left, right, top, bottom, isBeside, holds }, studio);
  };
  // What stands in a drawer shows while that is open. While it opens it is inert, with what it fetches when it is first used
  // there before: the focus stays where the designer types.
  let openedFor = null;
  const openAround = (part) => {
    const drawer = part?.parentElement?.closest("[popover]") ?? (opens ? part?.querySelector("[popover]") : null);
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
    parent.postMessage({ rim: "left" }, studio);
    if (!isKept || said === text.trim()) return (field.textContent = text);
    unsaid = () => (field.textContent = text);
    parent.postMessage({ rim: "said", node, text: said }, studio);
  };
  let unsaid = () => {};
  addEventListener("keydown", (event) => {
    if (!written && event.key === "F2" && chosen && parent !== window) return event.preventDefault(), parent.postMessage({ rim: "write", node: chosen }, studio);
    if (!written) return;
    event.stopPropagation();
    if (event.key === "Enter") event.preventDefault(), endWriting(true);
    if (event.key === "Escape") event.preventDefault(), endWriting(false);
  }, true);
  addEventListener("focusout", ({ target }) => written?.field === target && endWriting(true));
  addEventListener("dblclick", (event) => {
    const node = !opens && !written && parent !== window && event.target.closest("[data-rim-node]");
    if (node) event.preventDefault(), parent.postMessage({ rim: "write", node: node.dataset.rimNode }, studio);
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
    if (turns === before) turn([]);
    hand.settle();
  };
  const shownAnew = async () => {
    const answer = await fetch(location.href, { cache: "no-store", headers: { "X-Rim-Shown": shown } });
    if (answer.headers.get("content-type").startsWith("text/css")) {
      restyle(sheetOf(document), await answer.text());
      return parent.postMessage({ rim: "shown" }, studio);
    }
    const next = new DOMParser().parseFromString(await answer.text(), "text/html");
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
    parent.postMessage({ rim: "shown" }, studio);
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

  // A port of its own: what is posted there goes at once, however busy the studio's window is with drawing its screen.
  const heard = ({ data }) => {
    if (data.rim === "scroll") return scrollTo({ top: data.to, behavior: "instant" });
    if (data.rim === "over") return show(spotAt(data.x, data.y));
    if (data.rim === "let go") return letGo(data.what, spotAt(data.x, data.y));
    if (data.rim === "turn") return turn(data.rules);
    if (data.rim === "grip") return hand.focus();
    if (data.rim === "released") return hand.released();
    if (data.rim === "write") return write(data);
    if (data.rim === "unsaid") return unsaid(), hand.refused();
    if (data.rim === "pick") return (isPicking = true), (document.documentElement.style.cursor = "crosshair");
    const before = chosen, { scroll } = data;
    [pointing, opens, isBench] = [data.pointing, data.opens, data.bench];
    document.documentElement.style.cursor = pointing ? "crosshair" : "";
    chosen = /^[a-z0-9-]+$/.test(data.chosen || "") ? data.chosen : null;
    mark();
    hand.choose(chosen);
    if (data.rim === "changed") waiting = waiting.then(() => whenWritten).then(refresh).catch(reload);
    // What opens a menu is a script of the page's.
    if (opens) waiting = waiting.then(() => loaded);
    // After layout, and not before what was chosen is there.
    if (chosen !== before) waiting = waiting.then(() => new Promise((next) => requestAnimationFrame(() => (bringIntoView(scroll), next()))));
    if (data.handles) waiting = waiting.then(() => hand.show(data.handles, data.scale));
    if (opens) waiting = waiting.then(() => (looking = setTimeout(tellWhere, SETTLED_MS)));
  };
  // Entries of a menu are let go beside one another, or below one: in a row to its sides, else above and below.
  const ENTRY = '[data-rim-node^="en-"],[data-rim-node^="pg-"]', EDGE = 0.3, FEW_PX = 6;
  const bar = document.createElement("div");
  const isInRow = (line) => {
    const next = (line.nextElementSibling ?? line.previousElementSibling)?.getBoundingClientRect(), own = line.getBoundingClientRect();
    return next ? Math.abs(next.top - own.top) < own.height / 2 : line.parentElement.getBoundingClientRect().height < own.height * 1.5 && !line.parentElement.closest("li");
  };
  const spotAt = (x, y) => {
    const under = x < 0 ? null : document.elementFromPoint(x, y), entry = under?.closest("li")?.querySelector(ENTRY);
    if (!entry) return under?.closest('[data-rim-node^="it-"]') ? { beside: "", where: "after" } : null;
    const line = entry.closest("li"), rect = entry.getBoundingClientRect(), beside = entry.dataset.rimNode;
    const isRow = isInRow(line);
    let at = isRow ? (x - rect.left) / rect.width : (y - rect.top) / rect.height;
    if (isRow && getComputedStyle(line).direction === "rtl") at = 1 - at;
    return { beside, rect, isRow, where: at < EDGE ? "before" : at > 1 - EDGE ? "after" : "below" };
  };
  const show = (spot) => {
    bar.remove();
    if (!spot?.rect) return;
    const { left, top, width, height } = spot.rect, isAfter = spot.where === "after";
    const rtl = spot.isRow && getComputedStyle(document.body).direction === "rtl";
    const box = spot.where === "below" ? [left, top, width, height] : spot.isRow ? [isAfter !== rtl ? left + width : left - 4, top, 4, height] : [left, isAfter ? top + height : top - 4, width, 4];
    const [x, y, wide, high] = box.map((px) => `${px}px`);
    Object.assign(bar.style, { position: "fixed", zIndex: 2147483647, pointerEvents: "none", left: x, top: y, width: wide, height: high, background: spot.where === "below" ? "#a84b2944" : "#a84b29" });
    (document.querySelector(":popover-open") ?? document.body).append(bar);
  };
  const letGo = (what, spot) => {
    bar.remove();
    if (spot && spot.beside !== what) parent.postMessage({ rim: "dropped", what, beside: spot.beside, where: spot.where }, studio);
  };
  // A seam: the place before, between or behind a cell's items, where something can come. Near enough to it a mark shows, like
  // a text cursor.
  const NEAR_PX = 9, CURSOR_PX = 3;
  const cursor = document.createElement("div");
  const seamAt = (x, y) => {
    const under = document.elementFromPoint(x, y), cell = under?.closest('[data-rim-node^="cl-"]');
    if (!cell || under.closest('[data-rim-node^="it-"]')) return null;
    const rtl = getComputedStyle(cell).direction === "rtl", whole = cell.getBoundingClientRect();
    // An item with a hint has a wrapper around it.
    const nodeOf = (one) => one.dataset.rimNode ?? one.querySelector(":scope > [data-rim-node]")?.dataset.rimNode;
    const parts = [...cell.children].filter((one) => nodeOf(one) && one.getClientRects().length);
    const items = parts.map((one) => one.getBoundingClientRect());
    if (!items.length) return { cell, rect: { left: x, top: whole.top, height: whole.height } };
    const isBefore = (one) => one.bottom <= y || (one.top <= y && (rtl ? one.left >= x : one.right <= x));
    const at = items.filter(isBefore).length, [before, after] = [items[at - 1], items[at]];
    const end = before && (rtl ? before.left : before.right), ahead = after && (rtl ? after.right : after.left);
    const beside = before && after && before.bottom > after.top ? (end + ahead) / 2 : end !== undefined && y < before.bottom ? end + (rtl ? -4 : 4) : ahead + (rtl ? 4 : -4);
    const { top, height } = after && y >= after.top ? after : (before ?? after);
    if (Math.abs(beside - x) > NEAR_PX || y < top || y > top + height) return null;
    return { cell, behind: parts[at - 1] && nodeOf(parts[at - 1]), before: parts[at] && nodeOf(parts[at]), rect: { left: beside, top, height } };
  };
  const showCursor = (seam) => {
    cursor.remove();
    if (!seam) return;
    const { left, top, height } = seam.rect;
    const [x, y, high] = [left - CURSOR_PX / 2, top, height].map((px) => `${px}px`);
    Object.assign(cursor.style, { position: "fixed", zIndex: 2147483647, pointerEvents: "none", left: x, top: y, width: `${CURSOR_PX}px`, height: high, background: "#a84b29", borderRadius: "2px" });
    (document.querySelector(":popover-open") ?? document.body).append(cursor);
  };
  // Things are taken hold of where their outline is beside them.
  const isBusy = () => parent === window || !isBench || opens || pointing || isPicking || Boolean(written);
  const hand = rimHand({ tell: (told) => parent.postMessage(told, studio), turn, isBusy });
  const maySeam = () => !isBusy() && !hand.isHolding();
  addEventListener("pointermove", ({ clientX, clientY }) => showCursor(maySeam() && seamAt(clientX, clientY)));
  document.documentElement.addEventListener("pointerleave", () => showCursor(null));
  let drag = null;
  addEventListener("dragstart", (event) => opens && event.target.closest?.(ENTRY) && event.preventDefault());
  addEventListener("pointerdown", (event) => {
    const entry = opens && !event.button && event.target.closest(ENTRY);
    if (entry) drag = { what: entry.dataset.rimNode, x: event.clientX, y: event.clientY, isMoving: false };
  });
  addEventListener("pointermove", ({ clientX, clientY }) => {
    if (!drag || (!drag.isMoving && Math.hypot(clientX - drag.x, clientY - drag.y) < FEW_PX)) return;
    drag.isMoving = true;
    show(spotAt(clientX, clientY));
  });
  addEventListener("pointerup", ({ clientX, clientY }) => {
    if (drag?.isMoving) {
      letGo(drag.what, spotAt(clientX, clientY));
      // What was dragged was not pressed; let go outside, nothing is.
      const swallow = (event) => (event.preventDefault(), event.stopImmediatePropagation());
      addEventListener("click", swallow, { capture: true, once: true });
      setTimeout(() => removeEventListener("click", swallow, { capture: true }));
    }
    drag = null;
  });
  addEventListener("keydown", (event) => {
    const { key, shiftKey } = event;
    if (key === "F6" && parent !== window) return event.preventDefault(), parent.postMessage({ rim: "region", back: shiftKey }, studio);
    if (key !== "Escape") return;
    if (drag) bar.remove(), (drag = null);
    else if (!opens && !document.querySelector(":popover-open, dialog[open]")) parent.postMessage({ rim: "out" }, studio);
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
    if (isPicking) {
      event.preventDefault();
      isPicking = false;
      document.documentElement.style.cursor = "";
      return parent.postMessage({ rim: "picked", ...coloursAt(event.target) }, studio);
    }
    const seam = maySeam() && !event.ctrlKey && seamAt(event.clientX, event.clientY);
    if (seam) {
      const { cell, behind, before, rect: { left, top, height } } = seam;
      event.preventDefault();
      return parent.postMessage({ rim: "seam", cell: cell.dataset.rimNode, behind, before, left, right: left, top, bottom: top + height }, studio);
    }
    const link = event.target.closest("a[href]");
    const node = event.target.closest("[data-rim-node]");
    const list = pointing && !node && event.target.closest("ul,ol,tbody,dl");
    if (list) {
      event.preventDefault();
      return parent.postMessage({ rim: "pointed", selector: selectorOf(list) }, studio);
    }
    if (node && !event.ctrlKey && parent !== window) {
      if (link) event.preventDefault();
      const ids = [];
      for (let part = node; part; part = part.parentElement.closest("[data-rim-node]")) ids.push(part.dataset.rimNode);
      parent.postMessage({ rim: "pressed", nodes: ids }, studio);
    }
  }, true);
  // How high the page is, and where it stands.
  const measure = () => parent.postMessage({ rim: "measured", whole: document.documentElement.scrollHeight, high: innerHeight }, studio);
  if (parent !== window) {
    new ResizeObserver(measure).observe(document.documentElement);
    addEventListener("load", measure);
    addEventListener("resize", measure);
    for (const moving of ["scroll", "resize"]) addEventListener(moving, () => opens && tellWhere(), { passive: true });
    addEventListener("scroll", () => parent.postMessage({ rim: "scrolled", at: scrollY }, studio), { passive: true });
  }
  // The studio loads this page, and listens by then.
  if (parent !== window) offer();
})();
