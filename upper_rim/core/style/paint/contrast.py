"""Can it be read? The contrast of text, edges and focus rings over what really lies behind them.

The worst point of the text's box counts. Thresholds are those of WCAG 2.2, 1.4.3 (text) and 1.4.11 (controls, focus
rings).
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator
from typing import Literal, NamedTuple

from coloraide import Color

from ...kinds.pieces.base import Piece
from ...model.site import Site
from ...values.styling import State
from ..lengths import NoLength
from ..resolve import FOCUSABLE, StyledElement, styling_of
from .colour import Rgba, contrast_ratio, over, read_colour, shifted
from .painting import Coats, Ground, Painter, PaintView, composed, hardest, in_bytes
from .pictures import Pictures
from .texts import ShownText, texts_of

TEXT, LARGE_TEXT, NON_TEXT = 4.5, 3.0, 3.0
LARGE_PX, LARGE_BOLD_PX, BOLD = 24.0, 18.66, 700


class Measured(NamedTuple):
    """The worst ratio found, what it was found between, and what WCAG asks for."""

    kind: Literal["text", "ring", "edge"]
    ratio: float
    needed: float
    colour: Rgba
    ground: Rgba

    @property
    def passes(self) -> bool:
        return self.ratio >= self.needed


def text_contrast(painter: Painter, element: StyledElement, view: PaintView) -> Measured:
    """The text's contrast at the worst point of its box."""
    return _text_on(painter, element, view, painter.coats(element, view))


def _text_on(painter: Painter, element: StyledElement, view: PaintView, coats: Coats) -> Measured:
    grid = painter.grid(element, view, coats)
    ratio, colour, ground = painter.hardest(coats, grid, painter.colour(element, "color", view))
    needed = LARGE_TEXT if _is_large(painter, element, view) else TEXT
    return Measured("text", ratio, needed, colour, ground.colour)


def ring_contrast(painter: Painter, element: StyledElement, view: PaintView) -> Measured | None:
    """The focus ring's, against what lies around the element; None where there is no ring."""
    focused = view._replace(state="focus")
    if (
        element.role not in FOCUSABLE
        or painter.value(element, "outline-style", focused) == "none"
        or element.parent is None
    ):
        return None
    inside = painter.value(element, "outline-offset", focused).startswith("-")
    colour = painter.colour(element, "outline-color", focused)
    coats = painter.coats(element, focused) if inside else painter.coats_around(element, focused)
    grounds = painter.grounds(coats, painter.grid(element, focused, coats))
    return _worst("ring", ((in_bytes(over(colour, ground.colour)), ground.colour) for ground in grounds))


def edge_contrast(painter: Painter, element: StyledElement, view: PaintView) -> Measured | None:
    """The control's own ground or border against what it stands on, the better of the two; None where it has
    neither."""
    if element.parent is None:
        return None
    own, around = painter.coats(element, view), painter.coats_around(element, view)
    grid = painter.grid(element, view, (*own, *around))
    seen = dict.fromkeys(zip(painter.seen(own, grid), painter.seen(around, grid), strict=True))
    painted = [(composed(own, mine), composed(around, behind)) for mine, behind in seen]
    found = []
    if painter.colour(element, "background-color", view).alpha > 0:
        found.append(painted)
    if painter.value(element, "border-block-end-style", view) != "none":
        colour = painter.colour(element, "border-block-end-color", view)
        found.append([(over(colour, behind), behind) for _, behind in painted])
    measured = [_worst("edge", ((in_bytes(one), in_bytes(other)) for one, other in pairs)) for pairs in found]
    return max(measured, key=lambda one: one.ratio, default=None)


def _worst(kind: Literal["ring", "edge"], pairs: Iterable[tuple[Rgba, Rgba]]) -> Measured:
    compared = (Measured(kind, contrast_ratio(colour, ground), NON_TEXT, colour, ground) for colour, ground in pairs)
    return min(compared, key=lambda one: one.ratio)


def _is_large(painter: Painter, element: StyledElement, view: PaintView) -> bool:
    try:
        size = painter.font_px(element, view)
    except NoLength:
        return False
    bold = int(painter.value(element, "font-weight", view)) >= BOLD
    return size >= LARGE_PX or (bold and size >= LARGE_BOLD_PX)


