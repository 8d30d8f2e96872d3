"""Between which places does each of some numbers move along a line?"""

from __future__ import annotations

from collections.abc import Callable, Sequence

EQUAL_PX = 0.05
MOST_BENDS = 8


def are_equal(some: Sequence[float], others: Sequence[float]) -> bool:
    return len(some) == len(others) and all(
        abs(one - other) <= EQUAL_PX for one, other in zip(some, others, strict=True)
    )


def _is_line(of: Callable[[float], Sequence[float]], low: float, high: float) -> bool:
    """Whether nothing between says otherwise, at two places that do not lie evenly."""
    first, last = of(low), of(high)
    return all(
        are_equal(
            of(low + (high - low) * at), [one + (other - one) * at for one, other in zip(first, last, strict=True)]
        )
        for at in (0.5, 0.3)
    )


def bends(of: Callable[[float], Sequence[float]], low: float, high: float, most: int = MOST_BENDS) -> list[float]:
    """Where numbers that move along lines between `low` and `high` change their slopes, in order."""
    if most <= 0 or high - low < 2.0 or _is_line(of, low, high):
        return []
    first, last, after, before = of(low), of(high), of(low + 1.0), of(high - 1.0)
    for at in range(len(first)):
        rises, goes_on = after[at] - first[at], last[at] - before[at]
        if abs(rises - goes_on) > 1e-6:
            # Where the lines of both ends meet, if there is just one bend.
            bend = low + (last[at] - first[at] - goes_on * (high - low)) / (rises - goes_on)
            if low + 1.0 < bend < high - 1.0:
                break
    else:
        bend = (low + high) / 2
    below = bends(of, low, bend, most - 1)
    return [*below, bend, *bends(of, bend, high, most - 1 - len(below))]
