"""With which controls is changed what a gate says to an answer?"""

from __future__ import annotations

from .....core.kinds.items.told import Told
from .....core.model.site import Site
from ..control import Group, words


def groups(node: Told, site: Site) -> list[Group]:
    said = {"wrong": "To a wrong answer", "waiting": "After too many", "refused": "To a no"}
    return [Group("Content", [one for name, label in said.items() for one in words(node, name, label, site)])]
