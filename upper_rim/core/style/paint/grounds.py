"""What does a background image look like at a place: a gradient, or one tile of a picture?"""

from __future__ import annotations

import math
import re
from collections.abc import Callable, Iterable, Mapping
from functools import lru_cache
from itertools import pairwise
from typing import NamedTuple

from ...values.properties import gradient_of, words_of
from ..lengths import Room, pixels
from .colour import CLEAR, Rgba, read_colour


class GroundBox(NamedTuple):
    """In px of the viewport."""

    left: float
    top: float
    width: float
    height: float


def tile_of(
    values: Mapping[str, str], box: GroundBox, natural: tuple[float, float] | None, viewport_width: float
) -> GroundBox:
    """Size and place of one background image (CSS Backgrounds 3, 2.6 and 2.9)."""
    width, height = _tile_size(values["background-size"], box, natural, viewport_width)
    if values["background-repeat"] == "round":
        # A whole number of tiles along both axes.
        width, height = (
            room / max(1, math.floor(room / max(size, 0.01) + 0.5))
            for room, size in ((box.width, width), (box.height, height))
        )
    across, down = values["background-position"].split(" ")
    left = _placed(across, box.width - width, {"left": 0.0, "center": 0.5, "right": 1.0}, viewport_width)
    top = _placed(down, box.height - height, {"top": 0.0, "center": 0.5, "bottom": 1.0}, viewport_width)
    return GroundBox(box.left + left, box.top + top, max(width, 0.01), max(height, 0.01))


def _tile_size(
    size: str, box: GroundBox, natural: tuple[float, float] | None, viewport_width: float
) -> tuple[float, float]:
    if natural is None and size in {"auto", "cover", "contain"}:
        return box.width, box.height
    if size in {"cover", "contain"} and natural is not None:
        choose = max if size == "cover" else min
        scale = choose(box.width / natural[0], box.height / natural[1])
        return natural[0] * scale, natural[1] * scale
    words = (size.split(" ") * 2)[:2] if " " in size else [size, "auto"]
    width, height = (
        None if word == "auto" else pixels(word, Room(viewport_width, percent_px=whole))
        for word, whole in zip(words, (box.width, box.height), strict=True)
    )
    if natural is None:
        return width if width is not None else box.width, height if height is not None else box.height
    if width is None and height is None:
        return natural
    if width is None:
        return natural[0] * (height or 0) / natural[1], height or 0
    return width, height if height is not None else natural[1] * width / natural[0]


def _placed(word: str, left_over: float, words: Mapping[str, float], viewport_width: float) -> float:
    if word in words:
        return words[word] * left_over
    return pixels(word, Room(viewport_width, percent_px=left_over))


def places_in_tiles(
    tile: GroundBox, repeat: str, box: GroundBox, across: Iterable[float], down: Iterable[float]
) -> tuple[list[float | None], list[float | None]]:
    """Where in their tiles places along both axes lie; None where the image is not painted."""
    columns = [_in_row(x - box.left, tile.left - box.left, tile.width, box.width, repeat, "repeat-x") for x in across]
    rows = [_in_row(y - box.top, tile.top - box.top, tile.height, box.height, repeat, "repeat-y") for y in down]
    return columns, rows


def _in_row(at: float, first: float, size: float, room: float, repeat: str, own: str) -> float | None:
    """Where in its tile a place lies along one axis of the box (CSS Backgrounds 3, 2.4). `own`: the word that repeats
    along this axis alone."""
    if not 0 <= at <= room:
        return None
    if repeat == "space" and (number := math.floor(room / size + _EVEN)) > 1:
        within = at % (size + (room - number * size) / (number - 1))
        return within if within <= size else None
    if repeat in {"repeat", "round", own}:
        return (at - first) % size
    return at - first if 0 <= at - first <= size else None


_EVEN = 1e-9


def gradient_at(text: str, width: float, height: float, place: tuple[float, float]) -> Rgba:
    """The colour of a gradient at a place of its box (CSS Images 4, 3.1 and 3.2)."""
    along, stops = _measured(text, width, height)
    return _between_stops(stops, along(place))


class GradientDrawn(NamedTuple):
    """A gradient as SVG draws it (SVG 2, 14.2): along the line from `start` to `end`, or, where `radii` are said, out
    from `start`; in px of its box. `stops`: shares of that way and colours."""

    start: tuple[float, float]
    end: tuple[float, float]
    radii: tuple[float, float] | None
    stops: tuple[tuple[float, Rgba], ...]


def gradient_drawn(text: str, width: float, height: float) -> GradientDrawn:
    gradient = gradient_of(text)
    assert gradient is not None, "values are checked before they are kept"
    along, placed = _measured(text, width, height)
    kind, shape, _ = gradient
    _, length = (_line if kind == "linear" else _ray)(shape, width, height)
    stops = tuple((place / (length or 1.0), colour) for place, colour in placed)
    middle = (width / 2, height / 2)
    if kind == "linear":
        across, down = along((1.0, 0.0)) - along((0.0, 0.0)), along((0.0, 1.0)) - along((0.0, 0.0))
        start, end = (
            (middle[0] + sign * across * length / 2, middle[1] + sign * down * length / 2) for sign in (-1, 1)
        )
        return GradientDrawn(start, end, None, stops)
    centre, radii = _rays(shape, width, height)
    return GradientDrawn(centre, centre, radii, stops)


