// Right behind a notice bar, within the page: gone before it is drawn where it was closed, or where its time is not now.
(() => {
  const bar = document.currentScript.previousElementSibling, said = bar.dataset, now = Date.now();
  let closed = 0;
  try { closed = Number(localStorage.getItem(said.rimKey)); } catch {}
  const early = said.rimBegins && now < new Date(said.rimBegins), late = said.rimEnds && now >= new Date(said.rimEnds);
  bar.hidden = Boolean(early || late || (said.rimKey && now < closed));
  const shut = bar.querySelector("[data-rim-shut]");
  if (shut) shut.onclick = () => {
    bar.hidden = true;
    if (said.rimKey) try { localStorage.setItem(said.rimKey, Date.now() + said.rimDays * 864e5); } catch {}
  };
})();
