// Shown in an earlier visit, it rests.
addEventListener("DOMContentLoaded", () => {
  for (const node in table.a) if (document.querySelector(of(node))?.getClientRects()[0]) keep("s", node, [kept.n, now]);
});
is.unseen = (days, node) => {
  const [visit, at] = kept.s?.[node] || [kept.n];
  return visit === kept.n || now - at >= days * DAY_MS;
};
