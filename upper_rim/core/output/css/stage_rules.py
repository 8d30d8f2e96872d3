"""Which CSS rules draw a header in its stages?

Stages are drawn, not laid out: the rows keep their boxes and are moved by `translate`, and what is painted behind them
is an element of its own (the ground) that may be less high. So nothing of the page moves, by the Layout Instability
definition too, and no stage can turn its own condition over. How high things are drawn was worked out before, for each
width and language; the script marks which distances are passed (`data-rim-passed`).
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator

from ...fit.rows.fitter import Fitter
from ...kinds.items.logo import Logo
from ...kinds.moving import Stage
from ...kinds.pieces.base import Piece
from ...kinds.pieces.header import Header
from ...kinds.rows import Row
from ...kinds.rule import Rule, inside
from ...model.editing.check import PAINTED
from ...model.site import Site
from ...model.stages import hands_over, stages_in
from ...movement.over_widths import Slimmed, SlimSpan, slimmed, widths_of
from ...style.resolve import Styling
from ...values.properties import PROPERTIES
from .style_rules import LIVELY, StyleRules, band_queries, line_width
from .width_rules import lang_selector, length_css, media, usual_first, widths_query

_UNPAINTED = {
    "background": "none",
    "border-color": "transparent",
    "border-image-source": "none",
    "box-shadow": "none",
}
_BARE = {
    "margin": "0",
    "padding": "0",
    "opacity": "1",
    "inline-size": "auto",
    "min-inline-size": "0",
    "max-inline-size": "none",
    "min-block-size": "0",
    "max-block-size": "none",
    "mix-blend-mode": "normal",
}
"""A ground has the classes of what it lies behind, and none of its sizes."""
_OVER = {
    "margin": "0",
    "opacity": "1",
    "inline-size": "auto",
    "min-inline-size": "0",
    "max-inline-size": "none",
    "mix-blend-mode": "normal",
}
"""What comes over a piece stands in it: what the piece says of its width and place is done already."""
_AT_NO_LINES = {"inset-block-start": "0", "inset-inline": "0 0"}
"""What runtime/pieces.css says already of rows that come over a piece's own."""
_SLIMMING = ("translate", "inset-block-end", "background-color", "border-color", "box-shadow", "color", "visibility")
"""What changes in time when a header slims, or stays until other rows have come over it."""


def is_slimmed(piece: Piece, site: Site) -> bool:
    """Whether it has a stage in which its own rows are drawn otherwise: what is painted behind them is an element
    then."""
    return (
        isinstance(piece, Header)
        and piece.is_ever_pinned
        and any(not hands_over(site, piece, stage) for stage in piece.stages)
    )


def drawn_ground(height: str) -> dict[str, str]:
    """What is painted behind a piece's rows, as high as they are drawn: a CSS length. An edge can change in time, to
    whichever height; a height cannot, from what follows from the rows."""
    return {"inset-block-end": f"calc(100% - {height} + var(--rim-line,0px))"}


def drawn_row(align: str, height: str, off: str) -> tuple[dict[str, str], dict[str, str]]:
    """A row as it is drawn in a stage, and what is painted behind it. `height`: as high as it is drawn, `off`: see
    `SlimRow.off_px`; both as CSS lengths."""
    share = {"start": "", "end": "1"}.get(align, "2")
    moved = off
    if share:
        less = f"({height} - 100%)" + ("/2" if share == "2" else "")
        moved = f"calc({less}{f' + {off}' if off != '0px' else ''})"
    start = {"start": "0", "end": f"calc(100% - {height})"}.get(align, f"calc((100% - {height})/2)")
    return {"translate": f"0 {moved}"}, {"block-size": height, "inset-block-start": start}


def is_painted(row: Row, piece: Piece, site: Site) -> bool:
    """Whether anything is painted behind it, or may be."""
    looks = {look.id: look.styles for look in site.looks}
    defaults = (default.styles for default in (*site.roles, *piece.roles) if default.role == "row")
    said = (row.styles, *(looks[look] for look in row.wears), *defaults)
    return any(PROPERTIES[style.property].group in PAINTED for styles in said for style in styles)


