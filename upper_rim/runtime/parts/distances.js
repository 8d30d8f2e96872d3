// Distances that are no lengths: an element's place, a share of the page's way, a share of the window's height.
let way = 0, small = innerHeight;
const far = (told, from, again) => {
  const number = parseFloat(told);
  if (told[0] === "=") {
    let seen = false, part = null;
    try {
      part = document.querySelector(told.slice(1));
    } catch {}
    if (part) observe(part, above, (now) => ((seen = now), again()));
    return () => seen;
  }
  if (told.endsWith("p")) return shaped(root, () => (way = root.scrollHeight - innerHeight)), (y) => y > (way * number) / 100;
  const probe = document.createElement("div");
  probe.style.cssText = "position:absolute;visibility:hidden;inline-size:0;block-size:100svh;inset-block-start:0;pointer-events:none";
  document.body.append(probe);
  return shaped(probe, () => (small = probe.offsetHeight)), (y) => y > from.y + (small * number) / 100;
};
