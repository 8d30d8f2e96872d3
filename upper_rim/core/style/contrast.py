"""Can it be read? The contrast of text, edges and focus rings over what really lies behind them.

Everything between the page and the text is painted as a browser paints it (Compositing and Blending 1), at points of the
text's box; the worst point counts. Thresholds are those of WCAG 2.2, 1.4.3 (text) and 1.4.11 (controls, focus rings).
"""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator, Mapping
from typing import Any, Literal, NamedTuple

from coloraide import Color

from ..model.items import Contact, Form, LinkList, MapItem, MenuItem, Pager, Posts, RichText, SearchBox, Trail
from ..model.properties import arguments_of, picture_of
from ..model.site import Drawer, Float, Piece, Site
from ..model.styling import STATES_OF, State
from ..model.tree import items_of
from .colour import CLEAR, WHITE, Palette, Rgba, contrast_ratio, over, read_colour, shifted
from .grounds import Box, gradient_at, place_in_tile, tile_of
from .lengths import NoLength, Room, pixels
from .pictures import Picture
from .resolve import FOCUSABLE, Element, Styling, elements_of

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


class View(NamedTuple):
    """For which state, band and viewport; `boxes` of elements by node where they are known, `text` the text's own.
    `opened`: the element whose ground is painted behind what it opens, where the text stands in that."""

    state: State = "rest"
    band: str | None = None
    viewport_width: float = 1280.0
    boxes: Mapping[str, Box] = {}
    text: Box | None = None
    opened: Element | None = None


Pictures = Callable[[str], Picture | None]
"""A picture of the site's by its path; None where there is none or it cannot be decoded."""

_ROWS_HIGH = 64.0
_POINTS_ACROSS, _POINTS_DOWN = 25, 9


