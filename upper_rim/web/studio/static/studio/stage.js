// On the stage only, never published: shows the newest state without reloading, and tells the studio what was pressed.
(() => {
  const studio = document.currentScript.dataset.studio;
  let chosen = null;
  const outline = document.createElement("style");
  document.head.append(outline);
  const mark = () => {
    outline.textContent = chosen ? `@layer rim-stage{[data-rim-node="${chosen}"]{outline:2px solid #a84b29!important;outline-offset:4px!important}}` : "";
  };
  // Our layer must come before the site's own for its importance to win: it stands first in the head.
  document.head.prepend(outline);

  const between = (root, name) => {
    const found = [];
    const walker = document.createTreeWalker(root, NodeFilter.SHOW_COMMENT);
    while (walker.nextNode()) if (walker.currentNode.data === `rim:${name}`) found.push(walker.currentNode);
    return found;
  };
  const pieces = (root) => [...root.querySelectorAll("[data-rim-node]")].filter((part) => !part.parentElement.closest("[data-rim-node]"));

  const refresh = async () => {
    const answer = await fetch(location.href, { cache: "no-store" });
    const next = new DOMParser().parseFromString(await answer.text(), "text/html");
    const sheet = document.querySelector('link[href^="/_rim/"]'), nextSheet = next.querySelector('link[href^="/_rim/"]');
    const now = pieces(document), then = pieces(next);
    if (!sheet || !nextSheet || now.length !== then.length || between(document, "header").length !== between(next, "header").length) return reload();
    if (withoutPieces(document) !== withoutPieces(next) || codeOf(original) !== codeOf(next.documentElement)) return reload();
    if (sheet.getAttribute("href") !== nextSheet.getAttribute("href")) await swapSheet(sheet, nextSheet.getAttribute("href"));
    // Most edits of looks change the sheet only; markup that is as it came last time is left alone.
    const markup = then.map((piece) => piece.outerHTML);
    now.forEach((piece, at) => markup[at] === shownMarkup[at] || Idiomorph.morph(piece, markup[at], { morphStyle: "outerHTML" }));
    shownMarkup = markup;
    parent.postMessage({ rim: "shown" }, studio);
  };
  const swapSheet = (sheet, href) =>
    new Promise((done) => {
      const fresh = sheet.cloneNode();
      fresh.href = href;
      fresh.onload = fresh.onerror = () => (sheet.remove(), done());
      sheet.after(fresh);
    });
  const original = document.documentElement.cloneNode(true);
  let shownMarkup = pieces(original).map((piece) => piece.outerHTML);
  const codeOf = (root) => (root.outerHTML.match(/<!--rim:snippet-->[\s\S]*?<!--\/rim-->/g) || []).join("");
  const withoutPieces = (root) => {
    const copy = root === document ? original.cloneNode(true) : root.documentElement.cloneNode(true);
    copy.querySelectorAll("[data-rim-node], [class$='-target'], script, style, link").forEach((part) => part.remove());
    return (copy.querySelector("body")?.textContent || "").replace(/\s+/g, " ").trim();
  };
  const reload = () => {
    sessionStorage.setItem("rim-scroll", JSON.stringify([scrollX, scrollY]));
    location.reload();
  };
  const kept = sessionStorage.getItem("rim-scroll");
  if (kept) {
    sessionStorage.removeItem("rim-scroll");
    addEventListener("load", () => scrollTo(...JSON.parse(kept)));
  }

  addEventListener("message", (event) => {
    if (event.origin !== studio || !event.data?.rim) return;
    chosen = /^[a-z0-9-]+$/.test(event.data.chosen || "") ? event.data.chosen : null;
    mark();
    if (event.data.rim === "changed") refresh().catch(reload);
  });
  document.addEventListener("click", (event) => {
    const link = event.target.closest("a[href]");
    const node = event.target.closest("[data-rim-node]");
    if (node && !event.ctrlKey && parent !== window) {
      if (link) event.preventDefault();
      const ids = [];
      for (let part = node; part; part = part.parentElement.closest("[data-rim-node]")) ids.push(part.dataset.rimNode);
      parent.postMessage({ rim: "pressed", nodes: ids }, studio);
    }
  }, true);
  if (parent !== window) parent.postMessage({ rim: "ready" }, studio);
})();
