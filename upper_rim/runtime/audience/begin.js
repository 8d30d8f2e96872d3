// Who looks? In the head, before anything is drawn: by a table made in Python it is decided what is for this visitor, and the
// root is marked with what is not. The style sheet shows the rest. What the table does not need is not here.
const root = document.documentElement, now = Date.now(), DAY_MS = 864e5, VISIT_MS = 18e5, is = {};
// What the browser remembers: the visits (n), when the last page was opened (t), what was seen (s) and closed (c), by node,
// and where they came from (f).
let kept = {};
try { kept = JSON.parse(localStorage.getItem(table.k)) || kept; } catch {}
if (!(now - kept.t < VISIT_MS)) kept.n = (kept.n || 0) + 1;
kept.t = now;
const keep = () => { try { localStorage.setItem(table.k, JSON.stringify(kept)); } catch {} };
