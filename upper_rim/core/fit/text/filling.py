"""Which parts of a text stand on which line, in a given width, and at which width would that be otherwise?

Lines are filled one after the other; spaces at a line's end take no room (CSS Text 3, 4.1.2 and 5.1).
"""

from __future__ import annotations

from bisect import bisect_right
from typing import NamedTuple

from ..css.amount import Amount

_ATOM = 1e-7
"""More than is lost in reckoning."""


class Parts(NamedTuple):
    """A text between its break opportunities: ends of the parts, with and without the spaces behind them, counted from
    the text's beginning, in px or in em of `unit` as it is drawn. `seen`: where a line ends behind the part, with the
    hyphen that a soft one becomes there, even at the text's end; `whole`: all on one line; `least_seen`: the least of
    this part and those behind it; `longest`: the least width that it asks for; `widest`: the part that takes most on a
    line of its own. `within_word`: a break behind the part divides a word."""

    ends: tuple[float, ...]
    seen: tuple[float, ...]
    least_seen: tuple[float, ...]
    within_word: tuple[bool, ...]
    longest: float
    widest: float
    whole: float
    unit: Amount | None


class Lines(NamedTuple):
    number: int
    divides_a_word: bool


def lines_of(parts: Parts, room: float) -> list[tuple[int, int]]:
    """First and last part of each line."""
    lines = []
    first, offset = 0, 0.0
    least_seen, count = parts.least_seen, len(parts.seen)
    while first < count:
        behind = bisect_right(least_seen, offset + room + _ATOM, first)
        last = max(behind - 1, first)
        lines.append((first, last))
        offset = parts.ends[last]
        first = last + 1
    return lines


def filled(parts: Parts, room: float) -> Lines:
    """How many lines it takes, and whether one ends within a word."""
    lines = lines_of(parts, room)
    return Lines(len(lines), any(parts.within_word[last] for _, last in lines[:-1]))


def wider(parts: Parts, room: float, found: Lines) -> float | None:
    """The nearest greater width from which on the lines are others."""
    while found.number > 1:
        lines = lines_of(parts, room)
        starts = [0.0, *(parts.ends[last] for _, last in lines)]
        room = min(parts.least_seen[last + 1] - start for (_, last), start in zip(lines[:-1], starts, strict=False))
        if filled(parts, room) != found:
            return room
    return None


def narrower(parts: Parts, room: float, found: Lines) -> float | None:
    """The least width from which on the lines are these."""
    while room > parts.widest:
        lines = lines_of(parts, room)
        starts = [0.0, *(parts.ends[last] for _, last in lines)]
        room = max(parts.seen[last] - start for (_, last), start in zip(lines, starts, strict=False))
        room -= 10 * _ATOM
        if filled(parts, room) != found:
            return room
    return None
