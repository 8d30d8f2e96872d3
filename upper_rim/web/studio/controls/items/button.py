"""With which controls is a button changed?"""

from __future__ import annotations

from .....core.kinds.items.button import ButtonItem
from .....core.model.site import Site
from ..control import Control, Group, leads_to, words

RANKS = (("first", "First button"), ("second", "Second button"))


def groups(node: ButtonItem, site: Site) -> list[Group]:
    return [
        Group("Content", [*words(node, "words", "Says", site), *leads_to(node, site)]),
        Group("Button", [Control("choice", "Rank", node.id, "rank", node.rank, RANKS)]),
    ]
