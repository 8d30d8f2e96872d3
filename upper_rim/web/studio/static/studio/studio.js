// The studio's own script: it sends what was done and shows what came back. Rules are the server's.
(() => {
  const $ = (selector, root = document) => root.querySelector(selector);
  const $$ = (selector, root = document) => [...root.querySelectorAll(selector)];

  // What is typed and not sent yet stays, whatever else on the screen is shown anew; so does what was refused, and what
  // was typed on while its form was under way.
  let sent = null, sentValues = new Map(), refused = false;
  const isText = (field) => Boolean(field.matches?.("input:not([type=hidden], [type=checkbox], [type=radio], [type=file], [type=button], [type=submit]), textarea"));
  const unsent = (field) => isText(field) && field.value !== field.defaultValue;
  const stays = (field) => {
    if (!unsent(field) || !field.form) return false;
    return !sent?.contains(field) || refused || field.value !== sentValues.get(field);
  };
  const under = new WeakMap();
  document.addEventListener("htmx:beforeRequest", ({ detail }) => {
    const form = detail.elt.closest("form");
    under.set(detail.xhr, { form, values: new Map([...(form?.elements ?? [])].filter(isText).map((field) => [field, field.value])) });
  });
  document.addEventListener("htmx:beforeSwap", ({ detail: { xhr } }) => {
    const request = under.get(xhr);
    [sent, sentValues, refused] = [request?.form, request?.values ?? new Map(), Boolean(xhr.getResponseHeader("X-Rim-Refused"))];
  });
  Idiomorph.defaults.callbacks.beforeNodeMorphed = (old, fresh) => (old.matches?.(".rich") ? editorStays(old, fresh) : !(fresh.dataset && "stays" in fresh.dataset) && !(old.nodeType === 1 && stays(old)));
  document.addEventListener("htmx:configRequest", ({ detail }) => {
    const outline = $("#outline");
    if (outline) detail.headers["X-Rim-Outline"] = outline.dataset.told;
  });
  // The stage keeps its size and what it shows; the script alone sets them.
  Idiomorph.defaults.callbacks.beforeAttributeUpdated = (name, node) => !((name === "src" && (node.dataset?.src || node.dataset?.stageSrc)) || (name === "style" && node.id === "stage"));

  // One press, one request: a form that sends itself when it changes has done so before it is submitted by Enter.
  document.addEventListener("submit", (event) => event.target.getAttribute("hx-trigger") === "change" && event.preventDefault(), true);
  const resend = (form) => htmx.trigger(form, "change");

  // What was refused is marked where it was typed; Escape gives back what was there.
  const markRefused = () => {
    const notice = $("[data-refused]");
    const field = refused && sent?.isConnected && [...sent.elements].find((one) => isText(one) && one.name === (notice?.dataset.name || "value"));
    if (!field) return;
    field.setAttribute("aria-invalid", "true");
    field.setAttribute("aria-describedby", "notice-said");
    const line = Number(notice?.dataset.line);
    if (line && field.localName === "textarea") {
      const before = field.value.split("\n").slice(0, line - 1).join("\n").length + (line > 1 ? 1 : 0);
      const end = field.value.indexOf("\n", before);
      field.focus();
      field.setSelectionRange(before, end < 0 ? field.value.length : end);
    }
  };
  const noFault = (field) => (field.removeAttribute("aria-invalid"), field.removeAttribute("aria-describedby"));
  document.addEventListener("input", ({ target }) => target.matches("[aria-invalid]") && noFault(target));
  document.addEventListener("keydown", ({ key, target }) => {
    if (key === "Escape" && target.matches?.("[aria-invalid]")) (target.value = target.defaultValue), noFault(target);
  });
  document.addEventListener("click", ({ target }) => target.closest("[data-shut-notice]")?.closest(".notice").remove());
  // The other lines of a text in which one is at fault.
  document.addEventListener("click", ({ target }) => {
    const rest = target.closest("[data-rest]"), field = $("textarea[aria-invalid]");
    if (!rest || !field) return;
    const lines = field.value.split("\n").filter((_, at) => at !== Number(rest.dataset.rest) - 1);
    send({ ...Object.fromEntries(new FormData(field.form)), value: lines.join("\n") });
  });
  addEventListener("beforeunload", (event) => {
    if ($$("textarea").some(unsent)) event.preventDefault();
  });

  // Texts with marks: an editor that keeps what it holds, unless the server has something else.
  const editorStays = (old, fresh) => {
    const editor = $("trix-editor", old), said = $("input", fresh)?.getAttribute("value") ?? "";
    if (editor && said !== old.dataset.said && document.activeElement !== editor) editor.editor?.loadHTML(said);
    old.dataset.said = said;
    return false;
  };
  document.addEventListener("trix-before-initialize", ({ target }) => {
    Trix.config.blockAttributes.default.tagName = "p";
    Trix.config.blockAttributes.heading1.tagName = "h2";
  });
  document.addEventListener("trix-file-accept", (event) => event.preventDefault());
  document.addEventListener("trix-blur", ({ target }) => {
    const holder = target.closest(".rich");
    if (target.value === holder.dataset.said) return;
    holder.dataset.said = target.value;
    resend(target.closest("form"));
  });

  // The stage: as wide as the ruler says, drawn smaller where the screen is narrower.
  let width = null;
  const stageWidth = () => width ?? Number($("[data-stage-width]")?.value || 1120);
  const fitStage = () => {
    const stage = $("#stage"), ground = $("#stage-ground");
    if (!stage) return;
    if (!ground) return loadStage(stage);
    const wide = stageWidth(), room = ground.clientWidth - 40, tall = ground.clientHeight - 28;
    const scale = Math.min(1, room / wide);
    stage.style.width = `${wide}px`;
    stage.style.height = `${tall / scale}px`;
    stage.style.transform = `scale(${scale})`;
    stage.style.marginLeft = `${(-wide * scale) / 2}px`;
    $$("[data-width-input]").forEach((input) => (input.value = wide));
    const number = $("[data-stage-width]");
    if (number && document.activeElement !== number) number.value = wide;
    placeHandle(wide);
    studyAt(wide);
    // It is loaded once it has its size: what a page asks of the window's width while it loads is true then.
    loadStage(stage);
  };
  let loaded = null;
  const loadStage = (stage) => {
    if (loaded?.stage === stage && loaded.src === stage.dataset.stageSrc) return;
    loaded = { stage, src: stage.dataset.stageSrc };
    stage.src = loaded.src;
  };
  const ruler = () => {
    const line = $("#ruler");
    return line && { line, from: Number(line.dataset.from), to: Number(line.dataset.to) };
  };
  const share = (px, { from, to }) => (100 * (Math.min(Math.max(px, from), to) - from)) / (to - from);
  const placeHandle = (px) => {
    const scale = ruler(), handle = $("#handle");
    if (!scale || !handle) return;
    handle.style.left = `${share(px, scale)}%`;
    handle.setAttribute("aria-valuenow", px);
    handle.setAttribute("aria-valuetext", `${px} px`);
    $("span", handle).textContent = px;
  };
  const within = (slider, px) => Math.min(Number(slider.getAttribute("aria-valuemax")), Math.max(Number(slider.getAttribute("aria-valuemin")), px));
  const setWidth = (px) => {
    width = Math.min(2560, Math.max(280, Math.round(px)));
    fitStage();
  };
  // A flag that comes near a width at which something begins to fit goes there.
  const snapped = (px) => {
    const near = ($("#ruler").dataset.snaps || "").split(" ").map(Number).find((at) => at && Math.abs(at - px) <= 6);
    return near || px;
  };
  const studyAt = (px) => {
    $$("[data-study]").forEach((study) => {
      const { from, to, left, right } = study.dataset, wide = study.viewBox.baseVal.width, line = $(".study-at", study);
      const x = px > to ? -9 : wide * (Number(left) + ((px - from) / (to - from)) * (right - left));
      line.setAttribute("x1", x);
      line.setAttribute("x2", x);
    });
  };
  document.addEventListener("click", (event) => {
    const go = event.target.closest("[data-go-width]"), study = event.target.closest("[data-study]");
    if (go) return setWidth(Number(go.dataset.goWidth));
    if (!study) return;
    const { from, to, left, right } = study.dataset, box = study.getBoundingClientRect();
    const at = ((event.clientX - box.left) / box.width - left) / (right - left);
    setWidth(Number(from) + Math.min(1, Math.max(0, at)) * (to - from));
  });
  const placeFlag = (flag, px) => {
    flag.style.left = `${share(px, ruler())}%`;
    flag.setAttribute("aria-valuenow", px);
    flag.setAttribute("aria-valuetext", `${px} px`);
    const text = $("[data-flag-text]", flag);
    text.textContent = `${text.dataset.flagText} ‹ ${px}`;
  };

  // One way to post: the values of the screen's own place, and what is done.
  const send = (values) => {
    const where = Object.fromEntries($$("#screen form [name=base], #screen form [name=select], #screen form [name=page], #screen form [name=width], #looking-at [name=tray], #looking-at [name=state], #looking-at [name=part], #looking-at [name=band]").map((input) => [input.name, input.value]));
    return htmx.ajax("POST", location.pathname + location.search, { source: "#screen", target: "#screen", swap: "morph:innerHTML", values: { ...where, ...values } });
  };

  // Requests go one after the other; each is made on the newest state that is on the screen when it goes.
  document.addEventListener("htmx:configRequest", ({ detail }) => {
    const base = $("#screen form [name=base]");
    if (base && "base" in detail.parameters) detail.parameters.base = base.value;
  });

  let drag = null;
  document.addEventListener("pointerdown", (event) => {
    const scale = ruler();
    const grip = event.target.closest("[data-flag], #handle");
    if (!scale || event.target.closest("[data-go-width]") || (!grip && !event.target.closest("#ruler"))) return;
    const box = scale.line.getBoundingClientRect();
    const pixels = (x) => Math.round(scale.from + ((x - box.left) / box.width) * (scale.to - scale.from));
    drag = { grip: grip?.dataset.flag ? grip : null, pixels, px: null };
    if (!drag.grip) setWidth(pixels(event.clientX));
    (grip || $("#handle")).focus();
    document.body.classList.add("dragging");
    $("#stage-ground").style.pointerEvents = "none";
    event.preventDefault();
  });
  document.addEventListener("pointermove", (event) => {
    if (!drag) return;
    const px = Math.max(1, drag.pixels(event.clientX));
    if (drag.grip) placeFlag(drag.grip, (drag.px = snapped(px)));
    else setWidth(px);
  });
  document.addEventListener("pointerup", () => {
    if (!drag) return;
    const { grip, px } = drag;
    drag = null;
    document.body.classList.remove("dragging");
    $("#stage-ground").style.pointerEvents = "";
    if (grip && px !== null) send({ do: "set", node: grip.dataset.flag, field: "from_px", value: px });
  });

  // The scroll ruler: a handle for the stage's position, and where the stages begin.
  let scrolled = 0;
  const down = () => {
    const line = $("#scroll-ruler");
    return line && { line, to: Number(line.dataset.to), most: Number(line.dataset.scrolls) };
  };
  const placeScroll = () => {
    const scale = down(), handle = $("#scroll-handle");
    if (!scale || !handle) return;
    handle.style.top = `${(100 * Math.min(scrolled, scale.to)) / scale.to}%`;
    handle.setAttribute("aria-valuenow", scrolled);
    handle.setAttribute("aria-valuetext", `${scrolled} px`);
    $("span", handle).textContent = scrolled;
  };
  const scrollStage = (px) => {
    scrolled = Math.round(Math.max(0, Math.min(px, down()?.most ?? 0)));
    line?.postMessage({ rim: "scroll", to: scrolled });
    placeScroll();
  };
  const placeGrip = (grip, after) => {
    const scale = down();
    grip.style.top = `${(100 * Math.min(after + Number(grip.dataset.from), scale.to)) / scale.to}%`;
    grip.setAttribute("aria-valuenow", after);
    grip.setAttribute("aria-valuetext", `after ${after} px`);
    $("span", grip).textContent = after;
  };
  const begins = (grip, px) => send({ do: "set", node: grip.dataset.gripStage, field: "after", value: px, unit: "px" });
  let pull = null;
  document.addEventListener("pointerdown", (event) => {
    const scale = down();
    const mark = event.target.closest("[data-scroll-at]");
    if (mark) return scrollStage((Number(mark.dataset.scrollAt) * scale.to) / 100);
    if (!scale || !event.target.closest("#scroll-ruler") || event.target.closest("[aria-disabled]")) return;
    const grip = event.target.closest("[data-grip-stage]"), box = scale.line.getBoundingClientRect();
    const pixels = (y) => Math.round(((y - box.top) / box.height) * scale.to);
    pull = { grip, pixels, px: null };
    if (!grip) scrollStage(pixels(event.clientY));
    (grip || $("#scroll-handle")).focus();
    $("#stage-ground").style.pointerEvents = "none";
    event.preventDefault();
  });
  document.addEventListener("pointermove", (event) => {
    if (!pull) return;
    const px = pull.pixels(event.clientY);
    if (pull.grip) placeGrip(pull.grip, (pull.px = Math.max(0, px - Number(pull.grip.dataset.from))));
    else scrollStage(px);
  });
  document.addEventListener("pointerup", () => {
    if (!pull) return;
    const { grip, px } = pull;
    pull = null;
    $("#stage-ground").style.pointerEvents = "";
    if (grip && px !== null) begins(grip, px);
  });
  let pendingGrip = null;
  document.addEventListener("keydown", (event) => {
    const grip = event.target.closest?.("[data-grip-stage], #scroll-handle");
    const step = { ArrowUp: -1, ArrowDown: 1, ArrowLeft: -1, ArrowRight: 1, PageUp: -100, PageDown: 100, Home: -Infinity, End: Infinity }[event.key];
    if (!grip || !step || event.altKey || grip.matches("[aria-disabled]")) return;
    event.preventDefault();
    const px = within(grip, Number(grip.getAttribute("aria-valuenow")) + step * (event.shiftKey ? 10 : 1));
    if (!grip.dataset.gripStage) return scrollStage(px);
    placeGrip(grip, px);
    clearTimeout(pendingGrip);
    pendingGrip = setTimeout(() => ((pendingGrip = null), begins(grip, px)), 500);
  });
  // What the stage has measured; until then the ruler rests on an estimate.
  let shape = "", measuring = null;
  document.addEventListener("htmx:configRequest", ({ detail }) => {
    if (shape) detail.headers["X-Rim-Shape"] = shape;
  });
  const measured = (told) => {
    clearTimeout(measuring);
    measuring = setTimeout(() => {
      const now = `${Math.round(told.whole)} ${Math.round(told.high)}`, holder = $("[data-ruler]");
      if (pull || pendingGrip) return measured(told);
      if (now === shape && $("#scroll-ruler")?.matches("[data-measured]")) return;
      shape = now;
      if (holder) htmx.ajax("GET", `${holder.dataset.ruler}?${new URLSearchParams({ page: $("#looked-at")?.value ?? "", width: stageWidth() })}`, { target: "#scroll-ruler", swap: "morph:outerHTML" }).then(placeScroll);
    }, 120);
  };

  // A way of scrolling, drawn: turns are dragged, added by a press, taken away by Delete.
  let turning = null;
  const turns = () => $$("#way-pad [data-turn]").map((turn) => Number(turn.getAttribute("aria-valuenow")));
  const showWay = (points) => {
    const field = $("#movement-way [name=path]");
    field.value = points.join(", ");
    field.dispatchEvent(new Event("change", { bubbles: true }));
  };
  const onPad = (event) => {
    const pad = $("#way-pad"), box = pad.getBoundingClientRect(), edge = Number(pad.dataset.edge), to = Number(pad.dataset.to);
    const share = (at, room) => Math.min(1, Math.max(0, (at - edge) / (room - 2 * edge)));
    return { px: Math.round(share(event.clientY - box.top, box.height) * to), along: share(event.clientX - box.left, box.width) };
  };
  const placeTurn = (turn, px) => {
    const pad = $("#way-pad"), edge = Number(pad.dataset.edge);
    turn.setAttribute("cy", edge + (px / Number(pad.dataset.to)) * (Number(pad.getAttribute("height")) - 2 * edge));
    turn.setAttribute("aria-valuenow", px);
    turn.setAttribute("aria-valuetext", `${px} px`);
    $("polyline", pad).setAttribute("points", $$("[data-turn]", pad).map((one) => `${one.getAttribute("cx")},${one.getAttribute("cy")}`).join(" "));
  };
  document.addEventListener("pointerdown", (event) => {
    if (!event.target.closest("#way-pad")) return;
    event.preventDefault();
    const turn = event.target.closest("[data-turn]"), points = turns(), { px, along } = onPad(event);
    if (turn) return (turning = turn), turn.focus();
    if (points.length < 20) showWay([...points.slice(0, Math.ceil(along * (points.length - 1))), px, ...points.slice(Math.ceil(along * (points.length - 1)))]);
  });
  document.addEventListener("pointermove", (event) => turning && placeTurn(turning, onPad(event).px));
  document.addEventListener("pointerup", () => {
    if (turning) (turning = null), showWay(turns());
  });
  let pendingWay = null;
  document.addEventListener("keydown", (event) => {
    const turn = event.target.closest?.("[data-turn]");
    const step = { ArrowUp: -10, ArrowDown: 10, PageUp: -100, PageDown: 100 }[event.key];
    if (!turn || (!step && event.key !== "Delete")) return;
    event.preventDefault();
    if (!step) return turns().length > 2 && showWay(turns().filter((_, at) => at !== Number(turn.dataset.turn)));
    placeTurn(turn, Math.max(0, Number(turn.getAttribute("aria-valuenow")) + step));
    clearTimeout(pendingWay);
    pendingWay = setTimeout(() => showWay(turns()), 400);
  });

  // The movement study, played: every frame was worked out beforehand.
  let playing = 0;
  const showMoment = (at) => {
    const frames = JSON.parse($("#frames").textContent), player = $("#player"), [y, left, pieces] = frames[at];
    const { wide, high } = player.dataset, scale = Math.min(236 / high, 240 / wide), study = $("#along-title").closest("section").querySelector(".study svg"), line = $(".study-at", study);
    const from = frames.reduce((sum, frame, index) => (index && index <= at ? sum + Math.abs(frame[0] - frames[index - 1][0]) : sum), 0);
    const whole = frames.reduce((sum, frame, index) => (index ? sum + Math.abs(frame[0] - frames[index - 1][0]) : sum), 0) || 1;
    const box = study.viewBox.baseVal.width, x = box * (Number(study.dataset.left) + (from / whole) * (study.dataset.right - study.dataset.left));
    line.setAttribute("x1", x);
    line.setAttribute("x2", x);
    player.setAttribute("viewBox", `0 0 ${wide} ${high}`);
    player.setAttribute("width", wide * scale);
    player.setAttribute("height", high * scale);
    player.innerHTML = `<rect class="study-screen" width="${wide}" height="${high}"/>` + pieces.map((box, index) => (box ? `<rect class="piece-${player.dataset.colours?.split(" ")[index] ?? index % 6}" x="${box[0]}" y="${box[1]}" width="${box[2]}" height="${box[3]}"/>` : "")).join("");
    $("#moment").value = at;
    $("#moment-said").textContent = `${y} px, ${left} % left`;
  };
  document.addEventListener("input", (event) => event.target.id === "moment" && (cancelAnimationFrame(playing), showMoment(Number(event.target.value))));
  document.addEventListener("click", (event) => {
    if (event.target.id !== "play") return;
    cancelAnimationFrame(playing);
    const last = Number($("#moment").max), started = performance.now();
    const step = (now) => {
      if (!$("#moment")) return;
      const at = Math.min(last, Math.max(0, Math.floor((now - started) / 12)));
      showMoment(at);
      if (at < last) playing = requestAnimationFrame(step);
    };
    playing = requestAnimationFrame(step);
  });

  let pendingFlag = null;
  document.addEventListener("keydown", (event) => {
    const grip = event.target.closest?.("[data-flag], #handle");
    const step = { ArrowLeft: -1, ArrowRight: 1, ArrowDown: -1, ArrowUp: 1, PageDown: -100, PageUp: 100, Home: -Infinity, End: Infinity }[event.key];
    if (!grip || !step || event.altKey) return;
    event.preventDefault();
    const px = within(grip, Number(grip.getAttribute("aria-valuenow")) + step * (event.shiftKey ? 10 : 1));
    if (!grip.dataset.flag) return setWidth(px);
    placeFlag(grip, px);
    clearTimeout(pendingFlag);
    pendingFlag = setTimeout(() => send({ do: "set", node: grip.dataset.flag, field: "from_px", value: px }), 500);
  });
  document.addEventListener("change", (event) => {
    if (event.target.matches("[data-stage-width]")) setWidth(Number(event.target.value) || 1120);
  });
  document.addEventListener("submit", (event) => {
    if (event.target.id === "width-form") event.preventDefault();
  });
  addEventListener("resize", fitStage);

  // Shortcuts. Where one types they are the field's own; single letters can be switched off (WCAG 2.2, 2.1.4). AltGr is a
  // way to type.
  const typing = (target) => target.matches?.("input:not([type=checkbox]):not([type=radio]), textarea, select, [contenteditable]");
  const OFF = "rim-letters-off";
  const letters = () => localStorage.getItem(OFF) === null;
  document.addEventListener("change", ({ target }) => {
    if (target.id !== "letters") return;
    if (target.checked) localStorage.removeItem(OFF);
    else localStorage.setItem(OFF, "");
  });
  let going = false;
  const places = { p: "pages", f: "foundations", m: "menus", w: "pieces", i: "inbox", e: "editions" };
  document.addEventListener("keydown", (event) => {
    const press = (name) => {
      const button = $(`[data-key="${name}"]`);
      if (!button || button.disabled) return;
      event.preventDefault();
      button.click();
    };
    if (event.getModifierState("AltGraph")) return;
    if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === "z" && !unsent(event.target) && !event.target.matches?.("[contenteditable]")) return press(event.shiftKey ? "redo" : "undo");
    if (typing(event.target)) return;
    if (event.altKey) {
      const action = { ArrowUp: "back", ArrowDown: "on", ArrowLeft: "out", ArrowRight: "in", Delete: "remove", d: "double", D: "double" }[event.key];
      const outline = $("#outline"), chosen = $("#stage")?.dataset.chosen;
      if (outline && event.key === "c" && /^(it|rw)-/.test(chosen)) return sessionStorage.setItem("rim-copied", chosen);
      const copied = sessionStorage.getItem("rim-copied");
      if (outline && event.key === "v" && copied) return event.preventDefault(), send({ do: "copy", node: copied, parent: copied.startsWith("rw-") ? outline.dataset.piece : outline.dataset.into });
      return action && press(action);
    }
    if (event.ctrlKey || event.metaKey || !letters()) return;
    if (event.key === "?") return $("#shortcuts").showModal();
    if (going && places[event.key]) {
      const link = $(`nav a[href$="/${places[event.key]}/"]`);
      if (link) link.click();
    }
    going = event.key === "g";
    if (event.key === "[" || event.key === "]") {
      const lines = $$("[data-select]"), at = lines.findIndex((line) => line.hasAttribute("aria-current"));
      const next = lines[at + (event.key === "]" ? 1 : -1)];
      if (next) (next.click(), next.focus());
    }
  });
  document.addEventListener("click", (event) => {
    const icon = event.target.closest("[data-icon]");
    if (icon) {
      $("#icon-chooser").close();
      send({ do: "set", node: $("#stage").dataset.chosen, field: $("#icon-chooser").dataset.field || "icon", value: icon.dataset.icon });
    }
    const opener = event.target.closest("[data-open]");
    if (!opener) return;
    const dialog = $(`#${opener.dataset.open}`);
    dialog.dataset.field = opener.dataset.field || "";
    dialog.showModal();
  });

  // Paths, and names of icons, are offered while one types.
  let asked = null;
  document.addEventListener("input", (event) => {
    const from = event.target.dataset?.offers;
    if (!from) return;
    clearTimeout(asked);
    asked = setTimeout(() => htmx.ajax("GET", `${from}${from.includes("?") ? "&" : "?"}q=${encodeURIComponent(event.target.value)}`, { target: `#${event.target.getAttribute("list")}`, swap: "innerHTML" }), 150);
  });

  // Drag and drop; the buttons beside each entry and the keys do the same.
  const sortable = () => {
    $$("[data-sort]").forEach((list) => {
      if (list.sorting) return;
      list.sorting = Sortable.create(list, {
        group: list.dataset.sort, handle: "[data-grip]", animation: 120, fallbackOnBody: true, invertSwap: true,
        onEnd: ({ item, to, newIndex, oldIndex, from }) => {
          if (to !== from || newIndex !== oldIndex) send({ do: "move", node: item.dataset.id, parent: to.dataset.parent, slot: to.dataset.slot || "entries", at: newIndex });
        },
      });
    });
    const outline = $("#outline");
    if (outline && !outline.sorting) {
      outline.sorting = Sortable.create(outline, {
        draggable: 'li[data-kind="item"]', animation: 120,
        onEnd: ({ item, originalEvent }) => {
          const { clientX, clientY } = originalEvent.changedTouches?.[0] || originalEvent;
          const other = document.elementFromPoint(clientX, clientY)?.closest("[data-drop]");
          if (other) return delete outline.dataset.told, send({ do: "move", node: item.dataset.id, parent: other.dataset.drop, slot: "items", at: 999 });
          const lines = $$("li[data-id]", outline), at = lines.indexOf(item);
          let cell = null, place = 0;
          for (const line of lines.slice(0, at)) {
            if (line.dataset.kind === "cell") (cell = line.dataset.id), (place = 0);
            else if (line.dataset.kind === "row") cell = null;
            else if (line.dataset.kind === "item") place += 1;
          }
          if (!cell) cell = (lines.slice(at).find((line) => line.dataset.kind === "cell") || {}).dataset?.id;
          if (cell) (delete outline.dataset.told, send({ do: "move", node: item.dataset.id, parent: cell, slot: "items", at: place }));
        },
      });
    }
  };

  // The stage tells what was pressed on it; the studio tells it that something changed and what is chosen.
  let line = null, newest = 0;
  // Specimens come after the stage, which is what one looks at.
  let stageIsDue = false;
  const showSpecimens = () => {
    stageIsDue = false;
    $$("iframe[data-src]").forEach((frame) => frame.getAttribute("src") === frame.dataset.src || (frame.src = frame.dataset.src));
  };
  const pointing = () => Boolean($("#tray-groups input[name=field][value=list_on]"));
  const toStage = (message) => line?.postMessage({ rim: message, chosen: $("#stage")?.dataset.chosen, scroll: $("#stage")?.dataset.scroll, pointing: pointing() });
  addEventListener("message", (event) => {
    const stage = $("#stage");
    if (!stage || event.source !== stage.contentWindow || event.origin !== stage.dataset.origin) return;
    if (event.data?.rim === "pressed") {
      const named = (node) => $(`[data-select="${CSS.escape(node)}"], [data-shares="${CSS.escape(node)}"] [data-select]`);
      const line = event.data.nodes.map((node) => named(String(node))).find(Boolean);
      // The keys are the studio's again.
      if (line) line.click(), line.focus({ preventScroll: true });
    }
    if (event.data?.rim === "pointed" && pointing()) {
      const node = stage.dataset.chosen, set = (field, value) => ({ kind: "set", node, field, value });
      send({ do: "edit", edit: JSON.stringify({ kind: "together", edits: [set("selector", String(event.data.selector)), set("list_on", stage.dataset.page)] }) });
    }
    if (event.data?.rim === "shown") showSpecimens();
    if (event.data?.rim === "measured") measured(event.data);
    if (event.data?.rim === "scrolled" && !pull) (scrolled = Math.round(Number(event.data.at) || 0)), placeScroll();
    if (event.data?.rim === "ready") (line = event.ports[0]), toStage(event.data.revision < newest ? "changed" : "chosen");
  });
  // Said as soon as the answer begins: the stage, a process of its own, need not wait until the screen is drawn.
  document.addEventListener("htmx:beforeSend", ({ detail: { xhr } }) => {
    xhr.addEventListener("readystatechange", () => {
      const revision = xhr.readyState === XMLHttpRequest.HEADERS_RECEIVED && Number(xhr.getResponseHeader("X-Rim-Revision"));
      if (!revision) return;
      newest = Math.max(newest, revision);
      stageIsDue = Boolean(line && $("#stage"));
      toStage("changed");
    });
  });
  document.addEventListener("rim:work-done", () => htmx.ajax("GET", location.pathname + location.search, { target: "#screen", swap: "morph:innerHTML" }));
  document.addEventListener("rim:elsewhere", ({ detail: { revision } }) => {
    // What was asked before an edit of one's own, and answered after it, tells nothing new.
    if (revision <= newest || typing(document.activeElement) || drag || pull) return;
    newest = revision;
    htmx.ajax("GET", location.pathname + location.search, { target: "#screen", swap: "morph:innerHTML" }).then(() => toStage("changed"));
  });
  let waiting = false;
  document.addEventListener("rim:editions", (event) => {
    const going_on = event.detail.going_on;
    if (waiting && !going_on) htmx.ajax("GET", location.pathname, { target: "#screen", swap: "morph:innerHTML" });
    waiting = going_on;
  });

  document.addEventListener("change", (event) => {
    if (event.target.matches("[data-submit]")) event.target.form.requestSubmit();
  });

  // Where the focus goes when what had it is gone, or has become another's: to the next in its list, else the one before,
  // else the nearest heading. A row of buttons belongs to the node that its form names.
  const LISTED = "li, tr, [data-listed]", FOCUS = "a[href], button:not([disabled]), input:not([type=hidden]), select, textarea, summary, [tabindex='0']";
  const ownerOf = (part) => part?.closest("form")?.querySelector("input[name=node]")?.value ?? "";
  let focused = null;
  document.addEventListener("htmx:beforeRequest", ({ detail }) => {
    if (detail.elt.id === "watch") return;
    const part = document.activeElement, line = part?.closest?.(LISTED);
    const chosen = $("#outline [aria-current]")?.closest("li");
    const beside = (one) => (one ? [one.nextElementSibling, one.previousElementSibling] : []).filter(Boolean).map(keyOf);
    const form = part?.closest?.("form");
    focused = part && part !== document.body && part.closest("#screen")
      ? { part, owner: ownerOf(part), name: part.name, value: part.value, line: beside(line), around: part.closest("section, aside, main"), leaves: chosen && form?.id === "node-actions" ? beside(chosen) : [] }
      : null;
  });
  const keyOf = (line) => line.dataset.id || line.querySelector("input[name=node]")?.value || line.querySelector("[data-select]")?.dataset.select || line.textContent.trim();
  const settleFocus = () => {
    if (!focused) return;
    const { part, owner, name, value, line, around, leaves } = focused;
    const known = part.isConnected && document.activeElement === part && ownerOf(part) === owner && (part.localName !== "button" || (part.name === name && part.value === value)) && !part.disabled;
    focused = null;
    if (known || (document.activeElement !== part && document.activeElement !== document.body)) return;
    const chosen = $("#outline [aria-current]");
    if (leaves.length && chosen) return chosen.focus({ preventScroll: true });
    const next = line.map((key) => $$(LISTED).find((one) => keyOf(one) === key)).find(Boolean)?.querySelector(FOCUS);
    if (next) return next.focus({ preventScroll: true });
    const heading = (around?.isConnected && around.querySelector("h1, h2, h3")) || chosen || $("#screen h1");
    if (!heading) return;
    if (!heading.matches(FOCUS)) heading.tabIndex = -1;
    heading.focus({ preventScroll: true });
  };
  // What is removed on the workbench gives its place to the one beside it.
  document.addEventListener("htmx:configRequest", ({ detail }) => {
    const { parameters } = detail;
    if (parameters.do !== "remove" || !parameters.select || parameters.select !== parameters.node) return;
    const line = $(`#outline li[data-id="${CSS.escape(parameters.node)}"]`);
    const alike = (step) => {
      for (let one = line?.[step]; one && one.dataset.kind >= ""; one = one[step]) if (one.dataset.kind === line.dataset.kind) return one.dataset.id;
        else if (RANK[one.dataset.kind] < RANK[line.dataset.kind]) return null;
    };
    const parent = () => {
      for (let one = line?.previousElementSibling; one; one = one.previousElementSibling) if (RANK[one.dataset.kind] < RANK[line.dataset.kind]) return one.dataset.id;
    };
    parameters.select = alike("nextElementSibling") || alike("previousElementSibling") || parent() || "";
  });
  const RANK = { stage: 0, row: 1, cell: 2, item: 3 };
  // What happened is said outside of what is drawn anew.
  document.addEventListener("htmx:afterSettle", ({ detail }) => {
    const said = detail.xhr?.getResponseHeader("X-Rim-Said");
    if (said) $("#said").textContent = decodeURIComponent(said);
  });

  const ready = () => {
    fitStage();
    placeScroll();
    if ($("#frames")) showMoment(0);
    if ($("#letters")) $("#letters").checked = letters();
    sortable();
    if (!stageIsDue) showSpecimens();
  };
  document.addEventListener("htmx:afterSwap", () => {
    ready();
    markRefused();
    settleFocus();
    toStage("chosen");
    if (stageIsDue) setTimeout(showSpecimens, 800);
    $("#offline").hidden = true;
  });
  for (const failure of ["htmx:sendError", "htmx:responseError", "htmx:timeout"])
    document.addEventListener(failure, () => ($("#offline").hidden = false));
  ready();
})();
