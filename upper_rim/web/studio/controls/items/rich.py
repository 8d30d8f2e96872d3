"""With which controls is a text with marks changed?"""

from __future__ import annotations

from .....core.kinds.items.rich import RichText
from .....core.model.site import Site
from ..control import Group, rich


def groups(node: RichText, site: Site) -> list[Group]:
    return [Group(control.label, [control]) for control in rich(node, "rich", "Text", site)]
