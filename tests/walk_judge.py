"""Generated sites with gates that ask for consent, too, and visitors who walk through all of that in Chromium: which screens
they meet, and of whom each asks something, as a proxy counts it."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from datetime import datetime, timedelta
from random import Random
from typing import Any, NamedTuple

from selenium import webdriver

from tests.consent_judge import PATHS, ConsentBrowser, Proxy, asking, can_answer
from tests.consent_judge import Step as Consenting
from tests.consent_judge import any_step as any_consent
from tests.folder import Folder, taken_away
from tests.gates_judge import CLOCK, RIGHT, UnservedBrowser, any_gates, any_visitor, drawn, folded, foreseen
from tests.gates_judge import any_step as any_passing
from upper_rim.core.conditions.visitor import VisitorCard
from upper_rim.core.exchange.html.markdown import document
from upper_rim.core.gates.asking import ConsentVisit
from upper_rim.core.gates.guards import Guards
from upper_rim.core.gates.unserved import Unserved
from upper_rim.core.gates.visit import Screen, Visit
from upper_rim.core.gates.waiting import parts_of
from upper_rim.core.kinds.pieces.age import AgeGate
from upper_rim.core.kinds.pieces.password import PasswordGate
from upper_rim.core.model.site import Page, Site
from upper_rim.core.output.unserved import WORKER

STEPS = 13


def walked(seed: int) -> tuple[Site, dict[str, bytes]]:
    site, contents = asking(seed)
    gates = any_gates(Random(f"gates {seed}"), PATHS)
    return site.replaced(pieces=(*site.pieces, *gates)), contents


class Seen(NamedTuple):
    """`screen`: path, gate, and its state or the page's heading; `is_put`: the question about consent."""

    screen: tuple[str, str, str]
    hosts: frozenset[str]
    is_put: bool


class Walk:
    """One visitor, played through and in a browser. `turn` sets the server's clock."""

    def __init__(
        self,
        driver: webdriver.Chrome,
        proxy: Proxy,
        folder: Folder,
        origin: str,
        site: Site,
        guards: Guards,
        card: VisitorCard,
        turn: Callable[[datetime], None],
    ) -> None:
        self.site, self.gates, self.consent = site, Visit(guards, card), ConsentVisit(site, card)
        self._asked = ConsentBrowser(driver, origin, self.consent, proxy)
        self._browser = UnservedBrowser(driver, folder, origin, self.gates)
        self._browser.told = f"Object.defineProperty(navigator, 'globalPrivacyControl', {{value: {str(card.signals).lower()}, configurable: true}})"
        self._is_served, self._turn = not isinstance(guards, Unserved), turn
        self._pages = {page.path: page for page in site.pages}
        self._missing = Page(id="not-found", path="/404.html", language=site.language, splice=document("", "en", "")[1])
        self._screen, self._loaded = Screen("/"), frozenset[str]()

    def step(self, chance: Random, *, is_first: bool) -> tuple[object, Seen, Seen]:
        """What was done, what was seen, what was foreseen."""
        page, card = None if self._screen.gate else self._pages.get(self._screen.path), self.gates.card
        if not is_first and page and can_answer(self.consent, page) and chance.random() < 0.5:
            return self._consents(any_consent(chance, self.consent, page, says=True))
        may_answer = card.has_script or self._is_served
        step = any_passing(chance, self.gates, self._screen, can_answer=may_answer and not is_first, paths=PATHS)
        self._wait(step.wait)
        if step.forgets:
            self.gates.lose_cookies()
            self.consent.lose_cookies()
            self._browser.forget()
        self._turn(self.gates.now)
        if step.said is not None:
            met = self.gates.answer(step.said)
            self._browser.answer(step.said)
        else:
            met = self.gates.open(step.path)
            self._browser.open(step.path)
        self._screen = self._met(met)
        wanted = self._foreseen()
        return step, self._seen(wanted), wanted

    def _wait(self, time: timedelta) -> None:
        self.gates.wait(time)
        self.consent.wait(time)

    def _met(self, screen: Screen) -> Screen:
        return folded(screen, self.site, all_of_it=not self._is_served)

    def _seen(self, wanted: Seen) -> Seen:
        found = Seen(self._browser.seen(), *self._asked.seen(wanted.hosts))
        gate = self.gates.guards.gates.get(self._screen.gate)
        if self._is_served or not isinstance(gate, AgeGate):
            return found
        # Before a script has asked, a browser may have fetched ahead what waits for nothing.
        page = self._pages[self._screen.path]
        free = {
            host
            for part in parts_of(self.site, page, self.consent.shown(page))
            if not part.waits
            for host in part.hosts
        }
        return found._replace(hosts=found.hosts - free)

    def _foreseen(self) -> Seen:
        screen = foreseen(self._screen, self.site)
        page = None if self._screen.gate else self._pages.get(screen[0], self._missing)
        self._screen = self._screen._replace(path=screen[0])
        if page is None:
            self._loaded = frozenset()
            return Seen(screen, frozenset(), False)
        self._loaded = self.consent.fetched_on(page)
        return Seen(screen, self._loaded, self.consent.on(page).is_put)

    def _consents(self, step: Consenting) -> tuple[object, Seen, Seen]:
        page = self._pages[self._screen.path]
        ran = set(self.consent.on(page).agreed)
        self.consent.say(step.says, step.ticked)
        fetched, now = self.consent.fetched_on(page), self.consent.on(page)
        is_fetched_anew = not ran <= set(now.agreed)
        wanted = fetched if is_fetched_anew else fetched - self._loaded
        found = self._asked.answer(step, wanted)
        # What waited may ask a host once more that the page has asked already.
        hosts = found.hosts if is_fetched_anew else found.hosts - self._loaded
        self._loaded |= fetched
        screen = foreseen(self._screen, self.site)
        return step, Seen(self._browser.seen(), hosts, found.is_put), Seen(screen, wanted, now.is_put)


def judged(
    driver: webdriver.Chrome,
    proxy: Proxy,
    folder: Folder,
    seeds: Iterable[int],
    live: Callable[[Site, dict[str, bytes]], str] | None = None,
    turn: Callable[[datetime], None] = lambda now: None,
    tell: Callable[[str], object] = lambda line: None,
) -> tuple[list[tuple[Any, ...]], int]:
    """What was seen otherwise than foreseen, and how many steps were compared. `live` publishes a site on our server and
    says where; where there is none, it is taken away into the folder."""
    wrong: list[tuple[Any, ...]] = []
    steps = 0
    for seed, chance, site, contents, guards in drawn("walk", seeds, walked):
        card = any_visitor(chance).replaced(signals=chance.random() < 0.35)
        if live is None:
            card = card.replaced(region="", groups=None)
            guards = Unserved(guards.kept, card.clock)
            doors = [piece.id for piece in site.pieces if isinstance(piece, PasswordGate)]
            files = taken_away(site, contents, dict.fromkeys(doors, (RIGHT,)), card.clock)
            folder.files = files | {name: CLOCK.encode() + data for name, data in files.items() if name == WORKER}
        origin = live(site, contents) if live else f"http://w{seed}.localhost:{folder.port}"
        walk, trail = Walk(driver, proxy, folder, origin, site, guards, card, turn), []
        for at in range(STEPS):
            step, found, wanted = walk.step(chance, is_first=at == 0)
            trail.append(step)
            steps += 1
            if found != wanted:
                wrong.append((seed, at, card, trail, found, wanted))
                break
        tell(f"{seed}: {wrong[-1] if wrong and wrong[-1][0] == seed else 'as foreseen'}")
    return wrong, steps
