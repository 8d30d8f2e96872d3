// On the stage only, never published: handles at what is chosen, by which its sizes are turned. A size is told when its handle
// is let go; until then only what is drawn here follows.
// `tell` posts to the studio, `turn` paints rules until the page says so itself.
const rimHandles = ({ tell, turn }) => {
  const { CLAY, ABOVE_ALL, layer, place: set, isRtl, shows } = rimDrawn, SNAP_PX = 4, KEYS_MS = 500, SMALL_PX = 80, TOLD_PX = 9;
  const PADDING = { "padding-block-start": "top", "padding-block-end": "bottom", "padding-inline-start": "start", "padding-inline-end": "end" };
  const STYLE = `:host{all:initial;position:fixed;inset:0;pointer-events:none;z-index:${ABOVE_ALL}}
    i{position:fixed;box-sizing:border-box;pointer-events:auto;touch-action:none;background:${CLAY};border:1px solid #fff;border-radius:4px;outline-offset:2px}
    i::before{content:"";position:absolute;inset:-5px}
    i[data-size]{z-index:1}
    i:focus-visible,i:hover,i[data-held]{outline:2px solid ${CLAY}}
    b{position:fixed;display:none;background:${CLAY}33}
    output{position:fixed;display:none;font:600 12px/1.5 system-ui,sans-serif;color:#fff;background:${CLAY};padding:1px 6px;border-radius:4px;white-space:nowrap;transform-origin:0 0}
    .told output,.told b{display:block}`;

  const host = document.createElement("div"), root = host.attachShadow({ mode: "open" });
  host.dataset.rimHandles = "";
  let handles = [], held = null, zoom = 1, keysLater = 0;

  const partOf = ({ on }) => [...document.querySelectorAll(on)].find(shows);
  // The physical side on which an edge lies, and what way from there makes it larger.
  const sideOf = ({ edge, name }, part) => {
    const side = PADDING[name] ?? edge, rtl = isRtl(part);
    return side === "start" ? (rtl ? "right" : "left") : side === "end" ? (rtl ? "left" : "right") : side;
  };
  const gapOf = (part) => {
    const [one, other] = [...part.children].filter((child) => shows(child) && child.getBoundingClientRect().width > 0).map((child) => child.getBoundingClientRect());
    if (!one || !other) return null;
    if (other.top >= one.bottom - 1) return { across: false, rect: { left: one.left, top: one.bottom, width: one.width, height: other.top - one.bottom } };
    const [left, right] = one.left < other.left ? [one, other] : [other, one];
    const top = Math.min(one.top, other.top), high = Math.max(one.bottom, other.bottom) - top;
    return { across: true, rect: { left: left.right, top, width: right.left - left.right, height: high } };
  };
  const px = (part, name) => parseFloat(getComputedStyle(part).getPropertyValue(name)) || 0;
  // Where a handle stands: its room (the padding or the gap), along which axis it goes, and how a way there counts.
  const placeOf = (handle, part) => {
    if (handle.edge === "gap") {
      const gap = gapOf(part);
      return gap && { ...gap, sign: gap.across && isRtl(part) ? -1 : 1, spot: 0.5 };
    }
    const { left, top, width, height } = part.getBoundingClientRect(), side = sideOf(handle, part);
    const across = side === "left" || side === "right";
    if (handle.edge !== "padding") {
      const rect = { left: side === "right" ? left + width : left, top: side === "bottom" ? top + height : top, width: across ? 0 : width, height: across ? height : 0 };
      return { across, rect, sign: side === "left" || side === "top" ? -1 : 1, spot: 0.6 };
    }
    const wide = px(part, handle.name), edges = { left: px(part, "border-left-width"), right: px(part, "border-right-width"), top: px(part, "border-top-width"), bottom: px(part, "border-bottom-width") };
    const inner = { left: left + edges.left, top: top + edges.top, width: width - edges.left - edges.right, height: height - edges.top - edges.bottom };
    const rect = {
      left: side === "right" ? inner.left + inner.width - wide : inner.left, top: side === "bottom" ? inner.top + inner.height - wide : inner.top,
      width: across ? wide : inner.width, height: across ? inner.height : wide,
    };
    // What is above or before pushes its content; below, the box grows; behind, the content gives way. On a small box they stand
    // at its outer edges, not on its words.
    const isSmall = Math.min(width, height) < SMALL_PX * zoom, opposite = { left: "right", right: "left", top: "bottom", bottom: "bottom" };
    return { across, rect, sign: side === "right" ? -1 : 1, spot: 0.2, at: isSmall ? side : opposite[side] };
  };
  const measured = (handle, part, place) => {
    if (handle.value !== null) return handle.value;
    if (handle.edge === "padding") return Math.round(px(part, handle.name));
    return Math.round(place.across ? part.getBoundingClientRect().width : part.getBoundingClientRect().height);
  };

  const draw = () => {
    for (const one of handles) {
      const part = partOf(one.handle), place = part && placeOf(one.handle, part);
      const now = place && (held?.one === one ? held.value : measured(one.handle, part, place));
      const isShown = place && !(one.handle.is_shy && !now && held?.one !== one);
      one.group.hidden = !isShown;
      if (!isShown) continue;
      const { across, rect, spot, at } = place, long = Math.min(26 * zoom, (across ? rect.height : rect.width) * 0.36), thick = 6 * zoom;
      const middle = (from, size) => from + size * spot - long / 2, ends = { left: 0, top: 0, right: 1, bottom: 1 };
      const along = across ? middle(rect.top, rect.height) : middle(rect.left, rect.width);
      const edge = (across ? rect.left : rect.top) + (across ? rect.width : rect.height) * (ends[at] ?? 0.5);
      set(one.mark, across ? [edge - thick / 2, along, thick, long] : [along, edge - thick / 2, long, thick]);
      one.mark.style.cursor = across ? "ew-resize" : "ns-resize";
      set(one.room, [rect.left, rect.top, rect.width, rect.height]);
      one.told.textContent = `${one.handle.label}: ${now} px${held?.one === one && held.at ? `, ${held.at}` : ""}`;
      tellBeside(one.told, part.getBoundingClientRect());
      one.mark.setAttribute("aria-valuenow", now);
      one.mark.setAttribute("aria-valuetext", `${now} px`);
    }
  };
  // The number stands outside of what it tells of, within the window.
  const tellBeside = (told, { left, top, bottom }) => {
    const [wide, high] = [told.offsetWidth * zoom, told.offsetHeight * zoom], below = bottom + TOLD_PX * zoom;
    const y = below + high <= innerHeight ? below : Math.max(0, top - TOLD_PX * zoom - high);
    Object.assign(told.style, { left: `${Math.max(0, Math.min(left, innerWidth - wide))}px`, top: `${y}px`, transform: `scale(${zoom})` });
  };

  const snapsOf = ({ fitting, handle }) => [...fitting, ...handle.snaps];
  const limited = ({ least, most }, value) => Math.round(Math.min(most, Math.max(least, value)));
  const begin = (one) => {
    const part = partOf(one.handle), place = part && placeOf(one.handle, part);
    if (!place) return null;
    const from = measured(one.handle, part, place);
    tell({ rim: "held", name: one.handle.name, value: from });
    return { one, part, place, from, value: from, at: "", edges: edgesBeside(part, place) };
  };
  // The edges of what else stands in the piece, as far from the one that is moved.
  const edgesBeside = (part, { across, rect }) => {
    const piece = part.closest('[data-rim-node^="pc-"]') ?? document.body, own = across ? rect.left : rect.top, found = [];
    for (const other of piece.querySelectorAll('[data-rim-node^="it-"], [data-rim-node^="cl-"]')) {
      if (other === part || other.contains(part) || part.contains(other) || !shows(other)) continue;
      const { left, right, top, bottom } = other.getBoundingClientRect();
      found.push(...(across ? [left, right] : [top, bottom]).map((edge) => edge - own));
    }
    return found;
  };
  const follow = (value, at = "") => {
    const { handle } = held.one, number = String(limited(handle, value));
    held.value = Number(number);
    held.at = at || snapsOf(held.one).find(([px]) => px === held.value)?.[1] || "";
    const said = (declared) => Object.fromEntries(Object.entries(declared).map(([name, text]) => [name, text.replaceAll("#", number)]));
    turn(handle.follows.map(([selector, declared]) => ({ selector, declared: said(declared) })));
    draw();
  };
  const snapped = (value) => {
    const { handle } = held.one, { sign, across } = held.place;
    const near = snapsOf(held.one).filter(([at]) => at >= handle.least && at <= handle.most);
    if (handle.edge !== "gap" && handle.edge !== "padding") near.push(...held.edges.map((by) => [held.from + by * sign, across ? "in line with another edge" : "level with another edge"]));
    const [best, name] = near.reduce((one, other) => (Math.abs(other[0] - value) < Math.abs(one[0] - value) ? other : one), [Infinity, ""]);
    return Math.abs(best - value) <= SNAP_PX * zoom ? [best, name] : [value, ""];
  };
  const letGo = () => {
    clearTimeout(keysLater);
    if (!held) return;
    const { one, from, value } = held;
    held = null;
    delete one.mark.dataset.held;
    if (value === from) turn([]);
    else tell({ rim: "handled", name: one.handle.name, value });
    one.handle.value = value;
    draw();
  };
  const giveBack = () => {
    clearTimeout(keysLater);
    if (held) delete held.one.mark.dataset.held;
    held = null;
    turn([]);
    draw();
  };

  const made = (handle) => {
    const [group, mark, room, told] = ["div", "i", "b", "output"].map((name) => document.createElement(name)), one = { handle, group, mark, room, told, fitting: [] };
    for (const [name, value] of Object.entries({ role: "slider", tabindex: 0, "aria-label": handle.label, "aria-valuemin": handle.least, "aria-valuemax": handle.most })) mark.setAttribute(name, value);
    mark.dataset.handle = handle.name;
    // Where both lie at an edge of something low, its size is the one that is taken.
    if (handle.edge !== "padding") mark.dataset.size = "";
    const tellIf = () => (group.classList.toggle("told", held?.one === one || mark.matches(":hover, :focus-visible")), draw());
    for (const event of ["pointerenter", "pointerleave", "focus", "blur"]) mark.addEventListener(event, tellIf);
    mark.addEventListener("pointerdown", (event) => {
      if (event.button) return;
      event.preventDefault();
      event.stopPropagation();
      held = begin(one);
      if (!held) return;
      mark.setPointerCapture(event.pointerId);
      mark.dataset.held = "";
      const { clientX, clientY } = event;
      const moved = (move) => {
        // Let go where no window told of it.
        if (!held || !move.buttons) return mark.releasePointerCapture(move.pointerId);
        const by = held.place.across ? move.clientX - clientX : move.clientY - clientY;
        follow(...(move.altKey ? [held.from + by * held.place.sign] : snapped(held.from + by * held.place.sign)));
      };
      mark.addEventListener("pointermove", moved);
      mark.addEventListener("lostpointercapture", () => (mark.removeEventListener("pointermove", moved), letGo(), tellIf()), { once: true });
    });
    mark.addEventListener("keydown", (event) => {
      const { key, shiftKey } = event, grows = { ArrowRight: 1, ArrowDown: 1, ArrowUp: -1, ArrowLeft: -1, PageDown: 10, PageUp: -10 }[key];
      event.stopPropagation();
      if (key === "Escape") return held ? giveBack() : tell({ rim: "left" });
      if (key === "Enter") return letGo();
      if (!grows) return;
      event.preventDefault();
      held ??= begin(one);
      if (!held) return;
      follow(held.value + grows * (shiftKey ? 10 : 1));
      clearTimeout(keysLater);
      keysLater = setTimeout(letGo, KEYS_MS);
    });
    mark.addEventListener("blur", letGo);
    group.append(room, mark, told);
    return one;
  };
  // The same handles stay, with who has the focus on one; others come with what is chosen.
  let known = "";
  const show = (listed, scale) => {
    zoom = 1 / (scale || 1);
    const shape = JSON.stringify(listed.map(({ name, on }) => [name, on]));
    if (held) return;
    if (shape !== known) {
      known = shape;
      handles = listed.map(made);
      root.replaceChildren(Object.assign(document.createElement("style"), { textContent: STYLE }), ...handles.map(({ group }) => group));
    } else handles.forEach((one, at) => Object.assign(one, { handle: listed[at], fitting: [] }));
    again();
  };
  // What was painted, scrolled or opened: they stand where their things are now, in the layer that is the uppermost.
  const again = () => {
    if (handles.length && host.parentElement !== layer()) layer().append(host);
    draw();
  };
  // Comes while a handle is held, or after.
  const fitting = (name, snaps) => {
    const one = handles.find(({ handle }) => handle.name === name);
    if (one) one.fitting = snaps;
  };
  const focus = () => handles.find(({ group }) => !group.hidden)?.mark.focus();
  for (const moving of ["scroll", "resize", "transitionend", "toggle"]) addEventListener(moving, again, { passive: true, capture: true });
  const released = () => held?.one.mark.hasAttribute("data-held") && letGo();
  return { show, again, focus, fitting, released, zoom: () => zoom, isHeld: () => Boolean(held) };
};
