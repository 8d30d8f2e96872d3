// A drawer opens with its branches as they are at first, and over a page that keeps the room of its scroll bar. Its own
// script is fetched by the time it opens.
const drawers = (event, act) =>
  heard(
    event,
    ({ target, newState }) => {
      const button = document.querySelector(`[data-rim-drawer][popovertarget="${target.id}"]`);
      if (button) act(newState === "open", target, button);
    },
    true,
  );
drawers("beforetoggle", (opens) => opens && root.toggleAttribute("data-rim-bar", innerWidth > root.clientWidth));
drawers("toggle", (open, drawer, button) => {
  open ? first(drawer) : openBranches(drawer).forEach((one) => setBranch(one, false));
  import(button.dataset.rimLate);
});
