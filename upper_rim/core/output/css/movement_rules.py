"""Which CSS rules let pieces stay at the window's edges, and come and go?

What is pinned takes room there that was worked out for each width and language: a custom property of the page, by which
what stands next to it, and what is scrolled to, keep their distance. The script marks only that one has scrolled down
(`data-rim-down`), not far enough yet (`-early`), or to the footer (`-away`); `stage_rules` has the rest.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator, Sequence

from ...fit.rows.fitter import Fitter
from ...kinds.moving import ByElement, ByPage, ByPixels, ByViewport, Distance, Way
from ...kinds.pieces.base import Moving, Piece
from ...kinds.pieces.float import Float
from ...kinds.pieces.header import Header
from ...kinds.pieces.notice import Notice
from ...kinds.pieces.sidebar import Sidebar
from ...kinds.rule import Rule, inside
from ...model.site import Site
from ...movement.over_widths import reserved, widths_of
from ...style.resolve import Styling
from .stage_rules import StageRules
from .style_rules import CALM, LIVELY, StyleRules, band_queries
from .who_rules import there_by_band
from .width_rules import lang_selector, length_css, media, usual_first, widths_query


def distance_data(after: Distance) -> str:
    """A distance as the script reads it."""
    match after:
        case ByPixels():
            return str(after.px)
        case ByViewport():
            return f"{after.percent}v"
        case ByPage():
            return f"{after.percent}p"
        case ByElement():
            return f"={after.selector}"


def moves(piece: Piece) -> bool:
    """Whether it does anything of its own while the page scrolls."""
    if not isinstance(piece, Moving) or (piece.is_at_bottom and not piece.is_low):
        return False
    return piece.is_low or piece.is_ever_pinned or (isinstance(piece, Header) and piece.over)


_SCREEN = media("screen")


class MovementRules:
    def __init__(self, site: Site, styling: Styling, fitter: Callable[[], Fitter]) -> None:
        """`fitter` is asked for where heights have to be known."""
        self.site, self.name, self._fitter = site, site.key, fitter
        self._stages = StageRules(site, styling, fitter)

    def before_styles(self) -> Iterator[Rule]:
        """For the layer that outweighs what designers say: what does not show, however opaque; and what stages ask
        for."""
        for piece in self.site.pieces:
            if isinstance(piece, Moving) and moves(piece):
                yield from inside(_SCREEN, self._comes_and_goes(piece))
            if isinstance(piece, Header):
                yield from self._stages.before_styles(piece)

    def painted(self, rules: StyleRules) -> Iterator[Rule]:
        """For a layer before the pieces' own styles."""
        for piece in self.site.pieces:
            if isinstance(piece, Header):
                yield from self._stages.painted(piece, rules)

    def placed(self) -> Iterator[Rule]:
        """Where pieces are pinned, how their stages are drawn, and what the page keeps free for them."""
        return inside(_SCREEN, self._placed([piece for piece in self.site.pieces if moves(piece)]))

    def _placed(self, moving: Sequence[Piece]) -> Iterator[Rule]:
        for piece in moving:
            assert isinstance(piece, Moving)
            yield from self._room_kept(piece)
            yield from self._pinned(piece)
            if isinstance(piece, Header):
                yield from self._stages.drawn(piece)
        kept = {
            f"scroll-padding-block-{side}": self._kept(kinds)
            for side, kinds in (("start", ("notice", "header")), ("end", ("bottom", "low")))
            if any(self._kind(piece) in kinds for piece in moving)
        }
        if kept:
            yield Rule(f":root:has(.{self.name})", kept)

    def _kept(self, kinds: Iterable[str]) -> str:
        return f"calc({' + '.join(f'var(--{self.name}-{kind},0px)' for kind in kinds)})"

    def _kind(self, piece: Piece) -> str:
        return "low" if piece.is_at_bottom else piece.kind

    def _above(self, piece: Moving) -> str:
        """How far from the window's upper edge it is pinned."""
        name = self.name
        header = f"var(--{name}-header-settled,var(--{name}-header,0px))"
        vars_ = {
            "header": [f"var(--{name}-notice,0px)"],
            "sidebar": [f"var(--{name}-notice,0px)", header],
        }.get(piece.kind, [])
        terms = [*vars_, *([f"{piece.pin_px}px"] if piece.pin_px else [])]
        return f"calc({' + '.join(terms)})" if len(terms) > 1 else (terms[0] if terms else "0px")

    def _room_kept(self, piece: Moving) -> Iterator[Rule]:
        """The window's edge that it takes, as a custom property of the page: what is pinned next to it, and what is
        scrolled to, keep their distance. What is not there takes nothing."""
        if isinstance(piece, Sidebar | Float):
            return
        property_ = f"--{self.name}-{self._kind(piece)}"
        fitter = self._fitter()

        def is_pinned(band: str | None) -> bool:
            return piece.is_low or piece.way_in(band) != "away"

        by_language = {
            language: reserved(widths_of(fitter, self.site, piece, language), is_pinned)
            for language in fitter.languages(self.site, piece)
        }
        settles = any(span.lines[0] != span.lines[1] for spans in by_language.values() for span in spans)
        for language, spans in usual_first(by_language):
            there = f".{self.name}-{piece.id}{lang_selector(language)}:not([hidden])"
            for span in spans:
                more = 0 if piece.is_low else piece.pin_px
                highest, settled = (length_css(line.more(more), span.from_px, span.to_px) for line in span.lines)
                declared = {property_: highest, **({f"{property_}-settled": settled} if settles else {})}
                for root, besides, first, last in there_by_band(self.site, piece, span.from_px, span.to_px):
                    yield Rule(f"{root}:has({there}{besides})", declared, media(widths_query(first, last)))

    def _bands_by_way(self, piece: Moving) -> dict[Way, list[str]]:
        """Media queries for each way that it goes in some band; an empty one for all widths."""
        ways: dict[Way, set[str | None]] = {}
        bands: list[str | None] = [band.id for band in self.site.bands] or [None]
        for band in bands:
            ways.setdefault(piece.way_in(band), set()).add(band)
        if len(ways) == 1:
            return {way: [""] for way in ways}
        return {
            way: list(band_queries(self.site, {band for band in held if band is not None}))
            for way, held in ways.items()
        }

    def _own(self, piece: Moving) -> str:
        """Selects the piece, and not what stands in it with the same class."""
        inner = (
            f":where(:not(.{self.name}-ground,.{self.name}-over))" if isinstance(piece, Header) and piece.stages else ""
        )
        return f".{self.name}-{piece.id}{inner}"

    def _pinned(self, piece: Moving) -> Iterator[Rule]:
        own = self._own(piece)
        over = isinstance(piece, Header) and piece.over
        if over:
            own = f".{self.name}-{piece.id}-pin"
            holder = {"display": "block", "block-size": "0", "position": "relative", "z-index": "9001"}
            yield Rule(own, holder)
            yield Rule(own, {"block-size": "auto"}, media("(scripting:none)"))
        if piece.is_low or isinstance(piece, Sidebar):
            return
        order = 9002 if isinstance(piece, Notice) else 9001
        for way, queries in self._bands_by_way(piece).items():
            for query in queries:
                if way != "away":
                    when = ":root[data-rim-on] " if way == "up" else ""
                    pinned = {"position": "sticky", "inset-block-start": self._above(piece), "z-index": str(order)}
                    yield Rule(when + own, pinned, media(query))

    def beside(self, piece: Sidebar, query: str) -> Iterator[Rule]:
        """A sidebar that stays, where it stands beside the content: within its column, and with its own scroll where it
        is longer than the window. `query`: of all widths at which it stands there."""
        own, above = f".{self.name}-{piece.id}", self._above(piece)
        staying = {band.id for band in self.site.bands if piece.way_in(band.id) != "away"}
        whole = len(staying) == len(self.site.bands)
        declared = {
            "position": "sticky",
            "inset-block-start": above,
            "max-block-size": f"calc(100vh - {above})",
            "overflow": "hidden auto",
            "overscroll-behavior": "contain",
        }
        if piece.way_in(None) == "away" and not self.site.bands:
            return
        for band in [""] if whole else band_queries(self.site, staying):
            yield Rule(own, declared, media("screen", query, band))

    def _comes_and_goes(self, piece: Moving) -> Iterator[Rule]:
        """Where it is pinned."""
        own, out = self._own(piece), self._out_of_view(piece)
        states = []
        if piece.comes_and_goes:
            states = [*(["early"] if piece.hides_until is not None else []), *(["away"] if piece.yields else [])]
        gone = ",".join(f"{own}[data-rim-{state}]" for state in states)
        down = f"{own}[data-rim-down]:not(:focus-within)"
        for way, queries in self._bands_by_way(piece).items():
            if way == "away" and not piece.is_low:
                continue
            for query in queries:
                yield from inside(media(query), self._goes(piece, own, gone, down if way == "up" else "", out))

    def _goes(self, piece: Moving, own: str, gone: str, down: str, out: str) -> Iterator[Rule]:
        if piece.comes_and_goes and piece.hides_until is not None:
            yield Rule(f":root:not([data-rim-on]) {own}", {"visibility": "hidden"}, media("not (scripting:none)"))
        if gone:
            yield Rule(gone, {"visibility": "hidden", **_moved(piece, out)})
        if down:
            away = {**_moved(piece, out), "pointer-events": "none"}
            yield Rule(down, away, media(LIVELY if piece.calm == "stays" else ""))
        where = ",".join(part for part in (gone, down) if part)
        if not where:
            return
        if piece.motion != "none":
            yield Rule(own, _times(piece, piece.in_ms), media(LIVELY))
            yield Rule(where, _times(piece, piece.out_ms), media(LIVELY))
        if piece.calm == "fade":
            faded = piece.replaced(motion="fade")
            yield Rule(own, _times(faded, piece.in_ms), media(CALM))
            going = {"translate": "none", "opacity": "0", **_times(faded, piece.out_ms)}
            yield Rule(where, going, media(CALM))

    def _out_of_view(self, piece: Moving) -> str:
        """By how much it is moved out of the window: along, across (CSS Transforms 2, 5.1)."""
        if not piece.is_low:
            # Other rows may be higher than its own.
            high = f"max(100%,var(--{self.name}-header,0px))" if isinstance(piece, Header) and piece.stages else "100%"
            return f"0 calc(-1*{high} - {self._above(piece)})"
        if isinstance(piece, Float):
            if piece.place.startswith("top"):
                return f"0 calc(-100% - {piece.inset_px}px - env(safe-area-inset-top))"
            if piece.place.startswith("middle"):
                return f"calc(var(--{self.name}-{piece.id}-side)*(100% + {piece.inset_px}px)) 0"
            return f"0 calc(100% + {piece.inset_px}px + {self._kept(('bottom', 'low'))} + env(safe-area-inset-bottom))"
        beneath = f" + var(--{self.name}-bottom,0px)" if isinstance(piece, Notice) else ""
        return f"0 calc(100%{beneath} + env(safe-area-inset-bottom))"


def _moved(piece: Moving, out: str) -> dict[str, str]:
    """Where it is while it does not show."""
    return {"opacity": "0"} if piece.motion == "fade" else {"translate": out}


def _times(piece: Moving, ms: int) -> dict[str, str]:
    moved = "opacity" if piece.motion == "fade" else "translate"
    return {"transition": f"{moved} {ms}ms {piece.easing},visibility {ms}ms"}
