"""With which controls is a spacer changed?"""

from __future__ import annotations

from .....core.kinds.items.spacer import Spacer
from .....core.model.site import Site
from ..control import Group, px, yes


def groups(node: Spacer, site: Site) -> list[Group]:
    return [Group("Spacer", [px(node, "size_px", "Size", 1000), yes(node, "grows", "All that is left")])]
