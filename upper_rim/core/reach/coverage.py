"""Which piece does each page get in each slot and width band, and by which rule?

A slot is where pieces of one kind compete: of those that reach a page, one shows. A piece reaches a page when, of its
rules that match the page, the most specific says that it shows. Between pieces the more specific rule wins. Drawers
have no slot: they are where the menus are that hold them.
"""

from __future__ import annotations

from collections.abc import Callable, Collection, Hashable, Iterator
from dataclasses import dataclass
from enum import StrEnum
from functools import cached_property
from threading import Lock
from typing import Any, NamedTuple

from cachetools import LRUCache

from ..conditions import PLACES
from ..conditions.place import Names, Place, Strength
from ..conditions.visitor import VisitorCard
from ..kinds.pieces.base import Piece, ReachRule
from ..kinds.pieces.drawer import Drawer
from ..model.memo import Memo
from ..model.site import Page, Site
from .looking import looking_at


class Why(StrEnum):
    """What decided an outcome."""

    RULE = "rule"
    NARROWER = "narrower audience"
    TIE = "tie"
    EXCEPTED = "excepted"
    NOT_FOR_THEM = "not for them"
    NO_RULE = "no rule"
    BARE = "bare page"
    NO_PLACE = "no place"


class Outcome(NamedTuple):
    """The piece shown (None: none), what decided it, the rule that won, the pieces that lost to it, and those before it
    that are not for this visitor."""

    piece: Piece | None
    why: Why
    rule: ReachRule | None
    beaten: tuple[str, ...] = ()
    not_for_them: tuple[str, ...] = ()


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


Gets = frozenset[str]
"""The ids of the pieces whose audience takes a visitor in."""
Outcomes = dict[str, tuple[Outcome, ...]]
"""By slot, an outcome for each width band."""


class Alike:
    """What holds on all pages on which the same rules count. `rivals`: by slot, the strongest first; None where the page
    has no place for it. `shown`: the pieces that somebody is shown in some band, and the drawers in them. `counts`: the
    rules by which pieces are judged there. `always`: the outcomes, where they are the same for all visitors."""

    def __init__(
        self,
        rivals: dict[str, list[_Ranked] | None],
        shown: frozenset[str] = frozenset(),
        counts: frozenset[str] = frozenset(),
        always: Outcomes | None = None,
    ) -> None:
        self.rivals = rivals
        self.shown = shown
        self.counts = counts
        self.always = always
        self.by_gets: dict[Gets, Outcomes] = {}


