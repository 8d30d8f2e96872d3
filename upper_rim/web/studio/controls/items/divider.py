"""With which controls is a divider changed?"""

from __future__ import annotations

from .....core.kinds.items.divider import Divider
from .....core.model.site import Site
from ..control import Group, yes


def groups(node: Divider, site: Site) -> list[Group]:
    return [Group("Divider", [yes(node, "upright", "Upright")])]
