"""What is a piece in one of its stages, and which stages are there in a width band?"""

from __future__ import annotations

from ..kinds.moving import Stage
from ..kinds.pieces.base import Piece
from ..kinds.pieces.header import Header
from ..kinds.rows import Row
from .site import Site


def stages_of(piece: Piece) -> tuple[Stage, ...]:
    """In their order; only headers have some."""
    return piece.stages if isinstance(piece, Header) else ()


def names_in(site: Site) -> dict[str, str]:
    """What pieces and their stages are called, by id."""
    stages = {stage.id: stage.name for piece in site.pieces for stage in stages_of(piece)}
    return {**{piece.id: piece.name for piece in site.pieces}, **stages}


def stages_in(piece: Piece, band: str | None) -> tuple[Stage, ...]:
    """Those that it can pass through, in their order. What is not pinned there has none."""
    if not isinstance(piece, Header) or piece.way_in(band) == "away":
        return ()
    return tuple(stage for stage in piece.stages if band not in stage.hidden_in)


def in_stage(piece: Piece, stage_id: str | None) -> Piece:
    """The piece with its styles as they are in a stage, over its own: for one property the stage's take the place of
    its own in the same band; where they are said for all bands, in all."""
    stage = next((one for one in piece.stages if one.id == stage_id), None) if isinstance(piece, Header) else None
    if stage is None or not stage.styles:
        return piece
    said = {(style.property, style.band) for style in stage.styles}
    kept = tuple(style for style in piece.styles if not {(style.property, style.band), (style.property, None)} & said)
    return piece.replaced(styles=(*kept, *stage.styles))


def hands_over(site: Site, piece: Piece, stage: Stage) -> tuple[Row, ...]:
    """The rows that stand in place of its own in the stage; none where it keeps those."""
    return site.rows_in(piece, stage.id)
