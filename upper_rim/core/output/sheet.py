"""What is the site's published CSS?

One cascade layer, declared before anything of the page's, in which every declaration is important: importance turns
the order of layers round (CSS Cascade 5, 6.4.4), so that no rule of a page, important or not, reaches into a piece.
Before it stands one more, for what the designer writes by hand.
"""

from __future__ import annotations

import re
from collections import Counter
from collections.abc import Callable, Iterable, Iterator, Sequence
from typing import NamedTuple

import lightningcss

from ..fit.fitter import Fitter
from ..kinds.items.menu import MenuItem
from ..kinds.items.top import BackToTop
from ..kinds.pieces.base import Piece
from ..kinds.pieces.sidebar import Sidebar
from ..kinds.rows import Row, Track
from ..kinds.rule import css
from ..languages import language_of
from ..model.site import Site, drawer_width
from ..model.tree import items_of
from ..style.boxes import extent
from ..style.colour import Palette
from ..style.faces import character_em, faces_in_use, families
from ..style.own_css import own_css
from ..style.pictures import Pictures
from ..style.resolve import Styling
from ..style.scale import sidebar_needs_px
from ..style.selectors import selectors_in
from .font_rules import font_face_rules
from .icon_rules import icon_rules
from .movement_rules import MovementRules
from .naming import published_name, with_site_key
from .shelf import Shelf
from .site_sheet import SiteSheet, cell_rules, hidden_rules
from .style_rules import StyleRules, band_queries, drift_rules, outside_drawers


class SiteRules(NamedTuple):
    """A site's CSS before it is made small: `faces`, one rule a font file or fallback; `first`, the designer's own and what
    is registered; `ours`, all that is in our layer, flat but for at-rules."""

    faces: tuple[str, ...]
    first: str
    ours: str

    def minified(self) -> str:
        return str(lightningcss.process_stylesheet("".join((*self.faces, self.first, self.ours)), minify=True))


def sheet(site: Site, shelf: Shelf, font_url: str, *, forced: bool = False, only_band: str | None = None) -> str:
    """The CSS for all pieces of a site at rest, minified."""
    return site_rules(site, shelf, font_url, forced=forced, only_band=only_band).minified()


def site_rules(
    site: Site,
    shelf: Shelf,
    font_url: str,
    pictures: Pictures = lambda path: None,
    *,
    forced: bool = False,
    only_band: str | None = None,
    fitter: Callable[[], Fitter] | None = None,
) -> SiteRules:
    """The CSS for all pieces of a site. `font_url` is put before a font file's name. `fitter` knows how high
    pieces are; without one nothing moves.

    `forced`: with classes that stand for states, and all roles, for specimens of states. `only_band`: as in that band,
    however wide the viewport (an empty text: as where no band counts).
    """
    styling = Styling(site)
    used = faces_in_use(site, shelf.faces)
    rules = StyleRules(styling, families(site, used), forced=forced, only_band=only_band)
    moving = MovementRules(site, styling, fitter) if fitter is not None else None
    listed = [*_layers_of_movement(moving, rules), *rules.layers()]
    layers = [(name, _ours(site, css)) for name, css in listed]
    base = "".join(
        (
            with_site_key(shelf.pieces_css, site.key),
            *(with_site_key(shelf.item_css[kind], site.key) for kind in _kinds(site) if kind in shelf.item_css),
            *_ways_of_menus(site, shelf),
            *(_drawer(site, shelf, width) for width in _drawer_widths(site) if only_band is None),
            with_site_key(rules.base(), site.key),
            *_structure(site, SiteSheet(site, shelf, pictures), styling, moving),
        )
    )
    named = [name for name, _ in layers] + ["z"]
    inner = "".join(f"@layer {name}{{{css}}}" for name, css in layers) + f"@layer z{{{important(base)}}}"
    calm = f"@media (prefers-reduced-motion:reduce){{.{site.key} *{{transition-duration:0s!important}}}}"
    if "transition-duration" in inner:
        named, inner = ["y", *named], f"@layer y{{{calm}}}{inner}"
    own = _recovered(own_css(site.css))
    own_layer = f"@layer {site.key}-own{{{own}}}" if own else ""
    ground = page_ground(site, rules)
    swatches = _swatches(site, rules.palette, inner + own + ground)
    registered = (drift_rules(site.key) if f"--{site.key}-background-drift" in inner else "") + (
        _uncover_rules(site.key) if f"--{site.key}-uncover" in inner else ""
    )
    return SiteRules(
        tuple(font_face_rules(site, used, font_url)),
        own_layer + registered,
        f"@layer {site.key}{{@layer {','.join(named)};{inner}{swatches}{ground}body{{margin:0}}}}",
    )


