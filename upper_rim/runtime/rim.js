// The published pieces' behaviour. It decides nothing: what opens what, and below which width, is written in attributes.
(() => {
  const each = (selector, act) => document.querySelectorAll(selector).forEach(act);

  // A drawer is a popover: it opens, closes and answers to Escape without this script.
  // Added here: the state on the button, focus moved in, kept in and given back, and the rest of the page inert;
  // while that is so, it is a modal dialog.
  each("[data-rim-drawer]", (button) => {
    const drawer = document.getElementById(button.getAttribute("aria-controls"));
    if (!drawer || !drawer.showPopover) return;
    let silenced = [];
    const inside = () => [...drawer.querySelectorAll("a[href],button")].filter((part) => part.getClientRects().length);
    const release = () => {
      silenced.forEach((part) => (part.inert = false));
      silenced = [];
    };
    button.setAttribute("aria-expanded", "false");
    drawer.addEventListener("beforetoggle", (event) => {
      if (event.newState === "closed") release();
    });
    drawer.addEventListener("toggle", (event) => {
      const open = event.newState === "open";
      button.setAttribute("aria-expanded", String(open));
      for (const [name, value] of [["role", "dialog"], ["aria-modal", "true"], ["aria-label", button.getAttribute("aria-label") || button.textContent]]) {
        if (open) drawer.setAttribute(name, value);
        else drawer.removeAttribute(name);
      }
      if (!open) {
        if (!document.activeElement || document.activeElement === document.body) button.focus();
        return;
      }
      for (let part = drawer; part !== document.body && part.parentElement; part = part.parentElement) {
        for (const other of part.parentElement.children) {
          if (other !== part && !other.inert) {
            other.inert = true;
            silenced.push(other);
          }
        }
      }
      const first = inside()[0];
      if (first) first.focus();
    });
    drawer.addEventListener("keydown", (event) => {
      if (event.key !== "Tab" || !drawer.matches(":popover-open")) return;
      const stops = inside();
      const leaving = event.shiftKey ? stops[0] : stops[stops.length - 1];
      if (document.activeElement === leaving) {
        event.preventDefault();
        (event.shiftKey ? stops[stops.length - 1] : stops[0]).focus();
      }
    });
    drawer.addEventListener("click", (event) => {
      if (event.target.closest("a[href]") && drawer.matches(":popover-open")) drawer.hidePopover();
    });
    matchMedia(button.dataset.rimDrawer).addEventListener("change", (event) => {
      if (!event.matches && drawer.matches(":popover-open")) drawer.hidePopover();
    });
  });

  // A branch of a menu in a row (ARIA Authoring Practices: disclosure navigation).
  const openBranches = () => document.querySelectorAll('[data-rim-branch][aria-expanded="true"]');
  const closeBranches = (except) =>
    openBranches().forEach((button) => {
      if (button !== except && !button.parentElement.contains(except)) button.setAttribute("aria-expanded", "false");
    });
  each("[data-rim-branch]", (button) => {
    const branch = button.parentElement;
    button.addEventListener("click", () => {
      closeBranches(button);
      button.setAttribute("aria-expanded", String(button.getAttribute("aria-expanded") !== "true"));
    });
    branch.addEventListener("keydown", (event) => {
      if (event.key !== "Escape" || button.getAttribute("aria-expanded") !== "true") return;
      button.setAttribute("aria-expanded", "false");
      button.focus();
    });
    branch.addEventListener("focusout", (event) => {
      if (event.relatedTarget && !branch.contains(event.relatedTarget)) button.setAttribute("aria-expanded", "false");
    });
  });
  document.addEventListener("click", (event) => closeBranches(event.target));

  // What goes while the footer is in view, and what comes after a distance: both observed, nothing is read while scrolling.
  const footer = document.querySelector("[data-rim-footer]");
  const yields = document.querySelectorAll("[data-rim-yields]");
  if (footer && yields.length) new IntersectionObserver(([seen]) => yields.forEach((float) => float.toggleAttribute("data-rim-away", seen.isIntersecting))).observe(footer);
  each("[data-rim-after]", (part) => {
    const above = document.createElement("div");
    above.style.cssText = `position:absolute;inset-block-start:0;inline-size:1px;block-size:${part.dataset.rimAfter}px;pointer-events:none`;
    document.body.append(above);
    new IntersectionObserver(([seen]) => part.toggleAttribute("data-rim-away", seen.isIntersecting)).observe(above);
  });
  // A hint goes with Escape, and may come again when one points elsewhere first (WCAG 2.2 1.4.13).
  each("[data-rim-hint]", (part) => {
    document.addEventListener("keydown", ({ key }) => key === "Escape" && part.matches(":hover,:focus-within") && part.toggleAttribute("data-rim-quiet", true));
    for (const leaving of ["pointerleave", "focusout"]) part.addEventListener(leaving, () => part.removeAttribute("data-rim-quiet"));
  });
  each("[data-rim-year]", (years) => {
    const now = new Date().getFullYear(), first = Number(years.dataset.rimYear);
    years.textContent = first && first < now ? `${first}–${now}` : now;
  });
})();