class Painter:
    """Paints the elements of one site at single points."""

    def __init__(self, styling: Styling, pictures: Pictures = lambda path: None) -> None:
        self._styling = styling
        self._palette = Palette(styling.site)
        self._pictures = pictures
        self._known: dict[tuple[Element, str, State, str | None], str] = {}
        self._page = next((default.styles for default in styling.site.roles if default.role == "page"), ())

    def text_contrast(self, element: Element, view: View) -> Measured:
        """The text's contrast at the worst point of its box."""
        needed = LARGE_TEXT if self._is_large(element, view) else TEXT
        return self._worst("text", element, view, needed, lambda point: self._pair(element, view, point))

    def ring_contrast(self, element: Element, view: View) -> Measured | None:
        """The focus ring's, against what lies around the element; None where there is no ring."""
        focused = view._replace(state="focus")
        if (
            element.role not in FOCUSABLE
            or self._value(element, "outline-style", focused) == "none"
            or element.parent is None
        ):
            return None
        inside = self._value(element, "outline-offset", focused).startswith("-")
        colour = self._colour(element, "outline-color", focused)

        def pair(point: tuple[float, float]) -> tuple[Rgba, Rgba]:
            around = self._painted(element if inside or element.parent is None else element.parent, focused, point)
            return over(colour, around), around

        return self._worst("ring", element, focused, NON_TEXT, pair)

    def edge_contrast(self, element: Element, view: View) -> Measured | None:
        """The control's own ground or border against what it stands on, the better of the two; None where it has neither."""
        if element.parent is None:
            return None
        parent = element.parent
        found = []
        if read_colour(self._plain(element, "background-color", view)).alpha > 0:
            found.append(lambda point: (self._painted(element, view, point), self._painted(parent, view, point)))
        if self._value(element, "border-block-end-style", view) != "none":
            colour = self._colour(element, "border-block-end-color", view)
            found.append(lambda point: (over(colour, behind := self._painted(parent, view, point)), behind))
        measured = [self._worst("edge", element, view, NON_TEXT, pair) for pair in found]
        return max(measured, key=lambda one: one.ratio, default=None)

    def _worst(
        self,
        kind: Literal["text", "ring", "edge"],
        element: Element,
        view: View,
        needed: float,
        pair: Callable[[tuple[float, float]], tuple[Rgba, Rgba]],
    ) -> Measured:
        worst: Measured | None = None
        for point in self._points(element, view):
            colour, ground = (_in_bytes(one) for one in pair(point))
            ratio = contrast_ratio(colour, ground)
            if worst is None or ratio < worst.ratio:
                worst = Measured(kind, ratio, needed, colour, ground)
        assert worst is not None
        return worst

    def _points(self, element: Element, view: View) -> Iterator[tuple[float, float]]:
        """Where it is looked at: one point where every ground is plain, else a grid over the text."""
        box = view.text or view.boxes.get(element.node) or Box(0, 0, view.viewport_width, _ROWS_HIGH)
        if self.is_plain(element, view):
            yield box.left + box.width / 2, box.top + box.height / 2
            return
        pictured = self.is_pictured(element, view) or self._page
        many_across = max(_POINTS_ACROSS, int(min(box.width, 600) / 3)) if pictured else _POINTS_ACROSS
        many_down = max(_POINTS_DOWN, int(min(box.height, 90) / 3)) if pictured else _POINTS_DOWN
        for across in range(many_across):
            for down in range(many_down):
                yield (
                    box.left + 0.5 + (box.width - 1) * across / (many_across - 1),
                    box.top + 0.5 + (box.height - 1) * down / (many_down - 1),
                )

    def is_pictured(self, element: Element, view: View) -> bool:
        """Whether a picture lies behind it."""
        return any("url(" in self._value(one, "background-image", view) for one in self._chain(element, view))

    def is_plain(self, element: Element, view: View) -> bool:
        """Whether one colour lies behind all of it: then its contrast is found at one point."""
        drawn = any(self._value(one, "background-image", view) != "none" for one in self._chain(element, view))
        return not drawn and (not self._page or view.opened is not None)

    def _pair(self, element: Element, view: View, point: tuple[float, float]) -> tuple[Rgba, Rgba]:
        text = self._colour(element, "color", view)
        return self._painted(element, view, point, text), self._painted(element, view, point)

    def _chain(self, element: Element, view: View) -> list[Element]:
        """What is painted one upon the other, from the page on. What is opened stands over all but itself; rows that stand
        in it bring their own grounds along."""
        chain = [element]
        while chain[0].parent is not None and (view.opened is None or element.piece != view.opened.piece):
            chain.insert(0, chain[0].parent)
        return chain

    def _painted(self, element: Element, view: View, point: tuple[float, float], text: Rgba | None = None) -> Rgba:
        below = self._page_at(view, point) if view.opened is None else self._opened_ground(view.opened, view)
        return self._paint(self._chain(element, view), 0, below, view, point, text)

    def _opened_ground(self, element: Element, view: View) -> Rgba:
        """The colour behind what an element of that piece opens: that of the nearest row or piece around it that has one."""
        around: Element | None = element
        while around is not None:
            colour = self._colour(around, "background-color", view._replace(state="rest"))
            if around.role in {"piece", "row"} and (colour.alpha > 0 or around.parent is None):
                return over(colour, WHITE)
            around = around.parent
        return WHITE

    def _paint(
        self, chain: list[Element], at: int, below: Rgba, view: View, point: tuple[float, float], text: Rgba | None
    ) -> Rgba:
        """One element with what it holds. A piece, and whatever is translucent or blends, is painted by itself first."""
        element, last = chain[at], at + 1 == len(chain)
        mine = view if last else view._replace(state="rest")
        opacity = math.floor(float(self._value(element, "opacity", mine)) * 255 + 0.5) / 255
        blend = self._value(element, "mix-blend-mode", mine)
        alone = at == 0 or opacity < 1 or blend != "normal"
        painted = over(self._ground_at(element, mine, point), CLEAR if alone else below)
        if not last:
            painted = self._paint(chain, at + 1, painted, view, point, text)
        elif text is not None:
            painted = over(text, painted)
        if not alone:
            return painted
        return over(painted._replace(alpha=painted.alpha * opacity), below, blend)

    def _ground_at(self, element: Element, view: View, point: tuple[float, float]) -> Rgba:
        box = view.boxes.get(element.node) or Box(0, 0, view.viewport_width, _ROWS_HIGH)
        values = {name: self._value(element, name, view) for name in _BACKGROUND}
        return self._background(values, self._colour(element, "background-color", view), box, view, point)

    def _background(
        self, values: Mapping[str, str], colour: Rgba, box: Box, view: View, point: tuple[float, float]
    ) -> Rgba:
        painted = colour
        image = self._palette.resolved(values["background-image"])
        if image == "none":
            return painted
        if values["background-attachment"] == "fixed":
            box = Box(0, 0, view.viewport_width, 800.0)
        for layer in reversed(arguments_of(image)):
            painted = over(self._layer_at(layer, values, box, view, point), painted, values["background-blend-mode"])
        return painted

    def _layer_at(
        self, layer: str, values: Mapping[str, str], box: Box, view: View, point: tuple[float, float]
    ) -> Rgba:
        path = picture_of(layer)
        picture = self._pictures(path) if path else None
        if path and picture is None:
            return CLEAR
        natural = (picture.width, picture.height) if picture else None
        tile = tile_of(values, box, natural, view.viewport_width)
        place = place_in_tile(tile, values["background-repeat"], box, point)
        if place is None:
            return CLEAR
        if picture is not None:
            return picture.at(place[0] / tile.width, place[1] / tile.height)
        return gradient_at(layer, tile.width, tile.height, place)

    def _page_at(self, view: View, point: tuple[float, float]) -> Rgba:
        if not self._page:
            return WHITE
        values = {name: INITIAL_BACKGROUND[name] for name in _BACKGROUND}
        colour = WHITE
        for style in self._page:
            if style.band in {None, view.band}:
                if style.property == "background-color":
                    colour = over(read_colour(self._palette.resolved(style.value)), WHITE)
                else:
                    values[style.property] = style.value
        return self._background(values, colour, Box(0, 0, view.viewport_width, 800.0), view, point)

    def _value(self, element: Element, name: str, view: View) -> str:
        key = (element, name, view.state, view.band)
        if key not in self._known:
            self._known[key] = self._styling.resolve(element, name, view.state, view.band).value
        return self._known[key]

    def _plain(self, element: Element, name: str, view: View) -> str:
        """A colour's text, with the text's own colour followed up to where it is said."""
        key = (element, f"plain {name}", view.state, view.band)
        if key not in self._known:
            self._known[key] = self._followed(element, name, view)
        return self._known[key]

    def _followed(self, element: Element, name: str, view: View) -> str:
        value = self._palette.resolved(self._value(element, name, view))
        if value.lower() != "currentcolor":
            return value
        if name != "color":
            return self._plain(element, "color", view)
        if element.parent is None:
            return "#000000"
        return self._plain(element.parent, "color", view._replace(state="rest"))

    def _colour(self, element: Element, name: str, view: View) -> Rgba:
        return read_colour(self._plain(element, name, view))

    def font_px(self, element: Element, view: View) -> float:
        """The text's size in px."""
        value, source = self._styling.resolve(element, "font-size", view.state, view.band)
        if source.layer == "inherited" or element.parent is None:
            em = 16.0
        else:
            em = self.font_px(element.parent, view._replace(state="rest"))
        return pixels(value, Room(view.viewport_width, em_px=em, percent_px=em))

    def _is_large(self, element: Element, view: View) -> bool:
        try:
            size = self.font_px(element, view)
        except NoLength:
            return False
        bold = int(self._value(element, "font-weight", view)) >= BOLD
        return size >= LARGE_PX or (bold and size >= LARGE_BOLD_PX)

    def passing_shade(self, element: Element, view: View) -> str | None:
        """The text colour nearest to the present one, of the same hue, that passes everywhere; None where none does.

        Its OKLCH lightness is moved, and its chroma only as far as the gamut asks for it.
        """
        measured = self.text_contrast(element, view)
        present = self._colour(element, "color", view)._replace(alpha=1.0)
        # One point for each ground that occurs; the text is painted there as it would be, in whatever group it stands.
        grounds = {_in_bytes(self._painted(element, view, point)): point for point in self._points(element, view)}
        lightness = float(Color(present.css).convert("oklch").get("lightness", nans=False))

        def passes(shade: str) -> bool:
            colour = read_colour(shade)
            return all(
                contrast_ratio(_in_bytes(self._painted(element, view, point, colour)), ground) >= measured.needed
                for ground, point in grounds.items()
            )

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


