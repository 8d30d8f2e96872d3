"""Generated sites that ask for consent, and visitors who walk through them in Chromium: of whom each page asks something, as
a proxy counts it, and whether the question stands there, is compared with what is foreseen."""

from __future__ import annotations

import time
from collections.abc import Callable, Iterable
from contextlib import suppress
from datetime import timedelta
from html import escape
from http.server import BaseHTTPRequestHandler
from random import Random
from typing import Any, NamedTuple
from urllib.parse import urlsplit

from selenium import webdriver
from selenium.webdriver.chrome.options import Options
from selenium.webdriver.chrome.service import Service
from selenium.webdriver.common.by import By

from tests.folder import Serving
from upper_rim.core.conditions.audience.audience import Audience
from upper_rim.core.conditions.audience.in_region import InRegion
from upper_rim.core.conditions.below import Below
from upper_rim.core.conditions.everywhere import Everywhere
from upper_rim.core.conditions.visitor import VisitorCard, instant_of
from upper_rim.core.exchange.imports.import_pages import described_page, digest
from upper_rim.core.gates.asking import ConsentVisit
from upper_rim.core.kinds.consent import Category, ConsentByRegion, ConsentRules, OtherHost
from upper_rim.core.kinds.items.answer import Answer
from upper_rim.core.kinds.items.choices import Choices
from upper_rim.core.kinds.items.embed import Embed
from upper_rim.core.kinds.items.privacy import PrivacyChoices
from upper_rim.core.kinds.pieces.base import ReachRule
from upper_rim.core.kinds.pieces.consent import QUESTION_PLACES, ConsentQuestion
from upper_rim.core.kinds.pieces.footer import Footer
from upper_rim.core.kinds.rows import Cell, Row
from upper_rim.core.model.site import Page, Site, Snippet
from upper_rim.core.values.words import Words

PATHS = ("/", "/a/", "/a/b/", "/c/")
STEPS = 8
OPTIONAL = ("preferences", "statistics", "marketing", "own-one")
REGIONS = ("", "DE", "GB-WLS", "US-CA", "US-VA", "US-TX", "JP")
QUIET_S = 0.35
"""So long nothing more is asked for, before a page counts as loaded."""
PATIENCE_S = 6.0
"""So long a host that is to be asked is waited for."""