def late_css(site: Site, css: str) -> str:
    """Rules that come later than the sheet, at the same place among its layers; minified."""
    inner = f"@layer {site.key}{{@layer z{{{_ours(site, css)}}}}}"
    return str(lightningcss.process_stylesheet(inner, minify=True))


def _layers_of_movement(moving: MovementRules | None, rules: StyleRules) -> Iterator[tuple[str, str]]:
    for name, parts in (("v", moving.before_styles()), ("s", moving.painted(rules))) if moving else ():
        css = "".join(parts)
        if css:
            yield name, css


_NOT_IN_A_PAGE = re.compile(r"<(?=[/!])|[^\x00-\x7f]")


def inside_a_page(css: str) -> str:
    """The same CSS, fit to stand in a style element of a page in any encoding: nothing in it closes the element or opens
    a comment, and all of it is ASCII (CSS Syntax 3, 4.3.7: escapes)."""
    return _NOT_IN_A_PAGE.sub(lambda found: "<\\" if found[0] == "<" else f"\\{ord(found[0]):x} ", css)


def _recovered(css: str) -> str:
    """What a designer wrote, less what a strict reader does not understand."""
    return str(lightningcss.process_stylesheet(css, error_recovery=True, minify=True)) if css else ""


def _swatches(site: Site, palette: Palette, css: str) -> str:
    """Custom properties for the swatches that are referred to."""
    names = {swatch.id: f"--{site.key}-{swatch.id}" for swatch in site.swatches}
    used = set(re.findall(r"var\(\s*(--[\w-]+)", css))
    listed = [f"{name}:{palette.colour(swatch)}" for swatch, name in names.items() if name in used]
    return important(f":root{{{';'.join(listed)}}}") if listed else ""


def _ours(site: Site, css: str) -> str:
    return important(with_site_key(css, site.key))


_DECLARATIONS = re.compile(r"\{([^{}]*)\}")
_COMMENTS = re.compile(r"/\*.*?\*/", re.DOTALL)
_SEMICOLONS = re.compile(r';(?=(?:[^"]*"[^"]*")*[^"]*$)')


def important(css: str) -> str:
    """The same CSS with each declaration marked important. Rules are flat: no nesting but in at-rules."""

    def mark(block: re.Match[str]) -> str:
        declarations = (part.strip() for part in _SEMICOLONS.split(block[1]))
        return "{" + ";".join(f"{part}!important" for part in declarations if part) + "}"

    return _DECLARATIONS.sub(mark, _COMMENTS.sub("", css))


def page_ground(site: Site, rules: StyleRules) -> str:
    """What lies behind the whole site: painted by the root element, with the body's own ground out of the way."""
    default = next((default for default in site.roles if default.role == "page"), None)
    said = (
        [f"{style.property}:{rules.published(style.property, style.value)}" for style in default.styles]
        if default
        else []
    )
    if not said:
        return ""
    declarations = important(f"{{{';'.join(said)}}}")
    return f":root:has(.{site.key}){declarations}body:has(.{site.key}){{background:none!important}}"


def _kinds(site: Site) -> list[str]:
    """Kinds of the items in use, in order; and `hint`."""
    hinted = {"hint"} if any(item.hint.text for item in items_of(site.pieces)) else set()
    return sorted({item.kind for item in items_of(site.pieces)} | hinted)


def _drawer_widths(site: Site) -> list[int]:
    menus = (item for item in items_of(site.pieces) if isinstance(item, MenuItem))
    return sorted({width for menu in menus if (width := drawer_width(menu, site)) is not None})


