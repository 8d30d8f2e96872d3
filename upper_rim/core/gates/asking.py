"""Who is asked for consent on a page, and what does the page fetch from whom, before an answer and after one?"""

from __future__ import annotations

from collections.abc import Collection, Iterable, Iterator
from datetime import datetime, timedelta
from typing import Literal, NamedTuple

from ..conditions.visitor import VisitorCard, instant_of
from ..exchange.html.foreign import foreign_in_code, hosts_in
from ..kinds.consent import OtherHost, host_said
from ..kinds.items import Item
from ..kinds.items.embed import Embed
from ..kinds.items.privacy import PrivacyChoices
from ..kinds.pieces.base import Piece
from ..kinds.pieces.consent import ConsentQuestion
from ..model.site import Page, Site
from ..reach.coverage import Coverage
from ..reach.looking import says
from .answers import Given, in_short, lapsed
from .consent import Answer, Ruling, law_of, rulings


def asks(site: Site) -> bool:
    """Whether anything waits on a site: nobody could say yes where there is no question."""
    return any(isinstance(piece, ConsentQuestion) and piece.on for piece in site.pieces)


def asked_in_short(site: Site) -> str:
    """What visitors are asked: another one where the question says something else, or asks for more or less."""
    questions = (piece for piece in site.pieces if isinstance(piece, ConsentQuestion) and piece.on)
    return in_short(
        *(says(piece, site) for piece in questions), *(f"{one.id} {says(one, site)}" for one in site.categories)
    )


def needed_for(site: Site, hosts: Iterable[str], category: str | None = None) -> str:
    """The categories (ids, between spaces) to which a yes is needed before something of these hosts is fetched; `category`:
    what it is said to be itself, which then counts alone."""
    said = {category} if category else {one.category for host in hosts if (one := host_said(host, site.hosts))}
    return " ".join(one.id for one in site.categories if one.id in said and not one.is_necessary)


class Part(NamedTuple):
    """Something of a page that fetches from others. `kind`: of whom it is; `waits`: the categories that it waits for;
    `node`: the id of what it is, where it is the designer's."""

    kind: str
    hosts: tuple[str, ...]
    waits: tuple[str, ...]
    node: str = ""


def parts_of(site: Site, page: Page, shown: Iterable[Piece], *, has_script: bool = True) -> list[Part]:
    """All that fetches from others on a page with these pieces, for somebody whose browser runs scripts, or does not. What
    is cut out does not."""
    found: list[Part] = []

    def put(kind: str, hosts: Iterable[str], category: str | None = None, node: str = "") -> None:
        listed = tuple(sorted(hosts))
        needed = needed_for(site, listed, category) if asks(site) else ""
        found.append(Part(kind, listed, tuple(needed.split()), node))

    for fetch in page.splice.fetches if page.splice else ():
        if fetch.is_for(has_script=has_script) and any(not is_cut(at, page) for at in fetch.at):
            put(fetch.kind, fetch.hosts)

    def put_code(kind: str, code: str, category: str | None, node: str, host: str = "") -> None:
        named = {host for fetch in foreign_in_code(code) if fetch.is_for(has_script=has_script) for host in fetch.hosts}
        needed = needed_for(site, {host} | hosts_in(code), category) if asks(site) else ""
        if named:
            found.append(Part(kind, tuple(sorted(named)), tuple(needed.split()), node))

    for snippet in site.snippets if page.splice else ():
        if snippet.on and snippet.where.covers(page):
            put_code("snippet", snippet.code, snippet.waits, snippet.id)
    for piece in shown:
        for item in site.shown_items(piece):
            if isinstance(item, Embed) and item.code:
                put_code("embed", item.code, item.category, item.id, item.host)
            elif isinstance(item, Embed) and item.host:
                put("embed", [item.host], item.category, item.id)
    return found


def is_cut(places: tuple[int, ...], page: Page) -> bool:
    """Whether something that stands there is left out of a page."""
    return any(cut.start <= place < cut.end for cut in page.cuts for place in places)


def fetched(parts: Iterable[Part], agreed: Collection[str]) -> frozenset[str]:
    """The hosts that are asked for something, where these categories may run."""
    return frozenset(host for part in parts if set(part.waits) <= set(agreed) for host in part.hosts)


class HostFound(NamedTuple):
    """Another host that pages fetch from. `kinds`: what, in the order of the alphabet; `pages`: on how many; `said`: what
    the site says of it, None where nobody has said anything."""

    host: str
    kinds: tuple[str, ...]
    pages: int
    said: OtherHost | None


