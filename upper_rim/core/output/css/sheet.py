"""What is the site's published CSS?

One cascade layer, declared before anything of the page's, in which every declaration is important: importance turns
the order of layers round (CSS Cascade 5, 6.4.4), so that no rule of a page, important or not, reaches into a piece.
Before it stands one more, for what the designer writes by hand.
"""

from __future__ import annotations

import re
from collections.abc import Callable, Iterable, Iterator
from itertools import chain
from typing import NamedTuple

import lightningcss

from ...fit.rows.fitter import Fitter
from ...kinds.items.top import BackToTop
from ...kinds.page_shapes import PageShape
from ...kinds.pieces.sidebar import Sidebar
from ...kinds.rule import Rule, css, inside
from ...languages import language_of
from ...model.site import Site
from ...model.tree import items_of
from ...style.own_css import own_css
from ...style.paint.colour import Palette
from ...style.paint.pictures import Pictures
from ...style.resolve import Styling, styling_of
from ...style.type.faces import faces_in_use, families
from ..naming import named
from ..shelf import Shelf
from .drawer_rules import coming_rules, drawer_widths, menus_of, shipped_for_drawers, shipped_for_ways
from .font_rules import font_face_rules
from .icon_rules import icon_rules
from .movement_rules import MovementRules
from .print_rules import print_rules
from .row_rules import hidden_rules, rules_in_row, shared_rules
from .shape_rules import rules_of_children, rules_of_parts, shape_rules
from .sidebar_rules import queries_beside, rules_beside
from .site_sheet import SiteSheet
from .style_rules import CALM, StyleRules, drift_rules, registered
from .who_rules import who_rules
from .width_rules import media


class SiteRules(NamedTuple):
    """A site's CSS before it is made small: `faces`, one rule a font file or fallback; `own`, the designer's, as text;
    `registered`, what is animated; `ours`, all that is in the layer `key`, important; `layers`, those within it; `theirs`, there, too, of a page's own
    elements; `children`, of those that stand right in its body, as a page's own are."""

    faces: tuple[Rule, ...]
    own: str
    registered: tuple[Rule, ...]
    key: str
    layers: tuple[str, ...]
    ours: tuple[Rule, ...]
    theirs: tuple[Rule, ...] = ()
    children: tuple[Rule, ...] = ()

    def minified(self, unused: Iterable[str] = ()) -> str:
        """As text; without rules that need one of these `unused` classes."""
        within = css([*self.ours, *self.theirs], is_important=True)
        ours = f"@layer {','.join(self.layers)};{within}{css([_OF_THE_BODY])}"
        text = f"{css(self.faces)}{self.own}{css(self.registered)}@layer {self.key}{{{ours}}}{css(self.children)}"
        return str(lightningcss.process_stylesheet(text, unused_symbols=set(unused), minify=True))


_OF_THE_BODY = Rule("body", {"margin": "0"})
"""Unless the page says otherwise."""


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
    key, styling = site.key, styling_of(site)
    used = faces_in_use(site, shelf.faces)
    rules = StyleRules(styling, families(site, used), forced=forced, only_band=only_band)
    moving = MovementRules(site, styling, fitter) if fitter is not None else None
    layers = {name: list(named(said, key)) for name, said in _layers(moving, rules)}
    layers["z"] = list(_base(site, SiteSheet(site, shelf, pictures), rules, moving, is_wide=only_band is not None))
    if any("transition-duration" in rule.declarations for said in layers.values() for rule in said):
        layers = {"y": [Rule(f".{key} *", {"transition-duration": "0s"}, media(CALM))], **layers}
    layers = {name: said for name, said in layers.items() if said}
    ours = [rule for name, said in layers.items() for rule in inside((f"@layer {name}",), said)]
    own = _recovered(own_css(site.css))
    ground = list(page_ground(site, rules))
    swatches = _swatches(site, rules.palette, own, chain(ours, ground))
    return SiteRules(
        tuple(font_face_rules(site, used, font_url)),
        f"@layer {key}-own{{{own}}}" if own else "",
        tuple(_registered(key, ours)),
        key,
        tuple(layers),
        (*ours, *swatches, *ground),
        tuple(rules_of_parts(_shapes(site), key)),
        tuple(rules_of_children(_shapes(site), key)),
    )


def _shapes(site: Site) -> list[PageShape]:
    return [shape for shape in site.shapes if shape.on]


def _layers(moving: MovementRules | None, rules: StyleRules) -> Iterator[tuple[str, Iterable[Rule]]]:
    """Names of the layers in the order in which they are declared, but for the last, and the rules in each."""
    if moving is not None:
        yield "v", moving.before_styles()
        yield "s", moving.painted(rules)
    yield from rules.layers()


def _base(
    site: Site, sheet: SiteSheet, rules: StyleRules, moving: MovementRules | None, *, is_wide: bool
) -> Iterator[Rule]:
    """What all others outweigh. `is_wide`: no menu is below its width."""
    shelf = sheet.shelf
    yield from named(shelf.piece_rules, site.key)
    for kind in _kinds(site):
        yield from named(shelf.item_rules.get(kind, ()), site.key)
    yield from shipped_for_ways(site, shelf)
    for width_px in () if is_wide else drawer_widths(site):
        yield from shipped_for_drawers(site, shelf, width_px)
    yield from named(rules.base(), site.key)
    yield from _structure(site, sheet, rules.styling, moving)


