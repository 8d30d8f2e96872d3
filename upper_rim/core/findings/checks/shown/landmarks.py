"""Can landmarks be told apart by those who go from one to the next?"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable, Iterator, Mapping
from functools import partial
from typing import NamedTuple

from ....kinds.pieces.base import Piece
from ....model.site import Site
from ....reach.coverage import Coverage, reach_shape
from ...finding import Finding, SeenAt
from ...keeping import Keeps, anew

_ROLES = {"nav": "navigation", "aside": "complementary", "section": "region"}
"""What elements are as landmarks where they have a name (HTML AAM 1.0)."""


class Spoken(NamedTuple):
    """How a site speaks in one language."""

    site: Site
    language: str

    def phrase(self, name: str, *parts: str) -> str:
        return self.site.phrase(name, self.language, *parts)

    def menu_name(self, menu_id: str | None) -> str | None:
        menu = self.site.menu(menu_id)
        return menu.name if menu else None


def in_landmarks(coverage: Coverage, kept: Keeps = anew) -> list[Finding]:
    """Two of one role and one name that a page shows at once (ARIA Authoring Practices, landmark regions); each once, in
    the site's language."""
    site = coverage.site
    spoken = (site.language, site.phrases, [(menu.id, menu.name) for menu in site.menus])
    named: dict[str, list[Named]] = {}
    for piece in site.pieces:
        told = (piece, site.shown_rows(piece), *spoken)
        named[piece.id] = kept(("landmarks in", piece.id), told, partial(_named_in, piece, site))
    return kept("landmarks", (site.pages, reach_shape(site), named), lambda: list(_told(coverage, named)))


def _told(coverage: Coverage, named: Mapping[str, list[Named]]) -> Iterator[Finding]:
    told: set[tuple[str, str]] = set()
    for page, outcomes in coverage.kinds_of_pages():
        for at, band in enumerate(coverage.bands):
            shown = [in_slot[at].piece for in_slot in outcomes.values()]
            there = [one for piece in shown if piece for one in named[piece.id] if band not in one.hidden_in]
            for one, other in _alike(there):
                if (one.node, other.node) not in told:
                    told.add((one.node, other.node))
                    yield Finding("same landmark", one.node, other.node, {"first": one.name}, SeenAt(page=page.id))


class Named(NamedTuple):
    """`when`: the piece, and its stage: of one piece's stages, one shows."""

    node: str
    role: str
    name: str
    when: tuple[str, str | None]
    hidden_in: frozenset[str]


def _alike(there: Iterable[Named]) -> Iterator[tuple[Named, Named]]:
    """Each with the first that is called the same and shows while it does."""
    before: defaultdict[tuple[str, str], list[Named]] = defaultdict(list)
    for one in there:
        called = before[one.role, one.name]
        other = next((other for other in called if other.when == one.when or other.when[0] != one.when[0]), None)
        if other is not None:
            yield one, other
        called.append(one)


def _named_in(piece: Piece, site: Site) -> list[Named]:
    found: list[Named] = []
    if piece.TAG in _ROLES:
        found.append(Named(piece.id, _ROLES[piece.TAG], piece.name, (piece.id, None), frozenset(piece.hidden_in)))
    spoken = Spoken(site, site.language)
    for row in site.shown_rows(piece):
        for item in (item for cell in row.cells for item in cell.items):
            said = item.landmark(spoken)
            if said is not None and (piece.is_early or not said.early):
                hidden = frozenset({*item.hidden_in, *row.hidden_in})
                found.append(Named(item.id, said.role, said.name, (piece.id, row.stage), hidden))
    return found