def hosts_found(site: Site) -> list[HostFound]:
    """By all pages, snippets and embeds, whoever they are for; and those that something is said of though nothing is
    fetched from them any more."""
    kinds: dict[str, set[str]] = {one.host: set() for one in site.hosts}
    pages: dict[str, set[str]] = {one.host: set() for one in site.hosts}
    coverage = Coverage(site)
    embeds = {piece.id: hosts for piece in site.pieces if (hosts := _embedded(site, piece))}
    for page in site.pages:
        found: set[tuple[str, str]] = {
            (host, fetch.kind) for fetch in (page.splice.fetches if page.splice else ()) for host in fetch.hosts
        }
        if site.snippets and page.splice:
            snippets = (one for one in site.snippets if one.on and one.where.covers(page))
            found |= {(host, "snippet") for one in snippets for host in hosts_in(one.code)}
        if embeds:
            shown = {piece.id for in_slot in coverage.may_show(page).values() for there in in_slot for piece in there}
            found |= {(host, "embed") for piece in shown & embeds.keys() for host in embeds[piece]}
        for host, kind in found:
            kinds.setdefault(host, set()).add(kind)
            pages.setdefault(host, set()).add(page.id)
    listed = [
        HostFound(host, tuple(sorted(kinds[host])), len(pages[host]), host_said(host, site.hosts))
        for host in sorted(kinds)
    ]
    above = {one.said.host for one in listed if one.pages and one.said is not None}
    return [one for one in listed if one.pages or one.host not in above]


def _embedded(site: Site, piece: Piece) -> frozenset[str]:
    embeds = [item for item in items_with(site, piece) if isinstance(item, Embed)]
    return frozenset(host for item in embeds for host in (hosts_in(item.code) if item.code else {item.host}) if host)


def items_with(site: Site, piece: Piece) -> Iterator[Item]:
    """The items that a piece shows, and those of the drawers in its menus."""
    yield from site.shown_items(piece)
    drawers = (site.drawer(held) for _, held in site.drawers_in(piece))
    yield from (item for drawer in drawers if drawer is not None for item in site.shown_items(drawer))


class Asking(NamedTuple):
    """On a page, for somebody: whether the question stands there, and of each category whether it may run and why."""

    is_put: bool
    rulings: dict[str, Ruling]

    @property
    def agreed(self) -> tuple[str, ...]:
        return tuple(category for category, ruling in self.rulings.items() if ruling.runs)


class Consented(NamedTuple):
    """An answer as a browser keeps it."""

    at: datetime
    asked: str
    yes: tuple[str, ...]


Says = Literal["yes", "no", "ticked"]


class ConsentVisit:
    """One visitor's browser on one site: pages opened, answers given, time let pass, cookies lost."""

    def __init__(self, site: Site, card: VisitorCard) -> None:
        self.site, self.card, self.now = site, card, instant_of(card.clock)
        self.kept: Consented | None = None
        self._asked = asked_in_short(site)
        self._coverage = Coverage(site)

    def shown(self, page: Page) -> list[Piece]:
        got = self._coverage.on(page, self._coverage.gets(self.card))
        return list({one.piece.id: one.piece for outcomes in got.values() for one in outcomes if one.piece}.values())

    def question(self, page: Page) -> ConsentQuestion | None:
        return next((piece for piece in self.shown(page) if isinstance(piece, ConsentQuestion)), None)

    def has_way_back(self, page: Page) -> bool:
        items = (item for piece in self.shown(page) for item in items_with(self.site, piece))
        return self.question(page) is not None and any(isinstance(item, PrivacyChoices) for item in items)

    def on(self, page: Page) -> Asking:
        """Without script nobody is asked, and nothing runs but what is necessary."""
        site, answer = self.site, self.answer()
        if not self.card.has_script:
            return Asking(False, {one.id: Ruling(one.is_necessary, "necessary" if one.is_necessary else "not asked yet") for one in site.categories})  # fmt: skip
        law = law_of(self.card.region, site.consent.modes)
        found = rulings(site.categories, site.consent, law, answer, signals=self.card.signals)
        asked_for = any(not one.is_necessary for one in site.categories)
        return Asking(answer is None and asked_for and self.question(page) is not None, found)

    def answer(self) -> Answer | None:
        """The one that counts still."""
        kept, days = self.kept, self.site.consent.days
        if kept is None or lapsed(Given(kept.at, 0, kept.asked), self._asked, days, 0, self.now) is not None:
            return None
        return Answer(yes=kept.yes)

    def fetched_on(self, page: Page) -> frozenset[str]:
        parts = parts_of(self.site, page, self.shown(page), has_script=self.card.has_script)
        return fetched(parts, self.on(page).agreed)

    def say(self, says_: Says, ticked: Collection[str] = ()) -> None:
        optional = [one.id for one in self.site.categories if not one.is_necessary]
        yes = optional if says_ == "yes" else [one for one in optional if one in ticked] if says_ == "ticked" else []
        self.kept = Consented(self.now, self._asked, tuple(yes))

    def wait(self, time: timedelta) -> None:
        self.now += time

    def lose_cookies(self) -> None:
        self.kept = None


class Met(NamedTuple):
    """What comes of a page for somebody who has given no answer: whether they are asked, what runs and why; and which other
    hosts it asks for something before an answer, after a no and after a yes."""

    asking: Asking
    before: frozenset[str]
    after_no: frozenset[str]
    after_yes: frozenset[str]


def met_on(site: Site, page: Page, card: VisitorCard) -> Met:
    visit = ConsentVisit(site, card)
    asking, fetches = visit.on(page), [visit.fetched_on(page)]
    both: tuple[Says, Says] = ("no", "yes")
    for said in both:
        visit.say(said)
        fetches.append(visit.fetched_on(page))
    return Met(asking, *fetches)
