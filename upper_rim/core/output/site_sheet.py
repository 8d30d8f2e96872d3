"""Which rules does what stands in a cell have, by what is set for it?"""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass
from functools import cached_property

from ..kinds.rows import Cell
from ..kinds.rule import css
from ..model.site import Site, band_widths
from ..style.pictures import Picture, Pictures
from ..values.brands import Mark
from .shelf import Shelf
from .style_rules import band_queries

_SIDES = {"start": "flex-start", "center": "center", "end": "flex-end"}


@dataclass(frozen=True)
class SiteSheet:
    """A `SheetContext` of a site."""

    site: Site
    shelf: Shelf
    pictures: Pictures

    @property
    def key(self) -> str:
        return self.site.key

    @property
    def content_px(self) -> int:
        return self.site.content_px

    @property
    def gutter_px(self) -> int:
        return self.site.gutter_px

    @cached_property
    def band_from_px(self) -> Mapping[str, int]:
        return band_widths(self.site)

    def picture(self, path: str) -> Picture | None:
        return self.pictures(path)

    def brand_mark(self, address: str) -> Mark:
        return self.shelf.brands.mark(address)


def cell_rules(site: Site, cell: Cell, sheet: SiteSheet) -> Iterator[str]:
    name = site.key
    for aligned in cell.aligned:
        for query in band_queries(site, {aligned.band}):
            yield f"@media {query}{{.{name}-cell.{name}-{cell.id}{{justify-content:{_SIDES[aligned.align]}}}}}"
    for item in cell.items:
        yield css(item.rules(f".{name}-{item.id}", sheet))
        yield from hidden_rules(site, item.hidden_in, f"{name}-{item.id}")


def hidden_rules(site: Site, hidden_in: Iterable[str], css_class: str) -> Iterator[str]:
    hidden = set(hidden_in)
    for query in band_queries(site, hidden):
        yield f"@media {query}{{.{css_class}.{css_class}{{display:none}}}}"
