"""What lies behind a text? The page, and each element around it, painted one upon the other as a browser paints them
(CSS Backgrounds 3; Compositing and Blending 1).

What is painted is told apart from where: an element's coats are worked out once for a view, the colours of their images
at all points of a grid at once, and each combination of colours is composed once however many points show it.
"""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from typing import NamedTuple

from ...values.properties import arguments_of, picture_of
from ...values.styling import State
from ..lengths import Room, pixels
from ..resolve import StyledElement, Styling
from .colour import CLEAR, WHITE, Palette, Rgba, luminance, over, ratio_of, read_colour
from .grounds import GroundBox, gradient_at, places_in_tiles, tile_of
from .pictures import Picture, Pictures


class PaintView(NamedTuple):
    """For which state, band and viewport; `boxes` of elements by node where they are known, `text` the text's own.
    `opened`: what the text stands in, where that opens over the page."""

    state: State = "rest"
    band: str | None = None
    viewport_width: float = 1280.0
    boxes: Mapping[str, GroundBox] = {}
    text: GroundBox | None = None
    opened: StyledElement | None = None


class Image(NamedTuple):
    """One image of a ground: the layer as it is said, the box that it fills, one of its tiles, and how they repeat."""

    layer: str
    box: GroundBox
    tile: GroundBox
    repeat: str


class Coat(NamedTuple):
    """What one element paints beneath what it holds. `images`: the lowest first. `grouped`: it is painted by itself
    with all that it holds, and then upon what lies below."""

    colour: Rgba
    images: tuple[Image, ...] = ()
    image_blend: str = "normal"
    opacity: float = 1.0
    blend: str = "normal"
    grouped: bool = False

    @property
    def hides(self) -> bool:
        """Whether nothing below it is seen."""
        return self.colour.alpha == 1 and self.opacity == 1 and self.blend == "normal"

    @property
    def is_clear(self) -> bool:
        return self.colour.alpha == 0 and not self.images and not self.grouped


Coats = tuple[Coat, ...]
"""From the lowest up; the lowest is opaque."""

PaintSeen = tuple[Rgba, ...]
"""The colours of all images of some coats at one point."""


class PaintGrid(NamedTuple):
    """Points in px of the viewport: each of `across` with each of `down`."""

    across: tuple[float, ...]
    down: tuple[float, ...]


class Ground(NamedTuple):
    """A colour behind a text as a screen shows it, its relative luminance, and what it was composed of."""

    colour: Rgba
    luminance: float
    seen: PaintSeen


class Hardest(NamedTuple):
    """Where a text is read worst: the ratio, the text's colour as it is painted there, and the ground."""

    ratio: float
    colour: Rgba
    ground: Ground


_ROWS_HIGH = 64.0
_WINDOW_HIGH = 800.0
_POINTS_ACROSS, _POINTS_DOWN = 25, 9


