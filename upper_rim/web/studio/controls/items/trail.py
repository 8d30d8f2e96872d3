"""With which controls is a breadcrumb trail changed?"""

from __future__ import annotations

from .....core.kinds.items.trail import SEPARATORS, Trail
from .....core.model.site import Site
from ..control import Group, choice, words


def groups(node: Trail, site: Site) -> list[Group]:
    ways = [("", "the pages’ paths")] + [(menu.id, f"menu {menu.name}") for menu in site.menus]
    signs = [(name, sign) for name, sign in SEPARATORS.items()]
    return [
        Group("Way", [choice(node, "menu", "Follows", ways), choice(node, "separator", "Between", signs)]),
        Group("Front page", words(node, "words", "Is called", site)),
    ]
