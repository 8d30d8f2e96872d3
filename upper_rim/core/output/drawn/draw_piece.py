"""What does a piece look like from afar, at a width? Everything stands where fit says, in the colours that are
resolved."""

from __future__ import annotations

from collections.abc import Iterator

from ...fit.css.amount import Viewport, worked_out
from ...fit.css.boxes import BLOCK_END, BLOCK_START, INLINE_END, INLINE_START, Box, Frame
from ...fit.css.inline import Inline, InlineAround
from ...fit.css.linear import value
from ...fit.css.replaced import Field
from ...fit.markup.placed import Paints
from ...fit.rows.fitter import Fitter
from ...fit.text.faces import advances
from ...fit.text.ink import ink_em2
from ...kinds.pieces.base import Piece
from ...languages import direction
from ...model.site import Site
from ...style.lengths import NoLength, Room, pixels
from ...style.paint.colour import CLEAR, Palette, Rgba
from ...style.paint.painting import Painter, PaintView
from ...style.paint.pictures import Pictures
from ...style.resolve import StyledElement, Styling, styling_of
from ...values.properties import SIDES, arguments_of
from .shapes import Clipped, Drawing, Edge, Ground, IconShown, PictureShown, Rect, Shape, TextLine

LETTERS_EM = 0.5
"""How high letters are drawn: about the x-height of Latin faces."""
LINE_EM = 1 / 16
"""How thick a line under letters is, about, and never less than a px (CSS Text Decoration 4, 2.5)."""
_SEEN_HIGH_PX = 800.0


class PieceDrawer:
    """Draws the pieces of one site."""

    def __init__(self, site: Site, fitter: Fitter) -> None:
        self.site = fitter.resolved(site)
        self._fitter = fitter
        self._styling = styling_of(self.site)
        self._painter = Painter(self._styling)
        self._pictures = fitter.kept("pictures", self.site.assets, lambda: fitter.pictures(self.site))

    def draw(self, piece: Piece, language: str, width_px: int) -> Drawing | None:
        """As it is at rest; None where it does not show at that width."""
        viewport = Viewport(float(width_px), _SEEN_HIGH_PX)
        whole = self._fitter.whole(self.site, piece, language, viewport)
        if whole is None:
            return None
        view = PaintView("rest", whole.band, float(width_px))
        walk = _Walk(self._styling, self._painter, self._pictures, view, viewport)
        top = self._styling.elements[piece.id, "box"]
        walk.go(whole.frame, 0.0, 0.0, top, 1.0)
        width, height = value(whole.frame.width), value(whole.frame.height)
        shapes = walk.shapes
        if direction(language) == "rtl":
            shapes = [(_mirrored(shape, width), opacity) for shape, opacity in shapes]
        return Drawing(width, height, tuple(shapes))


def _mirrored(shape: Shape, width: float) -> Shape:
    rect = shape.rect._replace(left=width - shape.rect.left - shape.rect.width)
    if isinstance(shape, Clipped):
        return Clipped(rect, tuple((_mirrored(inner, width), opacity) for inner, opacity in shape.shapes))
    return shape._replace(rect=rect)


_NO_EDGE = Edge(0.0, CLEAR, "none")


