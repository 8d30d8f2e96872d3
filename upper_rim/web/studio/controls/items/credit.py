"""With which controls is a credit changed?"""

from __future__ import annotations

from .....core.kinds.items.credit import Credit
from .....core.model.site import Site
from ..control import Group, leads_to, text, words


def groups(node: Credit, site: Site) -> list[Group]:
    return [
        Group(
            "Content", [*words(node, "words", "What they did", site), text(node, "who", "Who"), *leads_to(node, site)]
        )
    ]
