"""Does everything that a site refers to exist, and is what must differ different?

Menus, swatches and bands that are referred to must be there. Pages may be missing: they come and go,
and what leads to a missing one is left out when the site is published.
"""

from __future__ import annotations

from typing import Any

from .edits import Refusal
from .site import Site
from .tree import walk
from .values import Node

SWATCH_FIELDS = ("ground", "ink", "accent", "line_below")


def broken_references(site: Site) -> Refusal | None:
    """The first reference in a site that leads nowhere, or pair that must differ and does not."""
    swatches = {swatch.id for swatch in site.swatches}
    bands = {band.id for band in site.bands}
    menus = {menu.id for menu in site.menus}
    for piece in site.pieces:
        for node in (piece, *walk(piece)):
            fault = _fault(node, swatches, bands, menus, piece.name)
            if fault is not None:
                return fault
    return _faulty_bands(site) or _doubled_path(site)


def _fault(node: Any, swatches: set[str], bands: set[str], menus: set[str], piece: str) -> Refusal | None:
    for field in SWATCH_FIELDS:
        used = getattr(node, field, None)
        if used is not None and used not in swatches:
            return Refusal(
                node=node.id,
                field=field,
                reason=f"“{piece}” uses a swatch that is not there; choose another one there first",
            )
    used_bands = {*getattr(node, "hidden_in", ()), getattr(node, "drawer_below", None)} - {None}
    if not used_bands <= bands:
        return Refusal(
            node=node.id,
            field="hidden_in",
            reason=f"“{piece}” uses a width band that is not there; choose another one there first",
        )
    menu = getattr(node, "menu", None)
    if menu is not None and menu not in menus:
        return Refusal(
            node=node.id,
            field="menu",
            reason=f"“{piece}” shows a menu that is not there; choose another one there first",
        )
    return None


def _faulty_bands(site: Site) -> Refusal | None:
    for before, after in zip(site.bands, site.bands[1:], strict=False):
        if before.from_px == after.from_px:
            return Refusal(
                node=after.id, field="from_px", reason=f"“{before.name}” already begins at {after.from_px} px"
            )
    if site.bands and site.bands[0].from_px != 0:
        return Refusal(node=site.bands[0].id, field="from_px", reason="the narrowest band begins at 0")
    return None


def _doubled_path(site: Site) -> Refusal | None:
    for nodes in (site.pages, site.assets):
        previous: Node | None = None
        for node in nodes:
            if previous is not None and previous.path == node.path:  # type: ignore[attr-defined]
                return Refusal(node=node.id, field="path", reason=f"there is already something at {node.path}")
            previous = node
    return None
