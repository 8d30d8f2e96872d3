"""With which controls is a list of links changed?"""

from __future__ import annotations

from .....core.kinds.items.links import LinkList
from .....core.model.site import Site
from ..control import Group, words
from .menu import menu_use


def groups(node: LinkList, site: Site) -> list[Group]:
    return [Group("Content", words(node, "words", "Title", site)), Group("Menu", menu_use(node, site))]
