// What a button offers shuts with Escape, and when one goes elsewhere.
each("[data-rim-offers]", (offers) => {
  offers.addEventListener("keydown", ({ key }) => {
    if (key !== "Escape" || !offers.open) return;
    offers.open = false;
    offers.firstElementChild.focus();
  });
  offers.addEventListener("focusout", ({ relatedTarget }) => relatedTarget && !offers.contains(relatedTarget) && (offers.open = false));
  heard("pointerdown", ({ target }) => offers.contains(target) || (offers.open = false));
});
