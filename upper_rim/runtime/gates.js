// Gates that no server keeps: a question about age before a page, a door that opens what is locked. One script for pages
// and, as a service worker, for what they ask for. `rimGates` stands before it: what the gates ask, as
// `core/output/unserved.py` writes it. Who is let through is settled as in `core/gates/passing.py`.
(() => {
  const said = rimGates, DAY_MS = 864e5, bytes = (text) => new TextEncoder().encode(text), COOKIE = "rim-gate-";
  const unpacked = (text) => Uint8Array.from(atob(text), (one) => one.charCodeAt(0));
  // A pass: when it was given, to what question, at which age.
  const counts = (id, pass = "") => {
    const [at, asked, years] = pass.split("~"), gate = said.gates[id], old = Date.now() - at;
    return asked === gate.asked && old >= 0 && (gate.days ? old < gate.days * DAY_MS : old <= DAY_MS) && !(years < gate.years);
  };
  const keys = (mode, act) => new Promise((done, failed) => {
    const opening = indexedDB.open("rim-gates", 1);
    opening.onupgradeneeded = () => opening.result.createObjectStore("keys");
    opening.onerror = failed;
    opening.onsuccess = () => {
      const asked = act(opening.result.transaction("keys", mode).objectStore("keys"));
      asked.onsuccess = () => done(asked.result);
    };
  });
  const named = (id) => `${id} ${said.salts[id]}`;
  const key = async (id) => {
    const held = await keys("readonly", (store) => store.get(named(id)));
    const pass = self.cookieStore ? (await cookieStore.get(COOKIE + id))?.value : held?.pass;
    return held && counts(id, pass) && held.key;
  };

  if (!self.document) {
    const listed = fetch(said.list).then((answer) => answer.json()).catch(() => ({}));
    self.oninstall = skipWaiting;
    self.onactivate = (event) => event.waitUntil(clients.claim());
    // Escapes as Python reads them: what is no UTF-8 becomes U+FFFD.
    const plain = (path) => path.replace(/(%[0-9a-f]{2})+/gi, (run) => new TextDecoder(undefined, { ignoreBOM: true }).decode(
      Uint8Array.from(run.slice(1).split("%"), (one) => parseInt(one, 16)))).replace(/\/index\.html$/i, "/");
    const answered = async (request) => {
      const path = plain(new URL(request.url).pathname), hash = new Uint8Array(await crypto.subtle.digest("SHA-256", bytes(path)));
      const name = [...hash].map((one) => one.toString(16).padStart(2, "0")).join("").slice(0, 32), locked = await listed;
      for (const id in locked) {
        const held = locked[id].includes(name.slice(0, 8)) && (await key(id));
        if (!held) continue;
        try {
          const found = new Uint8Array(await (await fetch(said.locked + name)).arrayBuffer());
          const open = new Uint8Array(await crypto.subtle.decrypt(
            { name: "AES-GCM", iv: found.slice(0, 12), additionalData: bytes(path) }, held, found.slice(12)));
          const line = open.indexOf(10), whole = open.slice(line + 1), headers = {
            "Content-Type": new TextDecoder().decode(open.slice(0, line)), "X-Content-Type-Options": "nosniff", "Cache-Control": "no-store",
          };
          // A film is asked for part by part.
          const [, from, to] = /^bytes=(\d+)-(\d*)$/.exec(request.headers.get("Range")) ?? [];
          const part = from < whole.length && whole.slice(from, to ? +to + 1 : whole.length);
          if (part) headers["Content-Range"] = `bytes ${from}-${+from + part.length - 1}/${whole.length}`;
          return new Response(part || whole, { status: part ? 206 : 200, headers });
        } catch {
          break; // What was changed stays shut: its door answers.
        }
      }
      return fetch(request);
    };
    self.onfetch = (event) => {
      const { request } = event;
      if (request.method === "GET" && request.url.startsWith(location.origin + "/")) event.respondWith(answered(request));
    };
    return;
  }

  const { before, at, unsafe, changed } = document.currentScript.dataset, id = before ?? at, gate = said.gates[id], root = document.documentElement;
  const primary = (tag) => tag.split("-")[0].toLowerCase();
  const language = navigator.languages.flatMap((wanted) => said.languages.filter((one) => primary(one) === primary(wanted)))[0] ?? said.languages[0];
  const show = async (state, wait_s) => {
    const page = await (await fetch(`${said.pages}${id}/${state}-${language}.html`)).text();
    const told = wait_s < 100 ? `${wait_s} s` : `${Math.ceil(wait_s / 60)} min`;
    document.open();
    document.write(wait_s ? page.replace(/(<span data-rim-wait>)[^<]*/, `$1${told}`) : page);
    document.close();
  };
  const [, pass] = document.cookie.match(new RegExp(`(?:^|; )${COOKIE}${id}=([^;]*)`)) ?? [];
  if (before) {
    const isCrawler = gate.crawlers && /bot\b|crawl|spider/i.test(navigator.userAgent);
    if (isCrawler || counts(id, pass)) return;
    // All that comes still is text that is not shown, until the gate is there.
    document.write("<plaintext hidden>");
    show("asked");
    return;
  }

  const workers = self.isSecureContext && navigator.serviceWorker;
  const AGAIN = "rim-again", AGAIN_MS = 8e3;
  const tell = (words) => document.querySelector("main").insertAdjacentHTML("afterbegin", `<p role=alert style=padding:1em!important>${words}`);
  const given = (years = "") => {
    const made = `${Date.now()}~${gate.asked}~${years}`, age = gate.days ? `;max-age=${gate.days * 86400}` : "";
    document.cookie = `${COOKIE}${id}=${made};path=/;samesite=lax${age}${location.protocol === "https:" ? ";secure" : ""}`;
    return made;
  };
  const refused = () => (gate.out[language] ? location.assign(gate.out[language]) : show("refused"));
  // Once more with the key in hand; where the gate stands there still, something is not as it was.
  const opened = async () => {
    sessionStorage[AGAIN] = Date.now();
    // The worker of an edition before may stand there still, which has other keys: the new one takes over first.
    workers.oncontrollerchange = () => location.reload();
    (await (await workers.register(said.worker, { scope: said.scope })).update()).installing ?? location.reload();
  };

  const aged = (typed) => {
    if (!gate.dated) return gate.years;
    const [year, month, day] = ["year", "month", "day"].map((name) => (/^\s*\d{1,4}\s*$/.test(typed.get(name) ?? "") ? +typed.get(name) : NaN));
    const today = new Date(Date.now()), there = new Date(0), on = today.getMonth() + 1;
    there.setUTCFullYear(year, month - 1, day);
    if (!(year > 0) || there.getUTCMonth() !== month - 1 || there.getUTCDate() !== day) return null;
    const years = today.getFullYear() - year - (on < month || (on === month && today.getDate() < day) ? 1 : 0);
    return years < 0 || years > said.oldest ? null : years;
  };
  // How long the door hears nothing after so many wrong tries (`core/gates/attempts.py`).
  const TRIES = `rim-tries-${id}`, tries = () => JSON.parse(localStorage[TRIES] ?? "[]").filter((one) => one > Date.now() - DAY_MS);
  const deaf = (wrong) => {
    const rounds = Math.floor(wrong.length / gate.tries);
    const wait_s = rounds && !(wrong.length % gate.tries) ? Math.min(gate.wait_s * 2 ** (rounds - 1), 3600) : 0;
    const left = wait_s && (wrong[wrong.length - 1] + wait_s * 1000 - Date.now()) / 1000;
    return left > 0 ? Math.max(1, Math.round(left)) : 0;
  };
  const unlocked = async (password) => {
    const typed = await crypto.subtle.importKey("raw", bytes(password), "PBKDF2", false, ["deriveKey"]);
    const made = { name: "PBKDF2", hash: "SHA-256", salt: unpacked(said.salts[id]), iterations: said.rounds };
    const stretched = await crypto.subtle.deriveKey(made, typed, { name: "AES-GCM", length: 256 }, false, ["unwrapKey"]);
    for (const wrapped of gate.wrapped.map(unpacked)) {
      try {
        return await crypto.subtle.unwrapKey("raw", wrapped.slice(12), stretched, { name: "AES-GCM", iv: wrapped.slice(0, 12) }, "AES-GCM", false, ["decrypt"]);
      } catch {}
    }
  };
  const knocked = async (password) => {
    const wrong = tries();
    if (deaf(wrong)) return show("waiting", deaf(wrong));
    wrong.push(Date.now());
    localStorage[TRIES] = JSON.stringify(wrong);
    const found = await unlocked(password);
    if (!found) return deaf(wrong) ? show("waiting", deaf(wrong)) : show("wrong");
    localStorage.removeItem(TRIES);
    const made = given();
    await keys("readwrite", (store) => store.put({ key: found, pass: made }, named(id)));
    return opened();
  };

  document.addEventListener("submit", (event) => {
    const typed = new FormData(event.target, event.submitter);
    if (typed.get("gate") !== id) return;
    event.preventDefault();
    if (typed.get("answer") !== "yes") refused();
    else if (gate.wrapped) workers ? knocked(typed.get("password")) : tell(unsafe);
    else {
      const years = aged(typed);
      if (years === null) show("wrong");
      else if (years < gate.years) refused();
      else given(gate.years), location.reload();
    }
  });
  if (root.lang !== language) show("asked");
  else if (gate.wrapped && workers)
    key(id).then((held) => held && (Date.now() - (sessionStorage[AGAIN] ?? 0) < AGAIN_MS ? tell(changed) : opened()));
})();
