// The published pieces' behaviour. It decides nothing: what opens what, and below which width, is written in attributes.
(() => {
  const each = (selector, act) => document.querySelectorAll(selector).forEach(act);

  // A submenu's button (ARIA Authoring Practices: disclosure navigation). In a row it opens a panel, one of which is
  // open at a time and goes with a press elsewhere; where entries stand below each other it opens in place, or level by
  // level, each level with a way back.
  const root = document.documentElement;
  const isOpen = (button) => button.getAttribute("aria-expanded") === "true";
  const listed = (part) => part.closest("[data-rim-column],:popover-open");
  const openBranches = (within) => [...within.querySelectorAll("[data-rim-branch]")].filter(isOpen);
  const setBranch = (button, open) => {
    button.setAttribute("aria-expanded", String(open));
    const list = listed(button), back = document.getElementById(button.getAttribute("aria-controls"))?.querySelector("[data-rim-back]");
    if (!list || !back?.getClientRects().length) return;
    for (let part = button.parentElement; part && part !== list.parentElement; part = part.parentElement) part.scrollTop = 0;
    back.focus();
  };
  const shutRows = (except) =>
    openBranches(document).forEach((button) => {
      if (!listed(button) && button !== except && !button.parentElement.contains(except)) setBranch(button, false);
    });
  each("[data-rim-branch]", (button) => {
    const branch = button.parentElement;
    button.addEventListener("click", () => {
      const open = !isOpen(button);
      if (!listed(button)) shutRows(button);
      else if (open && button.closest("[data-rim-single]")) [...branch.parentElement.children].forEach((other) => other !== branch && openBranches(other).forEach((one) => setBranch(one, false)));
      setBranch(button, open);
    });
    branch.addEventListener("keydown", (event) => {
      if (event.key !== "Escape" || !isOpen(button) || listed(button)) return;
      setBranch(button, false);
      button.focus();
    });
    branch.addEventListener("focusout", (event) => {
      if (event.relatedTarget && !branch.contains(event.relatedTarget) && !listed(button)) setBranch(button, false);
    });
  });
  each("[data-rim-back]", (back) => {
    back.addEventListener("click", () => {
      const button = back.closest("ul").parentElement.querySelector("[data-rim-branch]");
      setBranch(button, false);
      button.focus();
    });
  });
  document.addEventListener("click", (event) => shutRows(event.target));
  const first = (within) => within.querySelectorAll("[data-rim-branch]").forEach((button) => button.setAttribute("aria-expanded", String("rimFirst" in button.dataset)));
  each("[data-rim-column]", first);

  // Panels of a row open while one points at them, too: after a moment, and with time to come back. A pointer on its way
  // to the panel keeps it open.
  each("[data-rim-hover]", (menu) => {
    menu.querySelectorAll(":scope>ul>li,:scope>div>ul>li").forEach((branch) => {
      const button = branch.querySelector(":scope>[data-rim-branch]");
      if (!button) return;
      const panel = document.getElementById(button.getAttribute("aria-controls"));
      let timer = 0, away = null;
      const distance = ({ clientX, clientY }) => {
        const box = panel.getBoundingClientRect();
        return Math.hypot(Math.max(box.left - clientX, 0, clientX - box.right), Math.max(box.top - clientY, 0, clientY - box.bottom));
      };
      const follow = (event) => {
        if (away === null) return;
        const now = distance(event);
        if (now < away) wait(300, false);
        away = now;
      };
      const wait = (ms, open) => {
        clearTimeout(timer);
        timer = setTimeout(() => {
          document.removeEventListener("pointermove", follow);
          if (!listed(button) && open !== isOpen(button)) (open && shutRows(button)), setBranch(button, open);
        }, ms);
      };
      branch.addEventListener("pointerenter", ({ pointerType }) => {
        away = null;
        if (pointerType === "mouse") wait(120, true);
      });
      branch.addEventListener("pointerleave", (event) => {
        if (event.pointerType !== "mouse") return;
        away = isOpen(button) ? distance(event) : null;
        wait(300, false);
        document.addEventListener("pointermove", follow);
      });
    });
  });

  // A drawer is a popover: it opens, closes and answers to Escape without this script.
  // Added here: the state on the button, focus moved in, kept in and given back, the rest of the page inert and still,
  // and the browser's way back, which closes it; while it is open, it is a modal dialog.
  each("[data-rim-drawer]", (button) => {
    const drawer = document.getElementById(button.getAttribute("aria-controls"));
    if (!drawer || !drawer.showPopover) return;
    let silenced = [], leaves = false;
    const shown = () => drawer.matches(":popover-open");
    const inside = () => [...drawer.querySelectorAll("a[href],button,input,select,textarea,summary,[tabindex='0']")].filter((part) => part.checkVisibility({ visibilityProperty: true }));
    const release = () => {
      silenced.forEach((part) => (part.inert = false));
      silenced = [];
    };
    button.setAttribute("aria-expanded", "false");
    drawer.addEventListener("beforetoggle", (event) => {
      if (event.newState === "closed") return release();
      root.toggleAttribute("data-rim-bar", innerWidth > root.clientWidth);
    });
    drawer.addEventListener("toggle", (event) => {
      const open = event.newState === "open";
      button.setAttribute("aria-expanded", String(open));
      for (const [name, value] of [["role", "dialog"], ["aria-modal", "true"], ["aria-label", button.getAttribute("aria-label") || button.textContent]]) {
        if (open) drawer.setAttribute(name, value);
        else drawer.removeAttribute(name);
      }
      if (!open) {
        openBranches(drawer).forEach((one) => one.setAttribute("aria-expanded", "false"));
        if (!document.activeElement || document.activeElement === document.body) button.focus();
        if (history.state?.rimDrawer === drawer.id && !leaves) history.back();
        return;
      }
      leaves = false;
      history.pushState({ rimDrawer: drawer.id }, "");
      first(drawer);
      for (let part = drawer; part !== document.body && part.parentElement; part = part.parentElement) {
        for (const other of part.parentElement.children) {
          if (other !== part && !other.inert) {
            other.inert = true;
            silenced.push(other);
          }
        }
      }
      drawer.scrollTop = 0;
      inside()[0]?.focus({ preventScroll: true });
    });
    addEventListener("popstate", () => shown() && ((leaves = true), drawer.hidePopover()));
    drawer.addEventListener("keydown", (event) => {
      if (event.key !== "Tab" || !shown()) return;
      const stops = inside();
      const leaving = event.shiftKey ? stops[0] : stops[stops.length - 1];
      if (document.activeElement === leaving) {
        event.preventDefault();
        (event.shiftKey ? stops[stops.length - 1] : stops[0]).focus();
      }
    });
    // A link that is followed takes the place of the entry that was put into the history for the drawer.
    drawer.addEventListener("click", (event) => {
      const link = event.target.closest("a[href]");
      if (!link || !shown() || event.defaultPrevented) return;
      const plain = !(event.button || event.ctrlKey || event.metaKey || event.shiftKey || event.altKey) && !link.target && /^https?:$/.test(link.protocol);
      leaves = plain && history.state?.rimDrawer === drawer.id;
      if (leaves) event.preventDefault();
      if (plain || !link.target) drawer.hidePopover();
      if (leaves) location.replace(link.href);
    });
    matchMedia(button.dataset.rimDrawer).addEventListener("change", (event) => {
      if (!event.matches && shown()) drawer.hidePopover();
    });
  });

  // Movement: which of the written distances are passed, whether one scrolls down, whether the footer is in view. One
  // number is read in a frame that scrolls; heights of the page and the window are told by observers.
  const observe = (part, margin, act) => new IntersectionObserver((seen) => act(seen[seen.length - 1].isIntersecting), { rootMargin: margin }).observe(part);
  const above = "9999999px 0px -100% 0px";
  let way = 0, small = innerHeight, whenShaped = [];
  const shaped = (part, act) => whenShaped.push([part, act]);
  // Where a piece begins to be pinned, from which its distances count: a mark before it says so, where one has to be asked.
  const pinnedAt = (part) => {
    const from = { y: 0 }, held = part.closest("[data-rim-pin]") ?? part, mark = held.previousElementSibling;
    if (mark?.matches("[data-rim-mark]")) shaped(document.body, () => (from.y = Math.max(0, mark.getBoundingClientRect().top + scrollY - (parseFloat(getComputedStyle(held).top) || 0))));
    return from;
  };
  const passed = (told, from, again) => {
    const number = parseFloat(told);
    if (told[0] === "=") {
      let seen = false, part = null;
      try {
        part = document.querySelector(told.slice(1));
      } catch {}
      if (part) observe(part, above, (now) => ((seen = now), again()));
      return () => seen;
    }
    if (told.endsWith("p")) return shaped(root, () => (way = root.scrollHeight - innerHeight)), (y) => y > (way * number) / 100;
    if (told.endsWith("v")) {
      const probe = document.createElement("div");
      probe.style.cssText = "position:absolute;visibility:hidden;inline-size:0;block-size:100svh;inset-block-start:0;pointer-events:none";
      document.body.append(probe);
      return shaped(probe, () => (small = probe.offsetHeight)), (y) => y > from.y + (small * number) / 100;
    }
    return (y) => y > from.y + number;
  };
  const acts = [];
  const move = () => {
    const y = scrollY;
    for (const act of acts) act(y);
  };
  each("[data-rim-stages]", (part) => {
    const from = pinnedAt(part), distances = part.dataset.rimStages.split("\n").map((told) => passed(told, from, move));
    let last = "";
    acts.push((y) => {
      const now = distances.map((isPassed, at) => (isPassed(y) ? at + 1 : "")).join(" ").trim();
      if (now !== last) part.setAttribute("data-rim-passed", (last = now));
    });
  });
  each("[data-rim-until]", (part) => {
    const isPassed = passed(part.dataset.rimUntil, pinnedAt(part), move);
    acts.push((y) => part.toggleAttribute("data-rim-early", !isPassed(y)));
  });
  each("[data-rim-up]", (part) => {
    const by = Number(part.dataset.rimUp), edge = part.nextElementSibling?.matches("[data-rim-edge]") ? part.nextElementSibling : part.parentElement.nextElementSibling;
    let down = false, turn = scrollY, past = null;
    if (edge?.matches("[data-rim-edge]")) (past = false), observe(edge, above, (now) => ((past = now), move()));
    acts.push((y) => {
      if (down ? y > turn : y < turn) turn = y;
      else if (Math.abs(y - turn) >= by) (down = !down), (turn = y);
      part.toggleAttribute("data-rim-down", down && (past ?? y > 0));
    });
  });
  const footer = document.querySelector("[data-rim-footer]");
  const yields = document.querySelectorAll("[data-rim-yields]");
  if (footer && yields.length) observe(footer, "0px", (seen) => yields.forEach((part) => part.toggleAttribute("data-rim-away", seen)));
  if (acts.length) {
    move();
    addEventListener("scroll", move, { passive: true });
    addEventListener("resize", () => (whenShaped.forEach(([, act]) => act()), move()));
    for (const [part, act] of whenShaped) new ResizeObserver(() => (act(), move())).observe(part);
  }
  // A hint goes with Escape, and may come again when one points elsewhere first (WCAG 2.2 1.4.13).
  each("[data-rim-hint]", (part) => {
    document.addEventListener("keydown", ({ key }) => key === "Escape" && part.matches(":hover,:focus-within") && part.toggleAttribute("data-rim-quiet", true));
    for (const leaving of ["pointerleave", "focusout"]) part.addEventListener(leaving, () => part.removeAttribute("data-rim-quiet"));
  });
  // What the style sheet leaves to this script from now on.
  root.toggleAttribute("data-rim-on", true);
  each("[data-rim-year]", (years) => {
    const now = new Date().getFullYear(), first = Number(years.dataset.rimYear);
    years.textContent = first && first < now ? `${first}–${now}` : now;
  });
})();
