"""With which controls is the field for a password changed?"""

from __future__ import annotations

from .....core.kinds.items.secret import PasswordField
from .....core.model.site import Site
from ..control import Group, words


def groups(node: PasswordField, site: Site) -> list[Group]:
    return [Group("Content", [*words(node, "words", "Name of the field", site)])]
