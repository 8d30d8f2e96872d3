"""What is the site's published CSS?

One cascade layer, declared before anything of the page's, in which every declaration is important: importance turns
the order of layers round (CSS Cascade 5, 6.4.4), so that no rule of a page, important or not, reaches into a piece.
Lengths are in px and not in rem, which a page may redefine at its root.
"""

from __future__ import annotations

import re
from collections.abc import Iterable, Iterator
from urllib.parse import quote

import lightningcss

from ..model.items import ButtonItem, IconLink, Logo, MenuItem
from ..model.site import Cell, Piece, Row, Site, Track
from ..model.tree import walk
from .naming import published_name, with_site_key
from .piece_html import drawer_width
from .shelf import Face, Shelf

ARABIC_FACE = "noto-sans-arabic"


def sheet(site: Site, shelf: Shelf, font_url: str) -> str:
    """The CSS for all pieces of a site, minified. `font_url` is put before a font file's name."""
    rules = "".join(
        (
            important(with_site_key(shelf.pieces_css, site.key)),
            *(_drawer(site, shelf, width) for width in _drawer_widths(site)),
            *(important(rule) for rule in _site_rules(site, shelf)),
        )
    )
    css = "".join(_font_faces(site, shelf, font_url)) + f"@layer {site.key}{{{rules}body{{margin:0}}}}"
    return str(lightningcss.process_stylesheet(css, minify=True))


_DECLARATIONS = re.compile(r"\{([^{}]*)\}")
_COMMENTS = re.compile(r"/\*.*?\*/", re.DOTALL)


def important(css: str) -> str:
    """The same CSS with each declaration marked important. Rules are flat: no nesting but in at-rules."""

    def mark(block: re.Match[str]) -> str:
        declarations = (part.strip() for part in block[1].split(";"))
        return "{" + ";".join(f"{part}!important" for part in declarations if part) + "}"

    return _DECLARATIONS.sub(mark, _COMMENTS.sub("", css))


def faces_of(site: Site, shelf: Shelf) -> tuple[Face, ...]:
    """The site's face, and those that its pages' languages need beside it."""
    wanted = [site.face] if site.face in shelf.faces else []
    languages = {page.language.split("-")[0] for page in site.pages} | {site.language.split("-")[0]}
    if languages & {"ar", "fa", "ur", "ps", "ug"} and ARABIC_FACE not in wanted:
        wanted.append(ARABIC_FACE)
    return tuple(shelf.faces[face] for face in wanted if face in shelf.faces)


def icons_of(site: Site) -> list[str]:
    """Names of the icons that the site's pieces use."""
    used = {"menu", "x", "chevron-down"} if any(piece.rows for piece in site.pieces) else set()
    used |= {node.icon for piece in site.pieces for node in walk(piece) if isinstance(node, IconLink)}
    return sorted(used)


def _font_faces(site: Site, shelf: Shelf, font_url: str) -> Iterator[str]:
    for face in faces_of(site, shelf):
        for file in face.files:
            yield (
                f'@font-face{{font-family:"{family_name(site, face)}";src:url("{font_url}{file.name}") format("woff2");'
                f"font-weight:{file.weights};font-display:swap;unicode-range:{file.unicode_range}}}"
            )


def family_name(site: Site, face: Face) -> str:
    """A name that the page's own `@font-face` rules cannot mean."""
    return f"{site.key} {face.family}"


def _drawer_widths(site: Site) -> list[int]:
    items = (node for piece in site.pieces for node in walk(piece) if isinstance(node, MenuItem))
    return sorted({width for item in items if (width := drawer_width(item, site)) is not None})


def _drawer(site: Site, shelf: Shelf, width_px: int) -> str:
    scope = f".{published_name(site.key, f'below-{width_px}')}"
    css = _COMMENTS.sub("", with_site_key(shelf.drawer_css, site.key))
    scoped = re.sub(
        r"([^{}]+)\{",
        lambda rule: ",".join(f"{scope} {selector.strip()}" for selector in rule[1].split(",")) + "{",
        css,
    )
    return f"@media screen and (width < {width_px}px){{{important(scoped)}}}"


def _site_rules(site: Site, shelf: Shelf) -> Iterator[str]:
    name = site.key
    swatches = ";".join(f"--{name}-{swatch.id}:{swatch.colour}" for swatch in site.swatches)
    families = [f'"{family_name(site, face)}"' for face in faces_of(site, shelf)]
    generic = shelf.faces[site.face].generic if site.face in shelf.faces else "sans-serif"
    yield (
        f".{name}{{{swatches};font-family:{','.join([*families, 'system-ui', generic])};"
        f"font-size:{site.text_px}px;font-weight:{site.text_weight}}}"
    )
    yield f".{name}-cells{{max-inline-size:{site.content_px}px;padding-inline:{site.gutter_px}px}}"
    for icon in icons_of(site):
        drawing = shelf.icons.get(icon, "")
        if drawing:
            yield _icon_rule(name, icon, drawing)
    for piece in site.pieces:
        yield from _piece_rules(site, piece)
    if len(site.bands) > 1:
        for band in site.bands:
            yield from _hidden(site, [band.id], f"{name}-out-{band.id}")
    body = f"body:has(>.{name})"
    yield f"{body}{{margin-block-start:0;padding-block-start:0}}"


