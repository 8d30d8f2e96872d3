// A long list of the page's own, part by part. The address says which part shows; without this script all of it does.
(() => {
  // What is said from the body on is meant of the page's own content, whatever else stands around it.
  const own = (selector, key) => {
    const said = selector.match(/^body\s*>\s*([a-z][\w-]*)(?::nth-of-type\((\d+)\))?(?=\s|>|$)(.*)$/i);
    if (!said) return document.querySelector(selector);
    const root = document.querySelector(`.${key}-beside-content`) ?? document.body;
    const first = [...root.children].filter((one) => one.localName === said[1].toLowerCase() && !one.className.startsWith?.(key))[(said[2] || 1) - 1];
    return said[3].trim() ? first?.querySelector(`:scope ${said[3]}`) : first;
  };
  document.querySelectorAll("[data-rim-pager]").forEach((nav) => {
    const said = nav.dataset;
    let list = null;
    try { list = own(said.rimPager, said.rimHost); } catch {}
    if (!list) return;
    const entries = [...list.children], size = +said.rimSize;
    const takes = {
      entries: () => 1,
      lines: (entry) => Math.max(1, Math.round(entry.getBoundingClientRect().height / (parseFloat(getComputedStyle(entry).lineHeight) || 24))),
      // What stands beside the one before it is in its row.
      rows: (entry, before) => {
        const box = entry.getBoundingClientRect(), other = before?.getBoundingClientRect();
        return +(!other || (box.top > other.top && box.top >= other.bottom - 1));
      },
    }[said.rimCounts];
    let parts = [[]];
    const part = () => {
      entries.forEach((entry) => entry.style.removeProperty("display"));
      parts = [[]];
      let room = size;
      entries.forEach((entry, at) => {
        const much = takes(entry, entries[at - 1]);
        if (room < much && parts[parts.length - 1].length) parts.push([]), (room = size);
        parts[parts.length - 1].push(entry);
        room -= much;
      });
    };
    part();
    if (parts.length < 2 && said.rimCounts !== "rows") return;
    const name = said.rimName, host = document.createElement("div");
    host.className = said.rimHost;
    host.lang = nav.lang || document.documentElement.lang;
    host.dir = nav.dir || "ltr";
    host.append(nav);
    list.after(host);
    const address = (at) => {
      const url = new URL(location.href);
      at ? url.searchParams.set(name, at + 1) : url.searchParams.delete(name);
      return url.pathname + url.search + "#" + nav.id;
    };
    const link = (at, words, label) => {
      const line = document.createElement("li"), to = document.createElement(at === null ? "span" : "a");
      to.textContent = words;
      if (at !== null) (to.href = address(at)), (to.dataset.at = at);
      if (label) to.setAttribute("aria-label", label);
      line.append(to);
      return line;
    };
    let shown = 0;
    const show = (to) => {
      const at = (shown = Math.min(Math.max(to || 0, 0), parts.length - 1));
      nav.hidden = parts.length < 2;
      parts.forEach((part, place) => part.forEach((entry) => entry.style.setProperty("display", place === at ? "" : "none", "important")));
      const near = [...new Set([0, at - 1, at, at + 1, parts.length - 1])].filter((place) => place >= 0 && place < parts.length);
      const lines = at ? [link(at - 1, said.rimPrevious)] : [];
      near.forEach((place, order) => {
        if (order && place - near[order - 1] > 1) lines.push(link(null, "…"));
        const line = link(place, place + 1);
        if (place === at) line.firstChild.setAttribute("aria-current", "page");
        lines.push(line);
      });
      if (at < parts.length - 1) lines.push(link(at + 1, said.rimNext));
      nav.firstElementChild.replaceChildren(...lines);
    };
    const asked = () => new URLSearchParams(location.search).get(name) - 1;
    nav.addEventListener("click", (event) => {
      const to = event.target.closest("a[data-at]");
      if (!to || event.ctrlKey || event.metaKey || event.shiftKey) return;
      event.preventDefault();
      history.pushState(null, "", to.getAttribute("href"));
      show(+to.dataset.at);
      list.tabIndex = -1;
      list.focus({ preventScroll: true });
      if (list.getBoundingClientRect().top < 0) list.scrollIntoView();
    });
    addEventListener("popstate", () => show(asked()));
    show(asked());
    // A row holds fewer in a narrower window, and pictures come late; what was seen first is seen still.
    if (said.rimCounts === "rows")
      new ResizeObserver(() => {
        const [first] = parts[shown], before = String(parts.map((one) => one.length));
        part();
        show(before === String(parts.map((one) => one.length)) ? shown : parts.findIndex((one) => one.includes(first)));
      }).observe(host.parentElement);
  });
})();
