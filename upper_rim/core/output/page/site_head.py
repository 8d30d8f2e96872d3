"""What does a page's head say of its site, where the page says nothing itself: an icon, a description, where the same is
in other languages?
"""

from __future__ import annotations

import re
from collections.abc import Callable, Iterator
from functools import partial
from html import escape

from ...model.navigation.counterparts import Counterparts
from ...model.site import Page, Site
from ..naming import PARTS_PATH, short_hash
from ..site_icon import LARGE_PX, TOUCH_PX, IconFiles
from ..sitemap import located

FAVICON = "/favicon.ico"
_TAG = re.compile(rb"<(?:link|meta)\b([^<>]{0,2000})>", re.IGNORECASE)
_IS_ICON = re.compile(rb"""\brel\s*=\s*["']?[^"'>]{0,80}\bicon\b""", re.IGNORECASE)
_IS_ALTERNATE = re.compile(rb"""\bhreflang\s*=""", re.IGNORECASE)
_IS_CANONICAL = re.compile(rb"""\brel\s*=\s*["']?[^"'>]{0,80}\bcanonical\b""", re.IGNORECASE)
_IS_DESCRIPTION = re.compile(rb"""\bname\s*=\s*["']?description\b""", re.IGNORECASE)


_VIEWPORT = '<meta name="viewport" content="width=device-width, initial-scale=1">'


class SiteHead:
    """`read` gives a picture's bytes by its path among the site's files, None where it is not there; `drawn` what is made of
    one, None where it cannot be read."""

    def __init__(
        self,
        site: Site,
        read: Callable[[str], bytes | None],
        drawn: Callable[[bytes], IconFiles | None],
        counterparts: Counterparts,
    ) -> None:
        self._site, self._counterparts = site, counterparts
        data = read(site.icon) if site.icon else None
        self._files = drawn(data) if data is not None else None
        self._icon = data if self._files is not None else None
        self._links = "".join(self._icon_links()) if self._icon is not None else ""

    def of_page(self, page: Page, content: bytes) -> str:
        """Markup for the head of a page; empty where it says all itself."""
        scaled = _VIEWPORT if self._site.viewport and page.splice is not None and page.splice.unscaled else ""
        return scaled + self._told(page, content)

    def _told(self, page: Page, content: bytes) -> str:
        described = self._site.description.in_language(page.language)
        alternates = "".join(self._alternates(page))
        if not (described or self._links or alternates or self._site.address):
            return ""
        own = [found[1] for found in _TAG.finditer(content, 0, page.splice.body_at if page.splice else 0)]
        made = self._links if self._links and not any(map(_IS_ICON.search, own)) else ""
        if described and not any(map(_IS_DESCRIPTION.search, own)):
            made += f'<meta name="description" content="{escape(described, quote=True)}">'
        if self._site.address and not any(map(_IS_CANONICAL.search, own)):
            made += f'<link rel="canonical" href="{located(self._site, page)}">'
        return made if any(map(_IS_ALTERNATE.search, own)) else made + alternates

    def _alternates(self, page: Page) -> Iterator[str]:
        """For search engines (HTML Standard, 4.6.7.1). Who reads none of the languages gets the site's own."""
        for language, other in self._counterparts.alternates(page).items():
            names = [language, *(["x-default"] if language == self._site.language else [])]
            href = located(self._site, other)
            yield from (f'<link rel="alternate" hreflang="{name}" href="{href}">' for name in names)

    def files(self) -> Iterator[tuple[str, Callable[[], bytes]]]:
        """Paths of the icon's files, and what makes each."""
        if self._files is None:
            return
        taken = {asset.path for asset in self._site.assets}
        if FAVICON not in taken:
            yield FAVICON, partial(bytes, self._files.ico)
        yield self._path(TOUCH_PX), partial(bytes, self._files.touch)
        yield self._path(LARGE_PX), partial(bytes, self._files.large)

    def _icon_links(self) -> Iterator[str]:
        assert self._icon is not None and self._site.icon is not None
        yield f'<link rel="icon" href="{FAVICON}" sizes="32x32">'
        if b"<svg" in self._icon[:2000]:
            yield f'<link rel="icon" href="{escape(self._site.icon, quote=True)}" type="image/svg+xml">'
        else:
            yield f'<link rel="icon" href="{self._path(LARGE_PX)}" type="image/png" sizes="{LARGE_PX}x{LARGE_PX}">'
        yield f'<link rel="apple-touch-icon" href="{self._path(TOUCH_PX)}">'

    def _path(self, side: int) -> str:
        return f"{PARTS_PATH}icon-{short_hash(self._icon or b'')}-{side}.png"
