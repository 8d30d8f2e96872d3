// Who looks? In the head, before anything is drawn: by a table made in Python it is decided what is for this visitor, and the
// root is marked with what is not. The style sheet shows the rest. What the table does not need is not here.
const root = document.documentElement, now = Date.now(), DAY_MS = 864e5, is = {};
const of = (node) => `.${table.k}-${node}`;
// What the browser remembers, where it lets us: the visits (n), when the last page was opened (t), what was seen (s) and
// closed (c), by node, and where they came from (f). A visit ends after half an hour in which no page was opened.
const local = (act) => { try { return act(localStorage, table.k + "-who"); } catch {} };
const kept = local((all, key) => JSON.parse(all[key])) || {};
if (!(now - kept.t < 18e5)) kept.n = (kept.n || 0) + 1;
kept.t = now;
const keep = (part, node, value) => local((all, key) => {
  if (part) kept[part] = { ...kept[part], [node]: value };
  all[key] = JSON.stringify(kept);
});
