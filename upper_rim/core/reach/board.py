"""What shows where, over all pages at once: folded by section, as shares of the pages in each.

Pages on which the same rules count have the very same outcomes; a section counts those, so that a site of many pages
costs a look at each page once, and a section that is folded nothing more.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator, Set
from typing import NamedTuple

from ..model.site import Page
from .coverage import Alike, Coverage, Gets, Outcomes
from .sections import ROOT_PATH, Section, folder_around, sections_of

Shown = tuple[str | None, str | None]
"""Ids of the piece that a visitor is shown and, where another one is compared, of the piece that the other one is;
otherwise both are the same."""


class Share(NamedTuple):
    """On so many pages this shows."""

    shown: Shown
    pages: int


class BoardRow(NamedTuple):
    """A section, or a page in one (`page`). `cells`: for each slot the shares, the largest first. `more`: so many pages
    of the section are left out behind this row."""

    path: str
    level: int
    pages: int
    cells: tuple[tuple[Share, ...], ...]
    page: Page | None = None
    is_open: bool = False
    more: int = 0

    @property
    def differs(self) -> bool:
        """Whether the two visitors are not shown the same everywhere."""
        return any(share.shown[0] != share.shown[1] for shares in self.cells for share in shares)


Pair = tuple[int, int]
"""Which outcomes, of those that there are, for one visitor and for the other."""


class Board:
    """For one visitor, or for two that are compared. `gets` and `other`: the pieces that are for them."""

    def __init__(self, coverage: Coverage, gets: Gets, other: Gets | None = None) -> None:
        self.coverage = coverage
        self.slots = coverage.slots
        self._outcomes: list[Outcomes] = []
        self._known: dict[int, int] = {}
        self._sections = sections_of(coverage.site.pages)
        pairs: dict[int, Pair] = {}
        for alike in set(coverage.in_order):
            pairs[id(alike)] = self._pair(alike, gets, other)
        self._pairs = [pairs[id(alike)] for alike in coverage.in_order]
        self._counts = {path: Counter(self._within_itself(one)) for path, one in self._sections.items()}
        for path in reversed(self._sections):
            if path != ROOT_PATH:
                self._counts[folder_around(path)].update(self._counts[path])

    def _within_itself(self, section: Section) -> list[Pair]:
        return [self._pairs[at] for at in section.pages]

    def _pair(self, alike: Alike, gets: Gets, other: Gets | None) -> Pair:
        one = self._number(self.coverage.outcomes(alike, gets))
        return one, one if other is None else self._number(self.coverage.outcomes(alike, other))

    def _number(self, outcomes: Outcomes) -> int:
        known = self._known.get(id(outcomes))
        if known is None:
            self._known[id(outcomes)] = known = len(self._outcomes)
            self._outcomes.append(outcomes)
        return known

    def rows(self, band: int, opened: Set[str], upto: int) -> Iterator[BoardRow]:
        """In a width band, by its place among the coverage's. `opened`: the paths of the sections that are unfolded;
        `upto`: of no section more pages than these."""
        yield from self._within(self._sections[ROOT_PATH], 0, band, opened, upto)

    def sections_of_few(self, pages: int) -> list[str]:
        """The paths of all sections, where the site has no more pages than these."""
        few = len(self.coverage.site.pages) <= pages
        return [path for path in self._sections if path != ROOT_PATH] if few else []

    def _within(self, section: Section, level: int, band: int, opened: Set[str], upto: int) -> Iterator[BoardRow]:
        for at, place in enumerate(section.pages[:upto]):
            page, cells = self.coverage.site.pages[place], self._cells(Counter((self._pairs[place],)), band)
            more = len(section.pages) - upto if at == upto - 1 else 0
            yield BoardRow(page.path, level, 1, cells, page, more=max(more, 0))
        for below in section.below:
            is_open, counts = below.path in opened, self._counts[below.path]
            yield BoardRow(below.path, level, counts.total(), self._cells(counts, band), None, is_open)
            if is_open:
                yield from self._within(below, level + 1, band, opened, upto)

    def _cells(self, counts: Counter[Pair], band: int) -> tuple[tuple[Share, ...], ...]:
        cells = []
        for slot in self.slots:
            shares: Counter[Shown] = Counter()
            for (one, other), pages in counts.items():
                shares[self._piece(one, slot, band), self._piece(other, slot, band)] += pages
            cells.append(tuple(Share(shown, pages) for shown, pages in shares.most_common()))
        return tuple(cells)

    def _piece(self, number: int, slot: str, band: int) -> str | None:
        piece = self._outcomes[number][slot][band].piece
        return piece.id if piece else None

    def over_all(self, band: int, lines: int) -> dict[str, list[tuple[Shown, bool]]]:
        """All pages by path in at most so many lines: for each slot, of each line what shows on most of its pages, and
        whether something else does on others."""
        flat = list(self._flat())
        most = max(1, min(lines, len(flat)))
        found: dict[str, list[tuple[Shown, bool]]] = {slot: [] for slot in self.slots}
        for at in range(most if flat else 0):
            part = Counter(flat[at * len(flat) // most : (at + 1) * len(flat) // most])
            for slot, cell in zip(self.slots, self._cells(part, band), strict=True):
                found[slot].append((cell[0].shown, len(cell) > 1))
        return found

    def _flat(self) -> Iterator[Pair]:
        """In the order of the board, all unfolded."""
        waiting = [self._sections[ROOT_PATH]]
        while waiting:
            section = waiting.pop()
            yield from self._within_itself(section)
            waiting += reversed(section.below)
