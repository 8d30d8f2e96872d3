"""With which controls is a copyright line changed?"""

from __future__ import annotations

from .....core.kinds.items.copyright import Copyright
from .....core.model.site import Site
from ..control import Control, Group, words


def groups(node: Copyright, site: Site) -> list[Group]:
    years = Control("number", "First year", node.id, "first_year", node.first_year or "", least=1000, greatest=9999)
    return [Group("Content", [*words(node, "words", "Whose", site), years])]
