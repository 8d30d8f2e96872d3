"""With which controls is a search field changed?"""

from __future__ import annotations

from .....core.kinds.items.search import SearchBox
from .....core.model.site import Site
from ..control import Group, words


def groups(node: SearchBox, site: Site) -> list[Group]:
    return [Group("Content", words(node, "words", "Its name", site))]
