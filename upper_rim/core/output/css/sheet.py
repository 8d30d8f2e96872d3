"""What is the site's published CSS?

One cascade layer, declared before anything of the page's, in which every declaration is important: importance turns
the order of layers round (CSS Cascade 5, 6.4.4), so that no rule of a page, important or not, reaches into a piece.
Before it stands one more, for what the designer writes by hand.
"""

from __future__ import annotations

import re
from collections.abc import Callable, Iterator
from typing import NamedTuple

import lightningcss

from ...fit.rows.fitter import Fitter
from ...kinds.items.top import BackToTop
from ...kinds.pieces.sidebar import Sidebar
from ...kinds.rule import Rule, css
from ...languages import language_of
from ...model.site import Site
from ...model.tree import items_of
from ...style.colour import Palette
from ...style.faces import faces_in_use, families
from ...style.own_css import own_css
from ...style.pictures import Pictures
from ...style.resolve import Styling
from ..naming import with_site_key
from ..shelf import Shelf
from .drawer_rules import coming_rules, drawer_widths, menus_of, shipped_for_drawers, shipped_for_ways
from .font_rules import font_face_rules
from .icon_rules import icon_rules
from .movement_rules import MovementRules
from .row_rules import hidden_rules, rules_in_row, shared_rules
from .sidebar_rules import queries_beside, rules_beside
from .site_sheet import SiteSheet
from .style_rules import StyleRules, drift_rules


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
            *shipped_for_ways(site, shelf),
            *(shipped_for_drawers(site, shelf, width) for width in drawer_widths(site) if only_band is None),
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


def _structure(site: Site, sheet: SiteSheet, styling: Styling, moving: MovementRules | None) -> Iterator[str]:
    """Icons, and how rows and cells share their room."""
    key = site.key
    content = {"max-inline-size": f"{site.content_px}px", "padding-inline": f"{site.gutter_px}px"}
    yield css([Rule(f".{key}-cells", content), *shared_rules(site)])
    yield from icon_rules(site, sheet.shelf)
    for piece in site.pieces:
        if isinstance(piece, Sidebar):
            yield from _beside(site, piece, sheet.shelf, styling, moving)
        yield css(piece.rules(f".{key}-{piece.id}", sheet))
        for row in piece.rows:
            if row.shares is None:
                yield css(rules_in_row(site, row, sheet))
    menus = menus_of(site)
    for menu in menus:
        yield css(menu.opened_rules(f".{key}-{menu.id}", sheet))
    yield css(coming_rules(site, menus))
    if len(site.bands) > 1:
        for band in site.bands:
            yield css(hidden_rules(site, [band.id], f"{key}-out-{band.id}"))
    if any(isinstance(item, BackToTop) for item in items_of(site.pieces)):
        yield css([Rule(f".{key} [data-rim-early]", {"visibility": "hidden"})])
    yield from moving.placed() if moving else ()
    yield css([Rule(f"body:has(>.{key})", {"margin-block-start": "0", "padding-block-start": "0"})])
    yield css(_language_rules(site))


def _beside(site: Site, piece: Sidebar, shelf: Shelf, styling: Styling, moving: MovementRules | None) -> Iterator[str]:
    for query in queries_beside(site, piece, shelf):
        yield css(rules_beside(site, piece, shelf, styling, query))
        if moving and piece.is_ever_pinned:
            yield moving.beside(piece, query)


def _language_rules(site: Site) -> Iterator[Rule]:
    """Some browsers keep an element's language in a property that `all` resets too."""
    for language in sorted({site.language, *(page.language for page in site.pages)}):
        if language_of(language).case is not None:
            yield Rule(f".{site.key}:lang({language})", {"-webkit-locale": f'"{language}"'})


def _uncover_rules(key: str) -> str:
    """A footer's contents stand still at the window's bottom while the page scrolls off them. A custom property is
    animated, since an important declaration outweighs animations."""
    return (
        f'@property --{key}-uncover{{syntax:"<percentage>";inherits:false;initial-value:0%}}'
        f"@keyframes {key}-uncover{{from{{--{key}-uncover:-100%}}}}"
    )
