// A search field: this and the index are fetched when the field is first used; what is found stands below it while one
// types. Without it the form leads to the page of results. Of a large index only the parts are fetched that are needed.
{
  const plain = (text) => text.toLowerCase().replace(/ß/g, "ss").normalize("NFKD").replace(/\p{Mn}/gu, "");
  const wordsOf = (text) => plain(text).match(/[\p{L}\p{N}]+/gu) || [];
  const once = (kept, key, make) => (kept[key] ||= make().catch((fault) => { delete kept[key]; throw fault; }));
  const kept = {}, lines = (text) => text.split("\n");
  const spelled = (lines) => {
    const words = [], places = [];
    let before = "";
    for (const line of lines) {
      const tab = line.indexOf("\t");
      words.push((before = before.slice(0, parseInt(line[0], 36)) + line.slice(1, tab)));
      places.push(line.slice(tab + 1));
    }
    return { words, places };
  };
  const read = async (address) => {
    const file = async (name) => {
      const answer = await fetch(address.replace(/(?=\.txt$)/, name));
      if (answer.ok) return answer.text();
      // Published anew meanwhile: what is asked next begins anew.
      delete kept[address];
      throw new Error(answer.status);
    };
    const parts = {}, [first, ...rest] = lines(await file("")), [pages, told, state] = first.split(" "), count = +pages, inPart = +told;
    const part = (name) => file(state + name);
    if (!told) {
      const whole = spelled(rest.slice(2 * count));
      return { count, begin: [], firsts: [""], inPart: count, titles: () => rest, words: () => whole };
    }
    return {
      count, inPart, begin: rest[0].split(" "), firsts: rest.slice(1),
      titles: (at) => once(parts, "-t" + at, async () => lines(await part("-t" + at))),
      words: (at) => once(parts, "-w" + at, async () => spelled(lines(await part("-w" + at)))),
      beginning: (at) => once(parts, "-b" + at, () => part("-b" + at)),
    };
  };
  const load = (address) => once(kept, address, () => read(address));
  const mark = (found, said, exact) => {
    for (let at = 0, page = 0; at < said.length; at++) {
      let titled = 1, step = 0, digit;
      if (said[at] === "!") (titled = 4), at++;
      for (; at < said.length && (digit = said.charCodeAt(at)) !== 44; at++) step = step * 36 + (digit < 58 ? digit - 48 : digit - 87);
      page += step;
      if (found[page] < titled + exact) found[page] = titled + exact;
    }
  };
  const first = (list, wanted) => {
    let low = 0, high = list.length;
    while (low < high) {
      const middle = (low + high) >> 1;
      if (list[middle] < wanted) low = middle + 1;
      else high = middle;
    }
    return low;
  };
  const scored = async (index, wanted) => {
    const found = new Uint8Array(index.count), whole = index.begin.indexOf(wanted), { firsts } = index;
    if (whole >= 0) mark(found, await index.beginning(whole), 0);
    let part = first(firsts, wanted);
    if (part && firsts[part] !== wanted) part--;
    const needed = [part];
    while (whole < 0 && firsts[++part]?.startsWith(wanted)) needed.push(part);
    for (const { words, places } of await Promise.all(needed.map(index.words)))
      for (let at = first(words, wanted); words[at]?.startsWith(wanted); at++)
        if (whole < 0 || words[at] === wanted) mark(found, places[at], words[at] === wanted ? 1 : 0);
    return found;
  };
  // Numbers of pages.
  const find = async (index, text) => {
    let scores = null;
    for (const found of await Promise.all(wordsOf(text).map((wanted) => scored(index, wanted))))
      scores = scores ? scores.map((score, page) => score && found[page] && score + found[page]) : found;
    const hits = [];
    scores?.forEach((score, page) => score && hits.push(page));
    return hits.sort((one, other) => scores[other] - scores[one] || one - other);
  };
  const item = async (index, page) => {
    const told = await index.titles(Math.floor(page / index.inPart)), at = 2 * (page % index.inPart);
    const line = document.createElement("li"), link = document.createElement("a");
    link.href = told[at];
    link.textContent = told[at + 1] || told[at];
    line.append(link);
    return line;
  };
  const items = (index, pages) => Promise.all(pages.map((page) => item(index, page)));

  document.querySelectorAll("form[data-rim-search]").forEach((form) => {
    const field = form.elements.q, box = form.nextElementSibling, [told, list] = box.children;
    let asked = 0;
    const show = async () => {
      const mine = ++asked, text = field.value, index = text.trim() && (await load(form.dataset.rimSearch));
      const hits = index ? await find(index, text) : [], shown = await items(index, hits.slice(0, 8));
      if (mine !== asked) return;
      box.hidden = !text.trim();
      told.textContent = told.dataset.rimWords.replace("{0}", hits.length);
      list.replaceChildren(...shown);
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
    load(results.dataset.rimResults).then(async (index) => {
      const hits = await find(index, query);
      results.replaceChildren();
      // More of them as their end comes into view.
      const more = async () => {
        results.append(...(await items(index, hits.splice(0, 40))));
        hits.length && end.observe(results.lastElementChild);
      };
      const end = new IntersectionObserver((seen) => seen.some((one) => one.isIntersecting) && (end.disconnect(), more()));
      more();
    });
  }
}