def _ways_of_menus(site: Site, shelf: Shelf) -> Iterator[str]:
    """How menus show themselves that are no mere rows; from their own width on, where they are drawers below it."""
    alike: dict[tuple[str, int | None], list[str]] = {}
    for item in items_of(site.pieces):
        if not isinstance(item, MenuItem):
            continue
        way = "panels" if item.way == "row" and item.panels == "wide" else {"column": "list", "columns": "columns"}.get(item.way)  # fmt: skip
        if way:
            below = drawer_width(item, site) if way != "list" else None
            alike.setdefault((way, below), []).append(published_name(site.key, item.id))
    for (way, below), menus in alike.items():
        css = _scoped(shelf.menu_css[way], site, menus)
        yield f"@media (width >= {below}px){{{css}}}" if below else css


def _drawer(site: Site, shelf: Shelf, width_px: int) -> str:
    """Menus below their width: entries below each other, in what their button opens."""
    menus = [
        item for item in items_of(site.pieces) if isinstance(item, MenuItem) and drawer_width(item, site) == width_px
    ]
    parts = ["list", "drawer"]
    parts += ["levels"] if any(item.submenus == "levels" for item in menus) else []
    parts += ["button"] if any(item.button_turns or item.button_words_open.text for item in menus) else []
    css = _scoped(
        "".join(shelf.menu_css[part] for part in parts), site, [published_name(site.key, f"below-{width_px}")]
    )
    return f"@media screen and (width < {width_px}px){{{css}}}"


def _scoped(css: str, site: Site, classes: Sequence[str]) -> str:
    """Rules for menus of these classes. `&` in them is the menu; a rule without it is for what is in one."""
    scope = _any_of([f".{one}" for one in classes])
    drawers = any(site.drawers_in(piece) for piece in site.pieces)

    def within(selector: str) -> str:
        whole = selector.replace("&", scope) if "&" in selector else f"{scope} {selector}"
        # Lists are what a drawer's own rows have, too.
        return with_site_key(outside_drawers(whole), site.key) if drawers and "-list" in whole else whole

    bare = _COMMENTS.sub("", with_site_key(css, site.key))

    def scoped(rule: re.Match[str]) -> str:
        listed = rule[1].strip()
        return rule[0] if listed.startswith("@") else ",".join(map(within, selectors_in(listed))) + "{"

    return re.sub(r"([^{}]+)\{", scoped, bare)


def _any_of(selectors: Sequence[str]) -> str:
    return selectors[0] if len(selectors) == 1 else f":is({','.join(selectors)})"


def _structure(site: Site, items: SiteSheet, styling: Styling, moving: MovementRules | None) -> Iterator[str]:
    """Icons, and how rows and cells share their room."""
    name = site.key
    yield f".{name}-cells{{max-inline-size:{site.content_px}px;padding-inline:{site.gutter_px}px}}"
    yield from _tracks_and_gaps(site)
    yield from icon_rules(site, items.shelf)
    for piece in site.pieces:
        if isinstance(piece, Sidebar):
            yield from _besides(site, piece, items.shelf, styling, moving)
        yield css(piece.rules(f".{name}-{piece.id}", items))
        yield from _piece_rules(site, piece, items)
    menus = [item for item in items_of(site.pieces) if isinstance(item, MenuItem)]
    for menu in menus:
        yield css(menu.opened_rules(f".{name}-{menu.id}", items))
    yield from _comings(site, menus)
    if len(site.bands) > 1:
        for band in site.bands:
            yield from hidden_rules(site, [band.id], f"{name}-out-{band.id}")
    if any(isinstance(item, BackToTop) for item in items_of(site.pieces)):
        yield f".{name} [data-rim-early]{{visibility:hidden}}"
    yield from moving.placed() if moving else ()
    yield f"body:has(>.{name}){{margin-block-start:0;padding-block-start:0}}"
    yield from _language_rules(site)


_AWAY = {"start": "-100% 0", "end": "100% 0", "top": "0 -100%", "bottom": "0 100%"}
"""By how much a drawer is moved while it is shut, in a script that runs from left to right."""
_MIRRORED = {"start": "100% 0", "end": "-100% 0"}


def _comings(site: Site, menus: Iterable[MenuItem]) -> Iterator[str]:
    """How what menus' buttons open comes and goes: of those that do it alike together."""
    alike: dict[tuple[int, int, str, bool], list[MenuItem]] = {}
    for item in menus:
        below = drawer_width(item, site)
        if item.drawer_ms and below:
            alike.setdefault((below, item.drawer_ms, item.drawer_side, item.drawer_pushes), []).append(item)
    for (below, *_), listed in alike.items():
        yield from _coming(site, listed, below)