class SortedPages(NamedTuple):
    """The pages of a site by the rules that count on them. `firsts`: the first page of each sort; `sorts`: of each page,
    which of them is its own."""

    firsts: tuple[Page, ...]
    sorts: tuple[int, ...]


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
                for rule in site.rules_of(piece):
                    self._index(_Ranked(specificity(rule), piece, rule))
        self._look_ups = [kind.look_up(self._rules[kind]) for kind in PLACES if kind in self._rules]
        kinds = dict.fromkeys(piece.kind for piece in site.pieces if not isinstance(piece, Drawer))
        self.slots: tuple[str, ...] = tuple(kinds) or ("header",)
        on = {piece.id for piece in site.pieces if piece.on}
        self._drawers = {piece.id: {held for _, held in site.drawers_in(piece)} & on for piece in site.pieces}
        self._bare, self._no_place = (
            Alike({}, always={slot: (Outcome(None, why, None),) * len(self.bands) for slot in self.slots})
            for why in (Why.BARE, Why.NO_PLACE)
        )
        self._by_page: dict[str, tuple[Page, Alike]] = {}
        self._by_groups: dict[tuple[Any, ...], Alike] = {}
        self._by_rules: dict[tuple[Any, ...], Alike] = {}
        self.everybody: Gets = frozenset(piece.id for piece in site.pieces if piece.audience.is_everybody)
        """What is got by whoever looks: also without script."""

    def gets(self, card: VisitorCard) -> Gets:
        """The pieces that are for a visitor, wherever they are shown."""
        if not card.has_script:
            return self.everybody
        languages = self.site.languages
        return frozenset(
            piece.id
            for piece in self.site.pieces
            if piece.audience.takes_in(looking_at(piece, card, self.site, languages))
        )

    def on(self, page: Page, gets: Gets | None = None) -> Outcomes:
        """By slot, an outcome for each of `bands`: for those who get these pieces; for whoever it is, where none are
        named. Pages on which the same rules count have the very same outcomes."""
        return self.outcomes(self.alike(page), self.everybody if gets is None else gets)

    def outcomes(self, found: Alike, gets: Gets) -> Outcomes:
        """The same for all these pages."""
        if found.always is not None:
            return found.always
        if gets not in found.by_gets:
            nothing = (Outcome(None, Why.NO_PLACE, None),) * len(self.bands)
            found.by_gets[gets] = {
                slot: nothing if rivals is None else tuple(self._outcome(band, rivals, gets) for band in self.bands)
                for slot, rivals in found.rivals.items()
            }
        return found.by_gets[gets]

    def alike(self, page: Page) -> Alike:
        """Worked out once for all pages on which the same rules count."""
        known = self._by_page.get(page.id)
        if known is not None and known[0] is page:
            return known[1]
        if page.bare:
            found = self._bare
        elif page.content is not None and page.splice is None:
            found = self._no_place
        else:
            found = self._by_rules_on(page, without_place(page))
        self._by_page[page.id] = (page, found)
        return found

    @cached_property
    def in_order(self) -> tuple[Alike, ...]:
        """Of each of the site's pages."""
        sorted_pages = sorted_by_rules(self)
        found = [self.alike(first) for first in sorted_pages.firsts]
        return tuple(map(found.__getitem__, sorted_pages.sorts))

    def whatever_its_markup(self, page: Page) -> Alike:
        """As on a page that has a place for everything."""
        return self._by_rules_on(page, ())

    def _by_rules_on(self, page: Page, without: tuple[str, ...]) -> Alike:
        """Lists of the rules that match the page are those of the weakest kind first."""
        groups = [group for look_up in self._look_ups for group in look_up(page)]
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

    def _worked_out(self, strongest: dict[str, _Ranked], without: Collection[str]) -> Alike:
        rivals = {slot: None if slot in without else self._rivals(slot, strongest) for slot in self.slots}
        shown = {
            ranked.piece.id
            for in_slot in rivals.values()
            for band in self.bands
            for ranked in self._may_show(band, in_slot or [])
        }
        counts = frozenset(ranked.rule.id for ranked in strongest.values())
        return Alike(rivals, frozenset(shown.union(*(self._drawers[piece] for piece in shown))), counts)

    def _may_show(self, band: str | None, rivals: list[_Ranked]) -> Iterator[_Ranked]:
        """Those that somebody is shown in the band, the strongest first: up to one that is for everybody."""
        for ranked in rivals:
            if ranked.rule.shows and band not in ranked.piece.hidden_in:
                yield ranked
                if ranked.piece.id in self.everybody:
                    return

    def may_show(self, page: Page) -> dict[str, tuple[tuple[Piece, ...], ...]]:
        """By slot, for each of `bands` the pieces that somebody is shown there: the first that takes a visitor in."""
        return self.may_show_on(self.alike(page))

    def may_show_on(self, found: Alike) -> dict[str, tuple[tuple[Piece, ...], ...]]:
        """The same for all these pages."""
        return {
            slot: tuple(tuple(ranked.piece for ranked in self._may_show(band, rivals or [])) for band in self.bands)
            for slot, rivals in found.rivals.items()
        }

    def pages(self) -> Iterator[tuple[Page, Outcomes]]:
        for page in self.site.pages:
            yield page, self.on(page)

    def kinds_of_pages(self) -> Iterator[tuple[Page, Outcomes]]:
        """The first page of each kind: pages on which the same rules count have the same outcomes."""
        for page in sorted_by_rules(self).firsts:
            if not page.bare:
                yield page, self.on(page)

    def pieces_on(self, page: Page) -> frozenset[str]:
        """Ids of the pieces that show on a page in some band, and of the drawers in them."""
        return self.alike(page).shown

    def first_with(self, piece: str) -> Page | None:
        """The first page on which somebody is shown it."""
        return next((page for page in sorted_by_rules(self).firsts if piece in self.pieces_on(page)), None)

    def share_a_page(self, one: str, other: str) -> bool:
        """Whether two pieces both reach a page in some width band, whoever looks."""
        for page, _ in self.kinds_of_pages():
            for in_slot in self.alike(page).rivals.values():
                there = [
                    ranked.piece for ranked in in_slot or () if ranked.rule.shows and ranked.piece.id in {one, other}
                ]
                if len(there) == 2 and set(self.bands) - {*there[0].hidden_in, *there[1].hidden_in}:
                    return True
        return False

    def rules_on(self, page: Page) -> frozenset[str]:
        """Ids of the rules by which pieces are judged on a page: of each piece the most specific that matches."""
        return self.alike(page).counts

    def _index(self, ranked: _Ranked) -> None:
        where = ranked.rule.where
        self._rules.setdefault(type(where), {}).setdefault(where.key, []).append(ranked)

    def _rivals(self, slot: str, strongest: dict[str, _Ranked]) -> list[_Ranked]:
        """The more specific rule first, then the narrower audience, then the order of the pieces."""
        rivals = [ranked for ranked in strongest.values() if ranked.piece.kind == slot]
        rivals.sort(key=lambda ranked: self._order[ranked.piece.id])
        rivals.sort(key=_precedence, reverse=True)
        return rivals

    def _outcome(self, band: str | None, rivals: list[_Ranked], gets: Gets) -> Outcome:
        there = [ranked for ranked in rivals if ranked.rule.shows and band not in ranked.piece.hidden_in]
        at = next((at for at, ranked in enumerate(there) if ranked.piece.id in gets), None)
        not_for_them = tuple(ranked.piece.id for ranked in there[:at])
        if at is None:
            if there:
                return Outcome(None, Why.NOT_FOR_THEM, there[0].rule, (), not_for_them)
            excepting = next((ranked.rule for ranked in rivals if not ranked.rule.shows), None)
            return Outcome(None, Why.EXCEPTED if excepting else Why.NO_RULE, excepting)
        first, *others = there[at:]
        beaten = [ranked for ranked in others if ranked.piece.id in gets]
        why = Why.RULE
        if beaten and beaten[0].strength.place == first.strength.place:
            why = Why.TIE if _precedence(beaten[0]) == _precedence(first) else Why.NARROWER
        return Outcome(first.piece, why, first.rule, tuple(ranked.piece.id for ranked in beaten), not_for_them)


