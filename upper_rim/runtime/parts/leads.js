// A field that leads to what is chosen in it: at once by pointer, by keys with Enter, since arrows choose on their way.
each("[data-rim-leads]", (field) => {
  const own = field.value, lead = () => field.value && field.value !== own && location.assign(field.value);
  let byKeys = false;
  field.addEventListener("pointerdown", () => { byKeys = false; });
  field.addEventListener("keydown", ({ key }) => { byKeys = true; if (key === "Enter") lead(); });
  field.addEventListener("change", () => byKeys || lead());
  addEventListener("pageshow", () => { field.value = own; });
});
