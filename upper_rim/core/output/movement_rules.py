"""Which CSS rules let pieces stay, come and go, and pass through stages?

Stages are drawn, not laid out: the rows keep their boxes and are moved by `translate`, and what is painted behind them is
an element of its own (the ground) that may be less high. So nothing of the page moves, by the Layout Instability
definition too, and no stage can turn its own condition over. How high things are drawn was worked out before, for each
width and language; the script marks only which distances are passed (`data-rim-passed`), that one has scrolled down
(`-down`), not far enough yet (`-early`), or to the footer (`-away`).
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence

from ..fit.fitter import Fitter
from ..fit.sweep import FROM_PX, TO_PX
from ..model.check import PAINTED
from ..model.items import Logo
from ..model.properties import PROPERTIES
from ..model.site import (
    BottomBar,
    ByElement,
    ByPage,
    ByPixels,
    ByViewport,
    Distance,
    Float,
    Header,
    Moving,
    Notice,
    Piece,
    Row,
    Sidebar,
    Site,
    Stage,
    Way,
)
from ..model.stages import hands_over, stages_in
from ..movement.heights import SlimRow
from ..movement.over_widths import Line, SlimSpan, Span, reserved, slimmed, widths_of
from ..style.resolve import Styling
from .style_rules import StyleRules, band_queries, line_width

_UNPAINTED = "background:none;border-color:transparent;border-image-source:none;box-shadow:none"
_BARE = (
    "margin:0;padding:0;opacity:1;inline-size:auto;min-inline-size:0;max-inline-size:none;min-block-size:0;"
    "max-block-size:none;mix-blend-mode:normal"
)
"""A ground has the classes of what it lies behind, and none of its sizes."""
_SLIMMING = ("translate", "inset-block-end", "background-color", "border-color", "box-shadow", "color", "visibility")
"""What changes in time when a header slims, or stays until other rows have come over it."""
CALM, LIVELY = "(prefers-reduced-motion:reduce)", "(prefers-reduced-motion:no-preference)"


def told(after: Distance) -> str:
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


def is_low(piece: Piece) -> bool:
    """Whether it stands in the stack at the window's lower edge."""
    if isinstance(piece, Notice):
        return piece.edge == "bottom" and piece.moves != "away"
    return isinstance(piece, BottomBar | Float)


def is_slimmed(piece: Piece, site: Site) -> bool:
    """Whether it has a stage in which its own rows are drawn otherwise: what is painted behind them is an element then."""
    return (
        isinstance(piece, Header)
        and piece.is_ever_pinned
        and any(not hands_over(site, piece, stage) for stage in piece.stages)
    )


def is_painted(row: Row, piece: Piece, site: Site) -> bool:
    """Whether anything is painted behind it, or may be."""
    looks = {look.id: look.styles for look in site.looks}
    defaults = (default.styles for default in (*site.roles, *piece.roles) if default.role == "row")
    said = (row.styles, *(looks[look] for look in row.wears), *defaults)
    return any(PROPERTIES[style.property].group in PAINTED for styles in said for style in styles)


def moves(piece: Piece) -> bool:
    if not isinstance(piece, Moving):
        return False
    at_top = isinstance(piece, Header | Sidebar) or (isinstance(piece, Notice) and piece.edge == "top")
    return (at_top and piece.is_ever_pinned) or is_low(piece) or (isinstance(piece, Header) and piece.over)