HEAD: tuple[Callable[[str], str], ...] = (
    lambda host: f'<link rel="stylesheet" href="//{host}/s.css">',
    lambda host: f"<LINK HREF=http://{host}/s.css REL=StyleSheet>",
    lambda host: f'<link rel=preload as=image href="http:\\\\{host}/p.gif">',
    lambda host: f'<script src="//{host}/s.js"></script>',
    lambda host: f'<script async type="text/javascript" src="http://{host.upper()}/s.js">/* nothing */</script>',
    lambda host: f'<script type=module src=" //{host}/s.js"></script>',
    lambda host: f"<script>(new Image).src = '//{host}/p.gif'</script>",
    lambda host: (
        f'<script>var made = document.createElement("script"); made.src = "http://{host}/s.js"; document.head.append(made)</script>'
    ),
    lambda host: f'<style>@import "//{host}/i.css";</style>',
    lambda host: f"<style type=text/css media=all>@import \\75rl(//{host}/i.css);</style>",
)
BODY: tuple[Callable[[str], str], ...] = (
    lambda host: f'<img src="//{host}/p.gif" alt="">',
    lambda host: f'<img alt="" src=&#104;ttp&colon;&sol;&sol;{host}/p.gif>',
    lambda host: f'<img src="/none.gif" srcset="http://{host}/p.gif 1x, http://{host}/q.gif 1.5x">',
    lambda host: f'<img alt="a > b" SRC="//{host}/p.gif" src="//{host}/q.gif">',
    lambda host: f'<picture><source srcset="//{host}/p.gif"><img src="//{host}/p.gif" alt=""></picture>',
    lambda host: f"<p style=\"background: url( '//{host}/p.gif' )\">Words</p>",
    lambda host: f'<table background="//{host}/p.gif"><tr><td>Cell</td></tr></table>',
    lambda host: f'<iframe src="//{host}/" title="f"></iframe>',
    lambda host: f'<iframe title="f" srcdoc="{escape(f"<img src=//{host}/p.gif>")}"></iframe>',
    lambda host: f'<video poster="//{host}/p.gif"></video>',
    lambda host: f'<object data="//{host}/p.gif" type="image/gif"></object>',
    lambda host: f'<input type=image src="ht\ntp://{host}/p.gif" alt="go">',
    lambda host: f'<svg width=9 height=9><image href="//{host}/p.gif" width=9 height=9 /></svg>',
    lambda host: f'<svg width=9 height=9><image xlink:href="//{host}/p.gif" width=9 height=9 /></svg>',
    lambda host: f'<svg width=9 height=9><style>@import "//{host}/i.css";</style></svg>',
    lambda host: f'<div><template shadowrootmode="open"><img src="//{host}/p.gif" alt=""></template></div>',
    lambda host: f"<script>document.body.insertAdjacentHTML('beforeend', '<img src=\"//{host}/p.gif\">')</script>",
)
QUIET: tuple[Callable[[str], str], ...] = (
    lambda host: f'<!-- <img src="//{host}/p.gif"> -->',
    lambda host: f'<a href="//{host}/">there</a>',
    lambda host: f'<textarea><img src="//{host}/p.gif"></textarea>',
    lambda host: f'<script type="application/ld+json">{{"url": "//{host}/"}}</script>',
    lambda host: f'<p title="<img src=//{host}/>">Words</p>',
    lambda host: f'<link rel="canonical" href="//{host}/">',
)
"""Nothing is fetched by these."""