def _in_bytes(colour: Rgba) -> Rgba:
    """As a screen shows it: eight bits a channel."""
    red, green, blue, alpha = (round(channel * 255) / 255 for channel in colour)
    return Rgba(red, green, blue, alpha)


class Weak(NamedTuple):
    """A text that fails: in a state, in width bands (None where the site has none), and the shade that would pass. `node`:
    whose text it is, also where the element is nothing but its role in it."""

    element: Element
    state: State
    bands: tuple[str | None, ...]
    measured: Measured
    shade: str | None
    node: str
    is_opened: bool

    @property
    def styled(self) -> str:
        """What a colour for it is said of: the node, or its piece's defaults for its role."""
        own = self.element.node or self.element.role in {"menu", "block"}
        return self.node if own else f"role:{self.element.role}@{self.element.piece}"


class Written(NamedTuple):
    """Text of a node. `opened`: from where, if it stands in what something opens. `states`: those that it can be in."""

    node: str
    element: Element
    states: tuple[State, ...]
    opened: Element | None = None


WITHOUT_TEXT = frozenset({"piece", "float", "row", "column-rule", "cell", "block", "divider", "upright", "menu"})
"""Roles of elements that only hold others, or a picture or line."""


def texts_of(site: Site, styling: Styling, only: str | None = None) -> Iterator[Written]:
    """Every text that pieces show, whoever draws it: of each element, of what stands within one and has no styles of its
    own, and in what opens. What is disabled is left out (WCAG 2.2, 1.4.3)."""
    for piece in (one for one in site.pieces if only in {None, one.id}):
        held = (
            [styling.elements[item.id, "box"] for _, item in site.holders(piece)] if isinstance(piece, Drawer) else []
        )
        places: list[Element | None] = [*held] or [None]
        for opened in places:
            yield from _texts_of_piece(piece, styling, opened)