def passing_shade(painter: Painter, element: StyledElement, view: PaintView) -> str | None:
    """The text colour nearest to the present one, of the same hue, that passes everywhere; None where none does.

    Its OKLCH lightness is moved, and its chroma only as far as the gamut asks for it. It is looked for on the hardest
    grounds alone: where it fails on another, that one is taken in.
    """
    coats = painter.coats(element, view)
    grid = painter.grid(element, view, coats)
    needed = LARGE_TEXT if _is_large(painter, element, view) else TEXT
    present = painter.colour(element, "color", view)._replace(alpha=1.0)
    hard: list[Ground] = []
    shade: str | None = present.css
    while shade is not None:
        ratio, _, ground = painter.hardest(coats, grid, read_colour(shade))
        if ratio >= needed:
            return shade
        hard.append(ground)
        shade = _nearest(present, lambda tried: hardest(coats, read_colour(tried), hard).ratio >= needed)
    return None


def _nearest(present: Rgba, passes: Callable[[str], bool]) -> str | None:
    """The shade by the least change of lightness that passes; None where neither black nor white does."""
    lightness = float(Color(present.css).convert("oklch").get("lightness", nans=False))
    found: list[tuple[float, str]] = []
    for end in (-lightness, 1 - lightness):
        if not passes(shifted(present.css, end)):
            continue
        near, far = 0.0, end
        for _ in range(14):
            middle = (near + far) / 2
            near, far = (near, middle) if passes(shifted(present.css, middle)) else (middle, far)
        found.append((abs(far), shifted(present.css, far)))
    return min(found)[1] if found else None


class Weak(NamedTuple):
    """A text that fails: in a state, in width bands (None where the site has none), and the shade that would pass.
    `node`: whose text it is, also where the element is nothing but its role there."""

    element: StyledElement
    state: State
    bands: tuple[str | None, ...]
    measured: Measured
    shade: str | None
    node: str
    is_opened: bool

    @property
    def styled(self) -> str:
        """What a colour for it is said of: the node, or its piece's defaults for its role."""
        return self.node if self.element.node else f"role:{self.element.role}@{self.element.piece}"


def weak_texts(site: Site, pictures: Pictures) -> Iterator[Weak]:
    """All texts that fail WCAG 2.2, 1.4.3: every one in a piece, in every state and band."""
    styling = styling_of(site)
    painter = Painter(styling, pictures)
    widths = _looked_at(site)
    told: set[tuple[str, StyledElement, State]] = set()
    for node, element, states, opened in texts_of(site, styling):
        for state in states:
            views = [PaintView(state, band, width, opened=opened) for band, width in widths.items()]
            failing = [(view, found) for view in views if not (found := text_contrast(painter, element, view)).passes]
            if failing and (node, element, state) not in told:
                told.add((node, element, state))
                view, worst = min(failing, key=lambda one: one[1].ratio)
                bands = tuple(one.band for one, _ in failing)
                shade = passing_shade(painter, element, view)
                yield Weak(element, state, bands, worst, shade, node, opened is not None)


def _looked_at(site: Site) -> dict[str | None, float]:
    """For each band a width of the viewport at which texts are looked at."""
    return {band.id: max(320.0, band.from_px) for band in site.bands} or {None: 1280.0}


class Glimpse(NamedTuple):
    """What is seen at once of a node's texts: of those on plain grounds the worst that fails, and whether a picture
    lies behind one."""

    failing: Measured | None
    is_pictured: bool


class Glimpses:
    """Of a piece's texts, in every state and band. Whether text over a picture can be read is not asked: that takes its
    time."""

    def __init__(self, site: Site, piece: Piece) -> None:
        styling = styling_of(site)
        self._painter = Painter(styling)
        self._widths = _looked_at(site)
        self._texts: dict[str, list[ShownText]] = {}
        for text in texts_of(site, styling, piece.id):
            self._texts.setdefault(text.node, []).append(text)

    def of(self, node: str) -> Glimpse:
        failing: Measured | None = None
        pictured = False
        for _, element, states, opened in self._texts.get(node, ()):
            for view in (
                PaintView(state, band, width, opened=opened) for state in states for band, width in self._widths.items()
            ):
                coats = self._painter.coats(element, view)
                if not any(coat.images for coat in coats):
                    found = _text_on(self._painter, element, view, coats)
                    if not found.passes and (failing is None or found.ratio < failing.ratio):
                        failing = found
                elif self._painter.is_pictured(coats):
                    pictured = True
        return Glimpse(failing, pictured)
