"""With which controls is a footer changed?"""

from __future__ import annotations

from .....core.kinds.pieces.footer import Footer
from .....core.model.site import Site
from ..control import Group, yes


def groups(piece: Footer, site: Site) -> list[Group]:
    return [Group("Beneath", [yes(piece, "uncovered", "Uncovered by the page")])]
