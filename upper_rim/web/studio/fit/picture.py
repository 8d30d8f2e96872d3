"""The fit study's picture of a row: the room that it needs and the room there is, over the viewport's width, as SVG."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Sequence
from typing import NamedTuple

from ....core.fit.rows.states import FAILING
from ....core.fit.rows.sweep import FROM_PX, RowFit
from ....core.kinds.markup import Element, element
from ....core.model.site import Band
from ..preview.fitting import language_name
from ..preview.svg import shape, title, upright

WIDE, HIGH, LEFT, RIGHT, TOP, BOTTOM = 1180, 210, 46, 120, 14, 26
TO_PX = 1920
"""The picture ends where the ruler does."""
_DASHES = ("", "7 3", "2 3", "10 3 2 3", "5 2 1 2 1 2", "1 2")


_Place = Callable[[float], float]
"""From px to a place in the picture."""


class NeedLine(NamedTuple):
    """A language's need in a row, for the list beside the picture. `tight`: the widths, from and to, at which it is."""

    name: str
    dash: str
    fits_from_px: int | None
    tight: list[tuple[int, int]]
    estimate: bool
    missing: str


def lines_of(fits: Sequence[RowFit]) -> list[NeedLine]:
    return [
        NeedLine(
            language_name(fit.language),
            _DASHES[at % len(_DASHES)],
            fit.fits_from_px,
            [(one.from_px, one.to_px) for one in fit.stretches if one.state == "tight"],
            fit.is_estimate,
            fit.missing,
        )
        for at, fit in enumerate(fits)
    ]


def row_picture(fits: Sequence[RowFit], bands: Iterable[Band]) -> Element:
    """One row's, in all its languages. Bands are its ground; where it fails, the width is shaded."""
    highest = max(
        (max(laid.need_px(laid.from_px), laid.room_px(min(laid.to_px, TO_PX))) for fit in fits for laid in fit.laid),
        default=100.0,
    )
    top = max(200.0, -(-highest * 1.08 // 100) * 100)

    def x(px: float) -> float:
        return round(LEFT + (min(max(px, FROM_PX), TO_PX) - FROM_PX) / (TO_PX - FROM_PX) * (WIDE - LEFT - RIGHT), 1)

    def y(px: float) -> float:
        return round(HIGH - BOTTOM - min(px, top) / top * (HIGH - TOP - BOTTOM), 1)

    drawn = [*_ground(list(bands), x), *_failing(fits, x), *_axes(top, x, y)]
    room = "".join(
        f"M{x(laid.from_px)} {y(laid.room_px(laid.from_px))}L{x(laid.to_px + 1)} {y(laid.room_px(min(laid.to_px + 1, TO_PX)))}"
        for laid in (fits[0].laid if fits else ())
        if laid.from_px < TO_PX
    )
    drawn.append(shape("path", "study-room", title("Room there is"), d=room))
    names: list[tuple[float, str, str]] = []
    for at, fit in enumerate(fits):
        path, end = _need(fit, _DASHES[at % len(_DASHES)], x, y)
        if path is not None:
            drawn.append(path)
            names.append((end, language_name(fit.language), "study-language"))
    if fits and fits[0].laid:
        last = [laid for laid in fits[0].laid if laid.from_px < TO_PX][-1]
        names.append((y(last.room_px(min(last.to_px, TO_PX))), "room", "study-room-name"))
    drawn += _names(names)
    attributes = {
        "viewBox": f"0 0 {WIDE} {HIGH}",
        "role": "img",
        "aria-label": f"Room needed and room there is, from {FROM_PX} to {TO_PX} px",
        "data-study": "",
        "data-from": str(FROM_PX),
        "data-to": str(TO_PX),
        "data-left": str(LEFT / WIDE),
        "data-right": str((WIDE - RIGHT) / WIDE),
    }
    return element("svg", attributes, *drawn, upright("study-at", -9, TOP, HIGH - BOTTOM))


def _ground(bands: list[Band], x: _Place) -> Iterable[Element]:
    for at, band in enumerate(bands):
        end = bands[at + 1].from_px if at + 1 < len(bands) else TO_PX
        if band.from_px >= TO_PX or end <= FROM_PX:
            continue
        start, css_class = x(band.from_px), "study-band odd" if at % 2 else "study-band"
        yield shape("rect", css_class, x=start, y=TOP, width=round(x(end) - start, 1), height=HIGH - TOP - BOTTOM)
        yield shape("text", "study-name", band.name, x=start + 4, y=TOP + 12)


def _failing(fits: Sequence[RowFit], x: _Place) -> Iterable[Element]:
    for fit in fits:
        for stretch in fit.stretches:
            if stretch.state not in FAILING or stretch.from_px >= TO_PX:
                continue
            start, end = x(stretch.from_px), x(stretch.to_px + 1)
            name, width = language_name(fit.language), max(1.5, round(end - start, 1))
            told = title(f"{name}: {stretch.state} from {stretch.from_px} to {stretch.to_px} px")
            yield shape("rect", "study-fails", told, x=start, y=TOP, width=width, height=HIGH - TOP - BOTTOM)


def _axes(top: float, x: _Place, y: _Place) -> Iterable[Element]:
    for px in range(320, TO_PX + 1, 160):
        yield upright("study-tick", x(px), HIGH - BOTTOM, HIGH - BOTTOM + 4)
        yield shape("text", "study-number", str(px), x=x(px), y=HIGH - BOTTOM + 16, text_anchor="middle")
    step = 100 if top <= 500 else 200 if top <= 1200 else 400
    for px in range(0, int(top) + 1, step):
        yield shape("line", "study-line", x1=LEFT, x2=WIDE - RIGHT, y1=y(px), y2=y(px))
        yield shape("text", "study-number", str(px), x=LEFT - 6, y=y(px) + 4, text_anchor="end")


def _need(fit: RowFit, dash: str, x: _Place, y: _Place) -> tuple[Element | None, float]:
    """A language's line, and where it ends; None where the row does not show."""
    path, end_y = "", 0.0
    for laid in fit.laid:
        if laid.from_px >= TO_PX:
            continue
        end = min(laid.to_px + 1, TO_PX)
        start_y, end_y = y(laid.need_px(laid.from_px)), y(laid.need_px(end))
        path += f"{'L' if path else 'M'}{x(laid.from_px)} {start_y}L{x(end)} {end_y}"
    if not path:
        return None, 0.0
    name = language_name(fit.language) + (" (estimate)" if fit.is_estimate else "")
    return shape("path", "study-need", title(f"{name}: room needed"), d=path, stroke_dasharray=dash), end_y


def _names(names: Iterable[tuple[float, str, str]]) -> Iterable[Element]:
    """Names at the ends of their lines, each at least a line of text below the one before."""
    before = -99.0
    for y, words, css_class in sorted(names):
        before = max(y, before + 13)
        yield shape("text", css_class, words, x=WIDE - RIGHT + 6, y=round(before + 4, 1))