def _icon_rule(key: str, icon: str, drawing: str) -> str:
    svg = (
        '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 24 24" fill="none" stroke="#000" stroke-width="2"'
        f' stroke-linecap="round" stroke-linejoin="round">{drawing}</svg>'
    )
    encoded = quote(svg, safe=" /=:.,'")
    size = "16px" if icon == "chevron-down" else "24px"
    return f'.{key}-icon-{icon}{{mask:url("data:image/svg+xml,{encoded}") center/contain no-repeat;background:currentColor;inline-size:{size};block-size:{size}}}'


def _piece_rules(site: Site, piece: Piece) -> Iterator[str]:
    name = site.key
    ground, ink = colour(site, piece.ground, "#fff"), colour(site, piece.ink, "#1d2326")
    accent = colour(site, piece.accent, "#1f5c57")
    yield (
        f".{name}-{piece.id}{{--{name}-ground:{ground};--{name}-ink:{ink};--{name}-accent:{accent};"
        f"color:var(--{name}-ink){_bleed(f'var(--{name}-ground)', None)}}}"
    )
    for row in piece.rows:
        yield from _row_rules(site, row)
        for cell in row.cells:
            yield from _cell_rules(site, cell)


def colour(site: Site, swatch: str | None, otherwise: str) -> str:
    """A swatch as a reference to its custom property."""
    return f"var(--{site.key}-{swatch})" if swatch is not None else otherwise


def _bleed(ground: str, line: str | None) -> str:
    """A ground that reaches both edges of the viewport, however narrow the body: a border image's outset takes no room
    and cannot be scrolled to (CSS Backgrounds 3, 5.4)."""
    stops = f"{line} 1px,{ground} 0" if line else f"{ground},{ground}"
    return f";background:{ground};border:0 solid transparent;border-image:linear-gradient(to top,{stops}) 0 fill/0/0 100vmax"


def _row_rules(site: Site, row: Row) -> Iterator[str]:
    name = site.key
    paint = ""
    if row.ground or row.line_below:
        ground = colour(site, row.ground, f"var(--{name}-ground)")
        paint = _bleed(ground, colour(site, row.line_below, "") if row.line_below else None)
    ink = f";color:{colour(site, row.ink, '')};--{name}-ink:{colour(site, row.ink, '')}" if row.ink else ""
    own_ground = f";--{name}-ground:{colour(site, row.ground, '')}" if row.ground else ""
    yield f".{name}-{row.id}{{padding-block:{row.padding_px}px{ink}{own_ground}{paint}}}"
    tracks = " ".join(track_size(cell.track) for cell in row.cells) or "1fr"
    width = ";max-inline-size:none" if row.full_width else ""
    yield f".{name}-{row.id}>.{name}-cells{{grid-template-columns:{tracks};column-gap:{row.gap_px}px{width}}}"
    yield from _hidden(site, row.hidden_in, f"{name}-{row.id}")


def track_size(track: Track) -> str:
    """A track as CSS Grid 2 writes it. A share may not become narrower than its content."""
    match track.kind:
        case "content":
            return "auto"
        case "share":
            return f"{track.amount}fr"
        case "fixed":
            return f"{track.amount}px"


def _cell_rules(site: Site, cell: Cell) -> Iterator[str]:
    name = site.key
    yield f".{name}-{cell.id}{{gap:{cell.gap_px}px}}"
    for item in cell.items:
        own = f".{name}-{item.id}"
        declarations = []
        if item.ink:
            declarations.append(f"color:{colour(site, item.ink, '')}")
        if item.size_px:
            declarations.append(f"font-size:{item.size_px}px")
        if item.weight:
            declarations.append(f"font-weight:{item.weight}")
        match item:
            case ButtonItem():
                declarations += [
                    f"background:{colour(site, item.ground, f'var(--{name}-accent)')}",
                    f"border-radius:{item.radius_px}px",
                ]
                if not item.ink:
                    declarations.append(f"color:var(--{name}-ground)")
            case Logo(picture=str()):
                yield f"{own}>img{{block-size:{item.height_px}px}}"
            case MenuItem():
                yield f"{own} .{name}-list{{column-gap:{item.gap_px}px}}"
            case IconLink():
                yield f"{own}>.{name}-icon{{inline-size:{item.icon_px}px;block-size:{item.icon_px}px}}"
            case _:
                pass
        if declarations:
            yield f"{own}{{{';'.join(declarations)}}}"
        yield from _hidden(site, item.hidden_in, f"{name}-{item.id}")


def _hidden(site: Site, hidden_in: Iterable[str], css_class: str) -> Iterator[str]:
    hidden = set(hidden_in)
    for query in band_queries(site, hidden):
        yield f"@media {query}{{.{css_class}.{css_class}{{display:none}}}}"


def band_queries(site: Site, bands: set[str]) -> Iterator[str]:
    """Media queries that together match exactly the given bands; neighbours are joined."""
    start: int | None = None
    for at, band in enumerate(site.bands):
        if band.id in bands and start is None:
            start = band.from_px
        ends = at + 1 == len(site.bands) or site.bands[at + 1].id not in bands
        if band.id in bands and ends and start is not None:
            upper = f" and (width < {site.bands[at + 1].from_px}px)" if at + 1 < len(site.bands) else ""
            yield f"(width >= {start}px){upper}"
            start = None
