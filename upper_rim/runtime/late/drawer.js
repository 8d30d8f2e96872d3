// A drawer is a popover: it opens, closes and answers to Escape without this script, which is fetched when its button is
// first pointed at or focused. Added here: the state on the button, focus moved in, kept in and given back, the rest of
// the page inert, and the browser's way back, which closes it; while it is open, it is a modal dialog.
const settle = (button) => {
  const drawer = document.getElementById(button.getAttribute("aria-controls"));
  if (!drawer?.showPopover) return;
  let silenced = [], leaves = false;
  const shown = () => drawer.matches(":popover-open");
  const inside = () => [...drawer.querySelectorAll("a[href],button,input,select,textarea,summary,[tabindex='0']")].filter((part) => part.checkVisibility({ visibilityProperty: true }));
  const told = () => {
    const open = shown();
    button.setAttribute("aria-expanded", String(open));
    for (const [name, value] of [["role", "dialog"], ["aria-modal", "true"], ["aria-label", button.getAttribute("aria-label") || button.textContent]]) {
      if (open) drawer.setAttribute(name, value);
      else drawer.removeAttribute(name);
    }
    if (!open) {
      if (!document.activeElement || document.activeElement === document.body) button.focus();
      if (history.state?.rimDrawer === drawer.id && !leaves) history.back();
      return;
    }
    leaves = false;
    history.pushState({ rimDrawer: drawer.id }, "");
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
  };
  drawer.addEventListener("beforetoggle", ({ newState }) => {
    if (newState === "open") return;
    silenced.forEach((part) => (part.inert = false));
    silenced = [];
  });
  drawer.addEventListener("toggle", told);
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
  if (shown()) told();
  else button.setAttribute("aria-expanded", "false");
};
document.querySelectorAll("[data-rim-drawer]").forEach(settle);
