"""What stands around a page at a viewport, and where: in the page's flow, pinned, or over it?

Heights come from fit; how high the page's own content is has to be told. Positions are px from the upper edge, of the
page for what stands in its flow, of the window for what is fixed there.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from math import inf
from typing import Any, Literal, NamedTuple

from ..fit.css.amount import Viewport
from ..fit.rows.fitter import Fitter, foundations_of
from ..kinds.moving import ByElement, ByPage, ByPixels, ByViewport, Distance
from ..kinds.pieces.base import Moving, Piece
from ..kinds.pieces.float import Float
from ..kinds.pieces.header import Header
from ..kinds.pieces.sidebar import Sidebar
from ..languages import direction
from ..model.site import Page, Site
from ..model.stages import stages_in
from ..reach.coverage import Coverage
from ..style.resolve import band_at
from ..style.type.faces import character_em
from ..style.type.scale import sidebar_needs_px
from .heights import Heights, StageHeights, greatest_px, heights, settled_px

BodyPlace = Literal["flow", "pinned", "beside", "low", "fixed"]


class Body(NamedTuple):
    """A piece on a page. `top_px`: of the page where it stands in the flow (flow, pinned, beside), of the window where
    not (low: in the stack at its lower edge; fixed). It is pinned `pin_px` below the window's upper edge, but not
    beyond `end_px` of the page. `after_px`: the scroll position beyond which each of its stages holds, in their order
    (inf: it never does). `up_px`: it is seen only after scrolling up so far, once the page is scrolled beyond
    `past_px`."""

    piece: str
    kind: str
    place: BodyPlace
    left_px: float
    width_px: float
    top_px: float
    standings: tuple[StageHeights, ...]
    flow_px: float = 0.0
    pin_px: float = 0.0
    end_px: float = inf
    after_px: tuple[float, ...] = ()
    up_px: float | None = None
    past_px: float = 0.0
    until_px: float | None = None
    yields_px: float | None = None


class Scene(NamedTuple):
    """`content_top_px`: where the page's own content begins; `page_px`: how high it all is."""

    viewport_px: tuple[float, float]
    band: str | None
    content_top_px: float
    page_px: float
    bodies: tuple[Body, ...]

    @property
    def scrolls_px(self) -> float:
        """How far the page can be scrolled."""
        return max(0.0, self.page_px - self.viewport_px[1])

    def body(self, piece: str) -> Body | None:
        return next((body for body in self.bodies if body.piece == piece), None)


class Shape(NamedTuple):
    """What a page's own content is like: how high, and where in the page the elements are that stages wait for."""

    content_px: float
    elements: Mapping[str, float] = {}


class _High(NamedTuple):
    """A piece of a page with its heights, before it is known where it stands."""

    piece: Piece
    heights: Heights


