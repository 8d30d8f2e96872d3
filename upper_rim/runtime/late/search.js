// A search field: this and the index are fetched when the field is first used; what is found stands below it while one
// types. Without it the form leads to the page of results.
{
  const plain = (text) => text.toLowerCase().replace(/ß/g, "ss").normalize("NFKD").replace(/\p{Mn}/gu, "");
  const wordsOf = (text) => plain(text).match(/[\p{L}\p{N}]+/gu) || [];
  const kept = {};
  const read = async (address) => {
    const [count, ...lines] = (await (await fetch(address)).text()).split("\n"), at = count * 2, words = [], places = [];
    let before = "";
    for (let line = at; line < lines.length; line++) {
      const tab = lines[line].indexOf("\t");
      words.push((before = before.slice(0, parseInt(lines[line][0], 36)) + lines[line].slice(1, tab)));
      places.push(lines[line].slice(tab + 1));
    }
    return { lines, pages: +count, words, places };
  };
  const load = (address) => (kept[address] ||= read(address));
  const find = ({ lines, pages, words, places }, text) => {
    let scores = null;
    for (const wanted of wordsOf(text)) {
      const found = new Uint8Array(pages);
      let low = 0, high = words.length;
      while (low < high) {
        const middle = (low + high) >> 1;
        if (words[middle] < wanted) low = middle + 1;
        else high = middle;
      }
      for (; words[low]?.startsWith(wanted); low++) {
        const exact = words[low] === wanted ? 1 : 0, said = places[low];
        for (let at = 0, page = 0; at < said.length; at++) {
          let titled = 1, step = 0, digit;
          if (said[at] === "!") (titled = 4), at++;
          for (; at < said.length && (digit = said.charCodeAt(at)) !== 44; at++) step = step * 36 + (digit < 58 ? digit - 48 : digit - 87);
          page += step;
          if (found[page] < titled + exact) found[page] = titled + exact;
        }
      }
      scores = scores ? scores.map((score, page) => score && found[page] && score + found[page]) : found;
    }
    const hits = [];
    scores?.forEach((score, page) => score && hits.push(page));
    hits.sort((one, other) => scores[other] - scores[one] || one - other);
    return hits.map((page) => ({ path: lines[page * 2], title: lines[page * 2 + 1] }));
  };
  const item = ({ path, title }) => {
    const line = document.createElement("li"), link = document.createElement("a");
    link.href = path;
    link.textContent = title || path;
    line.append(link);
    return line;
  };

  document.querySelectorAll("form[data-rim-search]").forEach((form) => {
    const field = form.elements.q, box = form.nextElementSibling, [told, list] = box.children;
    let asked = 0;
    const show = async () => {
      const mine = ++asked, text = field.value;
      const hits = text.trim() ? find(await load(form.dataset.rimSearch), text) : [];
      if (mine !== asked) return;
      box.hidden = !text.trim();
      told.textContent = told.dataset.rimWords.replace("{0}", hits.length);
      list.replaceChildren(...hits.slice(0, 8).map(item));
    };
    const step = (event, by) => {
      const stops = [field, ...list.querySelectorAll("a")], to = stops[stops.indexOf(document.activeElement) + by];
      if (box.hidden || !to) return;
      event.preventDefault();
      to.focus();
    };
    field.addEventListener("focus", () => load(form.dataset.rimSearch), { once: true });
    field.addEventListener("input", show);
    if (field === document.activeElement) load(form.dataset.rimSearch), show();
    form.parentElement.addEventListener("keydown", (event) => {
      if (event.key === "ArrowDown") step(event, 1);
      if (event.key === "ArrowUp") step(event, -1);
      if (event.key === "Escape" && !box.hidden) (box.hidden = true), field.focus();
    });
    form.parentElement.addEventListener("focusout", (event) => form.parentElement.contains(event.relatedTarget) || (box.hidden = true));
  });

  // The page of results, where no server has filled it in.
  const results = document.querySelector("[data-rim-results]"), query = new URLSearchParams(location.search).get("q");
  if (results && query) {
    document.querySelectorAll("input[name=q]").forEach((field) => (field.value = query));
    load(results.dataset.rimResults).then((index) => results.replaceChildren(...find(index, query).slice(0, 300).map(item)));
  }
}