def asking(seed: int) -> tuple[Site, dict[str, bytes]]:
    """A site of four pages that fetch from up to eight hosts, most of which wait for something."""
    chance, count = Random(seed), iter(range(10_000))
    hosts = [f"{chance.choice(['', 'x.', 'x.y.'])}h{number}.example" for number in range(8)]
    categories = (Category(id="necessary", is_necessary=True), *(
        Category(id=one, is_sold=chance.random() < 0.4, cookies=chance.choice([(), (f"{one}_*",), (one,)]))
        for one in chance.sample(OPTIONAL, chance.randrange(1, 5))
    ))  # fmt: skip
    said = [None, *(one.id for one in categories)]
    listed = tuple(
        OtherHost(id=f"ho-{at}", host=host if chance.random() < 0.6 else f"h{at}.example", category=chance.choice(said))
        for at, host in enumerate(hosts)
        if chance.random() < 0.85
    )
    pages, contents = [], {}
    for at, path in enumerate(PATHS):
        head = "".join(chance.choice(HEAD)(chance.choice(hosts)) + "\n" for _ in range(chance.randrange(3)))
        body = "".join(
            chance.choice([*BODY, *QUIET])(chance.choice(hosts)) + "\n" for _ in range(chance.randrange(1, 6))
        )
        encoding = chance.choice(["utf-8", "windows-1252", "utf-16le"])
        meta = "" if encoding == "utf-16le" else f'<meta charset="{encoding}">'
        text = f"<!DOCTYPE html><html lang=en><head>{meta}<title>é {path}</title>{head}</head><body><h1>{path}</h1>{body}</body></html>"
        content = (b"\xff\xfe" if encoding == "utf-16le" else b"") + text.encode(encoding)
        contents[digest(content)] = content
        pages.append(described_page(Page(id=f"pg-{at}", path=path), content))

    def snippet() -> Snippet:
        place = chance.choice(["head", "start", "end"])
        code = chance.choice(HEAD[3:8] if place == "head" else [*HEAD[3:8], *BODY[:2]])(chance.choice(hosts))
        waits = chance.choice([None, *(one.id for one in categories)])
        where = chance.choice([Everywhere(), Below(path="/a/")])
        return Snippet(id=f"sn-{next(count)}", name="S", place=place, where=where, code=code, waits=waits)

    def row(*items: Any) -> Row:
        return Row(id=f"rw-{next(count)}", name="R", cells=(Cell(id=f"cl-{next(count)}", items=items),))

    answers = [Answer(id=f"it-{next(count)}", says=says, words=Words(text=says)) for says in ("yes", "no", "ticked")]
    chance.shuffle(answers)
    audience = chance.choice([Audience(), Audience(), Audience(every=(InRegion(regions=("DE", "US")),))])
    question = ConsentQuestion(
        id="pc-question",
        name="May we?",
        place=chance.choice(QUESTION_PLACES),
        motion=chance.choice(["none", "fade", "slide"]),
        reach=(ReachRule(id="rr-0", where=chance.choice([Everywhere(), Everywhere(), Below(path="/a/")])),),
        rows=(row(Choices(id="it-choices"), *answers),),
        audience=audience,
    )
    embeds = [
        Embed(
            id=f"it-{next(count)}",
            address=f"http://{chance.choice(hosts)}/frame",
            code=chance.choice(["", "", chance.choice(BODY[:9])(chance.choice(hosts)), HEAD[3](chance.choice(hosts))]),
            category=chance.choice([None, None, *(one.id for one in categories)]),
            height_px=80,
        )
        for _ in range(chance.randrange(3))
    ]
    footer = Footer(
        id="pc-footer",
        name="Foot",
        reach=(ReachRule(id="rr-1", where=chance.choice([Everywhere(), Below(path="/a/")])),),
        rows=(row(PrivacyChoices(id="it-privacy"), *embeds),),
    )
    rules = ConsentRules(
        modes=tuple(ConsentByRegion(region=one, mode=chance.choice(["opt-in", "opt-out", "notice"])) for one in chance.sample(["US", "DE", "GB", "US-CA"], chance.randrange(3))),
        heeds_signal=chance.random() < 0.6,
        days=chance.choice([0, 1, 180]),
    )  # fmt: skip
    site = Site(
        key="qconsent",
        name="Asking",
        pages=tuple(sorted(pages, key=lambda one: one.path)),
        pieces=(footer, question),
        snippets=tuple(snippet() for _ in range(chance.randrange(3))),
        categories=categories,
        hosts=listed,
        consent=rules,
    )
    return site, contents


def any_visitor(chance: Random, *, has_region: bool) -> VisitorCard:
    return VisitorCard(
        id="vc-a",
        region=chance.choice(REGIONS) if has_region else "",
        signals=chance.random() < 0.35,
        has_script=chance.random() < 0.85,
        clock="2026-06-15T12:00Z",
    )


class Proxy(Serving):
    """Stands for all hosts, and knows which were asked for something."""

    def __init__(self) -> None:
        self.asked: list[str] = []
        self.last = time.monotonic()
        proxy = self

        class Handler(BaseHTTPRequestHandler):
            def do_GET(self) -> None:
                proxy.note(urlsplit(self.path).hostname or "")
                path = urlsplit(self.path).path
                kind, data = _ANSWERS.get(path.rpartition(".")[2], ("text/html", b"<p>There</p>"))
                self.send_response(200)
                self.send_header("Content-Type", kind)
                self.send_header("Content-Length", str(len(data)))
                self.send_header("Cache-Control", "no-store")
                self.send_header("Access-Control-Allow-Origin", "*")
                self.send_header("Access-Control-Allow-Headers", "*")
                self.end_headers()
                with suppress(OSError):  # whoever asked may be gone
                    self.wfile.write(data)

            do_POST = do_HEAD = do_OPTIONS = do_GET

            def do_CONNECT(self) -> None:
                proxy.note(self.path.partition(":")[0])
                self.send_error(502)

            def log_message(self, *_: object) -> None:
                pass

        super().__init__(Handler)

    def note(self, host: str) -> None:
        if host.endswith(".example"):
            self.asked.append(host)
            self.last = time.monotonic()

    def settled(self, *awaited: str) -> frozenset[str]:
        """All that were asked since this was called last, once nothing more is, and what is awaited has had its time."""
        begun = self.last = time.monotonic()
        while time.monotonic() - self.last < QUIET_S or (
            not set(awaited) <= set(self.asked) and time.monotonic() - begun < PATIENCE_S
        ):
            time.sleep(0.03)
        found, self.asked = frozenset(self.asked), []
        return found


