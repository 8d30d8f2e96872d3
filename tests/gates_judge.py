"""Generated sites with gates, and visitors who walk through them in Chromium on the live server: what they see is compared,
step by step, with the visit as it is played through."""

from __future__ import annotations

import time
from collections.abc import Callable, Iterable, Iterator, Sequence
from contextlib import suppress
from datetime import datetime, timedelta
from functools import partial
from random import Random
from typing import Any, NamedTuple

from selenium import webdriver
from selenium.common.exceptions import WebDriverException
from selenium.webdriver.common.by import By
from selenium.webdriver.remote.webelement import WebElement
from selenium.webdriver.support.ui import WebDriverWait

from tests.folder import Folder, taken_away
from upper_rim.core.conditions.audience.audience import Audience
from upper_rim.core.conditions.audience.in_region import InRegion
from upper_rim.core.conditions.audience.member import Member
from upper_rim.core.conditions.below import Below
from upper_rim.core.conditions.everywhere import Everywhere
from upper_rim.core.conditions.on_page import OnPage
from upper_rim.core.conditions.visitor import VisitorCard
from upper_rim.core.exchange.html.markdown import document
from upper_rim.core.exchange.imports.import_pages import described_page, digest
from upper_rim.core.gates.guards import Guards, guards_of
from upper_rim.core.gates.passing import Answer as Said
from upper_rim.core.gates.unserved import Unserved
from upper_rim.core.gates.visit import RIGHT, Screen, Visit
from upper_rim.core.kinds.items.answer import Answer
from upper_rim.core.kinds.items.birth import BirthField
from upper_rim.core.kinds.items.secret import PasswordField
from upper_rim.core.kinds.items.told import Told
from upper_rim.core.kinds.pieces.age import AgeByRegion, AgeGate
from upper_rim.core.kinds.pieces.base import ReachRule
from upper_rim.core.kinds.pieces.gate import Gate
from upper_rim.core.kinds.pieces.password import PasswordGate
from upper_rim.core.kinds.rows import Cell, Row
from upper_rim.core.languages import phrase
from upper_rim.core.model.site import Page, Site
from upper_rim.core.output.unserved import WORKER
from upper_rim.core.values.targets import ToAddress, ToNothing, ToPage
from upper_rim.core.values.words import Words
from upper_rim.web.live.facts import PROOF_COOKIE, proof_of

PATHS = ("/", "/a/", "/a/b/", "/a/b/c.html", "/d/", "/de/")
ADDRESSES = (*PATHS, "/a", "/nothing/", "/a/nothing")
STEPS = 13
WORDS = {state: phrase(f"gate_{state}", "en", "").split(".")[0] for state in ("wrong", "waiting", "refused")}


def gated(seed: int) -> tuple[Site, dict[str, bytes]]:
    """A site of six pages, two of them in German, behind one to four gates."""
    chance = Random(seed)
    pages, contents = [], {}
    for at, path in enumerate(PATHS):
        language = "de" if path == "/de/" else "en"
        content, _ = document(path, language, f"<h1>{path}</h1>")
        if chance.random() < 0.4:
            content = chance.choice([_in_utf_16, _bare_words])(content)
        contents[digest(content)] = content
        translates = "pg-0" if path == "/de/" else None
        page = Page(id=f"pg-{at}", path=path, language=language, bare=chance.random() < 0.3, translates=translates)
        pages.append(described_page(page, content))

    pieces = any_gates(chance, PATHS)
    zone = chance.choice(["UTC", "Pacific/Auckland", "America/Los_Angeles"])
    return Site(key="qgate", name="Gated", zone=zone, pieces=pieces, pages=tuple(sorted(pages, key=lambda one: one.path))), contents  # fmt: skip


def drawn(
    what: str, seeds: Iterable[int], make: Callable[[int], tuple[Site, dict[str, bytes]]]
) -> Iterator[tuple[int, Random, Site, dict[str, bytes], Guards]]:
    """Sites with gates, each with the chance by which somebody walks through it."""
    for seed in seeds:
        site, contents = make(seed)
        guards = guards_of(site)
        assert guards is not None
        yield seed, Random(f"{what} {seed}"), site, contents, guards


