"""Which piece does each page get in each slot and width band, and by which rule?

A slot is where pieces of one kind compete: of those that reach a page, one shows. A piece reaches a page when, of its
rules that match the page, the most specific says that it shows. Between pieces the more specific rule wins. Drawers
have no slot: they are where the menus are that hold them.
"""

from __future__ import annotations

from collections.abc import Callable, Collection, Hashable, Iterator
from dataclasses import dataclass
from enum import StrEnum
from typing import Any, NamedTuple

from ..conditions import PLACES
from ..conditions.place import Names, Place, Strength
from ..kinds.pieces.base import Piece, ReachRule
from ..kinds.pieces.drawer import Drawer
from ..model.site import Page, Site


class Why(StrEnum):
    """What decided an outcome."""

    RULE = "rule"
    TIE = "tie"
    EXCEPTED = "excepted"
    NO_RULE = "no rule"
    BARE = "bare page"
    NO_PLACE = "no place"


class Outcome(NamedTuple):
    """The piece shown (None: none), what decided it, the rule that won, and the pieces that lost to it."""

    piece: Piece | None
    why: Why
    rule: ReachRule | None
    beaten: tuple[str, ...] = ()


class Specificity(NamedTuple):
    """Compared from left to right: a page beats a kind of page, that a tag, a tag a path, a longer path a shorter one, one
    without a wildcard its equal, a path a language; an exception its equal."""

    place: Strength
    excepts: bool


def specificity(rule: ReachRule) -> Specificity:
    return Specificity(rule.where.strength, not rule.shows)


@dataclass(frozen=True)
class _Ranked:
    strength: Specificity
    piece: Piece
    rule: ReachRule


class _Found(NamedTuple):
    """`shown`: the pieces that some outcome shows, and the drawers in them."""

    outcomes: dict[str, tuple[Outcome, ...]]
    shown: frozenset[str]