class _Walk:
    """Through the frames of one piece, at a width. `shapes`: what is drawn, each with its opacity, the lowest first."""

    def __init__(
        self, styling: Styling, painter: Painter, pictures: Pictures, view: PaintView, viewport: Viewport
    ) -> None:
        self._styling, self._painter, self._pictures = styling, painter, pictures
        self._view, self._viewport = view, viewport
        self.shapes: list[tuple[Shape, float]] = []
        self._palette = Palette(styling.site)

    def go(self, frame: Frame, x: float, y: float, around: StyledElement, opacity: float) -> None:
        """Notes what is drawn of a frame at a place, and of all in it. `around`: what its own element, if it has one,
        stands in."""
        box = frame.box
        if not box.is_seen:
            return
        here = self._element(box, around)
        rect = Rect(x, y, value(frame.width), value(frame.height))
        if here is not around or box.node == around.piece:
            opacity *= float(self._painter.value(here, "opacity", self._view))
            self.shapes.append((self._ground(here, box, rect), opacity))
        elif any(box.border):
            self.shapes.append((self._sheet_border(here, box, rect), opacity))
        self.shapes += [(shape, opacity) for shape in self._content(frame, rect, here)]
        first = len(self.shapes)
        for inner_x, inner_y, kid in frame.kids:
            aside = self._aside(here, rect.width - value(kid.width)) if isinstance(box, InlineAround) else 0.0
            self.go(kid, x + value(inner_x) + aside, y + value(inner_y), here, opacity)
        within = tuple(self.shapes[first:])
        if box.clips and not all(rect.holds(shape.rect) for shape, _ in within):
            self.shapes[first:] = [(Clipped(rect, within), 1.0)]

    def _element(self, box: Box, around: StyledElement) -> StyledElement:
        """What is styled there; what is styled around it, where nothing is."""
        paints: Paints | None = box.paints
        if paints is not None and paints.part:
            element = self._styling.elements.get((paints.item, paints.part), around)
            within = self._styling.elements.get((paints.item, paints.within)) if paints.within else None
            return element._replace(parent=within) if within else element
        if box.part == "hinted":
            return around
        return self._styling.elements.get((box.node, "box"), around)

    def _ground(self, element: StyledElement, box: Box, rect: Rect) -> Ground:
        image = self._painter.value(element, "background-image", self._view)
        images = () if image == "none" else tuple(map(self._palette.resolved, arguments_of(image)))
        borders = tuple(self._edge(element, side, box, rect) for side in range(4))
        return Ground(
            rect, box.node, self._colour(element, "background-color"), images, self._radius(element, rect), borders
        )

    def _sheet_border(self, element: StyledElement, box: Box, rect: Rect) -> Ground:
        """Of what the shipped sheets alone draw a line around: in the colour of its text, with round ends."""
        ink = self._colour(element, "color")
        widths = (value(worked_out(width or 0.0, self._viewport, rect.width)) for width in box.border)
        edges = tuple(Edge(width, ink, "solid") for width in widths)
        return Ground(rect, "", CLEAR, (), rect.height / 2, edges)

    def _edge(self, element: StyledElement, side: int, box: Box, rect: Rect) -> Edge:
        width = value(worked_out(box.border[side] or 0.0, self._viewport, rect.width))
        if not width:
            return _NO_EDGE
        name = f"border-{SIDES[side]}"
        return Edge(
            width, self._colour(element, f"{name}-color"), self._painter.value(element, f"{name}-style", self._view)
        )

    def _colour(self, element: StyledElement, name: str) -> Rgba:
        return self._painter.colour(element, name, self._view)

    def _radius(self, element: StyledElement, rect: Rect) -> float:
        """One for all corners: the first's."""
        said = self._painter.value(element, "border-start-start-radius", self._view)
        if said == "0":
            return 0.0
        least = min(rect.width, rect.height)
        try:
            em = self._painter.font_px(element, self._view)
            return min(least / 2, pixels(said, Room(self._view.viewport_width, em_px=em, percent_px=least)))
        except NoLength:
            return 0.0

    def _content(self, frame: Frame, rect: Rect, here: StyledElement) -> Iterator[Shape]:
        box = frame.box
        paints: Paints | None = box.paints
        if paints is not None and paints.behind is not None:
            path, start, share = paints.behind
            place = Rect(rect.left + rect.width * start, rect.top, rect.width * share, rect.height)
            yield PictureShown(place, path, self._natural(path, place), "cover")
        if paints is not None and paints.picture:
            yield PictureShown(rect, paints.picture, self._natural(paints.picture, rect), paints.fits)
        if paints is not None and paints.icon:
            yield IconShown(rect, paints.icon, self._colour(here, "color"))
        if isinstance(box, Inline) and frame.lines and frame.baseline is not None:
            yield from self._lines(frame, box, rect, here)
        if isinstance(box, Field) and paints is not None:
            yield from self._placeholder(box, paints.placeholder, rect, here)

    def _aside(self, element: StyledElement, left: float) -> float:
        """How far a line is from where it would start, of what is left beside it (CSS Text 4, 6.1)."""
        share = {"center": 0.5, "end": 1.0}.get(self._painter.value(element, "text-align", self._view), 0.0)
        return max(0.0, left) * share

    def _natural(self, path: str, place: Rect) -> tuple[float, float]:
        picture = self._pictures(path)
        return (float(picture.width), float(picture.height)) if picture else (place.width, place.height)

    def _placeholder(self, box: Field, text: str, rect: Rect, here: StyledElement) -> Iterator[TextLine]:
        """What a field says while it is empty: on its first line, or in its middle where it has one."""
        kind, faces = box.type, box.faces
        if not text or kind is None or faces is None:
            return
        em = value(worked_out(kind.size, self._viewport, 0.0))
        found = advances(text, faces, kind.face, kind.weight, kind.italic, kind.stretch, False)
        width, high = sum(found.em) * em, LETTERS_EM * em
        start = value(box.edge(INLINE_START, self._viewport, rect.width))
        top = value(box.edge(BLOCK_START, self._viewport, rect.width)) if box.lines > 1 else (rect.height - high) / 2
        darkness = min(1.0, ink_em2(text, found.fonts) * em * em / max(1.0, width * high))
        colour = self._painter.colour(here, "color", self._view._replace(state="placeholder"))
        yield TextLine(Rect(rect.left + start, rect.top + top, width, high), colour, darkness)

    def _lines(self, frame: Frame, box: Inline, rect: Rect, here: StyledElement) -> Iterator[TextLine]:
        colour = self._colour(here, "color")
        paragraph, kind = box.paragraph, box.type
        assert paragraph is not None and kind is not None and frame.baseline is not None
        top, end, bottom, start = (
            value(box.edge(side, self._viewport, rect.width))
            for side in (BLOCK_START, INLINE_END, BLOCK_END, INLINE_START)
        )
        room = rect.width - start - end if box.breaks else value(paragraph.widths(self._viewport)[1])
        widths = paragraph.line_widths(room, self._viewport)
        em = value(worked_out(kind.size, self._viewport, 0.0))
        seen = widths[frame.skips : frame.skips + frame.lines] if box.breaks else widths
        high, pitch = LETTERS_EM * em, (rect.height - top - bottom) / len(seen)
        ink = ink_em2(paragraph.text, paragraph.fonts) * em * em
        if self._painter.value(here, "text-decoration-line", self._view) != "none":
            ink += sum(widths) * max(1.0, em * LINE_EM)
        darkness = min(1.0, ink / max(1.0, sum(widths) * high))
        baseline = rect.top + value(frame.baseline)
        for at, width in enumerate(seen):
            aside = self._aside(here, rect.width - start - end - width)
            yield TextLine(Rect(rect.left + start + aside, baseline + at * pitch - high, width, high), colour, darkness)