class Scenes:
    """The scenes of one site. Pieces that several pages show alike are worked out once."""

    def __init__(self, fitter: Fitter, site: Site) -> None:
        self.fitter, self.site = fitter, fitter.resolved(site)
        self.coverage = Coverage(self.site)
        self.em = character_em(self.site, fitter.faces)
        self._heights: dict[tuple[str, str, tuple[int, int]], Heights | None] = {}
        self._foundations = foundations_of(self.site)
        self._told: dict[tuple[str, str, tuple[int, int]], tuple[Piece, Heights]] = {}
        self._given: dict[str, tuple[Any, ...]] = {}
        # By the outcomes, which are the very same on pages on which the same rules count.
        self._on_pages: dict[tuple[int, str, tuple[int, int]], tuple[Any, ...]] = {}

    def of(
        self,
        page: Page,
        viewport_px: tuple[int, int],
        shape: Shape,
        without: frozenset[str] = frozenset(),
        *,
        calm: bool = False,
    ) -> Scene:
        """`without`: pieces that are not there, such as a notice that was closed. `calm`: the visitor asks for reduced
        motion."""
        wide, high = viewport_px
        band = band_at(self.site, wide)
        laid = _Laying(self, page, viewport_px, shape, self._shown(page, viewport_px, band, without), calm=calm)
        bodies = tuple(laid.bodies())
        return Scene((float(wide), float(high)), band, laid.content_top, laid.page_px, bodies)

    def given(self, page: Page, viewport_px: tuple[int, int]) -> tuple[Any, ...]:
        """All that a scene hangs on but the page's own content: it is as before where this is equal."""
        key = (id(self.coverage.on(page)), page.language, viewport_px)
        if key not in self._on_pages:
            shown = self._shown(page, viewport_px, band_at(self.site, viewport_px[0]), frozenset())
            seen = (self._seen(one, page.language, viewport_px) for one in shown.values())
            self._on_pages[key] = (self._foundations, self.em, *seen)
        return self._on_pages[key]

    def _seen(self, one: _High, language: str, viewport_px: tuple[int, int]) -> tuple[Piece, Heights]:
        """What of it a scene is made of; the very same values where these are equal to those from before."""
        key = (one.piece.id, language, viewport_px)
        if key not in self._told:
            bare = one.piece.replaced(rows=())
            self._told[key] = (
                self.fitter.kept(("bare", one.piece.id), bare, lambda: bare),
                self.fitter.kept(("as high", *key), one.heights, lambda: one.heights),
            )
        return self._told[key]

    def shape_of(self, page: Page, viewport_px: tuple[int, int], whole_px: float) -> Shape:
        """What the page's content is like, where the whole page was measured. What is no higher than the window cannot
        be told from it."""
        band = band_at(self.site, viewport_px[0])
        empty = _Laying(self, page, viewport_px, Shape(0.0), self._shown(page, viewport_px, band, frozenset()))
        return Shape(max(0.0, whole_px - empty.around_px))

    def _shown(
        self, page: Page, viewport_px: tuple[int, int], band: str | None, without: frozenset[str]
    ) -> dict[str, _High]:
        """By kind, the pieces that show on the page in the viewport's band."""
        at = self.coverage.bands.index(band)
        found = {}
        for kind, outcomes in self.coverage.on(page).items():
            piece = outcomes[at].piece
            if piece is not None and piece.id not in without:
                high = self._high(piece, page.language, viewport_px)
                if high is not None:
                    found[kind] = _High(piece, high)
        return found

    def _high(self, piece: Piece, language: str, viewport_px: tuple[int, int]) -> Heights | None:
        key = (piece.id, language, viewport_px)
        if key not in self._heights:
            viewport = Viewport(float(viewport_px[0]), float(viewport_px[1]))
            if piece.id not in self._given:
                self._given[piece.id] = self.fitter.given(self.site, piece)
            given = self._given[piece.id]
            self._heights[key] = self.fitter.kept(
                ("heights", *key), given, lambda: heights(self.fitter, self.site, piece, language, viewport)
            )
        return self._heights[key]


TOUCHING_PX = 0.001
"""Observers count edges that touch as passed."""


class _Flow:
    """Blocks one below the other; margins that touch collapse (CSS 2, 8.3.1)."""

    def __init__(self) -> None:
        self.y, self._pending = 0.0, 0.0

    def holder(self, before_px: float) -> float:
        """A block without a height around one that has one: margins go through it at its beginning only."""
        top = self.y + _collapsed(self._pending, before_px)
        self.y, self._pending = top, 0.0
        return top

    def block(self, margins_px: tuple[float, float], height_px: float) -> float:
        """Where its border box begins. One without a height lets margins through."""
        before, after = margins_px
        gap = _collapsed(self._pending, before)
        top = self.y + gap
        if height_px == 0.0:
            self._pending = _collapsed(gap, after)
        else:
            self.y, self._pending = top + height_px, after
        return top


def _collapsed(one: float, other: float) -> float:
    return max(one, other) if one >= 0 and other >= 0 else min(one, other) if one < 0 and other < 0 else one + other


