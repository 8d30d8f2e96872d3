// A hint goes with Escape, and may come again when one points elsewhere first (WCAG 2.2 1.4.13).
each("[data-rim-hint]", (part) => {
  heard("keydown", ({ key }) => key === "Escape" && part.matches(":hover,:focus-within") && part.toggleAttribute("data-rim-quiet", true));
  for (const leaving of ["pointerleave", "focusout"]) part.addEventListener(leaving, () => part.removeAttribute("data-rim-quiet"));
});
