// A submenu's button (ARIA Authoring Practices: disclosure navigation). In a row it opens a panel, one of which is
// open at a time and goes with a press elsewhere; where entries stand below each other it opens in place, or level by
// level, each level with a way back.
const isOpen = (button) => button.getAttribute("aria-expanded") === "true";
const listed = (part) => part.closest("[data-rim-column],:popover-open");
const openBranches = (within) => [...within.querySelectorAll("[data-rim-branch]")].filter(isOpen);
const setBranch = (button, open) => button.setAttribute("aria-expanded", open);
const first = (within) => within.querySelectorAll("[data-rim-branch]").forEach((button) => setBranch(button, "rimFirst" in button.dataset));
{
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
  heard("click", (event) => shutRows(event.target));
}
each("[data-rim-column]", first);