def any_gates(chance: Random, paths: Sequence[str]) -> tuple[Gate, ...]:
    """One to four, on a site with pages `pg-0`, … at these paths."""
    count = iter(range(1000))

    def rule() -> ReachRule:
        where: Any = chance.choice(
            [
                Everywhere(),
                Below(path=chance.choice(paths)),
                Below(path="/a/"),
                OnPage(page=f"pg-{chance.randrange(len(paths))}"),
            ]
        )
        return ReachRule(id=f"rr-g{next(count)}", shows=chance.random() < 0.75, where=where)

    def gate() -> Gate:
        kind = chance.choice([AgeGate, PasswordGate])
        field: tuple[Any, ...] = (PasswordField(id=f"it-g{next(count)}"),)
        if kind is AgeGate:
            field = (BirthField(id=f"it-g{next(count)}"),) if chance.random() < 0.6 else ()
        answers = [Answer(id=f"it-g{next(count)}", says=says, words=Words(text=says)) for says in ("yes", "no")]
        chance.shuffle(answers)
        told = {one: Words(text=words) for one, words in WORDS.items()}
        items = (Told(id=f"it-g{next(count)}", **told), *field, *answers)
        row = Row(id=f"rw-g{next(count)}", name="R", cells=(Cell(id=f"cl-g{next(count)}", items=items),))
        own: dict[str, Any] = {"tries": chance.randrange(1, 4), "wait_s": chance.choice([60, 7200])}
        if kind is AgeGate:
            own = {
                "years": chance.choice([16, 18, 21]),
                "by_region": (AgeByRegion(region="IS", years=20),) if chance.random() < 0.5 else (),
                "excused": ("crew",) if chance.random() < 0.3 else (),
            }
        audiences = [
            Audience(),
            Audience(),
            Audience(),
            Audience(none=(Member(groups=("press",)),)),
            Audience(every=(InRegion(regions=("IS", "GB")),)),
        ]
        targets = [
            ToNothing(),
            ToPage(page=f"pg-{chance.randrange(len(paths))}"),
            ToAddress(address=chance.choice(["/", "/elsewhere/"])),
        ]
        return kind(
            id=f"pc-g{next(count)}",
            name="G",
            rows=(row,),
            reach=tuple(rule() for _ in range(chance.randrange(1, 4))),
            audience=chance.choice(audiences),
            days=chance.choice([0, 1, 30]),
            motion=chance.choice(["none", "fade", "slide"]),
            target=chance.choice(targets),
            **own,
        )

    return tuple(gate() for _ in range(chance.randrange(1, 5)))


def _in_utf_16(content: bytes) -> bytes:
    return b"\xff\xfe" + content.replace(b'<meta charset="utf-8">', b"").decode().encode("utf-16le")


def _bare_words(content: bytes) -> bytes:
    """A page that leaves out all tags that may be left out."""
    return b"<title>T</title>" + content.partition(b"<main>")[2].partition(b"</main>")[0]


def any_visitor(chance: Random) -> VisitorCard:
    return VisitorCard(
        id="vc-a",
        region=chance.choice(["", "GB", "IS", "DE-BY"]),
        groups=chance.choice([None, None, ("crew",), ("press",)]),
        languages=chance.choice([("en",), ("de-AT", "en"), ("fr",)]),
        clock=f"2026-{chance.randrange(1, 13):02}-{chance.randrange(1, 29):02}T{chance.randrange(24):02}:30Z",
        has_script=chance.random() < 0.7,
        zone=chance.choice(["Europe/London", "Pacific/Kiritimati", "Pacific/Pago_Pago"]),
    )


class Step(NamedTuple):
    """`said`: what is answered, where something is; `path`: what is opened; `wait`; `forgets`: all cookies go."""

    said: Said | None = None
    path: str = ""
    wait: timedelta = timedelta()
    forgets: bool = False


def any_step(
    chance: Random, visit: Visit, seen: Screen, *, can_answer: bool = True, paths: Sequence[str] = ADDRESSES
) -> Step:
    if can_answer and seen.gate and seen.state != "refused" and chance.random() < 0.75:
        return Step(said=_any_answer(chance, visit, seen))
    wait = timedelta(hours=chance.choice([0, 0, 0, 1, 23, 25, 24 * 31]), seconds=chance.choice([0, 61]))
    return Step(path=chance.choice(paths), wait=wait, forgets=chance.random() < 0.1)


def _any_answer(chance: Random, visit: Visit, seen: Screen) -> Said:
    if chance.random() < 0.2:
        return Said(False)
    birth = (
        visit.now.year - chance.choice([15, 16, 18, 20, 21, 40]),
        visit.now.month,
        min(28, visit.now.day + chance.randrange(-1, 2)) or 1,
    )
    wrong = chance.choice([(2001, 2, 29), (2000, 13, 1), (1800, 1, 1), (2099, 1, 1)])
    return Said(True, birth if chance.random() < 0.8 else wrong, chance.choice([RIGHT, RIGHT, "else"]))


