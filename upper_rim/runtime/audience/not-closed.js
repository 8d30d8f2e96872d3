// Closed, it stays closed for a time, unless it says something else by now; with a notice all that is in it is closed.
addEventListener("click", ({ target }) => {
  const bar = target.closest("[data-rim-shut]")?.parentNode;
  for (const node in bar && table.a) if (bar.closest(of(node)) || bar.querySelector(of(node))) keep("c", node, [now, table.t?.[node]]);
});
is["not-closed"] = (days, changed, node) => {
  const [at, text] = kept.c?.[node] || [0];
  return now - at >= days * DAY_MS || (changed && text !== table.t?.[node]);
};