class MovementRules:
    def __init__(self, site: Site, styling: Styling, fitter: Callable[[], Fitter]) -> None:
        """`fitter` is asked for where heights have to be known."""
        self.site, self.name, self.styling, self._fitter = site, site.key, styling, fitter

    def before_styles(self) -> Iterator[str]:
        """For the layer that outweighs what designers say: what does not show, however opaque; and that a piece with a
        ground of its own paints none itself."""
        for piece in self.site.pieces:
            if moves(piece) and isinstance(piece, Moving):
                gone = "".join(self._comes_and_goes(piece))
                yield f"@media screen{{{gone}}}" if gone else ""
            if not isinstance(piece, Header):
                continue
            if any(hands_over(self.site, piece, stage) for stage in piece.stages):
                # It stands in the piece, at its edges; what the piece says of its width and place is done already.
                at = "margin:0;opacity:1;inline-size:auto;min-inline-size:0;max-inline-size:none;mix-blend-mode:normal"
                yield f".rim-{piece.id}>.rim-over{{{at}}}"
                yield from self._coming_over(piece)
            if is_slimmed(piece, self.site):
                yield from self._grounds(piece)
                continue
            for _, query, selector in self._held(piece):
                yield _media(query, "", f"{selector}{{{_UNPAINTED}}}")

    def _grounds(self, piece: Header) -> Iterator[str]:
        own = f".rim-{piece.id}"
        rows = [row for row in self.site.rows_in(piece) if is_painted(row, piece, self.site)]
        yield f"{own}:not(.rim-ground,.rim-over){{{_UNPAINTED}}}"
        yield ",".join([f"{own}>.rim-ground", *(f".rim-{row.id}>.rim-ground" for row in rows)]) + f"{{{_BARE}}}"
        yield f"{own}>.rim-ground{{block-size:auto}}"
        yield from self._ground_at(piece, own)
        for stage, query, selector in self._held(piece, drawn=True):
            unpainted = ",".join(f"{selector}>.rim-{row.id}" for row in rows)
            yield _media(query, "", f"{unpainted}{{{_UNPAINTED}}}" if rows else "")
            for span, language in self._slim_spans(piece, stage):
                height = css(span.height, span.from_px, span.to_px)
                # An edge can change in time, to whichever height; a height cannot, from what follows from the rows.
                edge = f"inset-block-end:calc(100% - {height} + var(--rim-line,0px))"
                rule = f"{selector}{language}>.rim-ground{{{edge}}}"
                yield _media(query, _widths(span.from_px, span.to_px), rule)

    def _ground_at(self, piece: Piece, own: str) -> Iterator[str]:
        """Its edges are the piece's border edges: an inset counts from within its lines."""
        element = self.styling.elements[piece.id, "box"]
        said: dict[str, list[str | None]] = {}
        bands: list[str | None] = [band.id for band in self.site.bands] or [None]
        for band in bands:
            lines = [
                line_width(self.styling.resolve(element, f"border-{side}-width", "rest", band).value)
                if self.styling.resolve(element, f"border-{side}-style", "rest", band).value != "none"
                else "0px"
                for side in ("block-start", "block-end", "inline-start", "inline-end")
            ]
            top, bottom, start, end = (f"calc(-1*{line})" if line != "0px" else "0" for line in lines)
            line = f";--rim-line:{lines[0]}" if top != "0" else ""
            said.setdefault(f"inset-block:{top} {bottom};inset-inline:{start} {end}{line}", []).append(band)
        if len(said) == 1:
            yield f"{own}>.rim-ground{{{next(iter(said))}}}"
            return
        for rule, listed in said.items():
            for query in band_queries(self.site, {band for band in listed if band is not None}):
                yield _media(query, "", f"{own}>.rim-ground{{{rule}}}")

    def painted(self, rules: StyleRules) -> Iterator[str]:
        """What stages change of how a piece is painted: a layer before the piece's own styles."""
        for piece in self.site.pieces:
            if not isinstance(piece, Header):
                continue
            for stage in piece.stages:
                if stage.styles and hands_over(self.site, piece, stage):
                    over = f".rim-{piece.id}>.rim-over.rim-{stage.id}"
                    yield rules.declared(over, stage.styles) + rules.grounded(over, stage.id)
            for stage, query, selector in self._held(piece):
                whole = [one for one in stage.styles if one.property in {"opacity", "mix-blend-mode"}]
                yield _media(query, "", rules.declared(selector, whole))
                if stage.styles and not hands_over(self.site, piece, stage):
                    yield _media(
                        query, "", rules.declared(selector, [one for one in stage.styles if one.property == "color"])
                    )
                    yield _media(query, "", rules.declared(f"{selector}>.rim-ground", stage.styles))
                    yield _media(query, "", rules.grounded(f"{selector},{selector}>.rim-ground", stage.id))

    def placed(self) -> Iterator[str]:
        """Where pieces are pinned, how their stages are drawn, and what the page keeps free for them."""
        moving = [piece for piece in self.site.pieces if moves(piece)]
        if not moving:
            return
        yield "@media screen{"
        for piece in moving:
            assert isinstance(piece, Moving)
            yield from self._room_kept(piece)
            yield from self._pinned(piece)
            if isinstance(piece, Header):
                yield from self._stages(piece)
        kept = [
            f"scroll-padding-block-{side}:{self._kept(kinds)}"
            for side, kinds in (("start", ("notice", "header")), ("end", ("bottom", "low")))
            if any(self._kind(piece) in kinds for piece in moving)
        ]
        if kept:
            yield f":root:has(.{self.name}){{{';'.join(kept)}}}"
        yield "}"
        if any(is_low(piece) for piece in moving):
            yield f"@media print{{.{self.name}-stack,.{self.name}-room{{display:none}}}}"

    def _kept(self, kinds: Iterable[str]) -> str:
        return f"calc({' + '.join(f'var(--{self.name}-{kind},0px)' for kind in kinds)})"

    def _kind(self, piece: Piece) -> str:
        return "low" if isinstance(piece, Notice) and piece.edge == "bottom" else piece.kind

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

    def _room_kept(self, piece: Moving) -> Iterator[str]:
        """The window's edge that it takes, as a custom property of the page: what is pinned next to it, and what is
        scrolled to, keep their distance. What is not there takes nothing."""
        if isinstance(piece, Sidebar | Float):
            return
        property_ = f"--{self.name}-{self._kind(piece)}"
        fitter = self._fitter()

        def is_pinned(band: str | None) -> bool:
            return is_low(piece) or piece.way_in(band) != "away"

        by_language = {
            language: reserved(widths_of(fitter, self.site, piece, language), is_pinned)
            for language in fitter.languages(self.site, piece)
        }
        settles = any(span.lines[0] != span.lines[1] for spans in by_language.values() for span in spans)
        for language, spans in _usual_first(by_language):
            there = f".{self.name}-{piece.id}{_in(language)}:not([hidden])"
            for span in spans:
                more = 0 if is_low(piece) else piece.pin_px
                highest, settled = (css(_more(line, more), span.from_px, span.to_px) for line in span.lines)
                said = f"{property_}:{highest}" + (f";{property_}-settled:{settled}" if settles else "")
                yield _media("", _widths(span.from_px, span.to_px), f":root:has({there}){{{said}}}")

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

    def _pinned(self, piece: Moving) -> Iterator[str]:
        own = self._own(piece)
        over = isinstance(piece, Header) and piece.over
        if over:
            own = f".{self.name}-{piece.id}-pin"
            yield f"{own}{{display:block;block-size:0;position:relative;z-index:9001}}@media (scripting:none){{{own}{{block-size:auto}}}}"
        if is_low(piece) or isinstance(piece, Sidebar):
            return
        order = 9002 if isinstance(piece, Notice) else 9001
        for way, queries in self._bands_by_way(piece).items():
            for query in queries:
                if way != "away":
                    when = ":root[data-rim-on] " if way == "up" else ""
                    pinned = f"position:sticky;inset-block-start:{self._above(piece)};z-index:{order}"
                    yield _media(query, "", f"{when}{own}{{{pinned}}}")

    def beside(self, piece: Sidebar, query: str) -> str:
        """A sidebar that stays, where it stands beside the content: within its column, and with its own scroll where it
        is longer than the window. `query`: of all widths at which it stands there."""
        own, above = f".{self.name}-{piece.id}", self._above(piece)
        staying = {band.id for band in self.site.bands if piece.way_in(band.id) != "away"}
        whole = len(staying) == len(self.site.bands)
        rule = (
            f"{own}{{position:sticky;inset-block-start:{above};max-block-size:calc(100vh - {above});overflow:hidden auto;"
            "overscroll-behavior:contain}"
        )
        if piece.way_in(None) == "away" and not self.site.bands:
            return ""
        return "".join(
            _media(f"screen and {query}{f' and {band}' if band else ''}", "", rule)
            for band in ([""] if whole else list(band_queries(self.site, staying)))
        )

    def _comes_and_goes(self, piece: Moving) -> Iterator[str]:
        """Where it is pinned."""
        own, out = self._own(piece), self._out_of_view(piece)
        states = [*(["early"] if piece.hides_until is not None else []), *(["away"] if piece.yields else [])]
        gone = ",".join(f"{own}[data-rim-{state}]" for state in states)
        down = f"{own}[data-rim-down]:not(:focus-within)"
        for way, queries in self._bands_by_way(piece).items():
            if way == "away" and not is_low(piece):
                continue
            for query in queries:
                yield from (_media(query, "", rule) for rule in self._goes(piece, own, gone, down if way == "up" else "", out))  # fmt: skip

    def _goes(self, piece: Moving, own: str, gone: str, down: str, out: str) -> Iterator[str]:
        if piece.hides_until is not None:
            yield f"@media not (scripting:none){{:root:not([data-rim-on]) {own}{{visibility:hidden}}}}"
        if gone:
            yield f"{gone}{{visibility:hidden;{_moved(piece, out)}}}"
        if down:
            yield f"{down}{{{_moved(piece, out)};pointer-events:none}}"
        where = ",".join(part for part in (gone, down) if part)
        if not where:
            return
        if piece.motion != "none":
            yield f"@media {LIVELY}{{{own}{{{_times(piece, piece.in_ms)}}}{where}{{{_times(piece, piece.out_ms)}}}}}"
        if piece.calm == "fade":
            faded = piece.replaced(motion="fade")
            yield f"@media {CALM}{{{own}{{{_times(faded, piece.in_ms)}}}{where}{{translate:none;opacity:0;{_times(faded, piece.out_ms)}}}}}"
        if piece.calm == "stays" and down:
            yield f"@media {CALM}{{{down}{{translate:none;opacity:1;pointer-events:auto}}}}"

    def _out_of_view(self, piece: Moving) -> str:
        """By how much it is moved out of the window."""
        if not is_low(piece):
            # Other rows may be higher than its own.
            high = f"max(100%,var(--{self.name}-header,0px))" if isinstance(piece, Header) and piece.stages else "100%"
            return f"calc(-1*{high} - {self._above(piece)})"
        if isinstance(piece, Float):
            if piece.place.startswith("top"):
                return f"calc(-100% - {piece.inset_px}px - env(safe-area-inset-top))"
            return f"calc(100% + {piece.inset_px}px + {self._kept(('bottom', 'low'))} + env(safe-area-inset-bottom))"
        beneath = f" + var(--{self.name}-bottom,0px)" if isinstance(piece, Notice) else ""
        return f"calc(100%{beneath} + env(safe-area-inset-bottom))"

    def _stages(self, piece: Header) -> Iterator[str]:
        for stage, query, selector in self._held(piece, self.name):
            yield _media(query, "", f"{selector}{{--{self.name}-stage:{piece.stages.index(stage) + 1}}}")
            if hands_over(self.site, piece, stage):
                over = f">.{self.name}-over.{self.name}-{stage.id}"
                yield _media(query, "", f"{selector},{selector}>.{self.name}-row{{pointer-events:none}}{selector}>:is(.{self.name}-row,.{self.name}-ground){{visibility:hidden}}{selector}{over}{{display:block;pointer-events:auto}}")  # fmt: skip
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
                yield f"@media {LIVELY}{{{parts}{{transition:{moved}}}{there} .{self.name}-logo{{transition:scale {timed}}}}}"

    def _coming_over(self, piece: Header) -> Iterator[str]:
        """How other rows come in place of the piece's own, and go (CSS Transitions 2, 3.3)."""
        if piece.motion == "none":
            return
        moved, rest = ("translate:0 -100%", "translate:0 0") if piece.motion == "slide" else ("opacity:0", "opacity:1")
        name = moved.partition(":")[0]
        goes = f"{name} {piece.out_ms}ms {piece.easing},display {piece.out_ms}ms allow-discrete"
        yield f"@media screen and {LIVELY}{{.rim-{piece.id}>.rim-over{{{moved};transition:{goes}}}}}"
        for stage, query, selector in self._held(piece):
            if hands_over(self.site, piece, stage):
                over = f"{selector}>.rim-over.rim-{stage.id}"
                comes = f"{over}{{{rest};transition:{name} {piece.in_ms}ms {piece.easing}}}@starting-style{{{over}{{{moved}}}}}"
                yield _media(query, f"screen and {LIVELY}" if not query else LIVELY, comes)

    def _slim(self, piece: Header, stage: Stage, query: str, selector: str) -> Iterator[str]:
        site, name = self.site, self.name
        rows = site.rows_in(piece)
        gone = [f"{selector} .{name}-{node}" for node in stage.without]
        if gone:
            yield _media(query, "", f"{','.join(gone)}{{visibility:hidden;transition:none}}")
        if stage.logo_percent < 100:
            for row in rows:
                for cell in row.cells:
                    for item in cell.items:
                        if isinstance(item, Logo):
                            yield from self._scaled(item, cell.align, stage.logo_percent, query, selector)
        yield _media(query, "", f"{selector},{selector}>.{name}-row{{pointer-events:none}}{selector}>.{name}-row>.{name}-cells>.{name}-cell>*{{pointer-events:auto}}{selector}>.{name}-ground{{pointer-events:auto}}")  # fmt: skip
        for span, language in self._slim_spans(piece, stage):
            for slim in span.rows:
                yield _media(query, _widths(span.from_px, span.to_px), self._slim_row(f"{selector}{language}", span, slim.first, slim.last))  # fmt: skip
        grounds = [f"{selector}>.{name}-{row.id}>.{name}-ground" for row in rows if is_painted(row, piece, site)]
        if grounds:
            yield _media(query, "", f"{','.join(grounds)}{{display:block}}")

    def _scaled(self, item: Logo, align: str, percent: int, query: str, selector: str) -> Iterator[str]:
        side = {"start": "0", "end": "100%"}.get(align, "50%")
        other = {"0": "100%", "100%": "0"}.get(side, side)
        own = f"{selector} .{self.name}-{item.id}"
        yield _media(query, "", f"{own}{{scale:{percent / 100:g};transform-origin:{side} 50%}}")
        if other != side:
            yield _media(query, "", f"{own}:dir(rtl){{transform-origin:{other} 50%}}")

    def _slim_row(self, selector: str, span: SlimSpan, first: SlimRow, last: SlimRow) -> str:
        if first.drawn_px == 0.0:
            return ""
        off, drawn = Line(first.off_px, last.off_px), Line(first.drawn_px, last.drawn_px)
        share = {"start": "", "end": "1"}.get(first.align, "2")
        moved = css(off, span.from_px, span.to_px)
        high = css(drawn, span.from_px, span.to_px)
        if share:
            less = f"({high} - 100%)" + ("/2" if share == "2" else "")
            moved = f"calc({less}{f' + {moved}' if moved != '0px' else ''})"
        own = f"{selector}>.{self.name}-{first.row}"
        below = css(
            Line(
                span.height.first - first.top_px - first.moved_px,
                span.height.last - last.top_px - last.moved_px,
            ),
            span.from_px,
            span.to_px,
        )
        start = {"start": "0", "end": f"calc(100% - {high})"}.get(first.align, f"calc((100% - {high})/2)")
        return (
            f"{own}{{translate:0 {moved};--{self.name}-panel-top:{below}}}"
            f"{own}>.{self.name}-ground{{block-size:{high};inset-block-start:{start}}}"
        )

    def _slim_spans(self, piece: Header, stage: Stage) -> Iterator[tuple[SlimSpan, str]]:
        fitter = self._fitter()
        by_language = {
            language: slimmed(widths_of(fitter, self.site, piece, language), stage)
            for language in fitter.languages(self.site, piece)
        }
        for language, spans in _usual_first(by_language):
            for span in spans:
                yield span, _in(language)

    def _held(self, piece: Header, name: str = "rim", *, drawn: bool = False) -> Iterator[tuple[Stage, str, str]]:
        """Each of its stages, with the media query of the bands in which it can hold, and what selects the piece in it.
        `drawn`: those in which its own rows are drawn otherwise; they stay so beneath rows that it hands over to, so that
        nothing of them is seen to move while these come and go."""
        over = {stage.id for stage in piece.stages if drawn and hands_over(self.site, piece, stage)}
        bands: list[str | None] = [band.id for band in self.site.bands] or [None]
        groups: dict[tuple[str, ...], list[str | None]] = {}
        for band in bands:
            groups.setdefault(tuple(stage.id for stage in stages_in(piece, band)), []).append(band)
        numbers = {stage.id: at for at, stage in enumerate(piece.stages, 1)}
        for listed, held in groups.items():
            queries = [""] if len(groups) == 1 else list(band_queries(self.site, {band for band in held if band is not None}))  # fmt: skip
            for stage in (stage for stage in piece.stages if stage.id in listed and stage.id not in over):
                later = [numbers[one] for one in listed if numbers[one] > numbers[stage.id] and one not in over]
                passed = f'[data-rim-passed~="{numbers[stage.id]}"]'
                unless = "".join(f':not([data-rim-passed~="{at}"])' for at in later)
                for query in queries:
                    yield stage, query, f".{name}-{piece.id}{passed}{unless}"