_GIF = b"GIF89a\x01\x00\x01\x00\x80\x00\x00\x00\x00\x00\x00\x00\x00!\xf9\x04\x01\x00\x00\x00\x00,\x00\x00\x00\x00\x01\x00\x01\x00\x00\x02\x02D\x01\x00;"
_ANSWERS = {"js": ("text/javascript", b""), "css": ("text/css", b""), "gif": ("image/gif", _GIF)}


def behind(proxy: Proxy, options: Options) -> webdriver.Chrome:
    """A browser that asks all hosts but this machine by way of the proxy."""
    options.add_argument(f"--proxy-server=http://127.0.0.1:{proxy.port}")
    options.add_argument("--window-size=1280,2400")
    return webdriver.Chrome(options=options, service=Service("/usr/bin/chromedriver"))


class Step(NamedTuple):
    """`says`: what is answered, and what is ticked for that; `path`: what is opened; `wait`; `forgets`: all cookies go."""

    says: str = ""
    ticked: tuple[str, ...] = ()
    path: str = ""
    wait: timedelta = timedelta()
    forgets: bool = False


def can_answer(visit: ConsentVisit, page: Page) -> bool:
    return visit.on(page).is_put or bool(visit.card.has_script and visit.answer() and visit.has_way_back(page))


def any_step(chance: Random, visit: ConsentVisit, page: Page, *, says: bool | None = None) -> Step:
    """`says`: whether something is answered; by chance, where it is not said."""
    if says is None:
        says = can_answer(visit, page) and chance.random() < 0.6
    if says:
        optional = [one.id for one in visit.site.categories if not one.is_necessary]
        ticked = tuple(one for one in optional if chance.random() < 0.5)
        return Step(says=chance.choice(["yes", "no", "ticked"]), ticked=ticked)
    wait = chance.choice([timedelta(0), timedelta(0), timedelta(hours=23), timedelta(days=2), timedelta(days=200)])
    return Step(path=chance.choice(PATHS), wait=wait, forgets=chance.random() < 0.1)


class Seen(NamedTuple):
    hosts: frozenset[str]
    is_put: bool


