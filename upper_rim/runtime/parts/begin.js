// The published pieces' behaviour, of which a page loads the parts that it needs, one behind the other in one function.
// It decides nothing: what opens what, and below which width, is written in attributes.
const each = (selector, act) => document.querySelectorAll(selector).forEach(act);
const heard = (event, act, early) => document.addEventListener(event, act, early);
const root = document.documentElement;