Along = Callable[[tuple[float, float]], float]


@lru_cache(maxsize=256)
def _measured(text: str, width: float, height: float) -> tuple[Along, list[tuple[float, Rgba]]]:
    """How far along the gradient's line a place lies, and where its stops are."""
    gradient = gradient_of(text)
    assert gradient is not None, "values are checked before they are kept"
    kind, shape, stops = gradient
    along, length = _line(shape, width, height) if kind == "linear" else _ray(shape, width, height)
    return along, _positions(stops, length)


_SIDES = {"to top": 0.0, "to right": 90.0, "to bottom": 180.0, "to left": 270.0}


def _line(shape: str, width: float, height: float) -> tuple[Along, float]:
    """Distance along the gradient line from its start, and the line's length."""
    if shape.endswith("deg"):
        angle = math.radians(float(shape[:-3]))
    elif shape in _SIDES or not shape:
        angle = math.radians(_SIDES.get(shape, 180.0))
    else:
        # To a corner: the line through the middle is such that the other two corners have the same colour.
        corner = math.atan2(height, width)
        turned = {
            "to top right": corner,
            "to bottom right": math.pi - corner,
            "to bottom left": math.pi + corner,
            "to top left": -corner,
        }
        angle = turned[shape]
    across, down = math.sin(angle), math.cos(angle)
    length = abs(width * across) + abs(height * down)
    return lambda place: (place[0] - width / 2) * across - (place[1] - height / 2) * down + length / 2, length


def _ray(shape: str, width: float, height: float) -> tuple[Along, float]:
    """Distance from the centre in terms of the ray to the right, and that ray's length."""
    (x, y), (across, down) = _rays(shape, width, height)
    flat = across / max(down, 0.001)
    return lambda place: math.hypot(place[0] - x, (place[1] - y) * flat), across


def _rays(shape: str, width: float, height: float) -> tuple[tuple[float, float], tuple[float, float]]:
    """The centre, and how far the farthest corner is in terms of the rays to the right and down."""
    at = re.search(r"at (\S+) (\S+)$", shape)
    horizontal = {"left": 0.0, "center": 0.5, "right": 1.0}
    vertical = {"top": 0.0, "center": 0.5, "bottom": 1.0}
    x = _placed(at[1], width, horizontal, width) if at else width / 2
    y = _placed(at[2], height, vertical, width) if at else height / 2
    far_x, far_y = max(x, width - x), max(y, height - y)
    if shape.startswith("circle"):
        far = math.hypot(far_x, far_y)
        return (x, y), (far, far)
    # An ellipse to the farthest corner has the proportions of the one to the farthest side.
    return (x, y), (far_x * math.sqrt(2), far_y * math.sqrt(2))


def _positions(stops: list[tuple[str, str | None]], length: float) -> list[tuple[float, Rgba]]:
    """Places of the stops in px along the line; those that say none are spread evenly (CSS Images 4, 3.5.3)."""
    places: list[float | None] = []
    for _, place in stops:
        if place is None:
            places.append(None)
        elif place.endswith("%"):
            places.append(float(place[:-1]) * length / 100)
        else:
            places.append(float(place[:-2]))
    if places[0] is None:
        places[0] = 0.0
    if places[-1] is None:
        places[-1] = length
    greatest = -math.inf
    for at, known in enumerate(places):
        if known is not None:
            greatest = max(greatest, known)
            places[at] = greatest
    at = 0
    while at < len(places):
        if places[at] is None:
            end = next(later for later in range(at, len(places)) if places[later] is not None)
            before, after = places[at - 1] or 0.0, places[end] or 0.0
            for between in range(at, end):
                places[between] = before + (after - before) * (between - at + 1) / (end - at + 1)
            at = end
        at += 1
    return [(place or 0.0, _stop_colour(colour)) for place, (colour, _) in zip(places, stops, strict=True)]


@lru_cache(maxsize=1024)
def _stop_colour(text: str) -> Rgba:
    return read_colour(" ".join(words_of(text)))


def _between_stops(stops: list[tuple[float, Rgba]], at: float) -> Rgba:
    """Colours are mixed in sRGB, premultiplied (CSS Images 4, 3.5.2)."""
    if at <= stops[0][0]:
        return stops[0][1]
    for (start, before), (end, after) in pairwise(stops):
        if at <= end:
            share = (at - start) / (end - start) if end > start else 1.0
            alpha = before.alpha + (after.alpha - before.alpha) * share
            if alpha == 0:
                return CLEAR
            red, green, blue = (
                (one * before.alpha * (1 - share) + other * after.alpha * share) / alpha
                for one, other in zip(before[:3], after[:3], strict=True)
            )
            return Rgba(red, green, blue, alpha)
    return stops[-1][1]
