// Panels of a row open while one points at them, too: after a moment, and with time to come back. A pointer on its way
// to the panel keeps it open. Fetched when a mouse first comes to the menu.
const pointed = new WeakMap();
let came = false;
const isOpen = (button) => button.getAttribute("aria-expanded") === "true";
document.querySelectorAll("[data-rim-hover]").forEach((menu) => {
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
        if (!button.closest("[data-rim-column],:popover-open") && open !== isOpen(button)) button.click();
      }, ms);
    };
    const entered = ({ pointerType }) => {
      away = null;
      if (pointerType === "mouse") wait(120, true);
    };
    branch.addEventListener("pointerenter", entered);
    // What was pressed, or shut with Escape, stays so under a pointer that rests there (WCAG 2.2, 1.4.13).
    branch.addEventListener("click", () => clearTimeout(timer));
    branch.addEventListener("keydown", ({ key }) => key === "Escape" && clearTimeout(timer));
    pointed.set(branch, entered);
    branch.addEventListener("pointerleave", (event) => {
      if (event.pointerType !== "mouse") return;
      away = isOpen(button) ? distance(event) : null;
      wait(300, false);
      document.addEventListener("pointermove", follow);
    });
  });
});
// What the pointer did that this was fetched for; unless something there has been pressed since.
export const come = (event) => {
  if (!came && event.type === "pointerover") for (let part = event.target; part; part = part.parentElement) if (part.matches(":hover") && !part.contains(document.activeElement)) pointed.get(part)?.(event);
  came = true;
};
