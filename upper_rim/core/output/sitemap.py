"""Which pages does a site tell search engines of, and in which languages is each? (Sitemaps 0.9, with alternates as
`xhtml:link`.)"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from html import escape
from urllib.parse import quote

from ..model.navigation.counterparts import Counterparts
from ..model.site import Page, Site

SITEMAP = "/sitemap.xml"
MOST = 10_000
"""Pages in one file; the protocol allows 50,000, and 50 MB, which many languages reach sooner."""
_IN_PATHS = "/%-._~!$&'()*+,;=:@"
"""What may stand in a path as it is (RFC 3986, 3.3)."""
_HEAD = '<?xml version="1.0" encoding="UTF-8"?>\n'
_NAMES = 'xmlns="http://www.sitemaps.org/schemas/sitemap/0.9"'


def sitemaps(
    site: Site, counterparts: Counterparts, may_be_told: Callable[[Page], bool]
) -> Iterator[tuple[str, bytes]]:
    """Paths and contents of the files: one, or several and a list of these. None where nobody has said where the site is,
    or where it has such a file of its own. Pages in languages that are held back are not in it."""
    if not site.address or any(asset.path == SITEMAP for asset in site.assets):
        return
    told = site.offered_in(site.language)
    pages = [one for one in site.pages if one.content is not None and one.language in told and may_be_told(one)]
    parts = [pages[at : at + MOST] for at in range(0, len(pages), MOST)]
    if len(parts) < 2:
        yield SITEMAP, _pages(site, counterparts, pages)
        return
    names = [f"/sitemap-{at}.xml" for at in range(1, len(parts) + 1)]
    for name, part in zip(names, parts, strict=True):
        yield name, _pages(site, counterparts, part)
    yield SITEMAP, _list(site, names)


def _pages(site: Site, counterparts: Counterparts, pages: Sequence[Page]) -> bytes:
    lines = (f"<url><loc>{located(site, page)}</loc>{_alternates(site, counterparts, page)}</url>\n" for page in pages)
    return f'{_HEAD}<urlset {_NAMES} xmlns:xhtml="http://www.w3.org/1999/xhtml">\n{"".join(lines)}</urlset>\n'.encode()


def _alternates(site: Site, counterparts: Counterparts, page: Page) -> str:
    said = counterparts.alternates(page).items()
    return "".join(
        f'<xhtml:link rel="alternate" hreflang="{language}" href="{located(site, other)}"/>' for language, other in said
    )


def _list(site: Site, names: Sequence[str]) -> bytes:
    lines = "".join(f"<sitemap><loc>{site.address}{name}</loc></sitemap>\n" for name in names)
    return f"{_HEAD}<sitemapindex {_NAMES}>\n{lines}</sitemapindex>\n".encode()


def located(site: Site, page: Page) -> str:
    """A page's whole address, where the site's is known, to be put into an attribute or a text."""
    return escape(f"{site.address}{quote(page.path, safe=_IN_PATHS)}", quote=True)
