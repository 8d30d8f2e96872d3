// Pictures of the page's own content open large: in a modal dialog, which keeps the focus and answers to Escape by itself.
(() => {
  const box = document.querySelector("[data-rim-viewer]");
  if (!box) return;
  const [shut, before, figure, after] = box.children, [large, caption] = figure.children;
  let pictures = [];
  // What is said from the body on is meant of the page's own content, beside a sidebar too.
  const content = `${box.dataset.rimPieces}-beside-content`;
  const chosen = document.querySelector(content) ? box.dataset.rimViewer.replace(/\bbody\s*>/g, `${content} >`) : box.dataset.rimViewer;
  try { pictures = [...document.querySelectorAll(chosen)].filter((one) => one instanceof HTMLImageElement && !one.closest("a,button,[role=button]")); } catch {}
  pictures = pictures.filter((one) => !one.closest(box.dataset.rimPieces));
  const said = new Map(pictures.map((one) => [one, one.alt]));
  let shown = 0;
  const show = (to) => {
    shown = (to + pictures.length) % pictures.length;
    const one = pictures[shown], words = one.closest("figure")?.querySelector("figcaption")?.textContent.trim() || said.get(one);
    large.src = one.currentSrc || one.src;
    large.alt = one.alt;
    caption.textContent = words;
    caption.hidden = !words || !("rimCaptions" in box.dataset);
  };
  pictures.forEach((one, at) => {
    // A picture that can be pressed says something (axe: presentation-role-conflict).
    one.alt ||= `${box.dataset.rimPicture} ${at + 1}`;
    one.tabIndex = 0;
    one.setAttribute("role", "button");
    one.setAttribute("aria-label", `${box.dataset.rimEnlarge}: ${one.alt}`);
    one.style.cursor = "zoom-in";
    const open = () => (show(at), box.showModal());
    one.addEventListener("click", open);
    one.addEventListener("keydown", (event) => ["Enter", " "].includes(event.key) && (event.preventDefault(), open()));
  });
  before.hidden = after.hidden = pictures.length < 2;
  before.onclick = () => show(shown - 1);
  after.onclick = () => show(shown + 1);
  shut.onclick = () => box.close();
  box.onclick = (event) => event.target === box && box.close();
  box.onkeydown = ({ key }) => {
    const on = (getComputedStyle(box).direction === "rtl") === (key === "ArrowLeft") ? 1 : -1;
    if (/^Arrow(Left|Right)$/.test(key)) show(shown + on);
  };
  let from = null;
  box.ondragstart = () => false;
  box.onpointerdown = ({ clientX }) => (from = clientX);
  box.onpointerup = ({ clientX }) => {
    if (from !== null && Math.abs(clientX - from) > 40) show(shown + (clientX < from ? 1 : -1));
    from = null;
  };
  box.onclose = () => pictures[shown].focus();
})();