def _coming(site: Site, menus: Sequence[MenuItem], below: int) -> Iterator[str]:
    """How what their buttons open slides in and out, or appears where it covers the screen; and the page beside it
    (CSS Transitions 2, 3.3: what comes from not being there)."""
    item = menus[0]
    name, time = site.key, f"{item.drawer_ms}ms"
    own = _any_of([f".{name}-{menu.id}" for menu in menus])
    drawer = f"{own}>.{name}-drawer"
    there = f"{drawer}.{name}-drawer:popover-open"
    moved, shut, rest = (
        ("translate", _AWAY[item.drawer_side], "0 0") if item.drawer_side in _AWAY else ("opacity", "0", "1")
    )
    transitions = ",".join(f"{one} {time} allow-discrete" for one in ("translate", "opacity", "display", "overlay"))
    rules = [
        f"{drawer},{drawer}::backdrop{{transition:{transitions}}}",
        f"{drawer}{{{moved}:{shut}}}{drawer}::backdrop{{opacity:0}}",
    ]
    starting = [f"{there}{{{moved}:{shut}}}", f"{there}::backdrop{{opacity:0}}"]
    mirrored = _MIRRORED.get(item.drawer_side)
    if mirrored:
        rules.append(f"{own}:dir(rtl)>.{name}-drawer{{{moved}:{mirrored}}}")
        starting.append(f"{own}:dir(rtl)>.{name}-drawer:popover-open{{{moved}:{mirrored}}}")
    rules.append(f"{there}{{{moved}:{rest}}}{there}::backdrop{{opacity:1}}")
    if item.drawer_pushes and mirrored:
        rules.append(f"body:has({own}){{transition:translate {time} ease-out}}")
    calm = f"(width < {below}px) and (prefers-reduced-motion:no-preference)"
    yield f"@media screen and {calm}{{{''.join(rules)}@starting-style{{{''.join(starting)}}}}}"


def _language_rules(site: Site) -> Iterator[str]:
    """Some browsers keep an element's language in a property that `all` resets too."""
    for language in sorted({site.language, *(page.language for page in site.pages)}):
        if language_of(language).case is not None:
            yield f'.{site.key}:lang({language}){{-webkit-locale:"{language}"}}'


def _besides(site: Site, piece: Sidebar, shelf: Shelf, styling: Styling, moving: MovementRules | None) -> Iterator[str]:
    """Beside the content where that leaves the text its least measure, in the bands in which it shows. Its track is as
    wide before the sidebar has arrived: it may come after the content, which would move then."""
    name, gap = site.key, 2 * site.gutter_px
    own = f".{name}-{piece.id}"
    needs = sidebar_needs_px(site, character_em(site, shelf.faces), piece.width_px)
    at_start = piece.side == "start"
    shown = {band.id for band in site.bands} - set(piece.hidden_in)
    own_px = (piece.width_px or site.sidebar_px) + _least_around(piece, styling, shown or {None}, needs)
    track = f"minmax({own_px:g}px,auto)"
    tracks = f"{track} minmax(0,1fr)" if at_start else f"minmax(0,1fr) {track}"
    queries = [f"{query} and " for query in band_queries(site, shown)] if site.bands else [""]
    for query in queries:
        yield (
            f"@media {query}(width >= {needs}px){{{own}-beside{{display:grid;grid-template-columns:{tracks};align-items:start;"
            f"column-gap:{gap}px;max-inline-size:{site.content_px}px;padding-inline:{site.gutter_px}px;margin-inline:auto}}"
            f"{own}-beside>{own}{{grid-column:{1 if at_start else 2};grid-row:1}}"
            f"{own}-beside>.{name}-beside-content{{grid-column:{2 if at_start else 1};grid-row:1}}"
            f"{own}>.{name}-row{{inline-size:{piece.width_px or site.sidebar_px}px}}{own} .{name}-cells{{padding-inline:0}}}}"
        )
        if moving and piece.is_ever_pinned:
            yield moving.beside(piece, f"{query}(width >= {needs}px)")


