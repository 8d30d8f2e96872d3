"""What does a site begin with, and which steps from there to its first edition are done?"""

from __future__ import annotations

from typing import NamedTuple

from ..kinds.items.menu import MenuItem
from ..kinds.pieces.bottom import BottomBar
from ..values.styling import Swatch
from .arrangements.arranging import NewId
from .site import Band, Site
from .tree import items_of

_SWATCHES = (("Paper", "#ffffff", "ground"), ("Ink", "#1f2a30", "ink"), ("Accent", "#2f6f62", "accent"))


def blank_site(name: str, key: str, new_id: NewId) -> Site:
    """What a new site has from the start: three colours and two width bands, all to be changed."""
    return Site(
        key=key,
        name=name,
        swatches=tuple(
            Swatch.model_validate({"id": new_id("sw"), "name": swatch, "colour": colour, "role": role})
            for swatch, colour, role in _SWATCHES
        ),
        bands=(Band(id=new_id("bd"), name="Narrow", from_px=0), Band(id=new_id("bd"), name="Wide", from_px=900)),
    )


class Steps(NamedTuple):
    """Each is true where it is done."""

    pages: bool
    ground: bool
    menu: bool
    header: bool
    footer: bool
    small_screens: bool


def steps_done(site: Site) -> Steps:
    """`ground`: its colours or its type are no longer those that every site begins with. `small_screens`: a menu's
    button, or a bar for phones."""
    begun = [swatch[:2] for swatch in _SWATCHES]
    fields = type(site).model_fields
    plain_type = all(
        getattr(site, name) == fields[name].default for name in ("face", "heading_face", "text_px", "ratio")
    )
    kinds = {piece.kind for piece in site.pieces if piece.on}
    buttons = (item for item in items_of(site.pieces) if isinstance(item, MenuItem) and item.has_button)
    return Steps(
        bool(site.pages),
        not plain_type or [(swatch.name, swatch.colour) for swatch in site.swatches] != begun,
        any(menu.entries or menu.grows for menu in site.menus),
        "header" in kinds,
        "footer" in kinds,
        any(isinstance(piece, BottomBar) for piece in site.pieces) or next(buttons, None) is not None,
    )
