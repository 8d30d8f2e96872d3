// Movement: which of the written distances are passed, whether one scrolls down, whether the footer is in view. One
// number is read in a frame that scrolls; heights of the page and the window are told by observers.
const observe = (part, margin, act) => new IntersectionObserver((seen) => act(seen[seen.length - 1].isIntersecting), { rootMargin: margin }).observe(part);
const above = "9999999px 0px -100% 0px";
const whenShaped = [];
const shaped = (part, act) => whenShaped.push([part, act]);
{
  // Where a piece begins to be pinned, from which its distances count: a mark before it says so, where one has to be asked.
  const pinnedAt = (part) => {
    const from = { y: 0 }, held = part.closest("[data-rim-pin]") ?? part, mark = held.previousElementSibling;
    if (mark?.matches("[data-rim-mark]")) shaped(document.body, () => (from.y = Math.max(0, mark.getBoundingClientRect().top + scrollY - (parseFloat(getComputedStyle(held).top) || 0))));
    return from;
  };
  const passed = (told, from, again) => (isNaN(told) ? far(told, from, again) : (y) => y > from.y + +told);
  const acts = [];
  const move = () => {
    const y = scrollY;
    for (const act of acts) act(y);
  };
  each("[data-rim-stages]", (part) => {
    const from = pinnedAt(part), distances = part.dataset.rimStages.split("\n").map((told) => passed(told, from, move));
    let last = "";
    acts.push((y) => {
      const now = distances.map((isPassed, at) => (isPassed(y) ? at + 1 : "")).join(" ").trim();
      if (now !== last) part.setAttribute("data-rim-passed", (last = now));
    });
  });
  each("[data-rim-until]", (part) => {
    const isPassed = passed(part.dataset.rimUntil, pinnedAt(part), move);
    acts.push((y) => part.toggleAttribute("data-rim-early", !isPassed(y)));
  });
  each("[data-rim-up]", (part) => {
    const by = +part.dataset.rimUp, edge = part.nextElementSibling?.matches("[data-rim-edge]") ? part.nextElementSibling : part.parentElement.nextElementSibling;
    let down = false, turn = scrollY, past = null;
    if (edge?.matches("[data-rim-edge]")) (past = false), observe(edge, above, (now) => ((past = now), move()));
    acts.push((y) => {
      if (down ? y > turn : y < turn) turn = y;
      else if (Math.abs(y - turn) >= by) (down = !down), (turn = y);
      part.toggleAttribute("data-rim-down", down && (past ?? y > 0));
    });
  });
  const footer = document.querySelector("[data-rim-footer]");
  const yields = document.querySelectorAll("[data-rim-yields]");
  if (footer && yields.length) observe(footer, "0px", (seen) => yields.forEach((part) => part.toggleAttribute("data-rim-away", seen)));
  if (acts.length) {
    move();
    addEventListener("scroll", move, { passive: true });
    addEventListener("resize", () => (whenShaped.forEach(([, act]) => act()), move()));
    for (const [part, act] of whenShaped) new ResizeObserver(() => (act(), move())).observe(part);
  }
}
