"""With which controls is a text changed?"""

from __future__ import annotations

from .....core.kinds.items.text import TextItem
from .....core.model.site import Site
from ..control import Group, leads_to, words


def groups(node: TextItem, site: Site) -> list[Group]:
    return [Group("Content", [*words(node, "words", "Text", site), *leads_to(node, site)])]
