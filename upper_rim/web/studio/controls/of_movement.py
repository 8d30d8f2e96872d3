"""Which controls say what a piece does while one scrolls, and what a stage of it is like?"""

from __future__ import annotations

from ....core.kinds.moving import Distance, Stage
from ....core.kinds.pieces.base import Moving, Piece
from ....core.kinds.pieces.header import Header
from ....core.kinds.pieces.notice import Notice
from ....core.kinds.pieces.sidebar import Sidebar
from ....core.model.names import node_name
from ....core.model.site import Site
from ....core.model.tree import items_of
from .control import Control, Group, choice, note, number, px, text, told_whether_set, yes

_WAYS = {
    "away": "scrolls away",
    "stays": "stays",
    "up": "shows when one scrolls up",
}
MOTIONS = (("slide", "slides"), ("fade", "fades"), ("none", "at once"))
_EASINGS = (("ease-out", "slowing down"), ("ease", "ease"), ("ease-in-out", "slow at both ends"), ("linear", "evenly"))
_CALM = (("none", "at once"), ("fade", "fades"), ("stays", "does not go"))
UNITS = (("px", "px"), ("viewport", "% of the window"), ("page", "% of the page"), ("element", "element"))


def ways_of(piece: Moving) -> tuple[tuple[str, str], ...]:
    """What can be chosen for a piece of its kind."""
    return tuple((way, _WAYS[way]) for way in piece.WAYS)


def movement_groups(piece: Piece, site: Site) -> list[Group]:
    """For a whole piece; none for one that cannot move."""
    if not isinstance(piece, Moving):
        return [Group("While one scrolls", [note(piece, "It stands in the page, and scrolls with it.")])]
    ways = ways_of(piece)
    own = [choice(piece, "moves", "It", ways)]
    at_top = isinstance(piece, Header | Sidebar) or (isinstance(piece, Notice) and piece.edge == "top")
    if at_top:
        own += [px(piece, "pin_px", "At a distance", 400)]
    if isinstance(piece, Header):
        own += [yes(piece, "over", "Lies over the page")]
    groups = [Group("While one scrolls", own)]
    if at_top and len(site.bands) > 1:
        said = {one.band: one.way for one in piece.moves_in}
        listed = (("", "as at all widths"), *ways)
        groups.append(
            Group(
                "By width",
                [
                    Control("choice", band.name, piece.id, "moves_in", said.get(band.id, ""), listed, band=band.id)
                    for band in site.bands
                ],
            )
        )
    if not piece.comes_and_goes:
        return told_whether_set(groups, piece)
    comes = [_distance(piece.id, "hides_until", "Hidden until", piece.hides_until)]
    if "up" in piece.ways:
        comes.append(number(piece, "up_px", "After upward", "px", 4, 400))
    comes.append(yes(piece, "yields", "Gives way to the footer"))
    groups.append(Group("Comes and goes", comes))
    groups.append(
        Group(
            "How",
            [
                choice(piece, "motion", "It", MOTIONS),
                number(piece, "in_ms", "Comes in", "ms", 0, 2000),
                number(piece, "out_ms", "Goes in", "ms", 0, 2000),
                choice(piece, "easing", "Moving", _EASINGS),
                choice(piece, "calm", "Less motion", _CALM),
            ],
            shown_first=3,
        )
    )
    return told_whether_set(groups, piece)


def stage_groups(stage: Stage, site: Site) -> list[Group]:
    piece = next(piece for piece in site.pieces if isinstance(piece, Header) and stage in piece.stages)
    bands = [(band.id, band.name) for band in site.bands]
    begins = [text(stage, "name", "Name"), _distance(stage.id, "after", "Begins after", stage.after)]
    if bands:
        held = [band for band, _ in bands if band not in stage.hidden_in]
        begins.append(Control("bands", "Widths", stage.id, "hidden_in", held, bands))
    if not piece.is_ever_pinned:
        begins.append(note(stage, "The header scrolls away at every width: let it stay, and the stage shows."))
    groups = [Group("Stage", begins)]
    if site.rows_in(piece, stage.id):
        return groups
    groups.append(
        Group(
            "Its own rows",
            [
                number(stage, "height_px", "Row height", "px", 16, 400),
                number(stage, "padding_px", "Padding", "px", 0, 100),
                number(stage, "logo_percent", "Logo", "%", 20, 100),
            ],
        )
    )
    groups.append(Group("Shows in it", [_parts(piece, stage, site)]))
    return groups


def _parts(piece: Header, stage: Stage, site: Site) -> Control:
    parts = []
    for row in site.rows_in(piece):
        parts.append((row.id, node_name(row, site)))
        parts += [(item.id, node_name(item, site)) for cell in row.cells for item in cell.items]
    shown = [part for part, _ in parts if part not in stage.without]
    return Control("bands", "Shows in it", stage.id, "without", shown, parts)


def parts_of(site: Site, piece: Header) -> list[str]:
    """Ids of the rows and items that a stage can leave out."""
    rows = site.rows_in(piece)
    return [*(row.id for row in rows), *(item.id for item in items_of((piece.replaced(rows=rows),)))]


def _distance(node: str, field: str, label: str, said: Distance | None) -> Control:
    if said is None:
        return Control("distance", label, node, field, "", UNITS, unit="px")
    value = said.model_dump().get({"px": "px", "element": "selector"}.get(said.kind, "percent"))
    return Control("distance", label, node, field, value, UNITS, unit=said.kind)
