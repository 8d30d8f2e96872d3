"""The movement study's pictures, as SVG: what covers a screen along a way of scrolling, and the screen at a moment."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping, Sequence
from itertools import pairwise
from typing import NamedTuple

from ....core.kinds.markup import Element, element
from ....core.movement.play import Played, SeenPiece
from ....core.movement.scene import is_pinned
from ..preview.svg import shape, title, upright

WIDE, HIGH, LEFT, RIGHT, TOP, BOTTOM = 1180, 250, 46, 14, 16, 38
MOST_MOMENTS = 400
LETTER = 6.2
"""About how wide a letter of a label is."""


def way(points: Sequence[float]) -> list[float]:
    """Positions along a way, as many as a picture can show."""
    whole = sum(abs(end - start) for start, end in pairwise(points)) or 1.0
    found: list[float] = list(points[:1])
    for start, end in pairwise(points):
        count = max(1, round(MOST_MOMENTS * abs(end - start) / whole))
        found += [start + (end - start) * at / count for at in range(1, count + 1)]
    return found


_Place = Callable[[float], float]
"""From px to a place in the picture."""


class Turn(NamedTuple):
    """A point of a way as it is drawn: its place in the pad, and the position that it stands for."""

    x: float
    y: float
    px: int


class Pad(NamedTuple):
    """What a way is drawn on: positions downwards, one turn after the other to the right. `to_px`: at its lower
    edge."""

    wide: int
    high: int
    to_px: int
    turns: tuple[Turn, ...]

    @property
    def line(self) -> str:
        return " ".join(f"{turn.x},{turn.y}" for turn in self.turns)


def pad(points: Sequence[float], scrolls_px: float, wide: int = 240, high: int = 64, edge: int = 12) -> Pad:
    """`scrolls_px`: how far the page can be scrolled."""
    to = max(100.0, scrolls_px, *points)
    step = (wide - 2 * edge) / max(1, len(points) - 1)
    turns = (
        Turn(round(edge + at * step, 1), round(edge + px / to * (high - 2 * edge), 1), round(px))
        for at, px in enumerate(points)
    )
    return Pad(wide, high, round(to), tuple(turns))


def way_picture(played: Played, names: Mapping[str, str], colours: Mapping[str, int], width: int = WIDE) -> Element:
    """Along the way: each pinned piece's part of the screen, from its upper to its lower edge; dark where it was before
    anything is pinned. `colours`: a number for each piece."""
    wide, high = played.scene.viewport_px
    travelled = [0.0]
    for before, after in pairwise(played.scrolls):
        travelled.append(travelled[-1] + abs(after - before))
    whole = travelled[-1] or 1.0

    def x(px: float) -> float:
        return round(LEFT + px / whole * (width - LEFT - RIGHT), 1)

    def y(px: float) -> float:
        return round(TOP + min(max(px, 0.0), high) / high * (HIGH - TOP - BOTTOM), 1)

    drawn = [shape("rect", "study-screen", x=LEFT, y=TOP, width=width - LEFT - RIGHT, height=HIGH - TOP - BOTTOM)]
    for track in played.tracks:
        piece = track.body.piece
        if is_pinned(track.body) and track.body.width_px > wide / 2:
            area = _area(played, piece, [x(px) for px in travelled], y)
            drawn.append(shape("path", f"piece-{colours[piece]}", title(names[piece]), d=area))
    drawn += _turns(played, travelled, x)
    drawn += _events(played, travelled, names, x, width)
    left = [1 - share for share in played.covered()]
    told = f"From {min(left):.0%} to {max(left):.0%} of the screen are left to the content"
    attributes = {
        "viewBox": f"0 0 {width} {HIGH}",
        "role": "img",
        "aria-label": told,
        "data-left": str(LEFT / width),
        "data-right": str((width - RIGHT) / width),
    }
    return element("svg", attributes, *drawn, upright("study-at", LEFT, TOP, HIGH - BOTTOM))


def _area(played: Played, piece: str, xs: Sequence[float], y: _Place) -> str:
    """A piece's rectangle at each moment, joined into one shape for each time that it shows."""
    track = next(track for track in played.tracks if track.body.piece == piece)
    path, run = "", list[int]()
    for at, shown in enumerate([*track.shown, False]):
        if shown:
            run.append(at)
            continue
        if len(run) > 1:
            upper = [(xs[one], y(track.tops[one])) for one in run]
            lower = [
                (xs[one], y(track.tops[one] + track.body.standings[track.standings[one]].height_px)) for one in run
            ]
            path += "M" + "L".join(f"{px} {py}" for px, py in [*upper, *reversed(lower)]) + "Z"
        run = []
    return path


