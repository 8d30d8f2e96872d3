"""With which controls is an answer at a gate changed?"""

from __future__ import annotations

from .....core.kinds.items.answer import Answer
from .....core.model.site import Site
from ..control import Group, choice, words

_ANSWERS = (("yes", "yes"), ("no", "no"))
_LOOKS = (("first", "First button"), ("second", "Second button"), ("link", "Link"))


def groups(node: Answer, site: Site) -> list[Group]:
    return [
        Group("Content", [*words(node, "words", "Says", site)]),
        Group("Answer", [choice(node, "says", "It is a", _ANSWERS), choice(node, "look", "Looks like", _LOOKS)]),
    ]
