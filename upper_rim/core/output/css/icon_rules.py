"""Which rules draw the icons that a site's pieces show? Each as a mask, so that it has the colour of its text."""

from __future__ import annotations

from collections.abc import Iterator
from urllib.parse import quote

from ...kinds.entries import Entry
from ...kinds.rule import Rule
from ...model.site import Site
from ...model.tree import items_of, walk
from ...values.brands import Brand
from ..shelf import Shelf


def icon_rules(site: Site, shelf: Shelf) -> Iterator[Rule]:
    """One rule an icon of the general set, and one a mark of a service."""
    for icon in icons_of(site, shelf):
        drawing = shelf.icons.get(icon, "")
        if drawing:
            yield _icon_rule(site.key, icon, drawing)
    for brand in brands_of(site, shelf):
        yield _brand_rule(site.key, brand)


def icons_of(site: Site, shelf: Shelf) -> list[str]:
    """Names of the icons that the site's pieces use."""
    used = {"x", "chevron-down"} if any(piece.rows for piece in site.pieces) else set()
    used |= {icon for item in items_of(site.pieces) for icon in item.icons(shelf.brands)}
    return sorted(used.union(_entry_icons(site), *(piece.icons for piece in site.pieces)))


def _entry_icons(site: Site) -> Iterator[str]:
    return (node.icon for menu in site.menus for node in walk(menu) if isinstance(node, Entry) and node.icon)


def brands_of(site: Site, shelf: Shelf) -> list[Brand]:
    """The marks of services that the site's pieces show."""
    found = {brand.slug: brand for item in items_of(site.pieces) for brand in item.brand_marks(shelf.brands)}
    return [found[slug] for slug in sorted(found)]


def _icon_rule(key: str, icon: str, drawing: str) -> Rule:
    svg = (
        "<svg xmlns='http://www.w3.org/2000/svg' viewBox='0 0 24 24' fill='none' stroke='#000' stroke-width='2'"
        f" stroke-linecap='round' stroke-linejoin='round'>{drawing}</svg>"
    )
    return Rule(f".{key}-icon-{icon}", {"mask-image": _as_address(svg)})


def _brand_rule(key: str, brand: Brand) -> Rule:
    svg = f"<svg xmlns='http://www.w3.org/2000/svg' viewBox='0 0 24 24'><path d='{brand.path}'/></svg>"
    return Rule(f".{key}-icon-brand-{brand.slug}", {"mask-image": _as_address(svg)})


def _as_address(svg: str) -> str:
    written = quote(svg.replace('"', "'"), safe=" /=:.,'")
    return f'url("data:image/svg+xml,{written}")'
