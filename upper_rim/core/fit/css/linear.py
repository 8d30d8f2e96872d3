"""How does a length change with the viewport's width, and up to which width does it keep changing like that?

A layout is worked out at one width with numbers that know their slope. Whatever is decided on the way by comparing two
of them (a line is full, a least size counts, a track is frozen) holds until the difference changes its sign; the `Span`
remembers the nearest width at which any decision turns over. Up to there the layout is what it is, moved along its
slopes: the widths from 280 to 2560 px fall into a few spans, and each is worked out once.
"""

from __future__ import annotations

import math
from typing import TypeAlias

SLACK_PX = 1 / 64
"""Two lengths that differ by no more are equal: browsers lay out in 64ths of a px."""


_FLAT = 1e-12
"""A slope of no more is none: two lengths moved alike."""


class LinearSpan:
    """From a viewport width on, by how many px more the decisions taken so far hold. `bends`: whether some length in it
    is no line, but only touched by one at the start."""

    __slots__ = ("bends", "start", "until")

    def __init__(self, start: float) -> None:
        self.start = start
        self.until = float("inf")
        self.bends = False

    def ends_within(self, px: float) -> None:
        if px < self.until:
            self.until = max(px, 0.0)


class Linear:
    """A length of `at` px at the span's start that grows by `slope` px for each px of the viewport's width.

    Comparing it with a number or another one compares the values at the start, and shortens the span.
    """

    __slots__ = ("at", "slope", "span")

    def __init__(self, at: float, slope: float, span: LinearSpan) -> None:
        self.at = at
        self.slope = slope
        self.span = span

    def __repr__(self) -> str:
        return f"{self.at:g}{self.slope:+g}w"

    def __add__(self, other: Length) -> Length:
        if isinstance(other, Linear):
            slope = self.slope + other.slope
            at = self.at + other.at
            return Linear(at, slope, self.span) if slope > _FLAT or slope < -_FLAT else at
        return Linear(self.at + other, self.slope, self.span)

    __radd__ = __add__

    def __sub__(self, other: Length) -> Length:
        if isinstance(other, Linear):
            slope = self.slope - other.slope
            at = self.at - other.at
            return Linear(at, slope, self.span) if slope > _FLAT or slope < -_FLAT else at
        return Linear(self.at - other, self.slope, self.span)

    def __rsub__(self, other: float) -> Length:
        return Linear(other - self.at, -self.slope, self.span)

    def __mul__(self, factor: float) -> Length:
        return _made(self.at * factor, self.slope * factor, self.span)

    __rmul__ = __mul__

    def __truediv__(self, divisor: float) -> Length:
        return _made(self.at / divisor, self.slope / divisor, self.span)

    def __neg__(self) -> Length:
        return Linear(-self.at, -self.slope, self.span)

    def __gt__(self, other: Length) -> bool:
        if isinstance(other, Linear):
            value, slope = self.at - other.at, self.slope - other.slope
        else:
            value, slope = self.at - other, self.slope
        if value > 0:
            if slope < 0:
                self.span.ends_within(value / -slope)
            return True
        if slope > 0:
            self.span.ends_within(-value / slope)
        return False

    def __lt__(self, other: Length) -> bool:
        if isinstance(other, Linear):
            value, slope = self.at - other.at, self.slope - other.slope
        else:
            value, slope = self.at - other, self.slope
        if value < 0:
            if slope > 0:
                self.span.ends_within(-value / slope)
            return True
        if slope < 0:
            self.span.ends_within(value / -slope)
        return False

    def __ge__(self, other: Length) -> bool:
        return not self < other

    def __le__(self, other: Length) -> bool:
        return not self > other


Length: TypeAlias = float | Linear
"""A length in px: the same at all widths, or changing with the viewport's."""


def _made(at: float, slope: float, span: LinearSpan) -> Length:
    return Linear(at, slope, span) if slope > _FLAT or slope < -_FLAT else at


def value(length: Length) -> float:
    """In px, at the span's start."""
    return length.at if isinstance(length, Linear) else length


def slope_of(length: Length) -> float:
    return length.slope if isinstance(length, Linear) else 0.0


def whole(length: Length) -> float:
    """Rounded down, but more than nothing to no less than 1. Where it moves, up to the next step."""
    below = float(int(value(length)))
    # Asked for their sake: they shorten the span.
    _ = length >= below, length < below + 1
    return 0.0 if value(length) <= 0 else max(1.0, below)


def larger(one: Length, other: Length) -> Length:
    return other if other > one else one


def in_64ths(length: Length) -> Length:
    """The next 64th of a px, as browsers round up. Of a length that moves, the steps are left out."""
    return up_to_64ths(length) if isinstance(length, float) else length


def cut_to_64ths(length: Length) -> Length:
    """A length as browsers keep it: what is less than a 64th of a px is cut off. Of one that moves, the steps are left
    out."""
    return math.trunc(length * 64) / 64 if isinstance(length, float) else length


def up_to_64ths(px: float) -> float:
    return math.ceil(px * 64 - _ROUNDING) / 64


_ROUNDING = 0.01
"""In 64ths of a px: by so much sums of single precision, as browsers keep them, and ours differ."""


def smaller(one: Length, other: Length) -> Length:
    return other if other < one else one


def exceeds(one: Length, other: Length) -> bool:
    """Whether a length does not fit into another."""
    return one - other > SLACK_PX
