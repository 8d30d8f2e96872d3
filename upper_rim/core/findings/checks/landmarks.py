"""Can landmarks be told apart by those who go from one to the next?"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable, Iterator
from typing import Any, NamedTuple

from ...kinds.pieces.base import Piece
from ...model.site import Site
from ...reach.coverage import Coverage, reach_shape
from ..finding import Finding, SeenAt

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


def given_of_landmarks(site: Site) -> tuple[Any, ...]:
    """All that this hangs on."""
    names = [(menu.id, menu.name) for menu in site.menus]
    return (site.pages, reach_shape(site), site.pieces, names, site.phrases, site.language, site.bands)


def in_landmarks(coverage: Coverage) -> Iterator[Finding]:
    """Two of one role and one name that a page shows at once (ARIA Authoring Practices, landmark regions); each once, in
    the site's language."""
    site = coverage.site
    named = {piece.id: list(_named_in(piece, site)) for piece in site.pieces}
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


def _named_in(piece: Piece, site: Site) -> Iterator[Named]:
    if piece.TAG in _ROLES:
        yield Named(piece.id, _ROLES[piece.TAG], piece.name, (piece.id, None), frozenset(piece.hidden_in))
    spoken = Spoken(site, site.language)
    for row in site.shown_rows(piece):
        for item in (item for cell in row.cells for item in cell.items):
            found = item.landmark(spoken)
            if found is not None and (piece.is_early or not found.early):
                hidden = frozenset({*item.hidden_in, *row.hidden_in})
                yield Named(item.id, found.role, found.name, (piece.id, row.stage), hidden)
