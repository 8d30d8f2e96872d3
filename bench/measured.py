"""One figure of a bench: what was got, what is asked, and a yardstick of the same run."""

from __future__ import annotations

import time
from collections.abc import Callable, Iterable
from typing import NamedTuple


class Measured(NamedTuple):
    """`got` and `asked` in `unit`, less is better; `asked` is None where nothing is. `yardstick`: what it is compared
    with, and how much that took in the same unit. A time is the best of several: what else a machine does only makes
    it longer, and beside others on one machine, at times, twice as long."""

    name: str
    got: float
    asked: float | None
    unit: str
    yardstick: tuple[str, float]

    @property
    def ratio(self) -> float:
        return self.got / self.yardstick[1]

    @property
    def is_short(self) -> bool:
        return self.asked is not None and self.got > self.asked


def timed(times: int, act: Callable[[], object]) -> float:
    """Milliseconds, the best of many."""
    found = []
    for _ in range(times):
        began = time.perf_counter()
        act()
        found.append(1000 * (time.perf_counter() - began))
    return min(found)


def table(measured: Iterable[Measured], *, headed: bool = True) -> str:
    lines = [f"{'':58} {'got':>9} {'asked':>9}        {'ratio':>8}  to its yardstick"] if headed else []
    for one in measured:
        asked = "" if one.asked is None else f"{one.asked:g}"
        short = "  short" if one.is_short else ""
        lines.append(
            f"{one.name:58} {one.got:9.1f} {asked:>9} {one.unit:6} {one.ratio:8.2f}  {one.yardstick[0]}{short}"
        )
    return "\n".join(lines)
