"""What stands before what? Of each address the gates that guard it, in the order in which a visitor meets them.

A gate guards what it reaches: pages of all kinds, also those on which no piece shows, the files that lie there, and
addresses at which nothing is kept, so that nobody learns by asking what there is.
"""

from __future__ import annotations

import re
from collections.abc import Iterable, Iterator, Mapping
from functools import cached_property
from itertools import chain
from typing import NamedTuple
from urllib.parse import quote, unquote

from pydantic import ValidationError

from ..conditions.visitor import VisitorCard
from ..kinds.context import GateState
from ..kinds.items.answer import Answer
from ..kinds.items.birth import BirthField
from ..kinds.pieces.age import AgeGate
from ..kinds.pieces.gate import GATE_STATES, Gate
from ..kinds.pieces.password import PasswordGate
from ..model.memo import Memo
from ..model.navigation.links import Links
from ..model.site import Asset, Page, Site
from ..reach.coverage import Coverage, sorted_by_rules
from ..reach.looking import looking_at, says
from ..values.nodes import Value, within
from ..values.targets import ToPage, ToPlace
from .answers import in_short

SLOTS = ("password", "age")
"""In the order in which they are met: who may not know of a page is not asked how old they are."""


class Kept(Value):
    """What a server needs to know of a site's gates: `site` is the site with nothing but them, without their rows;
    `asked`: by gate, in short, what it asks now; `dated`: the gates that ask for a date; `refusing`: those that know a
    no; `ways_out`: by gate and language, where the refused go; `patterns`: the gates that may stand before a page, by
    slot, as candidates in their order; `pages`: which of the patterns is that of a page or file, by its path without
    escapes."""

    site: Site
    languages: tuple[str, ...]
    asked: dict[str, str]
    dated: tuple[str, ...] = ()
    refusing: tuple[str, ...] = ()
    ways_out: dict[str, dict[str, str]] = {}
    patterns: tuple[tuple[tuple[str, ...], ...], ...]
    pages: dict[str, int]


class Candidates(NamedTuple):
    """By slot, the gates that may stand there, the first that is for a visitor counts."""

    by_slot: tuple[tuple[str, ...], ...]

    @property
    def any(self) -> bool:
        return any(self.by_slot)

    @property
    def is_locked(self) -> bool:
        """Whether a password may be needed, by anybody."""
        return bool(self.by_slot[SLOTS.index("password")])


_NOTHING = Candidates(((),) * len(SLOTS))


class Guards:
    """Made from a site (`guards_of`), or read back from what was kept of it."""

    def __init__(self, kept: Kept) -> None:
        self.kept = kept
        self.gates: Mapping[str, Gate] = {piece.id: piece for piece in kept.site.pieces if isinstance(piece, Gate)}
        self._coverage = Coverage(kept.site)
        self._patterns = list(map(Candidates, kept.patterns))

    def before(self, path: str) -> Candidates:
        """An address, without escapes: of a page, also without the stroke at its end, of a file, or of nothing, in which
        case what is said of its folders counts."""
        at = self.kept.pages.get(path)
        if at is None:
            at = self.kept.pages.get(f"{path}/")
        if at is not None:
            return self._patterns[at]
        try:
            nothing = Page(id="pg-nothing", path=quote(path), language=self.kept.site.language)
        except ValidationError:
            return _NOTHING
        return _of(nothing, self._coverage)

    def met(self, path: str, card: VisitorCard) -> Iterator[Gate]:
        """The gates that a visitor has to pass for it, in their order."""
        for candidates in self.before(path).by_slot:
            for gate in map(self.gates.__getitem__, candidates):
                if gate.audience.takes_in(looking_at(gate, card, self.kept.site, self.kept.languages)):
                    if not is_excused(gate, card):
                        yield gate
                    break

    @cached_property
    def locks(self) -> bool:
        return any(isinstance(gate, PasswordGate) for gate in self.gates.values())

    @cached_property
    def locked(self) -> frozenset[str]:
        """Paths, without escapes, of the pages and files that a password may be needed for."""
        behind = {at for at, pattern in enumerate(self._patterns) if pattern.is_locked}
        return frozenset(path for path, at in self.kept.pages.items() if at in behind) if behind else frozenset()

    def is_locked(self, path: str) -> bool:
        """Of a page or file by its path, as it has that."""
        return self.before_path(path).is_locked

    def before_path(self, path: str) -> Candidates:
        """The same as `before`, for the path of a page or file as it has that."""
        return self.before(unquote(path) if "%" in path else path)


def is_excused(gate: Gate, card: VisitorCard) -> bool:
    return isinstance(gate, AgeGate) and card.groups is not None and not set(gate.excused).isdisjoint(card.groups)


