"""Who is asked for consent on a page, what may run for them, and what do they fetch, before an answer and after one?"""

from __future__ import annotations

from collections.abc import Collection
from datetime import datetime, timedelta
from typing import Literal, NamedTuple

from ..conditions.visitor import VisitorCard, instant_of
from ..kinds.items.privacy import PrivacyChoices
from ..kinds.pieces.base import Piece
from ..kinds.pieces.consent import ConsentQuestion
from ..model.site import Page, Site
from ..reach.coverage import Coverage
from ..reach.looking import says
from .answers import Given, in_short, lapsed
from .consent import Answer, Ruling, law_of, rulings
from .waiting import fetched, items_with, parts_of


def asked_in_short(site: Site) -> str:
    """What visitors are asked: another one where the question says something else, or asks for more or less."""
    questions = (piece for piece in site.pieces if isinstance(piece, ConsentQuestion) and piece.on)
    return in_short(
        *(says(piece, site) for piece in questions), *(f"{one.id} {says(one, site)}" for one in site.categories)
    )


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
