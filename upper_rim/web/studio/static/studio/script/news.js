// What the server says between requests: work that is done, editions that are published, edits of somebody else.
import { isTyping } from "./dom.js";
import { showAnew } from "./requests.js";
import { isHeld } from "./slider.js";
import { changedElsewhere, isNews } from "./stage.js";

document.addEventListener("rim:work-done", () => showAnew());
document.addEventListener("rim:elsewhere", ({ detail: { revision } }) => {
  // What was asked before an edit of one's own, and answered after it, tells nothing new.
  if (!isNews(revision) || isTyping(document.activeElement) || isHeld()) return;
  showAnew().then(changedElsewhere(revision));
});
let isGoingOn = false;
document.addEventListener("rim:editions", ({ detail: { going_on } }) => {
  if (isGoingOn && !going_on) showAnew(location.pathname);
  isGoingOn = going_on;
});
