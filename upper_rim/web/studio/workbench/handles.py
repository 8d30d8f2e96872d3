"""Which sizes of what is chosen are turned by a handle on the stage, and what follows there while one turns them?

A handle is data: where it stands, what it sends when it is let go, and the declarations that show each value until
then. It sends what the tray's own control would send."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import asdict, dataclass, replace
from typing import Any, Literal, NamedTuple

from ....core.fit.css.amount import Viewport
from ....core.fit.rows.fitter import VIEWPORT_HEIGHT_PX, Fitter
from ....core.kinds.moving import Stage
from ....core.kinds.pieces.sidebar import Sidebar
from ....core.kinds.rows import Cell, Row, Track
from ....core.model.site import Site
from ....core.movement.heights import heights
from ....core.output.css.part_selectors import selector_of
from ....core.output.css.row_rules import track_size
from ....core.output.css.stage_rules import drawn_ground, drawn_row
from ....core.style.resolve import Styling, styling_of
from ....core.style.type.faces import character_em
from ....core.style.type.scale import sidebar_needs_px, steps
from ....core.values.properties import SIDES
from ....shipped import shelf
from ..controls.control import control_limits

Edge = Literal["top", "end", "bottom", "start", "gap", "padding"]
"""An edge of the box, the space between the first two things in it, or the padding at the side that its name says."""
MOST_PADDING_PX = 400
NUMBER = "#"
"""Stands for the number in `said` and in what follows."""


@dataclass(frozen=True)
class Handle:
    """`on`: the selector of the box that it stands at. `value`: px, None where it is as large as it is drawn.
    `follows`: selectors with what is declared for them while it is turned. `snaps`: px, each with what it is.
    `is_shy`: it shows only where there is something already. `takes_room`: along its row, which may cease to fit."""

    name: str
    label: str
    edge: Edge
    on: str
    value: int | None
    least: int
    most: int
    follows: tuple[tuple[str, dict[str, str]], ...]
    sends: dict[str, str]
    said: str = NUMBER
    snaps: tuple[tuple[float, str], ...] = ()
    is_shy: bool = False
    takes_room: bool = True


_OfKind = Callable[[Any, str, Site], Iterator[Handle]]


class OnStage(NamedTuple):
    """What is looked at, and how: the stage's `width`, and the `language` of the page on it; the `band` for which the
    tray sets, empty for all; `has_room`: whether padding shows where there is none yet."""

    width: int
    language: str
    band: str
    has_room: bool
    fitter: Fitter


def handles_of(site: Site, chosen: Any, stage: OnStage) -> list[dict[str, Any]]:
    """As JSON, for the stage."""
    styling = styling_of(site)
    own = f".{site.key}-{chosen.id}"
    snaps = tuple(
        (step.size_px, f"as {step.name.replace('-', ' ')}") for step in steps(site, character_em(site, shelf().faces))
    )
    found = [*_sizes(site, chosen, own, stage), *_paddings(styling, chosen, stage)]
    return [asdict(replace(one, snaps=snaps)) for one in found]


def _sizes(site: Site, chosen: Any, own: str, stage: OnStage) -> Iterator[Handle]:
    match chosen:
        case Stage():
            yield from _slim_height(site, chosen, stage)
        case Row(shares=None):
            cells = f"{own}>.{site.key}-cells"
            yield _field(
                chosen, "gap_px", "Between cells", "gap", cells, ((cells, {"column-gap": "#px", "row-gap": "#px"}),)
            )
        case Cell():
            yield _field(chosen, "gap_px", "Between items", "gap", own, ((own, {"gap": "#px"}),))
            yield from _column(site, chosen, own, stage.width)
        case Sidebar():
            yield from _sidebar(site, chosen, own, stage.width)
        case _ if getattr(chosen, "kind", "") in _OF_KIND:
            yield from _OF_KIND[chosen.kind](chosen, own, site)
        case _:
            return


def _slim_height(site: Site, chosen: Stage, stage: OnStage) -> Iterator[Handle]:
    """The wished height of a slimmed header's rows: each is drawn so high, within what it holds and what it is at rest,
    and moves up by what those above it are less high."""
    piece = next(piece for piece in site.pieces if chosen in getattr(piece, "stages", ()))
    viewport = Viewport(float(stage.width), VIEWPORT_HEIGHT_PX)
    found = heights(stage.fitter.as_published(), stage.fitter.resolved(site), piece, stage.language, viewport)
    standing = next((one for one in found.standings if one.stage == chosen.id), None) if found else None
    if found is None or standing is None or not standing.rows:
        return
    own, name = f".{site.key}-{piece.id}", site.key
    follows: list[tuple[str, dict[str, str]]] = []
    less: list[str] = []
    for row in standing.rows:
        if row.row in chosen.without:
            less.append(f"{row.rest_px:g}px")
            continue
        high = f"clamp({row.least_px:g}px,#px,{row.rest_px:g}px)"
        off = f"({' - '.join([f'{row.own_off_px:g}px', *less])})"
        of_row, of_ground = drawn_row(row.align, high, f"calc{off}")
        follows += [
            (f"{own}>.{name}-{row.row}", of_row),
            (f"{own}>.{name}-{row.row}>.{name}-ground", of_ground),
        ]
        less.append(f"({row.rest_px:g}px - {high})")
    ground, whole = f"{own}>.{name}-ground", " - ".join([f"{found.flow_px:g}px", *less])
    follows.append((ground, drawn_ground(f"({whole})")))
    tallest = max(row.drawn_px for row in standing.rows)
    said = round(tallest) if chosen.height_px is None else None
    height = _field(chosen, "height_px", "Height of this stage", "bottom", ground, tuple(follows), said)
    yield replace(height, takes_room=False)


def _field(
    node: Any,
    name: str,
    label: str,
    edge: Edge,
    on: str,
    follows: tuple[tuple[str, dict[str, str]], ...],
    value: int | None = None,
) -> Handle:
    least, most = control_limits(node.__class__, name)
    said = getattr(node, name) if value is None else value
    sends = {"do": "set", "node": node.id, "field": name}
    return Handle(name, label, edge, on, said, least or 0, most or 4000, follows, sends)


def _column(site: Site, cell: Cell, own: str, width: int) -> Iterator[Handle]:
    """A cell's width, where its row has several beside each other: at its end, of the last one at its start."""
    row = next((row for piece in site.pieces for row in piece.rows if cell in row.cells), None)
    if row is None or len(row.cells) < 2:
        return
    folded = {one.band for one in row.columns}
    begun = [band.id for band in site.bands if band.from_px <= width]
    if begun and begun[-1] in folded:
        return
    at = row.cells.index(cell)
    tracks = " ".join(NUMBER + "px" if one is cell else track_size(one.track) for one in row.cells)
    least, most = 1, control_limits(Track, "amount")[1] or 4000
    yield Handle(
        "track",
        "Width",
        "end" if at < len(row.cells) - 1 else "start",
        own,
        cell.track.amount if cell.track.kind == "fixed" else None,
        least,
        most,
        ((f".{site.key}-{row.id}>.{site.key}-cells", {"grid-template-columns": tracks}),),
        {"do": "set", "node": cell.id, "field": "track"},
        f"{NUMBER} px",
    )


