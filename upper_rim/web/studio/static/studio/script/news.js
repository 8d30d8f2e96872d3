// What the server says between requests: work that is done, editions that are published, edits of somebody else.
import { $, isTyping } from "./dom.js";
import { showAnew, whenQuiet } from "./requests.js";
import { isHeld } from "./slider.js";
import { changedElsewhere, isNews } from "./stage.js";

document.addEventListener("rim:found", ({ detail: { breaks } }) => {
  const count = $("[data-breaks]");
  if (!count) return;
  count.textContent = breaks;
  count.hidden = !breaks;
});
document.addEventListener("rim:work-done", () => whenQuiet(showAnew));
document.addEventListener("rim:elsewhere", ({ detail: { revision } }) =>
  whenQuiet(() => {
    // An edit of one's own is told, too, where it was made while this was asked; by now its answer is there.
    if (!isNews(revision) || isTyping(document.activeElement) || isHeld()) return;
    showAnew().then(changedElsewhere(revision));
  }),
);
let isGoingOn = false;
document.addEventListener("rim:editions", ({ detail: { going_on } }) => {
  if (isGoingOn && !going_on) whenQuiet(() => showAnew(location.pathname));
  isGoingOn = going_on;
});
