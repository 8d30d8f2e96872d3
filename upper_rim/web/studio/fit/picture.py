"""The fit study's picture of a row: the room that it needs and the room there is, over the viewport's width, as SVG."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Sequence
from html import escape
from typing import NamedTuple

from ....core.fit.states import FAILING
from ....core.fit.sweep import FROM_PX, RowFit
from ....core.model.site import Band
from ..preview.fitting import language_name

WIDE, HIGH, LEFT, RIGHT, TOP, BOTTOM = 1180, 210, 46, 120, 14, 26
TO_PX = 1920
"""The picture ends where the ruler does."""
_DASHES = ("", "7 3", "2 3", "10 3 2 3", "5 2 1 2 1 2", "1 2")


Place = Callable[[float], float]
"""From px to a place in the picture."""


class Line(NamedTuple):
    """A language's need in a row, for the list beside the picture. `tight`: the widths, from and to, at which it is."""

    name: str
    dash: str
    fits_from_px: int | None
    tight: list[tuple[int, int]]
    estimate: bool
    missing: str


def lines_of(fits: Sequence[RowFit]) -> list[Line]:
    return [
        Line(
            language_name(fit.language),
            _DASHES[at % len(_DASHES)],
            fit.fits_from_px,
            [(one.from_px, one.to_px) for one in fit.stretches if one.state == "tight"],
            fit.is_estimate,
            fit.missing,
        )
        for at, fit in enumerate(fits)
    ]


def picture(fits: Sequence[RowFit], bands: Iterable[Band]) -> str:
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
    drawn.append(f'<path class="study-room" d="{room}"><title>Room there is</title></path>')
    names: list[tuple[float, str, str]] = []
    for at, fit in enumerate(fits):
        path, end = _need(fit, _DASHES[at % len(_DASHES)], x, y)
        if path:
            drawn.append(path)
            names.append((end, language_name(fit.language), "study-language"))
    if fits and fits[0].laid:
        last = [laid for laid in fits[0].laid if laid.from_px < TO_PX][-1]
        names.append((y(last.room_px(min(last.to_px, TO_PX))), "room", "study-room-name"))
    drawn += _names(names)
    return (
        f'<svg viewBox="0 0 {WIDE} {HIGH}" role="img" aria-label="Room needed and room there is, from {FROM_PX} to {TO_PX} px" '
        f'data-study="" data-from="{FROM_PX}" data-to="{TO_PX}" data-left="{LEFT / WIDE}" data-right="{(WIDE - RIGHT) / WIDE}">'
        f'{"".join(drawn)}<line class="study-at" x1="-9" x2="-9" y1="{TOP}" y2="{HIGH - BOTTOM}"/></svg>'
    )


def _ground(bands: list[Band], x: Place) -> Iterable[str]:
    for at, band in enumerate(bands):
        end = bands[at + 1].from_px if at + 1 < len(bands) else TO_PX
        if band.from_px >= TO_PX or end <= FROM_PX:
            continue
        start = x(band.from_px)
        yield (
            f'<rect class="study-band{" odd" if at % 2 else ""}" x="{start}" y="{TOP}" width="{round(x(end) - start, 1)}" height="{HIGH - TOP - BOTTOM}"/>'
            f'<text class="study-name" x="{start + 4}" y="{TOP + 12}">{escape(band.name)}</text>'
        )


def _failing(fits: Sequence[RowFit], x: Place) -> Iterable[str]:
    for fit in fits:
        for stretch in fit.stretches:
            if stretch.state not in FAILING or stretch.from_px >= TO_PX:
                continue
            start, end = x(stretch.from_px), x(stretch.to_px + 1)
            yield (
                f'<rect class="study-fails" x="{start}" y="{TOP}" width="{max(1.5, round(end - start, 1))}" height="{HIGH - TOP - BOTTOM}">'
                f"<title>{escape(language_name(fit.language))}: {stretch.state} from {stretch.from_px} to {stretch.to_px} px</title></rect>"
            )


def _axes(top: float, x: Place, y: Place) -> Iterable[str]:
    for px in range(320, TO_PX + 1, 160):
        yield (
            f'<line class="study-tick" x1="{x(px)}" x2="{x(px)}" y1="{HIGH - BOTTOM}" y2="{HIGH - BOTTOM + 4}"/>'
            f'<text class="study-number" x="{x(px)}" y="{HIGH - BOTTOM + 16}" text-anchor="middle">{px}</text>'
        )
    step = 100 if top <= 500 else 200 if top <= 1200 else 400
    for px in range(0, int(top) + 1, step):
        yield (
            f'<line class="study-line" x1="{LEFT}" x2="{WIDE - RIGHT}" y1="{y(px)}" y2="{y(px)}"/>'
            f'<text class="study-number" x="{LEFT - 6}" y="{y(px) + 4}" text-anchor="end">{px}</text>'
        )


def _need(fit: RowFit, dash: str, x: Place, y: Place) -> tuple[str, float]:
    """A language's line, and where it ends; an empty text where the row does not show."""
    path, end_y = "", 0.0
    for laid in fit.laid:
        if laid.from_px >= TO_PX:
            continue
        end = min(laid.to_px + 1, TO_PX)
        start_y, end_y = y(laid.need_px(laid.from_px)), y(laid.need_px(end))
        path += f"{'L' if path else 'M'}{x(laid.from_px)} {start_y}L{x(end)} {end_y}"
    if not path:
        return "", 0.0
    name = language_name(fit.language) + (" (estimate)" if fit.is_estimate else "")
    drawn = f'<path class="study-need" d="{path}" stroke-dasharray="{dash}"><title>{escape(name)}: room needed</title></path>'
    return drawn, end_y


def _names(names: Iterable[tuple[float, str, str]]) -> Iterable[str]:
    """Names at the ends of their lines, each at least a line of text below the one before."""
    before = -99.0
    for y, words, css_class in sorted(names):
        before = max(y, before + 13)
        yield f'<text class="{css_class}" x="{WIDE - RIGHT + 6}" y="{round(before + 4, 1)}">{escape(words)}</text>'
