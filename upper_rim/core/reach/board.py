"""What shows where, over all pages at once: folded by section, as shares of the pages in each.

Pages on which the same rules count have the very same outcomes; a section counts those, so that a site of many pages
costs a look at each page once, and a section that is folded nothing more.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator, Set
from dataclasses import dataclass, field
from typing import NamedTuple

from ..model.site import Page
from .coverage import Coverage, Gets, Outcomes

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


@dataclass
class _Section:
    path: str
    pages: list[tuple[Page, Pair]] = field(default_factory=list)
    below: list[_Section] = field(default_factory=list)
    counts: Counter[Pair] = field(default_factory=Counter)


ROOT_PATH = "/"


class Board:
    """For one visitor, or for two that are compared. `gets` and `other`: the pieces that are for them."""

    def __init__(self, coverage: Coverage, gets: Gets, other: Gets | None = None) -> None:
        self.coverage = coverage
        self.slots = coverage.slots
        self._outcomes: list[Outcomes] = []
        self._known: dict[int, int] = {}
        self._sections: dict[str, _Section] = {ROOT_PATH: _Section(ROOT_PATH)}
        around = [(page, _around(page.path)) for page in coverage.site.pages]
        for path in dict.fromkeys(path for _, path in around):
            self._open(path)
        counted: dict[tuple[str, Pair], int] = {}
        for page, path in around:
            pair = self._pair(page, gets, other)
            # A page at a section's own path stands in it.
            section = self._sections.get(page.path) or self._sections[path]
            section.pages.append((page, pair))
            key = section.path, pair
            counted[key] = counted.get(key, 0) + 1
        for (path, pair), pages in counted.items():
            self._sections[path].counts[pair] = pages
        for section in sorted(self._sections.values(), key=lambda one: one.path.count("/"), reverse=True):
            section.below.sort(key=lambda one: one.path)
            if section.path != ROOT_PATH:
                self._sections[_around(section.path)].counts.update(section.counts)

    def _open(self, path: str) -> None:
        """With those around it."""
        waiting: list[_Section] = []
        while path not in self._sections:
            self._sections[path] = made = _Section(path, below=waiting)
            waiting, path = [made], _around(path)
        self._sections[path].below += waiting

    def _pair(self, page: Page, gets: Gets, other: Gets | None) -> Pair:
        one = self._number(self.coverage.on(page, gets))
        return one, one if other is None else self._number(self.coverage.on(page, other))

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

    def _within(self, section: _Section, level: int, band: int, opened: Set[str], upto: int) -> Iterator[BoardRow]:
        for at, (page, pair) in enumerate(section.pages[:upto]):
            more = len(section.pages) - upto if at == upto - 1 else 0
            yield BoardRow(page.path, level, 1, self._cells(Counter((pair,)), band), page, more=max(more, 0))
        for below in section.below:
            is_open = below.path in opened
            cells = self._cells(below.counts, band)
            yield BoardRow(below.path, level, below.counts.total(), cells, None, is_open)
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

    def over_all(self, slot: str, band: int, lines: int) -> list[tuple[Shown, bool]]:
        """All pages by path in at most so many lines: of each what shows on most of its pages, and whether something
        else does on others."""
        flat = list(self._flat())
        most = max(1, min(lines, len(flat)))
        found = []
        for at in range(most if flat else 0):
            part = flat[at * len(flat) // most : (at + 1) * len(flat) // most]
            shares = Counter((self._piece(one, slot, band), self._piece(other, slot, band)) for one, other in part)
            (shown, pages), *_ = shares.most_common(1)
            found.append((shown, pages < len(part)))
        return found

    def _flat(self) -> Iterator[Pair]:
        """In the order of the board, all unfolded."""
        waiting = [self._sections[ROOT_PATH]]
        while waiting:
            section = waiting.pop()
            yield from (pair for _, pair in section.pages)
            waiting += reversed(section.below)


def _around(path: str) -> str:
    """The section that a page or a section stands in."""
    return path[: path.rstrip("/").rfind("/") + 1] or ROOT_PATH
