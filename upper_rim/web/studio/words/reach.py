"""Why does a piece show on a page, or none, as a sentence's end?"""

from __future__ import annotations

from collections.abc import Iterable

from ....core.kinds.pieces.base import ReachRule
from ....core.model.site import Site
from ....core.reach.coverage import Outcome, Why, in_words
from .languages import language_name


def rule_in_words(rule: ReachRule, site: Site) -> str:
    """`everywhere`, `on pages in German`, `except on /fares/`."""
    return in_words(rule, site, language_name)


def reason(outcome: Outcome, site: Site) -> str:
    """An outcome as a sentence's end."""
    match outcome.why:
        case Why.BARE:
            return "nothing: the page is bare"
        case Why.NO_PLACE:
            return "nothing: pieces cannot be put into this page"
        case Why.NO_RULE:
            return "nothing: none of them shows here"
        case Why.EXCEPTED:
            return f"nothing: {rule_in_words(outcome.rule, site)}" if outcome.rule else "nothing"
        case Why.NOT_FOR_THEM:
            return f"nothing: {_for_others(outcome, site)}"
    assert outcome.piece is not None and outcome.rule is not None
    pieces = {piece.id: piece for piece in site.pieces}
    words = f"{outcome.piece.name}, {rule_in_words(outcome.rule, site)}"
    if outcome.beaten:
        other = pieces[outcome.beaten[0]]
        if outcome.why is Why.TIE:
            words += f"; as specific as {other.name}, but first in order"
        elif outcome.why is Why.NARROWER:
            words += f"; for fewer than {other.name}"
        else:
            words += f"; more specific than {other.name}"
    return f"{words}; {_for_others(outcome, site)}" if outcome.not_for_them else words


def _for_others(outcome: Outcome, site: Site) -> str:
    """The pieces that would have come first, and for whom they are."""
    pieces = {piece.id: piece for piece in site.pieces}
    said = (f"{pieces[one].name} is for {pieces[one].audience.in_words(language_name)}" for one in outcome.not_for_them)
    return "; ".join(said)


def by_bands(outcomes: Iterable[Outcome], site: Site) -> tuple[tuple[str, str], ...]:
    """In which width bands a slot has which outcome, each in words; bands with the same one are said together, and not
    at all where it is the same in all."""
    names = [band.name for band in site.bands] or [""]
    bands: dict[str, list[str]] = {}
    for name, outcome in zip(names, outcomes, strict=True):
        bands.setdefault(reason(outcome, site), []).append(name)
    if len(bands) == 1:
        return (("", next(iter(bands))),)
    return tuple((" and ".join(listed), why) for why, listed in bands.items())
