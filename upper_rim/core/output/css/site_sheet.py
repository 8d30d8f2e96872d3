"""What do kinds get to know of the site that their rules are for?"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from functools import cached_property

from ...model.site import Site, band_widths
from ...style.paint.pictures import Picture, Pictures
from ...values.brands import Mark
from ..shelf import Shelf


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
