"""Why does a piece show on a page, or none, as a sentence's end?"""

from __future__ import annotations

from ....core.model.site import Site
from ....core.reach.coverage import Outcome, Why, in_words


def reason(outcome: Outcome, site: Site) -> str:
    """An outcome as a sentence's end."""
    match outcome.why:
        case Why.BARE:
            return "nothing: the page is bare"
        case Why.NO_PLACE:
            return "nothing: pieces cannot be put into this page"
        case Why.NO_RULE:
            return "nothing: no piece reaches this page"
        case Why.EXCEPTED:
            return f"nothing: {in_words(outcome.rule, site)}" if outcome.rule else "nothing"
    assert outcome.piece is not None and outcome.rule is not None
    names = {piece.id: piece.name for piece in site.pieces}
    words = f"{outcome.piece.name}, {in_words(outcome.rule, site)}"
    if outcome.why is Why.TIE:
        return f"{words}; as specific as {names[outcome.beaten[0]]}, but first in order"
    return f"{words}; more specific than {names[outcome.beaten[0]]}" if outcome.beaten else words
