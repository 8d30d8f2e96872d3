"""What does a page's head say of its site, where the page says nothing itself: an icon, a description, where the same is
in other languages?

A picture of the site's own is made into what browsers ask for: a drawing as it is, `favicon.ico` with three sizes, and
larger squares for those who keep the site on a screen (HTML Standard, 4.6.7.8).
"""

from __future__ import annotations

import io
import re
from collections.abc import Callable, Iterator
from functools import lru_cache, partial
from html import escape

from PIL import Image

from ...model.navigation.counterparts import Counterparts
from ...model.site import Page, Site
from ...style.paint.drawing import rasterised
from ..naming import PARTS_PATH, short_hash
from ..sitemap import located

ICO_SIDES = (16, 32, 48)
TOUCH_PX, LARGE_PX = 180, 512
FAVICON = "/favicon.ico"
_TAG = re.compile(rb"<(?:link|meta)\b([^<>]{0,2000})>", re.IGNORECASE)
_IS_ICON = re.compile(rb"""\brel\s*=\s*["']?[^"'>]{0,80}\bicon\b""", re.IGNORECASE)
_IS_ALTERNATE = re.compile(rb"""\bhreflang\s*=""", re.IGNORECASE)
_IS_CANONICAL = re.compile(rb"""\brel\s*=\s*["']?[^"'>]{0,80}\bcanonical\b""", re.IGNORECASE)
_IS_DESCRIPTION = re.compile(rb"""\bname\s*=\s*["']?description\b""", re.IGNORECASE)


_VIEWPORT = '<meta name="viewport" content="width=device-width, initial-scale=1">'


class SiteHead:
    """`read` gives a picture's bytes by its path among the site's files; None where it is not there."""

    def __init__(self, site: Site, read: Callable[[str], bytes | None], counterparts: Counterparts) -> None:
        self._site, self._counterparts = site, counterparts
        data = read(site.icon) if site.icon else None
        self._icon = data if data is not None and _squares(data) is not None else None
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
        if self._icon is None:
            return
        taken = {asset.path for asset in self._site.assets}
        if FAVICON not in taken:
            yield FAVICON, partial(_ico, self._icon)
        for side in (TOUCH_PX, LARGE_PX):
            yield self._path(side), partial(_png, self._icon, side)

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


@lru_cache(maxsize=8)
def _squares(data: bytes) -> Image.Image | None:
    """The picture in the middle of a clear square of 512 px; None where it cannot be read."""
    if b"<svg" in data[:2000]:
        made = rasterised(data, LARGE_PX)
        if made is None:
            return None
        data = made[1]
    try:
        with Image.open(io.BytesIO(data)) as opened:
            image = opened.convert("RGBA")
    except (OSError, ValueError, SyntaxError, Image.DecompressionBombError):
        return None
    scale = LARGE_PX / max(image.size)
    image = image.resize(
        (max(1, round(image.width * scale)), max(1, round(image.height * scale))), Image.Resampling.LANCZOS
    )
    square = Image.new("RGBA", (LARGE_PX, LARGE_PX), (0, 0, 0, 0))
    square.paste(image, ((LARGE_PX - image.width) // 2, (LARGE_PX - image.height) // 2))
    return square


def _png(data: bytes, side: int) -> bytes:
    square = _squares(data)
    assert square is not None, "it was read before"
    out = io.BytesIO()
    square.resize((side, side), Image.Resampling.LANCZOS).save(out, "PNG")
    return out.getvalue()


def _ico(data: bytes) -> bytes:
    square = _squares(data)
    assert square is not None, "it was read before"
    out = io.BytesIO()
    square.save(out, "ICO", sizes=[(side, side) for side in ICO_SIDES])
    return out.getvalue()
