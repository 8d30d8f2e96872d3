"""What is a box of a piece, how wide does it want to be, and what does laying it out give?

Each kind of box is a class of its own: `block`, `flex`, `grid`, `inline`, `replaced`. Widths given and asked for are
those of the border box (every element of a piece is `box-sizing: border-box`); directions are logical, so a
right-to-left page is the same, mirrored (CSS Writing Modes 4).
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator
from dataclasses import dataclass, field
from operator import add
from typing import Any, Literal, NamedTuple, Self, TypeAlias

from .amount import Amount, Relative, Viewport, worked_out
from .linear import Length, larger, smaller

Align = Literal["start", "center", "end", "stretch"]


_NO_EDGES = (0.0, 0.0, 0.0, 0.0)


def _is_relative(length: Amount | None) -> bool:
    return type(length) is Relative


def _has_percent(length: Amount | None) -> bool:
    return type(length) is Relative and length.has_percent


def _moves(lengths: Iterable[Amount | None]) -> bool:
    return any(type(length) is Relative and length.has_viewport for length in lengths)


class Intrinsic(NamedTuple):
    """Min-content and max-content sizes (CSS Sizing 3, 5.1)."""

    least: Length
    most: Length


def widest(boxes: Iterable[Box], viewport: Viewport) -> Intrinsic:
    """What boxes below each other ask for."""
    least: Length = 0.0
    most: Length = 0.0
    for box in boxes:
        asked = box.contribution(viewport)
        least, most = larger(asked.least, least), larger(asked.most, most)
    return Intrinsic(least, most)


Adjoining: TypeAlias = "tuple[Length, Length]"
"""Of margins that adjoin, the greatest positive one and the least negative one: together the margin there is."""


class Sides(NamedTuple):
    """`None` among margins: auto."""

    block_start: Amount | None = 0.0
    inline_end: Amount | None = 0.0
    block_end: Amount | None = 0.0
    inline_start: Amount | None = 0.0


NONE = Sides()
BLOCK_START, INLINE_END, BLOCK_END, INLINE_START = range(4)
"""Places in `Sides`."""


SIDES = ("block-start", "inline-end", "block-end", "inline-start")
"""As CSS names them, in the order of `Sides`."""
SIZES = {
    "width": "inline-size",
    "min_width": "min-inline-size",
    "max_width": "max-inline-size",
    "height": "block-size",
    "min_height": "min-block-size",
    "max_height": "max-block-size",
}
"""Properties by the fields of `Box`."""

Placed: TypeAlias = "tuple[tuple[Length, Length, Frame], ...]"
"""Kids with their offsets from the border box's start corner."""


class Frame:
    """A box laid out. `lines`: of text, or of flex items. `divides`: whether a line ends within a word. `baseline`:
    from its top; None without one. `rows`: a flex box's lines; `skips`: how many lines of its text stand before it, in
    another column. Where its kids stand is worked out when it is asked for."""

    __slots__ = ("_kids", "baseline", "box", "divides", "facts", "height", "lines", "rows", "skips", "width")

    def __init__(
        self,
        box: Box,
        width: Length,
        height: Length,
        kids: Placed | Callable[[], Placed] = (),
        lines: int = 1,
        divides: bool = False,
        baseline: Length | None = None,
    ) -> None:
        self.box = box
        self.width = width
        self.height = height
        self._kids = kids
        self.lines = lines
        self.divides = divides
        self.baseline = baseline
        self.facts: Facts | None = None
        self.rows: Any = ()
        self.skips = 0

    @property
    def kids(self) -> Placed:
        if not isinstance(self._kids, tuple):
            self._kids = self._kids()
        return self._kids


class Facts(NamedTuple):
    """What is to be seen in a frame. `folded`: its items stand on more than one line; `broken`: a label does;
    `divides`: a line ends within a word. `start` and `end`: how far what is drawn reaches, from the frame's own
    start."""

    folded: bool
    broken: bool
    divides: bool
    start: Length
    end: Length


