"""With which controls is the way back to the top changed?"""

from __future__ import annotations

from .....core.kinds.items.top import BackToTop
from .....core.model.site import Site
from ..control import Group, px, words


def groups(node: BackToTop, site: Site) -> list[Group]:
    return [Group("Content", [*words(node, "words", "Says", site), px(node, "after_px", "Shows after", 10000)])]
