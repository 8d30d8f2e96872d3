"""How did an old part share its room? Into lines below each other, and columns beside each other, by turns.

Boxes are cut where nothing stands across (the recursive X-Y cut of document analysis). Where both cuts can be made, the one
counts that parts what the page itself has in elements of their own; else the wider one.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from itertools import pairwise

from .measured import Measured
from .seen import Rect, Seen, around_all, is_painted, rect_of

_SIDES = ("top", "right", "bottom", "left")
SLACK_PX = 2.0
"""Boxes of text reach over each other by so much without being in each other's way."""


@dataclass(frozen=True)
class Lines:
    """Below each other."""

    within: tuple[Division, ...]
    box: Rect


@dataclass(frozen=True)
class Columns:
    """Beside each other."""

    within: tuple[Division, ...]
    box: Rect


@dataclass(frozen=True)
class Heap:
    """What stands over each other, in the order in which it is read."""

    within: tuple[Seen, ...]
    box: Rect


Division = Seen | Lines | Columns | Heap


def divided(seen: Sequence[Seen], measured: Measured) -> Division:
    """Raises ValueError where there is nothing."""
    if not seen:
        raise ValueError("nothing is seen")
    return _divided(seen, measured, {id(one): _painted_around(one, seen, measured) for one in seen})


def _painted_around(one: Seen, seen: Sequence[Seen], measured: Measured) -> Rect:
    """Where it stands, with the bar that it has for itself: what is across that is not beside it."""
    others = {part for other in seen if other is not one for part in other.parts}
    box = one.box
    holder = common_holder(one.parts, measured)
    for at in (holder, *measured.around(holder)):
        if at == 0 or not others.isdisjoint(measured.within(at)):
            break
        part = measured.parts[at]
        if is_painted(part.styles.get("background-color", "")) or any(
            part.px(f"border-{side}-width") for side in _SIDES
        ):
            box = around_all((box, rect_of(part)))
    return box


def _divided(seen: Sequence[Seen], measured: Measured, bars: Mapping[int, Rect]) -> Division:
    if len(seen) == 1:
        return seen[0]
    box = around_all(one.box for one in seen)
    lines = _cut(seen, bars, lambda rect: (rect.top, rect.bottom))
    columns = _cut(seen, bars, lambda rect: (rect.left, rect.right))
    if len(lines) == len(columns) == 1:
        return Heap(tuple(seen), box)
    if len(columns) == 1 or (len(lines) > 1 and _lines_first(lines, columns, measured)):
        return Lines(tuple(_divided(line, measured, bars) for line in lines), box)
    return Columns(tuple(_divided(column, measured, bars) for column in columns), box)


def _cut(
    seen: Sequence[Seen], bars: Mapping[int, Rect], span: Callable[[Rect], tuple[float, float]]
) -> list[list[Seen]]:
    groups: list[list[Seen]] = []
    end = float("-inf")
    for one in sorted(seen, key=lambda one: span(bars[id(one)])):
        start, stop = span(bars[id(one)])
        if groups and start < end - SLACK_PX:
            groups[-1].append(one)
        else:
            groups.append([one])
        end = max(end, stop)
    # In each group as it is read.
    place = {id(one): at for at, one in enumerate(seen)}
    return [sorted(group, key=lambda one: place[id(one)]) for group in groups]


def _lines_first(lines: list[list[Seen]], columns: list[list[Seen]], measured: Measured) -> bool:
    as_lines, as_columns = _stand_apart(lines, measured), _stand_apart(columns, measured)
    if as_lines != as_columns:
        return as_lines
    return _least_gap(lines, down=True) >= _least_gap(columns, down=False)


def _stand_apart(groups: list[list[Seen]], measured: Measured) -> bool:
    """Whether each group is in an element that holds nothing of the others, at least one of them holding several."""
    if all(len(group) == 1 for group in groups):
        return False
    every = {part for group in groups for one in group for part in one.parts}
    for group in groups:
        own = {part for one in group for part in one.parts}
        holder = common_holder(sorted(own), measured)
        if not own.isdisjoint({holder}) and len(own) == 1:
            continue
        inside = set(measured.within(holder)) | {holder}
        if (every - own) & inside:
            return False
    return True


def common_holder(parts: Sequence[int], measured: Measured) -> int:
    """The innermost element that holds all of them; itself, where it is one."""
    if len(parts) == 1:
        return parts[0]
    ways = [[*reversed([part, *measured.around(part)])] for part in parts]
    common = 0
    for steps in zip(*ways, strict=False):
        if len(set(steps)) > 1:
            break
        common = steps[0]
    return common


def _least_gap(groups: list[list[Seen]], *, down: bool) -> float:
    boxes = [around_all(one.box for one in group) for group in groups]
    return min(after.top - before.bottom if down else after.left - before.right for before, after in pairwise(boxes))


def all_seen(division: Division) -> list[Seen]:
    if isinstance(division, Seen):
        return [division]
    return [one for inner in division.within for one in all_seen(inner)]