class ConsentBrowser:
    def __init__(self, driver: webdriver.Chrome, origin: str, visit: ConsentVisit, proxy: Proxy) -> None:
        self.driver, self.origin, self.visit, self.proxy = driver, origin, visit, proxy
        driver.execute_cdp_cmd("Network.enable", {})
        driver.execute_cdp_cmd("Network.setExtraHTTPHeaders", {"headers": {"X-Region": visit.card.region}})
        driver.execute_cdp_cmd("Emulation.setScriptExecutionDisabled", {"value": not visit.card.has_script})
        self._told = ""
        self.forget()

    def forget(self) -> None:
        self.driver.execute_cdp_cmd("Network.clearBrowserCookies", {})

    def open(self, path: str, awaited: frozenset[str]) -> Seen:
        if self._told:
            self.driver.execute_cdp_cmd("Page.removeScriptToEvaluateOnNewDocument", {"identifier": self._told})
        later = round((self.visit.now - instant_of(self.visit.card.clock)).total_seconds() * 1000)
        source = (
            f"Date.now = ((now) => () => now.call(Date) + {later})(Date.now);"
            f"Object.defineProperty(navigator, 'globalPrivacyControl', {{value: {str(self.visit.card.signals).lower()}}})"
        )
        told = self.driver.execute_cdp_cmd("Page.addScriptToEvaluateOnNewDocument", {"source": source})
        self._told = told["identifier"]
        self.driver.get(self.origin + path)
        return self.seen(awaited)

    def answer(self, step: Step, awaited: frozenset[str]) -> Seen:
        if not self._questions():
            self.driver.execute_script("document.querySelector('[data-rim-choices]').click()")
        for box in self.driver.find_elements(By.CSS_SELECTOR, "[data-rim-choice]:enabled"):
            if box.is_selected() != (box.get_attribute("data-rim-choice") in step.ticked):
                self.driver.execute_script("arguments[0].click()", box)
        self.driver.execute_script(f"document.querySelector('[data-rim-answer={step.says}]').click()")
        return self.seen(awaited)

    def seen(self, awaited: frozenset[str]) -> Seen:
        return Seen(self.proxy.settled(*awaited), bool(self._questions()))

    def _questions(self) -> list[Any]:
        return [one for one in self.driver.find_elements(By.CSS_SELECTOR, "[data-rim-question]") if one.is_displayed()]


def foreseen(visit: ConsentVisit, page: Page, step: Step, before: frozenset[str]) -> Seen:
    """`before`: the hosts that the page has asked already; after a yes only what waited for it is fetched, after a no
    that stops something the page is fetched anew."""
    fetched = visit.fetched_on(page)
    return Seen(fetched - before if step.says else fetched, visit.on(page).is_put)


def judged(
    driver: webdriver.Chrome,
    proxy: Proxy,
    seeds: Iterable[int],
    live: Callable[[Site, dict[str, bytes]], str],
    *,
    is_served: bool = True,
    tell: Callable[[str], object] = lambda line: None,
) -> tuple[list[tuple[Any, ...]], int]:
    """What was seen otherwise than foreseen, and how many steps were compared. `live` publishes a site and says where it is;
    `is_served`: by a server that knows where visitors are."""
    wrong: list[tuple[Any, ...]] = []
    steps = 0
    for seed in seeds:
        chance = Random(f"consent {seed}")
        site, contents = asking(seed)
        visit = ConsentVisit(site, any_visitor(chance, has_region=is_served))
        browser = ConsentBrowser(driver, live(site, contents), visit, proxy)
        by_path = {page.path: page for page in site.pages}
        page, trail, loaded = by_path["/"], [], frozenset[str]()
        for at in range(STEPS):
            step = Step(path=chance.choice(PATHS)) if at == 0 else any_step(chance, visit, page)
            trail.append(step)
            visit.wait(step.wait)
            if step.forgets:
                visit.lose_cookies()
                browser.forget()
            if step.says:
                ran = set(visit.on(page).agreed)
                visit.say(step.says, step.ticked)
                reloaded = not ran <= set(visit.on(page).agreed)
                wanted = foreseen(visit, page, step, frozenset() if reloaded else loaded)
                found = browser.answer(step, wanted.hosts)
                # What waited may ask a host once more that the page has asked already.
                found = found._replace(hosts=found.hosts if reloaded else found.hosts - loaded)
            else:
                page = by_path[step.path]
                wanted, loaded = foreseen(visit, page, step, frozenset()), frozenset()
                found = browser.open(step.path, wanted.hosts)
            loaded |= visit.fetched_on(page)
            steps += 1
            if found != wanted:
                wrong.append((seed, at, visit.card, trail, sorted(found.hosts ^ wanted.hosts), found, wanted))
                break
        tell(f"{seed}: {'wrong' if wrong and wrong[-1][0] == seed else 'as foreseen'}")
    return wrong, steps
