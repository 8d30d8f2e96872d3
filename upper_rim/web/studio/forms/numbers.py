"""Which numbers do a form and an address name? Whoever sends them may have made them up."""

from __future__ import annotations

from django.http import QueryDict

from ....core.fit.rows.sweep import FROM_PX, TO_PX

USUAL_PX = 1120
"""The stage's width until somebody sets it."""
PHONE_PX = 390
"""The same for what shows on small screens only."""
_MOST_DIGITS = 9


def whole_number(text: str) -> int | None:
    """None for all that is not digits, and for more of them than any of our numbers has."""
    return int(text) if text.isdecimal() and len(text) <= _MOST_DIGITS else None


def stage_width(*asked: QueryDict, usual: int = USUAL_PX) -> int:
    """In px: the first one named, within what the stage can show; else the `usual` one."""
    named = next((text for one in asked if (text := one.get("width", ""))), "")
    width = whole_number(named)
    return usual if width is None else min(TO_PX, max(FROM_PX, width))