def late_css(site: Site, rules: Iterable[Rule]) -> str:
    """Rules that come later than the sheet, at the same place among its layers; minified."""
    within = inside((f"@layer {site.key}", "@layer z"), named(rules, site.key))
    return str(lightningcss.process_stylesheet(css(within, is_important=True), minify=True))


def _registered(key: str, ours: Iterable[Rule]) -> Iterator[Rule]:
    """What is animated for those who ask for it."""
    said = {text for rule in ours for declared in rule.declarations.items() for text in declared if key in text}
    for property_, rules in (("background-drift", drift_rules), ("uncover", _uncover_rules)):
        if any(f"--{key}-{property_}" in text for text in said):
            yield from rules(key)


_NOT_IN_A_PAGE = re.compile(r"<(?=[/!])|[^\x00-\x7f]")


def inside_a_page(css: str) -> str:
    """The same CSS, fit to stand in a style element of a page in any encoding: nothing in it closes the element or
    opens a comment, and all of it is ASCII (CSS Syntax 3, 4.3.7: escapes)."""
    return _NOT_IN_A_PAGE.sub(lambda found: "<\\" if found[0] == "<" else f"\\{ord(found[0]):x} ", css)


def _recovered(css: str) -> str:
    """What a designer wrote, less what a strict reader does not understand."""
    return str(lightningcss.process_stylesheet(css, error_recovery=True, minify=True)) if css else ""


REFERENCE = re.compile(r"var\(\s*(--[\w-]+)")
"""To a custom property."""


def _swatches(site: Site, palette: Palette, own: str, rules: Iterable[Rule]) -> Iterator[Rule]:
    """Custom properties for the swatches that are referred to."""
    names = {swatch.id: f"--{site.key}-{swatch.id}" for swatch in site.swatches}
    values = (value for rule in rules for value in rule.declarations.values() if "var(" in value)
    used = {name for text in chain([own], values) for name in REFERENCE.findall(text)}
    declared = {name: palette.colour(swatch) for swatch, name in names.items() if name in used}
    if declared:
        yield Rule(":root", declared)


def page_ground(site: Site, rules: StyleRules) -> Iterator[Rule]:
    """What lies behind the whole site: painted by the root element, with the body's own ground out of the way."""
    default = next((default for default in site.roles if default.role == "page"), None)
    if default and default.styles:
        declared = {style.property: rules.published(style.property, style.value) for style in default.styles}
        yield Rule(f":root:has(.{site.key})", declared)
        yield Rule(f"body:has(.{site.key})", {"background": "none"})


def _kinds(site: Site) -> list[str]:
    """Kinds of the items in use, in order; and `hint`."""
    hinted = {"hint"} if any(item.hint.text for item in items_of(site.pieces)) else set()
    return sorted({item.kind for item in items_of(site.pieces)} | hinted)


def _structure(site: Site, sheet: SiteSheet, styling: Styling, moving: MovementRules | None) -> Iterator[Rule]:
    """Icons, and how rows and cells share their room."""
    key = site.key
    content = {"max-inline-size": f"{site.content_px}px", "padding-inline": f"{site.gutter_px}px"}
    yield Rule(f".{key}-cells", content)
    yield from shared_rules(site)
    yield from icon_rules(site, sheet.shelf)
    for piece in site.pieces:
        if isinstance(piece, Sidebar):
            yield from _beside(site, piece, sheet.shelf, styling, moving)
        yield from piece.rules(f".{key}-{piece.id}", sheet)
        for row in piece.rows:
            if row.shares is None:
                yield from rules_in_row(site, row, sheet)
    menus = menus_of(site)
    for menu in menus:
        yield from menu.opened_rules(f".{key}-{menu.id}", sheet)
    yield from coming_rules(site, menus)
    if len(site.bands) > 1:
        for band in site.bands:
            yield from hidden_rules(site, [band.id], f"{key}-out-{band.id}")
    yield from who_rules(site)
    if any(isinstance(item, BackToTop) for item in items_of(site.pieces)):
        yield Rule(f".{key} [data-rim-early]", {"visibility": "hidden"})
    yield from moving.placed() if moving else ()
    yield Rule(f"body:has(>.{key})", {"margin-block-start": "0", "padding-block-start": "0"})
    yield from shape_rules(_shapes(site), key)
    yield from print_rules(site)
    yield from _language_rules(site)


def _beside(site: Site, piece: Sidebar, shelf: Shelf, styling: Styling, moving: MovementRules | None) -> Iterator[Rule]:
    for query in queries_beside(site, piece, shelf):
        yield from rules_beside(site, piece, shelf, styling, query)
        if moving and piece.is_ever_pinned:
            yield from moving.beside(piece, query)


def _language_rules(site: Site) -> Iterator[Rule]:
    """Some browsers keep an element's language in a property that `all` resets too."""
    for language in sorted({site.language, *(page.language for page in site.pages)}):
        if language_of(language).case is not None:
            yield Rule(f".{site.key}:lang({language})", {"-webkit-locale": f'"{language}"'})


def _uncover_rules(key: str) -> Iterator[Rule]:
    """A footer's contents stand still at the window's bottom while the page scrolls off them. A custom property is
    animated, since an important declaration outweighs animations."""
    yield registered(f"--{key}-uncover", "percentage", "0%")
    yield Rule("from", {f"--{key}-uncover": "-100%"}, (f"@keyframes {key}-uncover",))
