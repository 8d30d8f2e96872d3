"""With which controls is an answer at a gate changed?"""

from __future__ import annotations

from .....core.kinds.items.answer import Answer
from .....core.kinds.pieces.consent import ConsentQuestion
from .....core.model.site import Site
from ..control import Group, choice, words

_ANSWERS = (("yes", "yes"), ("no", "no"), ("ticked", "yes to what is ticked"))
LOOKS = (("first", "First button"), ("second", "Second button"), ("link", "Link"))


def groups(node: Answer, site: Site) -> list[Group]:
    return [
        Group("Content", [*words(node, "words", "Says", site)]),
        Group(
            "Answer", [choice(node, "says", "It is a", _answers(node, site)), choice(node, "look", "Looks like", LOOKS)]
        ),
    ]


def _answers(node: Answer, site: Site) -> tuple[tuple[str, str], ...]:
    """Only where something may be ticked can that be the answer."""
    asks = any(node in site.shown_items(piece) for piece in site.pieces if isinstance(piece, ConsentQuestion))
    return _ANSWERS if asks or node.says == "ticked" else _ANSWERS[:2]
