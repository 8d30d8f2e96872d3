"""What is a piece drawn of, seen from afar? Grounds, lines of text, pictures and icons, the lowest first; in px."""

from __future__ import annotations

from typing import NamedTuple, TypeAlias

from ...style.paint.colour import Rgba


class Rect(NamedTuple):
    left: float
    top: float
    width: float
    height: float


class Ground(NamedTuple):
    """What lies behind something. `images`: gradients and pictures as CSS has them, the uppermost first; `borders` by
    side from the top clockwise, each a width and a colour; `node`: whose it is."""

    rect: Rect
    node: str
    colour: Rgba
    images: tuple[str, ...]
    radius: float
    borders: tuple[tuple[float, Rgba], ...]


class TextLine(NamedTuple):
    """One line of text, from its letters' top to its baseline. `darkness`: the share of that which is ink."""

    rect: Rect
    colour: Rgba
    darkness: float


class PictureShown(NamedTuple):
    rect: Rect
    path: str


class IconShown(NamedTuple):
    rect: Rect
    name: str
    colour: Rgba


Shape: TypeAlias = "Ground | TextLine | PictureShown | IconShown"


class Drawing(NamedTuple):
    """`shapes`: each with its opacity."""

    width: float
    height: float
    shapes: tuple[tuple[Shape, float], ...]
