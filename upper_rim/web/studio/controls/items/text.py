"""With which controls is a text changed?"""

from __future__ import annotations

from .....core.kinds.items.text import TextItem
from .....core.model.site import Site
from ..control import Group, words


def groups(node: TextItem, site: Site) -> list[Group]:
    return [Group("Content", list(words(node, "words", "Text", site)))]
