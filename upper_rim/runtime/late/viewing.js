// One of the page's pictures large, in a modal dialog, which keeps the focus and answers to Escape by itself.
let shown = 0, pictures, words;
const show = (box, to) => {
  const [large, caption] = box.querySelector("figure").children;
  shown = (to + pictures.length) % pictures.length;
  const one = pictures[shown];
  large.src = one.currentSrc || one.src;
  large.alt = one.alt;
  caption.textContent = words[shown];
  caption.hidden = !words[shown] || !("rimCaptions" in box.dataset);
};

export const open = (box, allPictures, allWords, at) => {
  [pictures, words] = [allPictures, allWords];
  const [shut, before, , after] = box.children;
  before.hidden = after.hidden = pictures.length < 2;
  before.onclick = () => show(box, shown - 1);
  after.onclick = () => show(box, shown + 1);
  shut.onclick = () => box.close();
  box.onclick = (event) => event.target === box && box.close();
  box.onkeydown = ({ key }) => {
    const on = (getComputedStyle(box).direction === "rtl") === (key === "ArrowLeft") ? 1 : -1;
    if (/^Arrow(Left|Right)$/.test(key)) show(box, shown + on);
  };
  let from = null;
  box.ondragstart = () => false;
  box.onpointerdown = ({ clientX }) => (from = clientX);
  box.onpointerup = ({ clientX }) => {
    if (from !== null && Math.abs(clientX - from) > 40) show(box, shown + (clientX < from ? 1 : -1));
    from = null;
  };
  box.onclose = () => pictures[shown].focus();
  show(box, at);
  box.showModal();
};
