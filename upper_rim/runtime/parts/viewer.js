// Pictures of the page's own content can be pressed; what opens them large is fetched when one is.
(() => {
  const box = document.querySelector("[data-rim-viewer]");
  if (!box) return;
  const said = box.dataset;
  // What is said from the body on is meant of the page's own content, beside a sidebar too.
  const content = `${said.rimPieces}-beside-content`;
  const chosen = document.querySelector(content) ? said.rimViewer.replace(/\bbody\s*>/g, `${content} >`) : said.rimViewer;
  let pictures = [];
  try { pictures = [...document.querySelectorAll(chosen)].filter((one) => one instanceof HTMLImageElement && !one.closest(`a,button,[role=button],${said.rimPieces}`)); } catch {}
  const words = pictures.map((one) => one.closest("figure")?.querySelector("figcaption")?.textContent.trim() || one.alt);
  pictures.forEach((one, at) => {
    // A picture that can be pressed says something (axe: presentation-role-conflict).
    one.alt ||= `${said.rimPicture} ${at + 1}`;
    one.tabIndex = 0;
    one.role = "button";
    one.ariaLabel = `${said.rimEnlarge}: ${one.alt}`;
    one.style.cursor = "zoom-in";
    one.onclick = async () => (await import(said.rimLate)).open(box, pictures, words, at);
    one.onkeydown = (event) => ["Enter", " "].includes(event.key) && (event.preventDefault(), one.onclick());
  });
})();
