"""Is there anybody whom an audience takes in?

Kinds of conditions go by different things, so that each kind can be met by itself; of those of which one is enough each is
tried.
"""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any

from ..visitor import Looking, VisitorCard
from . import AUDIENCE_KINDS, AnyCondition
from .audience import Audience
from .condition import Around, Case


def somebody(audience: Audience, around: Around) -> VisitorCard | None:
    """A visitor whom it takes in; None where it can be nobody."""
    for one in audience.some or (None,):
        wanted = (*audience.every, *((one,) if one is not None else ()))
        said = _met(wanted, audience.none, around)
        if said is not None:
            return _card(said)
    return None


def _met(wanted: Iterable[AnyCondition], unwanted: Iterable[AnyCondition], around: Around) -> Case | None:
    found: Case = {}
    for kind in AUDIENCE_KINDS:
        asked, refused = ([one for one in some if isinstance(one, kind)] for some in (wanted, unwanted))
        if not (asked or refused):
            continue
        case = next((case for case in kind.cases(asked, refused, around) if _fits(case, asked, refused, around)), None)
        if case is None:
            return None
        found |= case
    if around.after is not None and "clock" not in found:
        found["clock"] = f"{around.after:%Y-%m-%dT%H:%MZ}"
    return found


def _fits(case: Case, asked: list[Any], refused: list[Any], around: Around) -> bool:
    looking = Looking(_card(case), around.languages, around.zone, around.node)
    return all(one.holds(looking) for one in asked) and not any(one.holds(looking) for one in refused)


def _card(said: Case) -> VisitorCard:
    return VisitorCard(id="vc-somebody", **said)
