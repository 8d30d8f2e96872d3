"""What a visitor answered at a gate, and whether it still counts.

An answer counts for the visit or for so many days, and only to what was asked: where the gate's text or its question has
changed since, it is asked again.
"""

from __future__ import annotations

import hashlib
from datetime import datetime, timedelta
from typing import Literal, NamedTuple

Lapsed = Literal[
    "never answered", "another visit", "too long ago", "the question has changed", "the clock was set back"
]


class Given(NamedTuple):
    """`visit`: which visit it was given in, counted by the browser; `asked`: what was asked, in short (`in_short`)."""

    at: datetime
    visit: int
    asked: str


def in_short(*said: str) -> str:
    """What a gate asks, so that another question is another text: 16 hexadecimal digits of a SHA-256."""
    return hashlib.sha256("\0".join(said).encode()).hexdigest()[:16]


def lapsed(given: Given | None, asked: str, days: int, visit: int, now: datetime) -> Lapsed | None:
    """Why an answer does not count any more; None while it does. `days`: 0 for the visit alone."""
    if given is None:
        return "never answered"
    if given.asked != asked:
        return "the question has changed"
    if now < given.at:
        return "the clock was set back"
    if days == 0:
        return None if given.visit == visit else "another visit"
    return "too long ago" if now - given.at >= timedelta(days=days) else None
