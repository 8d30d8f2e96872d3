"""Which tap targets are too small, or too close to another one?

WCAG 2.2, 2.5.8: a target is at least 24 by 24 CSS px; a smaller one passes where a circle of 24 px around its middle
meets neither another target nor the circle around another one that is too small.
"""

from __future__ import annotations

from collections.abc import Iterator
from math import hypot
from typing import NamedTuple

from ...kinds.items.answer import Answer
from ...kinds.items.base import BaseItem
from ...kinds.items.button import ButtonItem
from ...kinds.items.icon import IconLink
from ...kinds.items.logo import Logo
from ...kinds.items.privacy import PrivacyChoices
from ...kinds.items.text import TextItem
from ...kinds.items.top import BackToTop
from ...kinds.rows import Row
from ...values.targets import ToNothing
from ..css.boxes import Frame
from ..css.linear import value
from ..rows.sweep import RowFit, frame_at

LEAST_PX = 24.0
_PRESSED = frozenset({"entry", "opener", "branch", "profile", "link", "send", "field"})


def pressed_in(row: Row) -> frozenset[str]:
    """Ids of the items of a row that are one target as a whole."""
    return frozenset(item.id for cell in row.cells for item in cell.items if _is_pressed(item))


def _is_pressed(item: BaseItem) -> bool:
    if isinstance(item, TextItem):
        return not isinstance(item.target, ToNothing)
    return isinstance(item, Answer | BackToTop | ButtonItem | IconLink | Logo | PrivacyChoices)


class TouchTarget(NamedTuple):
    """Something that can be pressed, in px from its row's start corner."""

    node: str
    part: str
    x: float
    y: float
    width: float
    height: float

    @property
    def is_small(self) -> bool:
        return self.width < LEAST_PX - 0.01 or self.height < LEAST_PX - 0.01

    @property
    def middle(self) -> tuple[float, float]:
        return self.x + self.width / 2, self.y + self.height / 2


class Close(NamedTuple):
    """A target that is too small, at a width of a band: its size, and the one that it is too close to (empty: none is,
    and so it passes by its distance)."""

    node: str
    band: str | None
    at_px: int
    width_px: float
    height_px: float
    beside: str
    distance_px: float


def too_close(fit: RowFit, pressed: frozenset[str], height_px: float = 800.0) -> list[Close]:
    """Each node once for each band, at the narrowest width at which it is so. `pressed`: ids of items that are one target
    as a whole. Where nothing is small at a band's narrowest width, its others are not looked at."""
    found: list[Close] = []
    small_in: dict[str | None, bool] = {}
    for laid in fit.laid:
        if not small_in.get(laid.band, True):
            continue
        targets = list(_targets(frame_at(laid, laid.from_px, height_px), pressed))
        small_in.setdefault(laid.band, any(one.is_small for one in targets))
        known = {one.node for one in found if one.band == laid.band}
        found += [
            Close(small.node, laid.band, laid.from_px, round(small.width, 1), round(small.height, 1), *beside)
            for small in targets
            if small.is_small and small.node not in known and (beside := _nearest(small, targets)) is not None
        ]
    return found


def _targets(
    frame: Frame, pressed: frozenset[str], x: float = 0.0, y: float = 0.0, node: str = ""
) -> Iterator[TouchTarget]:
    box = frame.box
    node = box.node or node
    if (box.part in _PRESSED or (box.part == "" and box.node in pressed)) and value(frame.height) > 0:
        yield TouchTarget(node, box.part, x, y, value(frame.width), value(frame.height))
        return
    for kid_x, kid_y, kid in frame.kids:
        yield from _targets(kid, pressed, x + value(kid_x), y + value(kid_y), node)


def _nearest(small: TouchTarget, targets: list[TouchTarget]) -> tuple[str, float] | None:
    """The target that a small one's circle meets, and how far its middle is from it; None where it passes."""
    worst: tuple[str, float] | None = None
    for other in targets:
        if other is small:
            continue
        distance = _between(small.middle, other)
        circles = hypot(small.middle[0] - other.middle[0], small.middle[1] - other.middle[1])
        meets = distance < LEAST_PX / 2 or (other.is_small and circles < LEAST_PX)
        if meets and (worst is None or distance < worst[1]):
            worst = (other.node, round(distance, 1))
    return worst


def _between(point: tuple[float, float], target: TouchTarget) -> float:
    across = max(target.x - point[0], 0.0, point[0] - target.x - target.width)
    down = max(target.y - point[1], 0.0, point[1] - target.y - target.height)
    return hypot(across, down)