def states_of(gate: Gate, site: Site) -> tuple[GateState, ...]:
    """In which of its states a visitor can come upon it."""
    items = tuple(site.shown_items(gate))
    asks_for_a_date = any(isinstance(item, BirthField) for item in items)
    can_be = {
        "asked": True,
        "wrong": isinstance(gate, PasswordGate) or asks_for_a_date,
        "waiting": isinstance(gate, PasswordGate),
        "refused": asks_for_a_date or any(isinstance(item, Answer) and item.says == "no" for item in items),
    }
    return tuple(state for state in GATE_STATES if can_be[state])


def guards_of(site: Site) -> Guards | None:
    """None where a site has no gates. Kept for the sites that were asked for last."""
    return _guards.of(site, _guards_of)


def _guards_of(site: Site) -> Guards | None:
    gates = tuple(piece for piece in site.pieces if isinstance(piece, Gate) and piece.on)
    if not gates:
        return None
    bare = tuple(gate.replaced(rows=(), styles=(), roles=(), wears=(), hidden_in=()) for gate in gates)
    alone = Site(
        key=site.key, name=site.name, language=site.language, zone=site.zone, pieces=bare, reach_sets=site.reach_sets
    )
    coverage = Coverage(alone.replaced(pages=site.pages))
    free = {gate.id: _needed_by(gate, site) for gate in gates}
    anybodys = frozenset(chain.from_iterable(free.values()))
    own = _shown_by(gates, site)
    numbers: dict[tuple[tuple[str, ...], ...], int] = {_NOTHING.by_slot: 0}
    pages: dict[str, int] = {}
    in_sorts = sorted_by_rules(coverage, whatever_their_markup=True)
    sorts = [_of(first, coverage) for first in in_sorts.firsts]
    of_pages = zip(site.pages, map(sorts.__getitem__, in_sorts.sorts), strict=True)
    of_files = ((asset, _of(_as_page(asset), coverage)) for asset in site.assets)
    for page, found in chain[tuple[Page | Asset, Candidates]](of_pages, of_files):
        less = _NOTHING.by_slot if page.path in own else found.by_slot
        if page.id in anybodys:
            less = tuple(tuple(one for one in slot if page.id not in free[one]) for slot in less)
        pages[unquote(page.path)] = numbers.setdefault(less, len(numbers))
    asked = {gate.id: in_short(says(gate, site), *_asks(gate)) for gate in gates}
    return Guards(
        Kept(
            site=alone,
            languages=site.languages,
            asked=asked,
            dated=tuple(gate.id for gate in gates if any(isinstance(i, BirthField) for i in site.shown_items(gate))),
            refusing=tuple(gate.id for gate in gates if "refused" in states_of(gate, site)),
            ways_out={gate.id: ways for gate in gates if (ways := _ways_out(gate, site))},
            patterns=tuple(numbers),
            pages=pages,
        )
    )


_guards: Memo[Site, Guards | None] = Memo(8)


def _ways_out(gate: Gate, site: Site) -> dict[str, str]:
    links = Links(site)
    found = {language: links.resolve(gate.target, language)[0] for language in site.languages}
    return {language: address for language, address in found.items() if address}


def _of(page: Page, coverage: Coverage) -> Candidates:
    """Whatever a page's markup is like, and though no piece shows on it: a gate stands instead of it."""
    may = coverage.may_show_on(coverage.whatever_its_markup(page))
    return Candidates(tuple(tuple(one.id for one in may[slot][0]) if slot in may else () for slot in SLOTS))


def _as_page(asset: Asset) -> Page:
    return Page(id=asset.id, path=asset.path)


def _needed_by(gate: Gate, site: Site) -> frozenset[str]:
    """Pages that nobody may be kept from by a question about age: where the refused are sent, and what is linked from
    the question. A locked door has no such page: whoever wants one open says so in its reach."""
    if isinstance(gate, PasswordGate):
        return frozenset()
    targets = [gate.target, *(getattr(item, "target", None) for item in site.shown_items(gate))]
    return frozenset(target.page for target in targets if isinstance(target, ToPage | ToPlace))


def _shown_by(gates: Iterable[Gate], site: Site) -> frozenset[str]:
    """Paths of the pictures that gates show themselves, of languages, too: a door must be seen to be opened."""
    nodes = (node for gate in gates for node in (gate, *site.shown_rows(gate), *site.spoken))
    named = frozenset(path for node in nodes for path in paths_in(node))
    return frozenset(asset.path for asset in site.assets if asset.path in named)


_PATH = re.compile(r"""/[^\s"'()<>?#]*""")


def paths_in(value: object) -> Iterator[str]:
    """All that is written like a path of the site, in any field of a value."""
    for one in within(value):
        if isinstance(one, str):
            yield from _PATH.findall(one)


def _asks(gate: Gate) -> tuple[str, ...]:
    if isinstance(gate, AgeGate):
        return (str(gate.years), *(f"{one.region} {one.years}" for one in gate.by_region))
    return ()