def _texts_of_piece(piece: Piece, styling: Styling, opened: Element | None) -> Iterator[Written]:
    for element in elements_of(piece):
        if element.role not in WITHOUT_TEXT:
            yield Written(element.node, element, _states(element.role), opened)
    if isinstance(piece, Float) and piece.fan:
        top = styling.elements[piece.id, "box"]
        yield Written(piece.id, Element("", "box", "button", piece.id, top), _states("button"), opened)
    for item in items_of((piece,)):
        box = styling.elements[item.id, "box"]
        for role in texts_within(item):
            yield Written(item.id, Element("", "box", role, piece.id, box), _states(role, item), opened)
        if isinstance(item, MenuItem) and opened is None:
            entries = styling.elements[item.id, "content"]
            yield Written(item.id, entries, _states(entries.role), box)


def _states(role: str, item: Any = None) -> tuple[State, ...]:
    has_placeholder = isinstance(item, SearchBox) or any(one.placeholder.text for one in getattr(item, "fields", ()))
    left_out = {"disabled"} if has_placeholder else {"disabled", "placeholder"}
    return tuple(state for state in STATES_OF[role] if state not in left_out)


def texts_within(item: Any) -> tuple[str, ...]:
    """Roles of the texts within an item that are no part of it for themselves; `menu` and `block`: its own."""
    match item:
        case RichText():
            marked = " ".join([item.rich.text, *(one.text for one in item.rich.translations)])
            tags = {"link": "<a ", "heading-2": "<h2", "heading-3": "<h3"}
            return tuple(role for role, tag in tags.items() if tag in marked)
        case Contact():
            return ("link",) if item.telephone or item.mail else ()
        case SearchBox():
            return ("field",)
        case Form():
            return ("block", *(("field",) if item.fields else ()), "button")
        case MapItem():
            return ("link",)
        case Pager():
            return ("entry",)
        case LinkList() | Posts() | Trail():
            return ("menu",)
        case _:
            return ()


def weak_texts(site: Site, pictures: Pictures) -> Iterator[Weak]:
    """All texts that fail WCAG 2.2, 1.4.3: every one in a piece, in every state and band."""
    styling = Styling(site)
    painter = Painter(styling, pictures)
    widths = _looked_at(site)
    told: set[tuple[str, Element, State]] = set()
    for node, element, states, opened in texts_of(site, styling):
        for state in states:
            views = [View(state, band, width, opened=opened) for band, width in widths.items()]
            failing = [(view, found) for view in views if not (found := painter.text_contrast(element, view)).passes]
            if failing and (node, element, state) not in told:
                told.add((node, element, state))
                view, worst = min(failing, key=lambda one: one[1].ratio)
                bands = tuple(one.band for one, _ in failing)
                shade = painter.passing_shade(element, view)
                yield Weak(element, state, bands, worst, shade, node, opened is not None)


def _looked_at(site: Site) -> dict[str | None, float]:
    """For each band a width of the viewport at which texts are looked at."""
    return {band.id: max(320.0, band.from_px) for band in site.bands} or {None: 1280.0}


class Glimpse(NamedTuple):
    """What is seen at once of a piece's texts: of those on plain grounds the worst that fails, by node; and the nodes whose
    text a picture lies behind."""

    failing: dict[str, Measured]
    pictured: frozenset[str]


def glimpse(site: Site, piece: Piece) -> Glimpse:
    """In every state and band. Whether text over a picture can be read is not asked: that takes its time."""
    styling = Styling(site)
    painter = Painter(styling)
    widths = _looked_at(site)
    failing: dict[str, Measured] = {}
    pictured: set[str] = set()
    for node, element, states, opened in texts_of(site, styling, piece.id):
        for view in (View(state, band, width, opened=opened) for state in states for band, width in widths.items()):
            if painter.is_plain(element, view):
                found = painter.text_contrast(element, view)
                if not found.passes and (node not in failing or found.ratio < failing[node].ratio):
                    failing[node] = found
            elif painter.is_pictured(element, view):
                pictured.add(node)
    return Glimpse(failing, frozenset(pictured))


_BACKGROUND = (
    "background-image",
    "background-size",
    "background-repeat",
    "background-position",
    "background-attachment",
    "background-blend-mode",
)
INITIAL_BACKGROUND = {
    "background-image": "none",
    "background-size": "auto",
    "background-repeat": "repeat",
    "background-position": "0% 0%",
    "background-attachment": "scroll",
    "background-blend-mode": "normal",
}
