"""How wide is what a box holds, and how wide the whole, borders and padding counted? (CSS Box Model 3, CSS Sizing 3)"""

from __future__ import annotations

from typing import NamedTuple

from .lengths import NoLength, Room, pixels
from .paint.painting import Painter, PaintView
from .resolve import StyledElement, Styling


class Extent(NamedTuple):
    """Widths in px. `whole_px` and `content_px` are None where the width follows from the content itself."""

    whole_px: float | None
    content_px: float | None
    around_px: float


def extent(styling: Styling, element: StyledElement, band: str | None, viewport_width: float) -> Extent | None:
    """An element's widths at rest; None where its padding or border is relative to what only layout knows."""
    em = Painter(styling).font_px(element, PaintView("rest", band, viewport_width))

    def length(name: str) -> float:
        value = styling.resolve(element, name, "rest", band).value
        if "%" in value:
            raise NoLength(value)
        return pixels({"medium": "3px"}.get(value, value), Room(viewport_width, em_px=em))

    try:
        around = length("padding-inline-start") + length("padding-inline-end")
        for side in ("inline-start", "inline-end"):
            if styling.resolve(element, f"border-{side}-style", "rest", band).value != "none":
                around += length(f"border-{side}-width")
    except NoLength:
        return None
    try:
        whole = length("inline-size")
    except NoLength:
        return Extent(None, None, around)
    return Extent(whole, max(0.0, whole - around), around)