class _Laying:
    def __init__(
        self,
        scenes: Scenes,
        page: Page,
        viewport_px: tuple[int, int],
        shape: Shape,
        shown: Mapping[str, _High],
        *,
        calm: bool = False,
    ) -> None:
        self.calm = calm
        self.site, self.shape, self.shown, self._em = scenes.site, shape, shown, scenes.em
        self.wide, self.high = float(viewport_px[0]), float(viewport_px[1])
        self.band = band_at(self.site, viewport_px[0])
        self.rtl = direction(page.language) == "rtl"
        self._measure()

    def _measure(self) -> None:
        """Where things stand in the page's flow, from its beginning to its end."""
        flow = _Flow()
        self.tops: dict[str, float] = {}
        self.ends: dict[str, float] = {}

        def stands(kind: str) -> None:
            one = self.shown[kind]
            high = one.heights
            if isinstance(one.piece, Header) and one.piece.over:
                self.tops[kind] = flow.holder(high.margins_px[0])
            else:
                self.tops[kind] = flow.block(high.margins_px, high.flow_px)
            self.ends[kind] = flow.y

        for kind in ("notice", "header"):
            if kind in self.shown and not self.shown[kind].piece.is_at_bottom:
                stands(kind)
        sidebar = self.shown.get("sidebar")
        beside = sidebar is not None and self._is_beside(sidebar.piece)
        if (
            sidebar is not None
            and not beside
            and isinstance(sidebar.piece, Sidebar)
            and sidebar.piece.narrow == "before"
        ):
            stands("sidebar")
        self.content_top = flow.block((0.0, 0.0), 0.0)
        content = self.shape.content_px
        if sidebar is not None and beside:
            above, below = sidebar.heights.margins_px
            self.tops["sidebar"] = self.content_top + above
            content = max(content, self._sidebar_px(sidebar) + above + below)
        flow.block((0.0, 0.0), content)
        self.beside_end = flow.y
        if sidebar is not None and "sidebar" not in self.tops:
            stands("sidebar")
        if "footer" in self.shown:
            stands("footer")
        notice = self.shown.get("notice")
        if notice is not None and notice.piece.is_at_bottom:
            if notice.piece.is_low:
                flow.block((0.0, 0.0), notice.heights.flow_px)
            else:
                stands("notice")
        bar = self.shown.get("bottom")
        if bar is not None:
            flow.block((0.0, 0.0), bar.heights.flow_px)
        whole = flow.block((0.0, 0.0), 0.0)
        reaches = [top + self.shown[kind].heights.reach_px for kind, top in self.tops.items() if self._spills(kind)]
        self.page_px = max(whole, self.high, *reaches)
        self.around_px = whole - content

    def _spills(self, kind: str) -> bool:
        """Whether what stands out of it makes the page longer: a sidebar that stays has a scroll of its own, and a
        header over the page that is pinned comes and goes."""
        piece = self.shown[kind].piece
        if isinstance(piece, Sidebar) and self._is_beside(piece):
            return piece.way_in(self.band) == "away"
        return not (isinstance(piece, Header) and piece.over) or piece.way_in(self.band) == "away"

    @property
    def scrolls(self) -> float:
        return max(0.0, self.page_px - self.high)

    def bodies(self) -> Iterator[Body]:
        pinned = 0.0
        for kind in ("notice", "header"):
            one = self.shown.get(kind)
            if one is None or one.piece.is_at_bottom:
                continue
            body = self._in_flow(one, pinned)
            if body.place == "pinned":
                pinned = body.pin_px + greatest_px(body.standings)
            yield body
        sidebar = self.shown.get("sidebar")
        if sidebar is not None:
            yield self._sidebar(sidebar)
        footer = self.shown.get("footer")
        if footer is not None:
            yield self._flowing(footer)
        yield from self._low()

    def _flowing(self, one: _High) -> Body:
        """As it stands in the page's flow."""
        kind, high = one.piece.kind, one.heights
        left = self.wide - high.start_px - high.width_px if self.rtl else high.start_px
        return Body(
            one.piece.id, kind, "flow", left, high.width_px, self.tops.get(kind, 0.0), high.standings, high.flow_px
        )

    def _in_flow(self, one: _High, pinned: float) -> Body:
        piece, high = one.piece, one.heights
        top = self.tops[piece.kind]
        body = self._flowing(one)
        if not isinstance(piece, Moving):
            return body
        way = piece.way_in(self.band)
        if way == "away":
            return body
        over = isinstance(piece, Header) and piece.over
        from_px = max(0.0, top - pinned - piece.pin_px)
        return self._moving(
            piece,
            from_px,
            body._replace(
                place="pinned",
                pin_px=pinned + piece.pin_px,
                flow_px=0.0 if over else high.flow_px,
                end_px=self.page_px,
                after_px=tuple(self._distance(stage.after, from_px) for stage in stages_in(piece, self.band)),
                past_px=self.ends[piece.kind] - TOUCHING_PX,
            ),
        )

    def _moving(self, piece: Moving, from_px: float, body: Body) -> Body:
        """With what it does by itself while it is pinned. `from_px`: the scroll position from which on it is."""
        footer = self.tops.get("footer")
        # Observers compare whole pixels.
        yields = round(footer) - self.high if piece.yields and footer is not None else None
        until = None if piece.hides_until is None else self._distance(piece.hides_until, from_px)
        if not piece.comes_and_goes:
            yields, until = None, None
        goes = piece.way_in(self.band) == "up" and not (self.calm and piece.calm == "stays")
        return body._replace(
            up_px=float(piece.up_px) if goes else None,
            until_px=until,
            yields_px=yields,
        )

    def _distance(self, after: Distance, from_px: float) -> float:
        """As a scroll position."""
        match after:
            case ByPixels():
                return from_px + after.px
            case ByViewport():
                return from_px + self.high * after.percent / 100
            case ByPage():
                return self.scrolls * after.percent / 100
            case ByElement():
                return self.shape.elements.get(after.selector, inf) - TOUCHING_PX

    def _is_beside(self, piece: Piece) -> bool:
        return isinstance(piece, Sidebar) and self.wide >= sidebar_needs_px(self.site, self._em, piece.width_px)

    def _sidebar_px(self, one: _High) -> float:
        """In its column; where it stays, with a scroll of its own, it is no longer than the window."""
        high = one.heights.flow_px
        if not isinstance(one.piece, Sidebar) or one.piece.way_in(self.band) == "away":
            return high
        return min(high, max(0.0, self.high - self._pinned_px() - one.piece.pin_px))

    def _pinned_px(self) -> float:
        """What is pinned at the window's upper edge once all its stages are passed. Until then what stands next to it
        goes beneath it like all that is scrolled."""
        pinned = 0.0
        for kind in ("notice", "header"):
            one = self.shown.get(kind)
            if (
                one is not None
                and not one.piece.is_at_bottom
                and isinstance(one.piece, Moving)
                and one.piece.way_in(self.band) != "away"
            ):
                pinned += one.piece.pin_px + settled_px(one.heights.standings, one.piece.way_in(self.band))
        return pinned

    def _sidebar(self, one: _High) -> Body:
        piece, high = one.piece, one.heights
        assert isinstance(piece, Sidebar)
        top = self.tops["sidebar"]
        if not self._is_beside(piece):
            return self._flowing(one)
        room = min(self.wide, float(self.site.content_px))
        edge = (self.wide - room) / 2 + self.site.gutter_px
        at_left = (piece.side == "start") != self.rtl
        left = edge if at_left else self.wide - edge - high.width_px
        body = Body(piece.id, "sidebar", "beside", left, high.width_px, top, high.standings, high.flow_px)
        if piece.way_in(self.band) == "away":
            return body
        own = self._sidebar_px(one)
        seen = (high.standings[0]._replace(height_px=own),)
        pin = self._pinned_px() + piece.pin_px
        return body._replace(pin_px=pin, end_px=self.beside_end, standings=seen, flow_px=own)

    def _low(self) -> Iterator[Body]:
        """What lies over the page: the stack at the window's lower edge from below, and floats elsewhere."""
        below = 0.0
        for kind in ("bottom", "notice", "float"):
            one = self.shown.get(kind)
            if one is None:
                continue
            piece, high = one.piece, one.heights
            if isinstance(piece, Float):
                yield self._moving(piece, 0.0, self._float(piece, high, below))
            elif isinstance(piece, Moving) and piece.is_low:
                below += high.flow_px
                body = self._flowing(one)._replace(place="low", top_px=self.high - below, flow_px=0.0)
                yield self._moving(piece, 0.0, body)
            elif piece.is_at_bottom:
                yield self._flowing(one)

    def _float(self, piece: Float, high: Heights, below: float) -> Body:
        where, side = piece.place.split("-")
        inset, tall = float(piece.inset_px), high.flow_px
        free = self.wide - high.width_px
        at_left = (side == "start") != self.rtl
        left = free / 2 if side == "center" else inset if at_left else free - inset
        tops = {"bottom": self.high - below - inset - tall, "top": inset, "middle": (self.high - tall) / 2}
        return Body(
            piece.id, "float", "low" if where == "bottom" else "fixed", left, high.width_px, tops[where], high.standings
        )


def is_pinned(body: Body) -> bool:
    """Whether it can cover the page's content."""
    return body.place in {"pinned", "low", "fixed"}
