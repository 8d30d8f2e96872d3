// Closed, it stays closed for a time, unless it says something else by now.
is["not-closed"] = (days, changed, node) => {
  const [at, text] = (kept.c || {})[node] || [0];
  return now - at >= days * DAY_MS || (changed && text !== (table.t || 0)[node]);
};
