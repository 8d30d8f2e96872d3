"""What is a piece laid out in? Rows of cells, in which items stand."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from ..conditions.audience.audience import Audience
from ..values.nodes import Pixels, Value
from ..values.refs import BandRef, RowRef, StageRef
from ..values.styling import Styled
from ..values.words import Name
from .items import Item


class Track(Value):
    """A cell's share of its row (CSS Grid 2, 7.2): as wide as its content, a share of what is left, or fixed."""

    kind: Literal["content", "share", "fixed"] = "share"
    amount: Annotated[int, Field(ge=1, le=4000)] = 1


Side = Literal["start", "center", "end"]


class Aligned(Value):
    """Where a cell's items stand in one width band."""

    band: BandRef
    align: Side


class Cell(Styled):
    track: Track = Track()
    align: Side = "start"
    aligned: tuple[Aligned, ...] = Field(default=(), description="Width bands in which its items stand elsewhere.")
    gap_px: Pixels = 16
    items: tuple[Item, ...] = ()


class Columns(Value):
    """How many columns a row has in a width band; its cells fill them in the order in which they are read."""

    band: BandRef
    count: Annotated[int, Field(ge=1, le=6)]


class Row(Styled):
    name: Name = "Row"
    cells: tuple[Cell, ...] = ()
    gap_px: Pixels = 24
    full_width: bool = False
    align: Literal["start", "center", "end", "stretch"] = Field(
        default="center", description="Where cells stand that are less high than the row."
    )
    columns: tuple[Columns, ...] = Field(
        default=(), description="Width bands in which the cells fold into equal columns."
    )
    hidden_in: tuple[BandRef, ...] = ()
    audience: Audience = Field(default=Audience(), description="For whom it shows.")
    stage: StageRef | None = Field(
        default=None, description="It shows in that stage of its header only, in place of the rows that have none."
    )
    shares: RowRef | None = Field(
        default=None,
        description="Another piece's row that stands here, as it is there; this one has nothing of its own.",
    )