class Painter:
    """Paints the elements of one site. Without `pictures` it is known where they lie, and not what they show."""

    def __init__(self, styling: Styling, pictures: Pictures | None = None) -> None:
        self._styling = styling
        self._palette = Palette(styling.site)
        self._pictures = pictures
        self._plain_colours: dict[tuple[StyledElement, str, State, str | None], str] = {}
        self._coats: dict[tuple[StyledElement, State, str | None, float, GroundBox, bool], Coat] = {}
        self._seen: dict[tuple[Image, PaintGrid], list[Rgba]] = {}
        self._grounds: dict[tuple[Coats, PaintGrid], list[Ground]] = {}
        self._hardest: dict[tuple[Coats, PaintGrid, Rgba], Hardest] = {}
        self._page = next((default.styles for default in styling.site.roles if default.role == "page"), ())

    def coats(self, element: StyledElement, view: PaintView) -> Coats:
        """From the page, or what it stands open upon, up to the element's own ground."""
        chain = _chain(element, view)
        whole = [self._page_coat(view)] if view.opened is None else self._opened_coats(view.opened, view)
        for one in chain:
            mine = view if one is element else view._replace(state="rest")
            whole.append(self._coat(one, mine, is_first=one is chain[0]))
        return _trimmed(whole)

    def coats_around(self, element: StyledElement, view: PaintView) -> Coats:
        """Without the element's own, in the same state."""
        return self.coats(element.parent or element, view)

    def grid(self, element: StyledElement, view: PaintView, coats: Coats) -> PaintGrid:
        """Where it is looked at: one point where every ground is plain, else a grid over the text."""
        box = view.text or self._box(element, view)
        images = [image for coat in coats for image in coat.images]
        if not images:
            return PaintGrid((box.left + box.width / 2,), (box.top + box.height / 2,))
        many_across, many_down = _POINTS_ACROSS, _POINTS_DOWN
        if any(picture_of(image.layer) for image in images):
            many_across = max(many_across, int(min(box.width, 600) / 3))
            many_down = max(many_down, int(min(box.height, 90) / 3))
        across = (box.left + 0.5 + (box.width - 1) * at / (many_across - 1) for at in range(many_across))
        down = (box.top + 0.5 + (box.height - 1) * at / (many_down - 1) for at in range(many_down))
        return PaintGrid(tuple(across), tuple(down))

    def seen(self, coats: Coats, grid: PaintGrid) -> list[PaintSeen]:
        """For every point, the colours of the coats' images there."""
        layers = [self._colours(image, grid) for coat in coats for image in coat.images]
        return list(zip(*layers, strict=True)) if layers else [()] * (len(grid.across) * len(grid.down))

    def grounds(self, coats: Coats, grid: PaintGrid) -> list[Ground]:
        """Every colour that occurs behind the text, once for each way in which it comes about."""
        if (coats, grid) not in self._grounds:
            found = []
            for seen in dict.fromkeys(self.seen(coats, grid)):
                colour = in_bytes(composed(coats, seen))
                found.append(Ground(colour, luminance(colour), seen))
            self._grounds[coats, grid] = found
        return self._grounds[coats, grid]

    def hardest(self, coats: Coats, grid: PaintGrid, text: Rgba) -> Hardest:
        """The worst of all points of the grid."""
        key = (coats, grid, text)
        if key not in self._hardest:
            self._hardest[key] = hardest(coats, text, self.grounds(coats, grid))
        return self._hardest[key]

    def is_pictured(self, coats: Coats) -> bool:
        """Whether a picture is seen in it."""
        return any(picture_of(image.layer) for coat in coats for image in coat.images)

    def value(self, element: StyledElement, name: str, view: PaintView) -> str:
        """What a property comes to, with references to swatches."""
        return self._styling.resolve(element, name, view.state, view.band).value

    def colour(self, element: StyledElement, name: str, view: PaintView) -> Rgba:
        """A colour, `currentcolor` followed up to where the text's own is said."""
        return read_colour(self._plain(element, name, view))

    def font_px(self, element: StyledElement, view: PaintView) -> float:
        """The text's size in px; `NoLength` where it depends on what only layout knows."""
        value, source = self._styling.resolve(element, "font-size", view.state, view.band)
        if source.layer == "inherited" or element.parent is None:
            em = 16.0
        else:
            em = self.font_px(element.parent, view._replace(state="rest"))
        return pixels(value, Room(view.viewport_width, em_px=em, percent_px=em))

    def _plain(self, element: StyledElement, name: str, view: PaintView) -> str:
        key = (element, name, view.state, view.band)
        if key not in self._plain_colours:
            self._plain_colours[key] = self._followed(element, name, view)
        return self._plain_colours[key]

    def _followed(self, element: StyledElement, name: str, view: PaintView) -> str:
        value = self._palette.resolved(self.value(element, name, view))
        if value.lower() != "currentcolor":
            return value
        if name != "color":
            return self._plain(element, "color", view)
        if element.parent is None:
            return "#000000"
        return self._plain(element.parent, "color", view._replace(state="rest"))

    def _box(self, element: StyledElement, view: PaintView) -> GroundBox:
        return view.boxes.get(element.node) or GroundBox(0, 0, view.viewport_width, _ROWS_HIGH)

    def _coat(self, element: StyledElement, view: PaintView, *, is_first: bool) -> Coat:
        """A piece, and whatever is translucent or blends, is painted by itself first."""
        box = self._box(element, view)
        key = (element, view.state, view.band, view.viewport_width, box, is_first)
        if key not in self._coats:
            self._coats[key] = self._painted_coat(element, view, box, is_first)
        return self._coats[key]

    def _painted_coat(self, element: StyledElement, view: PaintView, box: GroundBox, is_first: bool) -> Coat:
        opacity = math.floor(float(self.value(element, "opacity", view)) * 255 + 0.5) / 255
        blend = self.value(element, "mix-blend-mode", view)
        values = {name: self.value(element, name, view) for name in INITIAL_BACKGROUND}
        colour = self.colour(element, "background-color", view)
        images = self._images(values, box, view)
        grouped = is_first or opacity < 1 or blend != "normal"
        return Coat(colour, images, values["background-blend-mode"], opacity, blend, grouped)

    def _page_coat(self, view: PaintView) -> Coat:
        values = dict(INITIAL_BACKGROUND)
        colour = WHITE
        for style in self._page:
            if style.band in {None, view.band}:
                if style.property == "background-color":
                    colour = over(read_colour(self._palette.resolved(style.value)), WHITE)
                else:
                    values[style.property] = style.value
        images = self._images(values, GroundBox(0, 0, view.viewport_width, _WINDOW_HIGH), view)
        return Coat(colour, images, values["background-blend-mode"])

    def _opened_coats(self, element: StyledElement, view: PaintView) -> list[Coat]:
        """What opens stands over whatever there is: where it can be seen through, over white."""
        return [Coat(WHITE), self._coat(element, view._replace(state="rest"), is_first=True)]

    def _images(self, values: Mapping[str, str], box: GroundBox, view: PaintView) -> tuple[Image, ...]:
        said = self._palette.resolved(values["background-image"])
        if said == "none":
            return ()
        if values["background-attachment"] == "fixed":
            box = GroundBox(0, 0, view.viewport_width, _WINDOW_HIGH)
        images = []
        for layer in reversed(arguments_of(said)):
            path = picture_of(layer)
            picture = self._picture(path)
            if path is None or picture is not None or self._pictures is None:
                natural = (picture.width, picture.height) if picture else None
                tile = tile_of(values, box, natural, view.viewport_width)
                images.append(Image(layer, box, tile, values["background-repeat"]))
        return tuple(images)

    def _picture(self, path: str | None) -> Picture | None:
        return self._pictures(path) if path and self._pictures is not None else None

    def _colours(self, image: Image, grid: PaintGrid) -> list[Rgba]:
        """At every point of the grid; clear where the image is not painted."""
        if (image, grid) not in self._seen:
            self._seen[image, grid] = self._looked_up(image, grid)
        return self._seen[image, grid]

    def _looked_up(self, image: Image, grid: PaintGrid) -> list[Rgba]:
        tile = image.tile
        across, down = places_in_tiles(tile, image.repeat, image.box, grid.across, grid.down)
        picture = self._picture(picture_of(image.layer))
        if picture is not None:
            shares = (
                [None if at is None else at / tile.width for at in across],
                [None if at is None else at / tile.height for at in down],
            )
            return picture.at(*shares)
        return [
            CLEAR if x is None or y is None else gradient_at(image.layer, tile.width, tile.height, (x, y))
            for x in across
            for y in down
        ]


