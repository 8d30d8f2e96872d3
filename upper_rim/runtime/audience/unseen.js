// Shown in an earlier visit, it rests.
is.unseen = (days, node) => {
  const [visit, at] = (kept.s || {})[node] || [kept.n];
  return visit === kept.n || now - at >= days * DAY_MS;
};
