"""With which controls is a drawer changed?"""

from __future__ import annotations

from .....core.kinds.pieces.drawer import Drawer
from .....core.model.site import Site
from ..control import Control, Group


def groups(piece: Drawer, site: Site) -> list[Group]:
    most = len(piece.rows)
    above = Control("number", "Rows above", piece.id, "above", piece.above, unit=f"of {most}", least=0, greatest=most)
    return [Group("Around the entries", [above])]