class GatesBrowser:
    """A visitor's browser before a live site. `origin`: with the port."""

    def __init__(self, driver: webdriver.Chrome, origin: str, card: VisitorCard) -> None:
        self.driver, self.origin, self.card = driver, origin, card
        headers = {"X-Region": card.region, "Accept-Language": ", ".join(card.languages)}
        driver.execute_cdp_cmd("Network.enable", {})
        driver.execute_cdp_cmd("Network.setExtraHTTPHeaders", {"headers": headers})
        driver.execute_cdp_cmd("Emulation.setTimezoneOverride", {"timezoneId": card.zone})
        # A driver cannot press what is still coming.
        still = [{"name": "prefers-reduced-motion", "value": "reduce"}]
        driver.execute_cdp_cmd("Emulation.setEmulatedMedia", {"features": still})
        driver.execute_cdp_cmd("Emulation.setScriptExecutionDisabled", {"value": not card.has_script})
        self.forget()

    def forget(self) -> None:
        self.driver.execute_cdp_cmd("Network.clearBrowserCookies", {})
        if self.card.groups is not None:
            proof = proof_of(".".join(self.card.groups), self.origin.partition("//")[2])
            cookie = {"name": PROOF_COOKIE, "value": proof, "url": self.origin}
            self.driver.execute_cdp_cmd("Network.setCookie", cookie)

    def open(self, path: str) -> None:
        self.driver.get(self.origin + path)

    def _all(self, css: str) -> list[WebElement]:
        return self.driver.find_elements(By.CSS_SELECTOR, css)

    def answer(self, said: Said) -> None:
        for name, value in zip(("year", "month", "day"), said.birth, strict=True):
            for field in self._all(f"[name={name}]"):
                field.send_keys(str(value) if said.says_yes else "")
        for field in self._all("[name=password]"):
            field.send_keys(said.password)
        before = self._all("html")[0]
        self._all(f"button[name=answer][value={'yes' if said.says_yes else 'no'}]:not([tabindex])")[0].click()
        # The driver does not wait for a page to which the same address answers, and errs between the two.
        come = WebDriverWait(self.driver, 20, 0.02, ignored_exceptions=[WebDriverException])
        come.until(lambda driver: self._all("html") != [before] and self._all("h1, main"))

    def seen(self) -> tuple[str, str, str]:
        """Path, gate and state; of what is not a gate, which page says that it is there."""
        path = self.driver.current_url.removeprefix(self.origin).split("?")[0]
        gate = [str(one.get_attribute("value")) for one in self._all("input[name=gate]")]
        if not gate:
            heads = [one.text for one in self._all("h1")]
            return path, "", heads[0] if heads else ""
        told = [one.text for one in self._all("[role=alert]")]
        states = [state for state, words in WORDS.items() if told and told[0].startswith(words)]
        return path, gate[0], states[0] if states else "asked"


CLOCK = """if (!self.document) {
  let now = 0;
  Date.now = () => now;
  const get = cookieStore.get.bind(cookieStore);
  cookieStore.get = async (name) => { now = +(await (await fetch("/now")).text()); return get(name); };
}"""
"""Before a service worker's script: its clock is the visit's, as the server tells it."""


class UnservedBrowser(GatesBrowser):
    """The same before a folder that some server sends. `told`: a script that runs before any page."""

    told = ""

    def __init__(self, driver: webdriver.Chrome, folder: Folder, origin: str, visit: Visit) -> None:
        super().__init__(driver, origin, card := visit.card)
        self._folder, self._visit, self._told = folder, visit, ""
        agent = driver.execute_script("return navigator.userAgent") if card.has_script else "Chrome"
        said = {"userAgent": agent, "acceptLanguage": ",".join(card.languages)}
        driver.execute_cdp_cmd("Emulation.setUserAgentOverride", said)

    def open(self, path: str) -> None:
        if self._told:
            self.driver.execute_cdp_cmd("Page.removeScriptToEvaluateOnNewDocument", {"identifier": self._told})
        now = round(self._visit.now.timestamp() * 1000)
        self._folder.files["now"] = str(now).encode()
        source = f"Date.now = () => {now};{self.told}"
        told = self.driver.execute_cdp_cmd("Page.addScriptToEvaluateOnNewDocument", {"source": source})
        self._told = told["identifier"]
        super().open(path)

    def seen(self) -> tuple[str, str, str]:
        """Once nothing comes any more: what stands there first may be replaced by a script."""
        until = time.monotonic() + 20
        last: list[WebElement] = []
        while time.monotonic() < until:
            with suppress(WebDriverException):
                there = self._all("html")
                if there == last and self._all("h1, main"):
                    break
                last = there
            time.sleep(0.2)
        return super().seen()


