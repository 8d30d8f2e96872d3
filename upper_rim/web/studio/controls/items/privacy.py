"""With which controls is the way back to the question about consent changed?"""

from __future__ import annotations

from .....core.kinds.items.privacy import PrivacyChoices
from .....core.model.site import Site
from ..control import Group, choice, words
from .answer import LOOKS


def groups(node: PrivacyChoices, site: Site) -> list[Group]:
    return [Group("Content", [*words(node, "words", "Says", site), choice(node, "look", "Looks like", LOOKS)])]
