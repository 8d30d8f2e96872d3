"""How do rows share their room among cells, and cells theirs among items? And where does what show?"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Iterator

from ...kinds.items.logo import Logo
from ...kinds.rows import Cell, Row, Track
from ...kinds.rule import Rule
from ...model.site import Site
from .site_sheet import SiteSheet
from .style_rules import band_queries

_SIDES = {"start": "flex-start", "center": "center", "end": "flex-end"}


def media_in(site: Site, bands: Iterable[str]) -> Iterator[tuple[str, ...]]:
    """The conditions under which rules hold in these width bands."""
    return ((f"@media {query}",) for query in band_queries(site, set(bands)))


def hidden_rules(site: Site, hidden_in: Iterable[str], css_class: str) -> Iterator[Rule]:
    for within in media_in(site, hidden_in):
        yield Rule(f".{css_class}.{css_class}", {"display": "none"}, within)


def shared_rules(site: Site) -> Iterator[Rule]:
    """Tracks and gaps: what most rows and cells have is said once for all."""
    key = site.key
    rows = [row for piece in site.pieces for row in piece.rows if row.shares is None]
    cells = [cell for row in rows for cell in row.cells]
    in_row = {row.id: f".{key}-{row.id}>.{key}-cells" for row in rows}
    values: list[tuple[str, str, list[tuple[str, str]]]] = [
        (f".{key}-cells", "grid-template-columns", [(in_row[row.id], _tracks(row)) for row in rows]),
        (f".{key}-cells", "column-gap", [(in_row[row.id], f"{row.gap_px}px") for row in rows]),
        (f".{key}-cell", "gap", [(f".{key}-{cell.id}", f"{cell.gap_px}px") for cell in cells]),
    ]
    commonest = [Counter(value for _, value in listed).most_common(1) for _, _, listed in values]
    for (all_of_them, declared, _), most in zip(values, commonest, strict=True):
        yield from (Rule(all_of_them, {declared: value}) for value, _ in most)
    for (_, declared, listed), most in zip(values, commonest, strict=True):
        yield from (Rule(own, {declared: value}) for own, value in listed if value != most[0][0])


def _tracks(row: Row) -> str:
    return " ".join(track_size(cell.track) for cell in row.cells) or "1fr"


def track_size(track: Track) -> str:
    """A track as CSS Grid 2 writes it. A share may not become narrower than its content."""
    match track.kind:
        case "content":
            return "auto"
        case "share":
            return f"{track.amount}fr"
        case "fixed":
            return f"{track.amount}px"


def rules_in_row(site: Site, row: Row, sheet: SiteSheet) -> Iterator[Rule]:
    """Of a row, its cells and its items."""
    yield from _row_rules(site, row)
    for cell in row.cells:
        yield from _cell_rules(site, cell)
        for item in cell.items:
            yield from item.rules(f".{site.key}-{item.id}", sheet)
            yield from hidden_rules(site, item.hidden_in, f"{site.key}-{item.id}")
            # What is around it for its hint would still take the room between two items; a heading would say nothing.
            around = [
                name for name, is_there in (("hinted", item.hint.text), ("plain", isinstance(item, Logo))) if is_there
            ]
            for name in around:
                none = Rule(f".{site.key}-{name}:has(.{site.key}-{item.id})", {"display": "none"})
                yield from (none._replace(within=within) for within in media_in(site, item.hidden_in))


def _cell_rules(site: Site, cell: Cell) -> Iterator[Rule]:
    for aligned in cell.aligned:
        for within in media_in(site, {aligned.band}):
            own = f".{site.key}-cell.{site.key}-{cell.id}"
            yield Rule(own, {"justify-content": _SIDES[aligned.align]}, within)


def _row_rules(site: Site, row: Row) -> Iterator[Rule]:
    key = site.key
    cells = f".{key}-{row.id}>.{key}-cells"
    shape = {"max-inline-size": "none"} if row.full_width else {}
    shape |= {"align-items": row.align} if row.align != "center" else {}
    if shape:
        yield Rule(cells, shape)
    if any(style.part == "content" for style in row.styles):
        yield from _line_rules(site, row)
    for fold in row.columns:
        folded = {"grid-template-columns": f"repeat({fold.count},minmax(0,1fr))", "row-gap": f"{row.gap_px}px"}
        yield from (Rule(cells, folded, within) for within in media_in(site, {fold.band}))
    yield from hidden_rules(site, row.hidden_in, f"{key}-{row.id}")


def _line_rules(site: Site, row: Row) -> Iterator[Rule]:
    """Room for the lines between columns: before each cell that is not the first on its line, in the middle of the
    gap."""
    cell = f".{site.key}-{row.id}>.{site.key}-cells>.{site.key}-cell"
    aligned = "start" if row.align == "stretch" else row.align
    yield Rule(cell, {"position": "relative", "align-self": "stretch", "align-content": aligned})
    place = {"position": "absolute", "inset-block": "0", "inset-inline-start": f"{-row.gap_px / 2:g}px"}
    yield Rule(f"{cell}:not(:first-child)::before", {"content": "''", **place})
    for band, count in {fold.band: fold.count for fold in row.columns}.items():
        for within in media_in(site, {band}):
            yield Rule(f"{cell}:nth-child({count}n+1)::before", {"content": "none"}, within)
