"""With which controls is a text with marks changed?"""

from __future__ import annotations

from .....core.kinds.items.rich import RichText
from .....core.model.site import Site
from ..control import Group, number, px, rich


def groups(node: RichText, site: Site) -> list[Group]:
    columns = [number(node, "column_count", "At most", "", 1, 3)]
    if node.column_count > 1:
        columns += [px(node, "column_px", "Each at least", 800), px(node, "column_gap_px", "Between", 200)]
    return [Group("Text", [rich(node, "rich", "Text", site)]), Group("Columns", columns)]