def composed(coats: Sequence[Coat], seen: PaintSeen, text: Rgba | None = None) -> Rgba:
    """The colour at a point; with that of a text upon the uppermost coat."""
    grounds, at = [], 0
    for coat in coats:
        ground = coat.colour
        for _ in coat.images:
            ground = over(seen[at], ground, coat.image_blend)
            at += 1
        grounds.append(ground)
    return _upon(coats, grounds, 0, CLEAR, text)


def _upon(coats: Sequence[Coat], grounds: Sequence[Rgba], at: int, below: Rgba, text: Rgba | None) -> Rgba:
    if at == len(coats):
        return below if text is None else over(text, below)
    coat = coats[at]
    painted = _upon(coats, grounds, at + 1, over(grounds[at], CLEAR if coat.grouped else below), text)
    if not coat.grouped:
        return painted
    return over(painted._replace(alpha=painted.alpha * coat.opacity), below, coat.blend)


def hardest(coats: Coats, text: Rgba, grounds: Sequence[Ground]) -> Hardest:
    """Of these grounds the one on which a text is read worst."""
    if text.alpha == 1 and not any(coat.grouped for coat in coats):
        colour = in_bytes(text)
        mine = luminance(colour)
        worst = min(grounds, key=lambda ground: ratio_of(mine, ground.luminance))
        return Hardest(ratio_of(mine, worst.luminance), colour, worst)
    written = ((in_bytes(composed(coats, ground.seen, text)), ground) for ground in grounds)
    compared = (Hardest(ratio_of(luminance(colour), ground.luminance), colour, ground) for colour, ground in written)
    return min(compared, key=lambda one: one.ratio)


def in_bytes(colour: Rgba) -> Rgba:
    """As a screen shows it: eight bits a channel."""
    red, green, blue, alpha = (round(channel * 255) / 255 for channel in colour)
    return Rgba(red, green, blue, alpha)


def _chain(element: StyledElement, view: PaintView) -> list[StyledElement]:
    """What is painted one upon the other. Of what stands in an opened part of its own item, only what is in that, too;
    rows that stand in it bring their own grounds along."""
    opened, chain = view.opened, [element]
    while (around := chain[0].parent) is not None:
        if opened is not None and element.piece == opened.piece and (around.node, around.part) == (opened.node, "box"):
            break
        chain.insert(0, around)
    return chain


def _trimmed(coats: Sequence[Coat]) -> Coats:
    """The same to the eye with as few coats as may be: without those that an opaque one hides, without empty ones, and
    in groups only where a group makes a difference."""
    whole = all(coat.opacity == 1 and coat.blend == "normal" for coat in coats)
    if whole:
        coats = [coat._replace(grouped=False) for coat in coats]
    lowest = 0
    for at, coat in enumerate(coats):
        if coat.opacity < 1 or coat.blend != "normal":
            break
        if coat.hides:
            lowest = at
    bottom = coats[lowest]._replace(grouped=False)
    return (bottom, *(coat for coat in coats[lowest + 1 :] if not coat.is_clear))


INITIAL_BACKGROUND = {
    "background-image": "none",
    "background-size": "auto",
    "background-repeat": "repeat",
    "background-position": "0% 0%",
    "background-attachment": "scroll",
    "background-blend-mode": "normal",
}
