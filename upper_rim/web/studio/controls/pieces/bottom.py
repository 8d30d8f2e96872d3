"""With which controls is a bottom bar changed?"""

from __future__ import annotations

from .....core.kinds.pieces.bottom import BottomBar
from .....core.model.site import Site
from ..control import Control, Group, note


def groups(piece: BottomBar, site: Site) -> list[Group]:
    height = Control("number", "Height", piece.id, "height_px", piece.height_px, unit="px", least=44, greatest=120)
    targets = len(site.shown_items(piece))
    few = "one target" if targets == 1 else f"{targets} targets"
    told = [] if 2 <= targets <= 5 else [note(piece, f"It has {few}. Two to five can be read and hit on a phone.")]
    return [Group("Bar", [height, *told])]
