"""With which controls are the fields for a date of birth changed?"""

from __future__ import annotations

from .....core.kinds.items.birth import BirthField
from .....core.model.site import Site
from ..control import Group, words


def groups(node: BirthField, site: Site) -> list[Group]:
    return [Group("Content", [*words(node, "words", "Name of the field", site)])]