_coverages: Memo[Site, Coverage] = Memo(8)


def coverage_of(site: Site) -> Coverage:
    """Kept for the sites that were asked for last."""
    return _coverages.of(site, Coverage)


class _Kept(NamedTuple):
    pages: tuple[Page, ...]
    found: SortedPages


_sorted: LRUCache[tuple[Any, ...], _Kept] = LRUCache(24)
_lock = Lock()


def sorted_by_rules(coverage: Coverage, *, whatever_their_markup: bool = False) -> SortedPages:
    """All pages of a site, also those on which nothing shows. Edits that touch neither pages nor reach leave them sorted
    as they are; of pages that have changed only these are looked at."""
    pages = coverage.site.pages
    key = (whatever_their_markup, coverage.site.key, reach_shape(coverage.site))
    with _lock:
        kept = _sorted.get(key)
    if kept is None or kept.pages is not pages:
        alike = coverage.whatever_its_markup if whatever_their_markup else coverage.alike
        before = dict(zip(map(id, kept.pages), kept.found.sorts, strict=True)) if kept else {}
        of_before = list(map(alike, kept.found.firsts)) if kept else []
        kept = _Kept(pages, _sorted_anew(pages, lambda page: _known(before.get(id(page)), of_before) or alike(page)))
        with _lock:
            _sorted[key] = kept
    return kept.found


def _known(sort: int | None, found: list[Alike]) -> Alike | None:
    return None if sort is None else found[sort]


def _sorted_anew(pages: tuple[Page, ...], alike: Callable[[Page], Alike]) -> SortedPages:
    numbers: dict[Alike, int] = {}
    firsts: list[Page] = []
    sorts: list[int] = []
    for page in pages:
        at = numbers.setdefault(alike(page), len(numbers))
        if at == len(firsts):
            firsts.append(page)
        sorts.append(at)
    return SortedPages(tuple(firsts), tuple(sorts))


def _precedence(ranked: _Ranked) -> tuple[Strength, int]:
    return ranked.strength.place, ranked.piece.audience.narrowness


def reach_shape(site: Site) -> tuple[Any, ...]:
    """All that the coverage of its pages depends on besides the pages: equal where that is."""
    pieces = (
        (
            one.id,
            one.on,
            one.kind,
            site.rules_of(one),
            one.hidden_in,
            one.audience,
            *(drawer for _, drawer in site.drawers_in(one)),
        )
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