class Coverage:
    """The outcomes of one site. Rules are indexed once, so that a page costs its own path's length, not the rules'
    number."""

    def __init__(self, site: Site) -> None:
        self.site = site
        self.bands: tuple[str | None, ...] = tuple(band.id for band in site.bands) or (None,)
        self._order = {piece.id: at for at, piece in enumerate(site.pieces)}
        self._rules: dict[type[Place], dict[Hashable, list[_Ranked]]] = {}
        for piece in site.pieces:
            if piece.on:
                for rule in piece.reach:
                    self._index(_Ranked(specificity(rule), piece, rule))
        kinds = dict.fromkeys(piece.kind for piece in site.pieces if not isinstance(piece, Drawer))
        self.slots: tuple[str, ...] = tuple(kinds) or ("header",)
        on = {piece.id for piece in site.pieces if piece.on}
        self._drawers = {piece.id: {held for _, held in site.drawers_in(piece)} & on for piece in site.pieces}
        self._by_groups: dict[tuple[Any, ...], _Found] = {}
        self._by_rules: dict[tuple[Any, ...], _Found] = {}

    def on(self, page: Page) -> dict[str, tuple[Outcome, ...]]:
        """By slot, an outcome for each of `bands`."""
        if page.bare:
            return {slot: (Outcome(None, Why.BARE, None),) * len(self.bands) for slot in self.slots}
        if page.content is not None and page.splice is None:
            return {slot: (Outcome(None, Why.NO_PLACE, None),) * len(self.bands) for slot in self.slots}
        return self._found(page).outcomes

    def _found(self, page: Page) -> _Found:
        """Worked out once for all pages on which the same rules count."""
        without, groups = without_place(page), list(self._matching(page))
        key = (without, *map(id, groups))
        if key not in self._by_groups:
            strongest: dict[str, _Ranked] = {}
            for ranked in (ranked for group in groups for ranked in group):
                held = strongest.get(ranked.piece.id)
                if held is None or ranked.strength > held.strength:
                    strongest[ranked.piece.id] = ranked
            signature = (without, *sorted((piece, ranked.rule.id) for piece, ranked in strongest.items()))
            if signature not in self._by_rules:
                self._by_rules[signature] = self._worked_out(strongest, without)
            self._by_groups[key] = self._by_rules[signature]
        return self._by_groups[key]

    def _worked_out(self, strongest: dict[str, _Ranked], without: Collection[str]) -> _Found:
        nothing = (Outcome(None, Why.NO_PLACE, None),) * len(self.bands)
        outcomes = {slot: nothing if slot in without else self._outcomes(slot, strongest) for slot in self.slots}
        shown = {one.piece.id for in_slot in outcomes.values() for one in in_slot if one.piece}
        return _Found(outcomes, frozenset(shown.union(*(self._drawers[piece] for piece in shown))))

    def pages(self) -> Iterator[tuple[Page, dict[str, tuple[Outcome, ...]]]]:
        for page in self.site.pages:
            yield page, self.on(page)

    def kinds_of_pages(self) -> Iterator[tuple[Page, dict[str, tuple[Outcome, ...]]]]:
        """The first page of each kind: pages on which the same rules count have the same outcomes."""
        seen: set[int] = set()
        for page, outcomes in self.pages():
            if id(outcomes) not in seen and not page.bare:
                seen.add(id(outcomes))
                yield page, outcomes

    def pieces_on(self, page: Page) -> frozenset[str]:
        """Ids of the pieces that show on a page in some band, and of the drawers in them."""
        return (
            frozenset() if page.bare or (page.content is not None and page.splice is None) else self._found(page).shown
        )

    def _index(self, ranked: _Ranked) -> None:
        where = ranked.rule.where
        self._rules.setdefault(type(where), {}).setdefault(where.key, []).append(ranked)

    def _matching(self, page: Page) -> Iterator[list[_Ranked]]:
        """Lists of the rules that match the page, those of the weakest kind first."""
        for kind in PLACES:
            if (by_key := self._rules.get(kind)) is not None:
                for key in kind.keys(page):
                    if (found := by_key.get(key)) is not None:
                        yield found

    def _outcomes(self, slot: str, strongest: dict[str, _Ranked]) -> tuple[Outcome, ...]:
        rivals = [ranked for ranked in strongest.values() if ranked.piece.kind == slot]
        rivals.sort(key=lambda ranked: self._order[ranked.piece.id])
        rivals.sort(key=lambda ranked: ranked.strength.place, reverse=True)
        return tuple(self._outcome(band, rivals) for band in self.bands)

    def _outcome(self, band: str | None, rivals: list[_Ranked]) -> Outcome:
        showing = [ranked for ranked in rivals if ranked.rule.shows and band not in ranked.piece.hidden_in]
        if not showing:
            excepting = next((ranked.rule for ranked in rivals if not ranked.rule.shows), None)
            return Outcome(None, Why.EXCEPTED if excepting else Why.NO_RULE, excepting)
        first = showing[0]
        tied = len(showing) > 1 and showing[1].strength.place == first.strength.place
        beaten = tuple(ranked.piece.id for ranked in showing[1:])
        return Outcome(first.piece, Why.TIE if tied else Why.RULE, first.rule, beaten)


def reach_shape(site: Site) -> tuple[Any, ...]:
    """All that the coverage of its pages depends on besides the pages: equal where that is."""
    pieces = (
        (one.id, one.on, one.kind, one.reach, one.hidden_in, *(drawer for _, drawer in site.drawers_in(one)))
        for one in site.pieces
    )
    return (tuple(pieces), site.bands)


def without_place(page: Page) -> tuple[str, ...]:
    """Kinds of pieces that this page's markup has no place for."""
    if page.content is None or page.splice is None:
        return ()
    if page.splice.end_at is None:
        return ("footer", "sidebar", "bottom", "float")
    return () if page.splice.wraps else ("sidebar",)


def in_words(rule: ReachRule, site: Site, language_of: Callable[[str], str] = str) -> str:
    """A rule as it is read on screen: `everywhere`, `on /press/ and below`, `except on /fares/`. `language_of`: what a
    language is called, by its tag."""
    place = rule.where.in_words(
        Names(
            lambda asked: next((page.path for page in site.pages if page.id == asked), "a page that is gone"),
            language_of,
        )
    )
    return place if rule.shows else f"except {place}"
