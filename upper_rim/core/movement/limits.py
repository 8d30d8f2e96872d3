"""What keeps a header's rows from being lower in a stage, and what would let them be as low as was wished?"""

from __future__ import annotations

from collections.abc import Iterator
from typing import Literal, NamedTuple

from ..kinds.pieces.base import Piece
from ..model.editing.edits import Edit, Set
from ..model.site import Site
from ..model.stages import stages_of
from .heights import Heights, SlimRow, Thing


class Offer(NamedTuple):
    """An edit, and how high the row is with it. `padding`: less of it, `without`: the tallest items do not show, `as it
    is`: the row's height is what is wished."""

    kind: Literal["padding", "without", "as it is"]
    height_px: float
    edit: Edit


class Limit(NamedTuple):
    """A row in a stage. `tallest`: the items by which it is as high as it is; `next`: the tallest after them. `offers`:
    where it is higher than was wished."""

    row: SlimRow
    tallest: tuple[Thing, ...]
    next: Thing | None
    offers: tuple[Offer, ...]


def limits(site: Site, piece: Piece, stage_id: str, high: Heights) -> list[Limit]:
    """Of the rows that show in the stage. `high`: the piece's heights at the viewport that is looked at."""
    stage = next(stage for stage in stages_of(piece) if stage.id == stage_id)
    standing = next((one for one in high.standings if one.stage == stage_id), None)
    found = []
    for row in standing.rows if standing else ():
        if row.drawn_px == 0.0:
            continue
        tallest = tuple(thing for thing in row.things if thing.height_px > row.things[0].height_px - ALIKE_PX)
        lower = row.things[len(tallest)] if len(row.things) > len(tallest) else None
        offers = tuple(_offers(stage_id, stage.without, row, tallest, lower)) if row.limit else ()
        found.append(Limit(row, tallest, lower, offers))
    return found


ALIKE_PX = 0.5
"""Items that differ by less are equally tall."""


def _offers(
    stage_id: str, without: tuple[str, ...], row: SlimRow, tallest: tuple[Thing, ...], lower: Thing | None
) -> Iterator[Offer]:
    wished, inner = row.wished_px or 0.0, tallest[0].height_px
    if inner <= wished:
        padding = int((wished - inner) // 2)
        yield Offer("padding", inner + 2 * padding, Set(node=stage_id, field="padding_px", value=padding))
    if lower is not None:
        hidden = [*without, *(thing.node for thing in tallest)]
        left = max(wished, lower.height_px + sum(row.slim_px))
        yield Offer("without", left, Set(node=stage_id, field="without", value=list(hidden)))
    yield Offer("as it is", row.drawn_px, Set(node=stage_id, field="height_px", value=round(row.drawn_px)))
