"""On how many pages does each piece show?"""

from __future__ import annotations

from functools import lru_cache
from typing import Any

from ....core.model.site import Site
from ....core.reach.coverage import Coverage, reach_shape


@lru_cache(maxsize=32)
def _reached(pages_identity: int, site_shape: tuple[Any, ...], site: _Whole) -> dict[str, int]:
    counts: dict[str, int] = {}
    coverage = Coverage(site.site)
    for page in site.site.pages:
        for piece in coverage.pieces_on(page):
            counts[piece] = counts.get(piece, 0) + 1
    return counts


class _Whole:
    """A site in a cache key: it takes no part in the comparison, and keeps the pages alive that the key names."""

    def __init__(self, site: Site) -> None:
        self.site = site

    def __eq__(self, other: object) -> bool:
        return isinstance(other, _Whole)

    def __hash__(self) -> int:
        return 0


def pages_by_piece(site: Site) -> dict[str, int]:
    """On how many pages each piece shows. Counted anew only when pages or reach have changed."""
    return _reached(id(site.pages), reach_shape(site), _Whole(site))