def _least_around(piece: Piece, styling: Styling, bands: Iterable[str | None], width_px: float) -> float:
    """A piece's padding and borders at both sides, in px: the least of these bands'."""
    found = (extent(styling, styling.elements[piece.id, "box"], band, width_px) for band in bands)
    return min((one.around_px if one else 0.0 for one in found), default=0.0)


def _uncover_rules(key: str) -> str:
    """A footer's contents stand still at the window's bottom while the page scrolls off them. A custom property is
    animated, since an important declaration outweighs animations."""
    return (
        f'@property --{key}-uncover{{syntax:"<percentage>";inherits:false;initial-value:0%}}'
        f"@keyframes {key}-uncover{{from{{--{key}-uncover:-100%}}}}"
    )


def _piece_rules(site: Site, piece: Piece, items: SiteSheet) -> Iterator[str]:
    for row in (row for row in piece.rows if row.shares is None):
        yield from _row_rules(site, row)
        for cell in row.cells:
            yield from cell_rules(site, cell, items)


def _tracks_and_gaps(site: Site) -> Iterator[str]:
    """How rows share their room among cells, and cells theirs among items: what most have is said once for all."""
    name = site.key
    rows = [row for piece in site.pieces for row in piece.rows if row.shares is None]
    cells = [cell for row in rows for cell in row.cells]
    said: list[tuple[str, str, list[tuple[str, str]]]] = [
        (f"{name}-cells", "grid-template-columns", [(f"{name}-{row.id}>.{name}-cells", _tracks(row)) for row in rows]),
        (f"{name}-cells", "column-gap", [(f"{name}-{row.id}>.{name}-cells", f"{row.gap_px}px") for row in rows]),
        (f"{name}-cell", "gap", [(f"{name}-{cell.id}", f"{cell.gap_px}px") for cell in cells]),
    ]
    commonest = [Counter(value for _, value in values).most_common(1) for _, _, values in said]
    for (all_of_them, declared, _), most in zip(said, commonest, strict=True):
        yield from (f".{all_of_them}{{{declared}:{value}}}" for value, _ in most)
    for (_, declared, values), most in zip(said, commonest, strict=True):
        yield from (f".{own}{{{declared}:{value}}}" for own, value in values if value != most[0][0])


def _tracks(row: Row) -> str:
    return " ".join(track_size(cell.track) for cell in row.cells) or "1fr"


def _row_rules(site: Site, row: Row) -> Iterator[str]:
    name = site.key
    width = "max-inline-size:none;" if row.full_width else ""
    align = f"align-items:{row.align}" if row.align != "center" else ""
    if width or align:
        yield f".{name}-{row.id}>.{name}-cells{{{width}{align}}}"
    if any(style.part == "content" for style in row.styles):
        yield from _column_rules(site, row)
    for fold in row.columns:
        for query in band_queries(site, {fold.band}):
            yield (
                f"@media {query}{{.{name}-{row.id}>.{name}-cells{{grid-template-columns:repeat({fold.count},minmax(0,1fr));"
                f"row-gap:{row.gap_px}px}}}}"
            )
    yield from hidden_rules(site, row.hidden_in, f"{name}-{row.id}")


def _column_rules(site: Site, row: Row) -> Iterator[str]:
    """Room for the lines between columns: before each cell that is not the first on its line, in the middle of the gap."""
    cell = f".{site.key}-{row.id}>.{site.key}-cells>.{site.key}-cell"
    folds = {fold.band: fold.count for fold in row.columns}
    shape = f"position:absolute;inset-block:0;inset-inline-start:{-row.gap_px / 2:g}px"
    lines = "start" if row.align == "stretch" else row.align
    yield f"{cell}{{position:relative;align-self:stretch;align-content:{lines}}}{cell}:not(:first-child)::before{{content:'';{shape}}}"
    for band, count in folds.items():
        for query in band_queries(site, {band}):
            yield f"@media {query}{{{cell}:nth-child({count}n+1)::before{{content:none}}}}"


def track_size(track: Track) -> str:
    """A track as CSS Grid 2 writes it. A share may not become narrower than its content."""
    match track.kind:
        case "content":
            return "auto"
        case "share":
            return f"{track.amount}fr"
        case "fixed":
            return f"{track.amount}px"
