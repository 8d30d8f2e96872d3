"""With which controls is a float changed?"""

from __future__ import annotations

from .....core.kinds.pieces.float import Float
from .....core.model.site import Site
from ..control import Group, choice, px, yes

_PLACES = (
    ("top-start", "top, start"),
    ("top-center", "top, centre"),
    ("top-end", "top, end"),
    ("middle-start", "middle, start"),
    ("middle-end", "middle, end"),
    ("bottom-start", "bottom, start"),
    ("bottom-center", "bottom, centre"),
    ("bottom-end", "bottom, end"),
)


def groups(piece: Float, site: Site) -> list[Group]:
    return [
        Group("Place", [choice(piece, "place", "Stands", _PLACES), px(piece, "inset_px", "From the edges", 200)]),
        Group("Manner", [yes(piece, "fan", "Opens as a fan")]),
    ]
