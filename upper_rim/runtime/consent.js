// What waits for a yes, and who is asked for it. Which categories may run is settled by the table in the page's head, as
// `core/gates/consent.py` has it.
(async () => {
  const THEN = "data-rim-then-", root = document.documentElement;
  const all = (css, within = document) => [...within.querySelectorAll(css)];
  const said = JSON.parse(all("script[data-rim-consent]")[0].textContent), optional = said.of.filter(([, kind]) => kind !== 1);
  const names = (categories) => categories.map(([id]) => id);
  // The answer that counts still: nothing, where there is none.
  const answered = () => {
    const [, kept = ""] = document.cookie.match(/(?:^|; )rim-agreed=([^;]*)/) ?? [], [asked, at, yes] = kept.split("~");
    const old = Date.now() / 1000 - at;
    return asked === said.asked && old >= 0 && !(said.days && old >= said.days * 86400) ? yes.split(".") : null;
  };
  const region = async () => {
    try {
      return (await (await fetch(said.visitor)).text()).match(/"region":"([^"]*)"/)?.[1] ?? "";
    } catch {
      return "";
    }
  };
  const lawful = async () => {
    const there = await region(), has = (listed, part) => ` ${listed} `.includes(` ${part} `);
    let mode = there ? said.else : "opt-in", part;
    for (part of there ? [there, there.split("-")[0]] : []) {
      const listed = Object.keys(said.laws).find((one) => has(said.laws[one], part));
      if (listed) {
        mode = listed;
        break;
      }
    }
    if (mode === "opt-in") return [];
    const heard = navigator.globalPrivacyControl && (said.signal === undefined || has(said.signal, part));
    return names(optional.filter(([, kind]) => !(heard && kind === 2)));
  };

  // Scripts run in the order of the page; one that is fetched is waited for.
  let last = Promise.resolve();
  const run = (script, place) => {
    last = last.then(() => new Promise((done) => {
      script.async = script.hasAttribute("async");
      const waits = (script.src || script.getAttribute("href")) && !script.async;
      if (waits) script.onload = script.onerror = done;
      place.replaceWith(script);
      if (!waits) done();
    }));
  };
  const free = (one) => {
    if (one.getAttribute("data-rim-held") === "code") one.removeAttribute("type");
    one.removeAttribute("data-rim-waits");
    one.removeAttribute("data-rim-held");
    for (const { name, value } of [...one.attributes]) {
      if (!name.startsWith(THEN)) continue;
      const own = name.slice(THEN.length);
      one.removeAttribute(name);
      own.startsWith("xlink:") ? one.setAttributeNS("http://www.w3.org/1999/xlink", own, value) : one.setAttribute(own, value);
    }
    return one;
  };
  const release = (one) => {
    if (one.localName === "template") {
      const held = [...(one.content ?? one).childNodes];
      held.forEach((node) => node.nodeType === 1 && free(node));
      one.replaceWith(...held);
    } else if (one.type === "application/json") {
      const code = document.createRange().createContextualFragment(JSON.parse(one.textContent));
      const places = all("script", code).map((script) => {
        const place = new Comment();
        script.replaceWith(place);
        return [script, place];
      });
      one.replaceWith(code);
      places.forEach(([script, place]) => run(script, place));
    } else if (one.localName === "script") run(free(one.cloneNode(true)), one);
    else {
      free(one);
      all(":scope > [data-rim-placeholder]", one.parentNode).forEach((told) => (told.hidden = true));
      one.closest("audio,video")?.load();
    }
  };
  // Also what stands in templates, and in the shadow of something.
  const waiting = (within) => [
    ...all("[data-rim-waits]", within),
    ...all("template", within).flatMap((one) => waiting(one.content ?? one)),
    ...all("*", within).flatMap((one) => (one.shadowRoot ? waiting(one.shadowRoot) : [])),
  ];

  let agreed = [];
  // Whatever was set by what may no longer run: from here and from all folders and hosts above.
  const forget = () => {
    const gone = optional.filter(([id]) => !agreed.includes(id)).flatMap(([, , ...cookies]) => cookies);
    const meant = (name) => gone.some((one) => (one.endsWith("*") ? name.startsWith(one.slice(0, -1)) : name === one));
    const folders = location.pathname.split("/").map((_, at, parts) => parts.slice(0, at + 1).join("/") || "/");
    const hosts = ["", ...location.hostname.split(".").map((_, at, parts) => `;domain=${parts.slice(at).join(".")}`)];
    for (const name of document.cookie.split("; ").map((one) => one.split("=")[0]).filter(meant))
      for (const folder of folders.flatMap((one) => [one, one.replace(/\/?$/, "/")]))
        for (const host of hosts) document.cookie = `${name}=;max-age=0;path=${folder}${host}`;
  };
  const apply = (categories, isAnswered) => {
    agreed = categories;
    root.dataset.rimAgreed = agreed.join(" ");
    forget();
    waiting(document).forEach((one) => one.dataset.rimWaits.split(" ").every((id) => agreed.includes(id)) && release(one));
    document.dispatchEvent(new CustomEvent("rim:consent", { detail: { agreed, answered: isAnswered } }));
  };

  const questions = all("[data-rim-question]"), seen = () => questions.find((one) => one.getClientRects().length);
  let back = null, inert = [];
  const close = () => {
    questions.forEach((one) => (one.hidden = true));
    inert.forEach((one) => (one.inert = false));
    inert = [];
    back?.focus();
    back = null;
  };
  const open = (from) => {
    questions.forEach((one) => {
      one.hidden = false;
      all("[data-rim-choice]", one).forEach((box) => (box.checked = box.disabled || agreed.includes(box.dataset.rimChoice)));
    });
    const shown = seen(), modal = shown?.getAttribute("aria-modal");
    back = from ?? (modal ? document.activeElement : null);
    if (modal) (inert = [...document.body.children].filter((one) => !one.contains(shown) && !one.inert)).forEach((one) => (one.inert = true));
    if (modal || from) shown?.focus();
  };
  const answer = (yes) => {
    const [, before = ""] = document.cookie.match(/(?:^|; )rim-agreed=[^;~]*~[^;~]*~[^;~]*~([^;]*)/) ?? [];
    const number = before || crypto.getRandomValues(new Uint32Array(2)).join("-");
    const kept = `${said.asked}~${Math.floor(Date.now() / 1000)}~${yes.join(".")}~${number}`;
    const age = said.days ? `;max-age=${said.days * 86400}` : "", secure = location.protocol === "https:" ? ";secure" : "";
    document.cookie = `rim-agreed=${kept};path=/;samesite=lax${age}${secure}`;
    navigator.sendBeacon?.(said.sent, new URLSearchParams({ asked: said.asked, yes: yes.join("."), number }));
    close();
    const stops = agreed.some((id) => !yes.includes(id));
    apply(yes, true);
    // What runs already can be stopped by nothing else.
    if (stops) location.reload();
  };
  document.addEventListener("click", ({ target }) => {
    const pressed = target.closest?.("[data-rim-answer],[data-rim-choices],[data-rim-once]");
    if (!pressed) return;
    const { rimAnswer: says } = pressed.dataset;
    if ("rimOnce" in pressed.dataset) all("[data-rim-waits]", pressed.closest("[data-rim-embed]")).forEach(release);
    else if (!says) open(pressed);
    else if (says === "yes") answer(names(optional));
    else if (says === "no") answer([]);
    else answer(all("[data-rim-choice]:checked:enabled", pressed.closest("[data-rim-question]")).map((one) => one.dataset.rimChoice));
  });
  // Leaving is no answer, but to who has given one.
  document.addEventListener("keydown", ({ key }) => key === "Escape" && back && answered() && close());

  const before = answered();
  apply(before ?? (await lawful()), Boolean(before));
  if (!before && optional.length) open();
})();