def _turns(played: Played, travelled: Sequence[float], x: _Place) -> Iterator[Element]:
    """The positions at the beginning, the end and where the way turns."""
    ys = played.scrolls
    marks = (
        [0] + [at for at in range(1, len(ys) - 1) if (ys[at] - ys[at - 1]) * (ys[at + 1] - ys[at]) < 0] + [len(ys) - 1]
    )
    for at in marks:
        anchor = "start" if at == 0 else "end" if at == len(ys) - 1 else "middle"
        place = x(travelled[at])
        yield upright("study-tick", place, TOP, HIGH - BOTTOM + 4)
        yield shape("text", "study-number", f"{ys[at]:.0f} px", x=place, y=HIGH - 8, text_anchor=anchor)


def _events(
    played: Played, travelled: Sequence[float], names: Mapping[str, str], x: _Place, width: int
) -> Iterator[Element]:
    before = -999.0
    for event in played.events():
        place = x(travelled[event.moment])
        said = (
            names.get(event.stage or "", "at rest") if event.what == "stage" else f"{names[event.piece]} {event.what}"
        )
        told = title(f"{names[event.piece]}: {said} at {event.scroll_px:.0f} px")
        yield upright("study-event", place, TOP, HIGH - BOTTOM, told)
        if place > before:
            wide = LETTER * len(said)
            fits = place + wide < width - RIGHT
            at, anchor = (place + 2, "start") if fits else (place - 2, "end")
            if fits or place - wide > before:
                yield shape("text", "study-name", said, x=at, y=HIGH - BOTTOM + 14, text_anchor=anchor)
                before = place + (wide if fits else 0)


def screen_picture(
    moment: Sequence[SeenPiece],
    pinned: Sequence[bool],
    viewport_px: tuple[float, float],
    names: Mapping[str, str],
    colours: Mapping[str, int],
    room: tuple[int, int] = (156, 170),
) -> Element:
    """The window at a moment, with the pieces in it: the pinned ones over the others. `room`: the greatest width and
    height that it may take."""
    wide_px, high_px = viewport_px
    scale = min(room[0] / wide_px, room[1] / high_px)
    wide, high = round(wide_px * scale, 1), round(high_px * scale, 1)
    drawn = []
    for _, seen in sorted(zip(pinned, moment, strict=True), key=lambda one: one[0]):
        top, bottom = max(0.0, seen.top_px), min(high_px, seen.top_px + seen.height_px)
        if not seen.shown or bottom <= top:
            continue
        place = {"x": seen.left_px, "y": top, "width": seen.width_px, "height": bottom - top}
        told = title(names[seen.piece] + (f": {names[seen.stage]}" if seen.stage else ""))
        scaled = {name: f"{px * scale:.1f}" for name, px in place.items()}
        drawn.append(shape("rect", f"piece-{colours[seen.piece]}", told, **scaled))
    size = {"width": str(wide), "height": str(high)}
    ground = shape("rect", "study-screen", x=0, y=0, width=wide, height=high)
    attributes = {"viewBox": f"0 0 {wide} {high}", **size, "class": "small-screen", "aria-hidden": "true"}
    return element("svg", attributes, ground, *drawn)
