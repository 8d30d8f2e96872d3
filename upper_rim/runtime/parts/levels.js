// Levels of a menu: the one that opens is shown from its top, and has a way back.
each("[data-rim-branch]", (button) =>
  button.addEventListener("click", () => {
    const list = listed(button), back = document.getElementById(button.getAttribute("aria-controls"))?.querySelector("[data-rim-back]");
    if (!list || !back?.getClientRects().length) return;
    for (let part = button.parentElement; part && part !== list.parentElement; part = part.parentElement) part.scrollTop = 0;
    back.focus();
  }),
);
each("[data-rim-back]", (back) => {
  back.addEventListener("click", () => {
    const button = back.closest("ul").parentElement.querySelector("[data-rim-branch]");
    setBranch(button, false);
    button.focus();
  });
});