class StageRules:
    def __init__(self, site: Site, styling: Styling, fitter: Callable[[], Fitter]) -> None:
        """`fitter` is asked for where heights have to be known."""
        self.site, self.name, self.styling, self._fitter = site, site.key, styling, fitter

    def before_styles(self, piece: Header) -> Iterator[Rule]:
        """For the layer that outweighs what designers say: a piece with a ground of its own paints none itself."""
        if any(hands_over(self.site, piece, stage) for stage in piece.stages):
            yield Rule(f".rim-{piece.id}>.rim-over", _OVER)
            yield from self._at_edges(piece, f".rim-{piece.id}>.rim-over", is_high=False)
            yield from self._coming_over(piece)
        if is_slimmed(piece, self.site):
            yield from self._grounds(piece)
            return
        for _, query, selector in self._held(piece):
            yield Rule(selector, _UNPAINTED, media(query))

    def _grounds(self, piece: Header) -> Iterator[Rule]:
        own = f".rim-{piece.id}"
        rows = [row for row in self.site.rows_in(piece) if is_painted(row, piece, self.site)]
        yield Rule(f"{own}:not(.rim-ground,.rim-over)", _UNPAINTED)
        yield Rule(_any([f"{own}>.rim-ground", *(f".rim-{row.id}>.rim-ground" for row in rows)]), _BARE)
        yield Rule(f"{own}>.rim-ground", {"block-size": "auto"})
        yield from self._at_edges(piece, f"{own}>.rim-ground", is_high=True)
        for stage, query, selector in self._held(piece, drawn=True):
            if rows:
                yield Rule(_any(f"{selector}>.rim-{row.id}" for row in rows), _UNPAINTED, media(query))
            for span, language in self._slim_spans(piece, stage):
                height = length_css(span.line(lambda slim: slim.drawn_px), span.from_px, span.to_px)
                within = media(query, widths_query(span.from_px, span.to_px))
                yield Rule(f"{selector}{language}>.rim-ground", drawn_ground(height), within)

    def _at_edges(self, piece: Piece, selector: str, *, is_high: bool) -> Iterator[Rule]:
        """What is laid over all of a piece has its border edges: an inset counts from within its lines. `is_high`: down
        to its lower edge, too."""
        element = self.styling.elements[piece.id, "box"]
        said: dict[tuple[tuple[str, str], ...], list[str | None]] = {}
        bands: list[str | None] = [band.id for band in self.site.bands] or [None]
        for band in bands:
            lines = [
                line_width(self.styling.resolve(element, f"border-{side}-width", "rest", band).value)
                if self.styling.resolve(element, f"border-{side}-style", "rest", band).value != "none"
                else "0px"
                for side in ("block-start", "block-end", "inline-start", "inline-end")
            ]
            top, bottom, start, end = (f"calc(-1*{line})" if line != "0px" else "0" for line in lines)
            declared = {"inset-block": f"{top} {bottom}"} if is_high else {"inset-block-start": top}
            if is_high and top != "0":
                declared["--rim-line"] = lines[0]
            said.setdefault(tuple({**declared, "inset-inline": f"{start} {end}"}.items()), []).append(band)
        for pairs, listed in said.items():
            declared = dict(pairs)
            if declared == _AT_NO_LINES:
                continue
            shown = {band for band in listed if band is not None}
            for query in [""] if len(said) == 1 else band_queries(self.site, shown):
                yield Rule(selector, declared, media(query))

    def painted(self, piece: Header, rules: StyleRules) -> Iterator[Rule]:
        """What stages change of how a piece is painted: a layer before the piece's own styles."""
        for stage in piece.stages:
            if stage.styles and hands_over(self.site, piece, stage):
                over = f".rim-{piece.id}>.rim-over.rim-{stage.id}"
                yield from rules.declared(over, stage.styles)
                yield from rules.grounded(over, stage.id)
        for stage, query, selector in self._held(piece):
            whole = [one for one in stage.styles if one.property in {"opacity", "mix-blend-mode"}]
            yield from inside(media(query), rules.declared(selector, whole))
            if stage.styles and not hands_over(self.site, piece, stage):
                inherited = [one for one in stage.styles if one.property == "color"]
                yield from inside(media(query), rules.declared(selector, inherited))
                yield from inside(media(query), rules.declared(f"{selector}>.rim-ground", stage.styles))
                yield from inside(media(query), rules.grounded(f"{selector},{selector}>.rim-ground", stage.id))

    def drawn(self, piece: Header) -> Iterator[Rule]:
        """How it is seen in each of its stages, and changes from one to the next."""
        for stage, query, selector in self._held(piece, self.name):
            within = media(query)
            yield Rule(selector, {f"--{self.name}-stage": str(piece.stages.index(stage) + 1)}, within)
            if hands_over(self.site, piece, stage):
                yield Rule(f"{selector},{selector}>.{self.name}-row", {"pointer-events": "none"}, within)
                own = f"{selector}>:is(.{self.name}-row,.{self.name}-ground)"
                yield Rule(own, {"visibility": "hidden"}, within)
                over = f"{selector}>.{self.name}-over.{self.name}-{stage.id}"
                yield Rule(over, {"display": "block", "pointer-events": "auto"}, within)
        for stage, query, selector in self._held(piece, self.name, drawn=True):
            yield from self._slim(piece, stage, query, selector)
        if piece.stages and piece.motion != "none":
            own = f".{self.name}-{piece.id}"
            passed = f'{own}[data-rim-passed]:not([data-rim-passed=""])'
            times = {own: piece.out_ms} if piece.in_ms == piece.out_ms else {own: piece.out_ms, passed: piece.in_ms}
            for there, ms in times.items():
                parts = f"{there}>:is(.{self.name}-row,.{self.name}-ground)"
                timed = f"{ms}ms {piece.easing}"
                moved = ",".join(f"{one} {timed}" for one in _SLIMMING)
                yield Rule(parts, {"transition": moved}, media(LIVELY))
                yield Rule(f"{there} .{self.name}-logo", {"transition": f"scale {timed}"}, media(LIVELY))

    def _coming_over(self, piece: Header) -> Iterator[Rule]:
        """How other rows come in place of the piece's own, and go (CSS Transitions 2, 3.3)."""
        if piece.motion == "none":
            return
        name, moved, rest = ("translate", "0 -100%", "0 0") if piece.motion == "slide" else ("opacity", "0", "1")
        goes = f"{name} {piece.out_ms}ms {piece.easing},display {piece.out_ms}ms allow-discrete"
        yield Rule(f".rim-{piece.id}>.rim-over", {name: moved, "transition": goes}, media("screen", LIVELY))
        for stage, query, selector in self._held(piece):
            if hands_over(self.site, piece, stage):
                over, within = f"{selector}>.rim-over.rim-{stage.id}", media(query or "screen", LIVELY)
                comes = {name: rest, "transition": f"{name} {piece.in_ms}ms {piece.easing}"}
                yield Rule(over, comes, within)
                yield Rule(over, {name: moved}, (*within, "@starting-style"))

    def _slim(self, piece: Header, stage: Stage, query: str, selector: str) -> Iterator[Rule]:
        site, name = self.site, self.name
        rows = site.rows_in(piece)
        gone = [f"{selector} .{name}-{node}" for node in stage.without]
        if gone:
            yield Rule(_any(gone), {"visibility": "hidden", "transition": "none"}, media(query))
        if stage.logo_percent < 100:
            for row in rows:
                for cell in row.cells:
                    for item in cell.items:
                        if isinstance(item, Logo):
                            yield from self._scaled(item, cell.align, stage.logo_percent, query, selector)
        in_cells = f"{selector}>.{name}-row>.{name}-cells>.{name}-cell>*"
        yield Rule(f"{selector},{selector}>.{name}-row", {"pointer-events": "none"}, media(query))
        yield Rule(in_cells, {"pointer-events": "auto"}, media(query))
        yield Rule(f"{selector}>.{name}-ground", {"pointer-events": "auto"}, media(query))
        for span, language in self._slim_spans(piece, stage):
            within = media(query, widths_query(span.from_px, span.to_px))
            for at in range(len(span.first.rows)):
                yield from inside(within, self._slim_row(f"{selector}{language}", span, at))
        grounds = [f"{selector}>.{name}-{row.id}>.{name}-ground" for row in rows if is_painted(row, piece, site)]
        if grounds:
            yield Rule(_any(grounds), {"display": "block"}, media(query))

    def _scaled(self, item: Logo, align: str, percent: int, query: str, selector: str) -> Iterator[Rule]:
        side = {"start": "0", "end": "100%"}.get(align, "50%")
        other = {"0": "100%", "100%": "0"}.get(side, side)
        own = f"{selector} .{self.name}-{item.id}"
        yield Rule(own, {"scale": f"{percent / 100:g}", "transform-origin": f"{side} 50%"}, media(query))
        if other != side:
            yield Rule(f"{own}:dir(rtl)", {"transform-origin": f"{other} 50%"}, media(query))

    def _slim_row(self, selector: str, span: SlimSpan, at: int) -> Iterator[Rule]:
        row = span.first.rows[at]
        if row.drawn_px == 0.0:
            return

        def px(of: Callable[[Slimmed], float]) -> str:
            return length_css(span.line(of), span.from_px, span.to_px)

        off, high = px(lambda slim: slim.rows[at].off_px), px(lambda slim: slim.rows[at].drawn_px)
        own = f"{selector}>.{self.name}-{row.row}"
        below = px(lambda slim: slim.drawn_px - slim.rows[at].top_px - slim.rows[at].moved_px)
        of_row, of_ground = drawn_row(row.align, high, off)
        yield Rule(own, {**of_row, f"--{self.name}-panel-top": below})
        yield Rule(f"{own}>.{self.name}-ground", of_ground)

    def _slim_spans(self, piece: Header, stage: Stage) -> Iterator[tuple[SlimSpan, str]]:
        fitter = self._fitter()
        by_language = {
            language: slimmed(widths_of(fitter, self.site, piece, language), stage)
            for language in fitter.languages(self.site, piece)
        }
        for language, spans in usual_first(by_language):
            for span in spans:
                yield span, lang_selector(language)

    def _held(self, piece: Header, name: str = "rim", *, drawn: bool = False) -> Iterator[tuple[Stage, str, str]]:
        """Each of its stages, with the media query of the bands in which it can hold, and what selects the piece in it.
        `drawn`: those in which its own rows are drawn otherwise; they stay so beneath rows that it hands over to, so
        that nothing of them is seen to move while these come and go."""
        over = {stage.id for stage in piece.stages if drawn and hands_over(self.site, piece, stage)}
        bands: list[str | None] = [band.id for band in self.site.bands] or [None]
        groups: dict[tuple[str, ...], list[str | None]] = {}
        for band in bands:
            groups.setdefault(tuple(stage.id for stage in stages_in(piece, band)), []).append(band)
        numbers = {stage.id: at for at, stage in enumerate(piece.stages, 1)}
        for listed, held in groups.items():
            queries = (
                [""] if len(groups) == 1 else list(band_queries(self.site, {band for band in held if band is not None}))
            )
            for stage in (stage for stage in piece.stages if stage.id in listed and stage.id not in over):
                later = [numbers[one] for one in listed if numbers[one] > numbers[stage.id] and one not in over]
                passed = f'[data-rim-passed~="{numbers[stage.id]}"]'
                unless = "".join(f':not([data-rim-passed~="{at}"])' for at in later)
                for query in queries:
                    yield stage, query, f".{name}-{piece.id}{passed}{unless}"


def _any(selectors: Iterable[str]) -> str:
    """A list of selectors (Selectors 4, 5.1)."""
    return ",".join(selectors)
