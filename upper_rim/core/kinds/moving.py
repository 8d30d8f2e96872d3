"""What can be said of a piece's movement: how it goes with the page, from which distance on, and what a stage of it is
like."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field, StringConstraints

from ..values.nodes import Node, Value
from ..values.refs import BandRef, PartRef
from ..values.styling import Declaration
from ..values.words import Name

Way = Literal["away", "stays", "up"]
"""How a piece goes with the page: scrolled away with it; pinned to the window; pinned, and seen only after scrolling
up."""


class WayIn(Value):
    """How a piece goes with the page in one width band."""

    band: BandRef
    way: Way


class ByPixels(Value):
    """After so many px of scrolling, from where the piece begins to be pinned: what scrolls away above it does not
    count."""

    kind: Literal["px"] = "px"
    px: Annotated[int, Field(ge=0, le=100_000)] = 80


class ByViewport(Value):
    """The same, as a share of the small viewport's height (CSS Values 4, 6.1.2.1: it stays when browser bars come and
    go)."""

    kind: Literal["viewport"] = "viewport"
    percent: Annotated[int, Field(ge=1, le=1000)] = 50


class ByPage(Value):
    """After a share of all the way that the page can be scrolled."""

    kind: Literal["page"] = "page"
    percent: Annotated[int, Field(ge=1, le=99)] = 25


class ByElement(Value):
    """When the first element of the page that a CSS selector matches passes the window's upper edge."""

    kind: Literal["element"] = "element"
    selector: Annotated[str, StringConstraints(strip_whitespace=True, pattern=r"^[^\x00-\x1f]+$", max_length=400)]


Distance = Annotated[ByPixels | ByViewport | ByPage | ByElement, Field(discriminator="kind")]


class Stage(Node):
    """How a pinned header is from a distance on, until a later stage holds: its own rows drawn less high, or, where
    some of its rows stand in this stage only, those in place of the others (it hands over). Nothing of the page moves
    by it. `styles` are the piece's in it: what is painted, no sizes."""

    name: Name = "Stage"
    after: Distance = ByPixels()
    height_px: Annotated[int, Field(ge=16, le=400)] | None = Field(
        default=None, description="Wished height of each row; it is never below the tallest item in it."
    )
    padding_px: Annotated[int, Field(ge=0, le=100)] | None = Field(
        default=None, description="Above and below what stands in a row; the row's own where None."
    )
    logo_percent: Annotated[int, Field(ge=20, le=100)] = Field(default=100, description="Size of logos.")
    without: tuple[PartRef, ...] = Field(default=(), description="The header's rows and items that do not show in it.")
    hidden_in: tuple[BandRef, ...] = Field(default=(), description="Width bands in which it is passed over.")
    styles: tuple[Declaration, ...] = ()