def folded(screen: Screen, site: Site, *, all_of_it: bool) -> Screen:
    """At the page's own address, to which a server leads on. Ours asks at a gate first: `all_of_it`: others do not."""
    is_folder = any(page.path == f"{screen.path}/" for page in site.pages)
    return screen._replace(path=f"{screen.path}/") if is_folder and (all_of_it or not screen.gate) else screen


def foreseen(screen: Screen, site: Site) -> tuple[str, str, str]:
    if screen.gate:
        return screen.path, screen.gate, str(screen.state)
    path = screen.path if any(page.path == screen.path for page in site.pages) else f"{screen.path}/"
    if any(page.path == path for page in site.pages):
        return path, "", path
    return screen.path, "", phrase("not_found", site.language)


def judged(
    driver: webdriver.Chrome,
    seeds: Iterable[int],
    live: Callable[[Site, dict[str, bytes]], str],
    turn: Callable[[datetime], None],
    visitors: int = 1,
) -> tuple[list[tuple[Any, ...]], int]:
    """What was seen otherwise than foreseen, and how many steps were compared. `live` publishes a site and says where it
    is, for each visitor at a host of its own: all of them come from one address, and a door remembers that; `turn` sets
    the server's clock."""
    wrong: list[tuple[Any, ...]] = []
    steps = 0
    for seed, chance, site, contents, guards in drawn("visit", seeds, gated):
        for number in range(visitors):
            origin, card = live(site, contents), any_visitor(chance)
            visit, browser = Visit(guards, card), GatesBrowser(driver, origin, card)
            compared, found = _walked(chance, visit, browser, turn, partial(foreseen, site=site))
            steps += compared
            wrong += [(seed, number, card, *found)] if found else []
    return wrong, steps


def judged_unserved(
    driver: webdriver.Chrome, folder: Folder, seeds: Iterable[int]
) -> tuple[list[tuple[Any, ...]], int]:
    """The same from a folder that any server sends, each site at a host of its own."""
    wrong: list[tuple[Any, ...]] = []
    steps = 0
    for seed, chance, site, contents, guards in drawn("unserved", seeds, gated):
        card = any_visitor(chance).replaced(region="", groups=None)
        visit = Visit(Unserved(guards.kept, card.clock), card)
        doors = [piece.id for piece in site.pieces if isinstance(piece, PasswordGate)]
        files = taken_away(site, contents, dict.fromkeys(doors, (RIGHT,)), card.clock)
        folder.files = files | {name: CLOCK.encode() + data for name, data in files.items() if name == WORKER}
        browser = UnservedBrowser(driver, folder, f"http://g{seed}.localhost:{folder.port}", visit)

        def wanted(screen: Screen, site: Site = site) -> tuple[str, str, str]:
            return foreseen(folded(screen, site, all_of_it=True), site)

        compared, found = _walked(chance, visit, browser, lambda now: None, wanted)
        steps += compared
        wrong += [(seed, card, *found)] if found else []
    return wrong, steps


def _walked(
    chance: Random,
    visit: Visit,
    browser: GatesBrowser,
    turn: Callable[[datetime], None],
    wanted: Callable[[Screen], tuple[str, str, str]],
) -> tuple[int, tuple[Any, ...]]:
    """How many steps were as foreseen, and what was not: the steps so far, what was seen, what was to be."""
    seen, trail = Screen("/"), []
    for at in range(STEPS):
        can_answer = visit.card.has_script or not isinstance(browser, UnservedBrowser)
        step = Step(path=chance.choice(PATHS)) if at == 0 else any_step(chance, visit, seen, can_answer=can_answer)
        trail.append(step)
        visit.wait(step.wait)
        if step.forgets:
            visit.lose_cookies()
            browser.forget()
        turn(visit.now)
        if step.said is not None:
            seen = visit.answer(step.said)
            browser.answer(step.said)
        else:
            seen = visit.open(step.path)
            browser.open(step.path)
        found = browser.seen()
        if found != wanted(seen):
            return at + 1, (trail, found, wanted(seen))
    return STEPS, ()
