"""With which controls is a sidebar changed?"""

from __future__ import annotations

from .....core.kinds.pieces.sidebar import Sidebar
from .....core.model.site import Site
from .....core.style.type.faces import character_em
from .....core.style.type.scale import sidebar_needs_px
from .....shipped import shelf
from ..control import Control, Group, choice

_SIDES = (("start", "At the start"), ("end", "At the end"))


def groups(piece: Sidebar, site: Site) -> list[Group]:
    needs = sidebar_needs_px(site, character_em(site, shelf().faces), piece.width_px)
    narrow = (("before", "before the content"), ("after", "after the content"))
    width = Control(
        "number",
        "Content width",
        piece.id,
        "width_px",
        piece.width_px or "",
        unit="px",
        least=80,
        greatest=1000,
        hint=str(site.sidebar_px),
    )
    return [
        Group("Beside", [choice(piece, "side", "Stands", _SIDES), width]),
        Group(f"Below {needs} px", [choice(piece, "narrow", "Stands", narrow)]),
    ]