@dataclass(slots=True, eq=False)
class Box:
    """Sizes that are None are `auto`, or `none` for the greatest. `node`: id of the node that it belongs to, `part`
    says which of its boxes it is. `stays`: whether nothing in it depends on the viewport. `takes_its_share`: nor on how
    wide its container is, until it is stretched or shrunk. `has_percent_heights`: whether its height or limits are
    shares of its container's. `may_spill`: whether something in it may reach below it. `is_seen`: not so, where it only
    takes room. `is_whole`: no column ends within it, `is_joined`: nor behind it. `clips`: nothing of what it holds shows
    out of it. `paints`: what is painted there, which is nothing to its layout (`markup.elements.Paints`)."""

    node: str = ""
    part: str = ""
    paints: Any = None
    width: Amount | None = None
    min_width: Amount | None = None
    max_width: Amount | None = None
    height: Amount | None = None
    min_height: Amount | None = None
    max_height: Amount | None = None
    padding: Sides = NONE
    border: Sides = NONE
    margin: Sides = NONE
    grow: float = 0.0
    shrink: float = 1.0
    basis: Amount | None = None
    align_self: Align | None = None
    is_seen: bool = True
    is_whole: bool = False
    is_joined: bool = False
    clips: bool = False
    stays: bool = field(default=True, init=False)
    takes_its_share: bool = field(default=True, init=False)
    has_auto_margin: bool = field(default=False, init=False)
    has_percent_heights: bool = field(default=False, init=False)
    may_spill: bool = field(default=False, init=False)
    _edges: tuple[float, ...] | None = field(default=None, init=False)
    _margins: tuple[float, ...] | None = field(default=None, init=False)
    _wanted: Intrinsic | None = field(default=None, init=False)
    _asked: Intrinsic | None = field(default=None, init=False)
    _frames: dict[tuple[Length, Length | None, Length | None], Frame] = field(default_factory=dict, init=False)

    def kids(self) -> Iterator[Box]:
        return iter(())

    def settle(self) -> Self:
        """To be called once the box is whole: notes whether it can be kept between layouts."""
        sizes = (self.width, self.min_width, self.max_width, self.height, self.min_height, self.max_height, self.basis)
        moves = _moves(sizes)
        for edge in (self.padding, self.border, self.margin):
            moves = moves or (edge is not NONE and _moves(edge))
        padding, border, margin = self.padding, self.border, self.margin
        if padding is NONE and border is NONE:
            self._edges = _NO_EDGES
        elif not any(map(_is_relative, padding)) and not any(map(_is_relative, border)):
            self._edges = tuple(map(add, padding, border))
        if margin is NONE:
            self._margins = _NO_EDGES
        elif not any(map(_is_relative, margin)):
            self._margins = tuple(one or 0.0 for one in margin)  # type: ignore[misc]
        kids = tuple(self.kids())
        self.stays = not moves and self._edges is not None and self.holds_still() and all(kid.stays for kid in kids)
        is_bound = self.height is not None or self.max_height is not None
        self.may_spill = any(is_bound or kid.may_spill or kid.margin is not NONE for kid in kids)
        self.has_auto_margin = margin.inline_start is None or margin.inline_end is None
        self.has_percent_heights = any(map(_has_percent, (self.height, self.min_height, self.max_height)))
        self.takes_its_share = self.stays and not (
            any(map(_is_relative, (self.width, self.min_width, self.max_width, self.basis)))
            or any(map(_is_relative, margin))
        )
        return self

    @property
    def has_plain_edges(self) -> bool:
        """Whether its padding and borders are the same in every viewport and container."""
        return self._edges is not None

    @property
    def holds_shares(self) -> bool:
        """Whether something that it holds is a share of its height."""
        return any(kid.has_percent_heights for kid in self.kids())

    def holds_still(self) -> bool:
        """Whether what it is made of, besides its kids and its own sizes, does not depend on the viewport."""
        return True

    def content(self, viewport: Viewport) -> Intrinsic:
        """Intrinsic sizes of what it holds."""
        raise NotImplementedError

    def arranged(
        self, width: Length, height: Length | None, viewport: Viewport, of: Length, *, is_definite: bool = True
    ) -> Frame:
        """Lays out what it holds. `height`: the border box's, where it is known; `is_definite`: not by its limits alone,
        so that what it holds can be a share of it; `of`: the containing block's width."""
        raise NotImplementedError

    def wanted(self, viewport: Viewport, of: Length = 0.0) -> Intrinsic:
        """Intrinsic sizes of the border box, before its own width and limits count. `of`: what its padding's
        percentages are of, where that is known."""
        if self._wanted is not None:
            return self._wanted
        inner = self.content(viewport)
        around = self.inline_edges(viewport, of)
        found = Intrinsic(inner.least + around, inner.most + around)
        if self.stays:
            self._wanted = found
        return found

    def contribution(self, viewport: Viewport) -> Intrinsic:
        """What it asks of what holds it, margins counted (CSS Sizing 3, 5.2): percentages count as auto, as the least as
        nothing."""
        if self._asked is not None:
            return self._asked
        asked = self.asking(viewport)
        if self.stays:
            self._asked = asked
        return asked

    def asking(self, viewport: Viewport) -> Intrinsic:
        least, most = self.wanted(viewport)
        width = self._plain(self.width, viewport)
        if width is not None:
            least = most = larger(width, self.inline_edges(viewport, 0.0))
        greatest = self._plain(self.max_width, viewport)
        if greatest is not None:
            least, most = smaller(least, greatest), smaller(most, greatest)
        if self.min_width is not None:
            smallest = worked_out(self.min_width, viewport, 0.0)
            least, most = larger(least, smallest), larger(most, smallest)
        around = self.inline_margins(viewport, 0.0)
        return Intrinsic(least + around, most + around)

    @staticmethod
    def _plain(amount: Amount | None, viewport: Viewport) -> Length | None:
        if amount is None or (type(amount) is Relative and amount.has_percent):
            return None
        return worked_out(amount, viewport, 0.0)

    def lay_out(
        self,
        width: Length,
        viewport: Viewport,
        of: Length,
        height: Length | None = None,
        height_of: Length | None = None,
    ) -> Frame:
        """`of` and `height_of`: the containing block's width, and its height where that is definite; `height`: where
        what holds it says so (stretched)."""
        if not self.has_percent_heights:
            height_of = None
        kept = self.stays and all(one is None or type(one) is float for one in (width, height, height_of))
        if kept:
            frame = self._frames.get((width, height, height_of))
            if frame is not None:
                return frame
        own = self.set_height(viewport, of, height_of)
        if own is not None:
            height = own
        # Neither limits nor negative margins make it less high than its own edges (CSS Sizing 3, 3.1: sizes floor at zero).
        edges = self.block_edges(viewport, of)
        if height is not None:
            height = larger(self.limited_height(height, viewport, height_of), edges)
        frame = self.arranged(width, height, viewport, of)
        if height is None:
            limited = larger(self.limited_height(frame.height, viewport, height_of), edges)
            if limited is not frame.height:
                frame = self.arranged(width, limited, viewport, of, is_definite=False)
        if kept:
            self._frames[width, height, height_of] = frame
        return frame

    def set_height(self, viewport: Viewport, of: Length, height_of: Length | None) -> Length | None:
        """What its style says, before its limits; None: as high as what it holds. `of`, `height_of`: see `lay_out`."""
        height = self.height
        if height is None or (height_of is None and _has_percent(height)):
            return None
        return larger(worked_out(height, viewport, height_of or 0.0), self.block_edges(viewport, of))

    def limited_height(self, height: Length, viewport: Viewport, height_of: Length | None = None) -> Length:
        """Of a height that is not definite a share is none at most, and nothing at least (CSS 2, 10.7)."""
        greatest, least = self.max_height, self.min_height
        if greatest is not None and (height_of is not None or not _has_percent(greatest)):
            height = smaller(height, worked_out(greatest, viewport, height_of or 0.0))
        if least is not None:
            height = larger(height, worked_out(least, viewport, height_of or 0.0))
        return height

    def limited_width(self, width: Length, viewport: Viewport, of: Length, least: Length = 0.0) -> Length:
        """Within its own limits. `of`: the containing block's width; `least`: where its own least is auto."""
        if self.max_width is not None:
            width = smaller(width, worked_out(self.max_width, viewport, of))
        smallest = least if self.min_width is None else worked_out(self.min_width, viewport, of)
        return larger(width, larger(smallest, self.inline_edges(viewport, of)))

    def filling(self, viewport: Viewport, of: Length) -> Length:
        """The width of a block-level box in normal flow, or of a stretched grid item (CSS 2, 10.3.3)."""
        width = of - self.inline_margins(viewport, of) if self.width is None else worked_out(self.width, viewport, of)
        return self.limited_width(width, viewport, of)

    def fitting(self, viewport: Viewport, of: Length) -> Length:
        """The fit-content width (CSS Sizing 3, 4.1)."""
        if self.width is not None:
            return self.limited_width(worked_out(self.width, viewport, of), viewport, of)
        wanted = self.wanted(viewport)
        room = of - self.inline_margins(viewport, of)
        return self.limited_width(smaller(wanted.most, larger(wanted.least, room)), viewport, of)

    def inline_edges(self, viewport: Viewport, of: Length) -> Length:
        """Padding and borders at both inline sides."""
        edges = self._edges
        if edges is not None:
            return edges[INLINE_START] + edges[INLINE_END]
        return self.edge(INLINE_START, viewport, of) + self.edge(INLINE_END, viewport, of)

    def block_edges(self, viewport: Viewport, of: Length) -> Length:
        edges = self._edges
        if edges is not None:
            return edges[BLOCK_START] + edges[BLOCK_END]
        return self.edge(BLOCK_START, viewport, of) + self.edge(BLOCK_END, viewport, of)

    def edge(self, side: int, viewport: Viewport, of: Length) -> Length:
        """Padding and border at one side."""
        if self._edges is not None:
            return self._edges[side]
        padding, border = self.padding[side] or 0.0, self.border[side] or 0.0
        return worked_out(padding, viewport, of) + worked_out(border, viewport, of)

    def margin_at(self, side: int, viewport: Viewport, of: Length) -> Length:
        """Auto counts as 0."""
        if self._margins is not None:
            return self._margins[side]
        margin = self.margin[side]
        return 0.0 if margin is None else worked_out(margin, viewport, of)

    def block_margin(self, side: int, viewport: Viewport, of: Length) -> Length:
        """The margin that is left where what takes part in it collapses (CSS 2, 8.3.1)."""
        above, below = self.adjoining(side, viewport, of)
        return above + below

    def adjoining(self, side: int, viewport: Viewport, of: Length) -> Adjoining:
        margin = self.margin_at(side, viewport, of)
        return (margin, 0.0) if margin >= 0 else (0.0, margin)

    def inline_margins(self, viewport: Viewport, of: Length) -> Length:
        if self.margin is NONE:
            return 0.0
        return self.margin_at(INLINE_START, viewport, of) + self.margin_at(INLINE_END, viewport, of)

    def block_margins(self, viewport: Viewport, of: Length) -> Length:
        if self.margin is NONE:
            return 0.0
        return self.margin_at(BLOCK_START, viewport, of) + self.margin_at(BLOCK_END, viewport, of)
