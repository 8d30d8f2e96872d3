"""What is a piece drawn of, seen from afar? Grounds, lines of text, pictures and icons, the lowest first; in px."""

from __future__ import annotations

from typing import NamedTuple, TypeAlias

from ...style.paint.colour import Rgba


class Rect(NamedTuple):
    left: float
    top: float
    width: float
    height: float

    def holds(self, other: Rect) -> bool:
        across = self.left <= other.left and other.left + other.width <= self.left + self.width
        return across and self.top <= other.top and other.top + other.height <= self.top + self.height


class Edge(NamedTuple):
    """A border at one side; `style` as CSS has it."""

    width: float
    colour: Rgba
    style: str


class Ground(NamedTuple):
    """What lies behind something. `images`: gradients and pictures as CSS has them, the uppermost first; `borders` by
    side from the top clockwise; `node`: whose it is."""

    rect: Rect
    node: str
    colour: Rgba
    images: tuple[str, ...]
    radius: float
    borders: tuple[Edge, ...]


class TextLine(NamedTuple):
    """One line of text, from its letters' top to its baseline. `darkness`: the share of that which is ink."""

    rect: Rect
    colour: Rgba
    darkness: float


class PictureShown(NamedTuple):
    """`natural`: its own width and height in px; `fits`: how it fills its place (CSS Images 3, 5.5)."""

    rect: Rect
    path: str
    natural: tuple[float, float]
    fits: str


class IconShown(NamedTuple):
    rect: Rect
    name: str
    colour: Rgba


class Clipped(NamedTuple):
    """Shapes, each with its opacity, of which nothing shows out of a rectangle."""

    rect: Rect
    shapes: tuple[tuple[Shape, float], ...]


Shape: TypeAlias = "Ground | TextLine | PictureShown | IconShown | Clipped"


class Drawing(NamedTuple):
    """`shapes`: each with its opacity."""

    width: float
    height: float
    shapes: tuple[tuple[Shape, float], ...]
