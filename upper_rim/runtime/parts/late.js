// What is fetched when one first comes to it.
for (const coming of ["focusin", "pointerover"])
  heard(coming, (event) => {
    const part = event.target.closest?.("[data-rim-late]:not(dialog)");
    if (part) import(part.dataset.rimLate).then(({ come }) => come?.(event));
  });