def _sidebar(site: Site, piece: Sidebar, own: str, width: int) -> Iterator[Handle]:
    """Of its content, where it stands beside the page's."""
    if width < sidebar_needs_px(site, character_em(site, shelf().faces), piece.width_px):
        return
    begins, track = piece.side == "start", "minmax(#px,auto)"
    columns = f"{track} minmax(0,1fr)" if begins else f"minmax(0,1fr) {track}"
    follows: tuple[tuple[str, dict[str, str]], ...] = (
        (f"{own}>.{site.key}-row", {"inline-size": "#px"}),
        (f"{own}-beside", {"grid-template-columns": columns}),
    )
    yield _field(
        piece,
        "width_px",
        "Content width",
        "end" if begins else "start",
        own,
        follows,
        piece.width_px or site.sidebar_px,
    )


def _logo(item: Any, own: str, site: Site) -> Iterator[Handle]:
    if item.picture:
        sizes = {"block-size": "#px", "inline-size": "auto"}
        yield _field(item, "height_px", "Height", "bottom", f"{own}>img", ((f"{own}>img", sizes),))


def _picture(item: Any, own: str, site: Site) -> Iterator[Handle]:
    yield _field(item, "width_px", "Width", "end", f"{own}>img", ((f"{own}>img", {"inline-size": "#px"}),))


def _map(item: Any, own: str, site: Site) -> Iterator[Handle]:
    on = f"{own}>img"
    yield _field(item, "width_px", "Width", "end", on, ((on, {"inline-size": "#px"}),))
    height = _field(item, "height_px", "Height", "bottom", on, ((on, {"block-size": "#px"}),))
    yield replace(height, takes_room=False)


def _icons(item: Any, own: str, site: Site) -> Iterator[Handle]:
    icon = f"{own} .{site.key}-icon" if item.kind == "social" else f"{own}>.{site.key}-icon"
    yield _field(item, "icon_px", "Size", "bottom", icon, ((icon, {"inline-size": "#px", "block-size": "#px"}),))
    if item.kind == "social":
        yield from _between(item, own, site)


def _between(item: Any, own: str, site: Site) -> Iterator[Handle]:
    listed = f"{own} .{site.key}-list"
    sizes = {"column-gap": "#px"} if item.kind == "menu" else {"gap": "#px"}
    yield _field(item, "gap_px", "Between entries", "gap", listed, ((listed, sizes),))


def _spacer(item: Any, own: str, site: Site) -> Iterator[Handle]:
    square = {"inline-size": "#px", "block-size": "#px"}
    if not item.grows:
        yield _field(item, "size_px", "Size", "end", f"{own}>span", ((f"{own}>span", square),))


def _bottom(piece: Any, own: str, site: Site) -> Iterator[Handle]:
    row = f"{own}>.{site.key}-row"
    height = _field(piece, "height_px", "Height", "top", own, ((row, {"block-size": "#px"}),))
    yield replace(height, takes_room=False)


_OF_KIND: dict[str, _OfKind] = {
    "logo": _logo,
    "picture": _picture,
    "map": _map,
    "icon": _icons,
    "social": _icons,
    "menu": _between,
    "spacer": _spacer,
    "bottom": _bottom,
}
"""By the kind's name in documents."""


def _paddings(styling: Styling, chosen: Any, stage: OnStage) -> Iterator[Handle]:
    """At the four sides of what is chosen, as it is at rest."""
    element = styling.elements.get((chosen.id, "box"))
    if element is None or isinstance(chosen, Stage) or (isinstance(chosen, Row) and chosen.shares):
        return
    on = selector_of(styling, element)
    for side in SIDES:
        name = f"padding-{side}"
        sends = {"do": "style", "node": chosen.id, "property": name, "part": "box", "state": "rest", "band": stage.band}
        label = f"Padding, {_SIDE_NAMES[side]}"
        yield Handle(
            name,
            label,
            "padding",
            on,
            None,
            0,
            MOST_PADDING_PX,
            ((on, {name: "#px"}),),
            sends,
            "#px",
            is_shy=not stage.has_room,
            takes_room="inline" in side,
        )


_SIDE_NAMES = {"block-start": "top", "inline-end": "end", "block-end": "bottom", "inline-start": "start"}
