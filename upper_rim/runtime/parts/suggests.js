// Somebody whose languages are others is told once a visit that the page is there in theirs, and never again once they shut
// that. What they chose in a switch counts before what their browser asks for; nobody is led anywhere unasked.
each("[data-rim-suggests]", (box) => {
  const key = box.dataset.rimSuggests, own = box.dataset.rimIn, NEVER = "!";
  const links = [...box.querySelectorAll("a[hreflang]")], told = box.querySelector("[role=status]");
  const keep = (tag) => { try { localStorage[key] = tag; } catch {} };
  const first = (tag) => tag.split("-")[0].toLowerCase();
  links.forEach((link) => link.addEventListener("click", () => keep(link.hreflang)));
  try {
    const chosen = localStorage[key], wanted = chosen ? [chosen] : navigator.languages;
    if (chosen === NEVER || sessionStorage[key] || wanted.some((tag) => first(tag) === first(own))) return;
    const link = wanted.map((tag) => links.find((one) => one.hreflang === tag) ?? links.find((one) => first(one.hreflang) === first(tag))).find(Boolean);
    if (!link) return;
    sessionStorage[key] = 1;
    const [leads, shut] = told.children;
    Object.assign(leads, { href: link.href, hreflang: link.hreflang, lang: link.hreflang, textContent: link.dataset.rimSaid });
    leads.addEventListener("click", () => keep(link.hreflang));
    shut.addEventListener("click", () => { keep(NEVER); told.hidden = true; });
    told.hidden = false;
  } catch {}
});
