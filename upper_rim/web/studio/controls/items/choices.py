"""With which controls are choices changed? What may be agreed to is the question's."""

from __future__ import annotations

from .....core.kinds.items.choices import Choices
from .....core.model.site import Site
from ..control import Group, note


def groups(node: Choices, site: Site) -> list[Group]:
    return [
        Group("Choices", [note(node, "What may be agreed to is said of the question itself, for all of the site.")])
    ]
