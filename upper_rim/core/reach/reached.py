"""Where does each piece show? What of it hangs on pages and reach alone, worked out once for them."""

from __future__ import annotations

from functools import lru_cache
from typing import Any, NamedTuple

from ..model.memo import Memo
from ..model.site import Page, Site
from .coverage import coverage_of, reach_shape


class KindOfPage(NamedTuple):
    """Pages on which the same rules count: the first of them, and the ids of the pieces that show in each of `bands`."""

    first: Page
    shown: tuple[frozenset[str], ...]


class Reached(NamedTuple):
    """`pages`: on how many pages a piece shows; `languages`: those of these pages; both by the piece's id. `bands`: ids
    of the width bands; None where the site has none."""

    pages: dict[str, int]
    languages: dict[str, frozenset[str]]
    bands: tuple[str | None, ...]
    kinds: tuple[KindOfPage, ...]


def reached(site: Site) -> Reached:
    """Worked out anew only when pages or reach have changed."""
    return _of_sites.of(site, lambda site: _reached(id(site.pages), reach_shape(site), _Whole(site)))


_of_sites: Memo[Site, Reached] = Memo(32)


class _Whole:
    """A site in a cache key: it takes no part in the comparison, and keeps the pages alive that the key names."""

    def __init__(self, site: Site) -> None:
        self.site = site

    def __eq__(self, other: object) -> bool:
        return isinstance(other, _Whole)

    def __hash__(self) -> int:
        return 0


@lru_cache(maxsize=32)
def _reached(pages_identity: int, shape: tuple[Any, ...], whole: _Whole) -> Reached:
    coverage = coverage_of(whole.site)
    counts: dict[tuple[frozenset[str], str], int] = {}
    for page, alike in zip(whole.site.pages, coverage.in_order, strict=True):
        key = alike.shown, page.language
        counts[key] = counts.get(key, 0) + 1
    pages: dict[str, int] = {}
    languages: dict[str, frozenset[str]] = {}
    for (shown, language), count in counts.items():
        for node in shown:
            pages[node] = pages.get(node, 0) + count
            languages[node] = languages.get(node, frozenset()) | {language}
    kinds = tuple(
        KindOfPage(
            page,
            tuple(
                frozenset(piece.id for outcomes in slots.values() if (piece := outcomes[at].piece) is not None)
                for at in range(len(coverage.bands))
            ),
        )
        for page, slots in coverage.kinds_of_pages()
    )
    return Reached(pages, languages, coverage.bands, kinds)