def css(line: Line, from_px: int, to_px: int) -> str:
    """As a length: one number, or along the viewport's width."""
    if line.is_level or to_px <= from_px:
        return f"{round(line.first, 2):g}px"
    slope = (line.last - line.first) / (to_px - from_px)
    return f"calc({round(line.first - slope * from_px, 3):g}px + {round(slope * 100, 4):g}vw)"


def _more(line: Line, px: float) -> Line:
    return Line(line.first + px, line.last + px)


def _moved(piece: Moving, out: str) -> str:
    """Where it is while it does not show."""
    return {"slide": f"translate:0 {out}", "fade": "opacity:0", "none": f"translate:0 {out}"}[piece.motion]


def _times(piece: Moving, ms: int) -> str:
    moved = "opacity" if piece.motion == "fade" else "translate"
    return f"transition:{moved} {ms}ms {piece.easing},visibility {ms}ms"


def _in(language: str) -> str:
    return f":lang({language})" if language else ""


def _usual_first(by_language: Mapping[str, Sequence[Span | SlimSpan]]) -> Iterator[tuple[str, Sequence]]:  # type: ignore[type-arg]
    """What most languages have, for all of them; then those that have something else."""
    counted: list[tuple[Sequence[Span | SlimSpan], list[str]]] = []
    for language, spans in by_language.items():
        for known, languages in counted:
            if known == spans:
                languages.append(language)
                break
        else:
            counted.append((spans, [language]))
    counted.sort(key=lambda one: -len(one[1]))
    for at, (spans, languages) in enumerate(counted):
        for language in languages if at else [""]:
            yield language, spans


def _widths(from_px: int, to_px: int) -> str:
    parts = [f"(width >= {from_px}px)"] if from_px > FROM_PX else []
    parts += [f"(width < {to_px + 1}px)"] if to_px < TO_PX else []
    return " and ".join(parts)


def _media(query: str, widths: str, rules: str) -> str:
    whole = " and ".join(part for part in (query, widths) if part)
    return f"@media {whole}{{{rules}}}" if whole and rules else rules
