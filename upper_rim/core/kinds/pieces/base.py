"""What does every kind of piece have, and what is each asked for?"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import Annotated, ClassVar, Literal

from pydantic import Field

from ...conditions import Where
from ...conditions.audience.audience import Audience
from ...conditions.everywhere import Everywhere
from ...values.nodes import Node
from ...values.refs import BandRef, ReachSetRef
from ...values.styling import Role, RoleDefault, Styled
from ...values.words import Name
from ..context import PageContext, SheetContext
from ..markup import Attributes, Markup
from ..moving import Distance, Way, WayIn
from ..rows import Row
from ..rule import Rule


class ReachRule(Node):
    """One sentence of a piece's reach: it shows there, or it does not."""

    shows: bool = True
    where: Where = Everywhere()


class ReachSet(Node):
    """Sentences under a name, that several pieces say."""

    name: Name
    rules: tuple[ReachRule, ...] = ()


Opens = Literal["up", "back"]
"""Upwards, against the line's way."""


class Piece(Styled):
    """One thing around the content of pages: what all kinds have in common. `kind` says which it is."""

    NAME: ClassVar[str]
    """What the kind is called."""
    TAG: ClassVar[str]
    """Its landmark's element (ARIA Authoring Practices, landmark regions)."""
    ROLE: ClassVar[Role] = "piece"
    IN_LINES: ClassVar[bool] = False
    """Its items are meant to stand on one line; elsewhere text flows."""
    CHILDREN: ClassVar[tuple[str, ...]] = ("rows", "reach", "roles", "styles")
    """Fields that hold nodes of its own, in the order in which they are walked."""
    SHOWS_AT_FIRST: ClassVar[bool] = True
    """The first of its kind on a site begins by showing everywhere."""
    CLASSES: ClassVar[tuple[str, ...]] = ()
    """Classes that its landmark has besides what all have."""

    kind: str
    name: Name
    rows: tuple[Row, ...] = ()
    reach: tuple[ReachRule, ...] = ()
    reach_sets: tuple[ReachSetRef, ...] = Field(default=(), description="It says what these say, besides its own.")
    hidden_in: tuple[BandRef, ...] = Field(default=(), description="Width bands in which the piece does not show.")
    roles: tuple[RoleDefault, ...] = Field(default=(), description="Defaults by role that count within this piece.")
    audience: Audience = Field(default=Audience(), description="For whom it shows.")
    on: bool = True

    @property
    def icons(self) -> frozenset[str]:
        """Names of those that it shows besides its items."""
        return frozenset()

    @property
    def is_at_bottom(self) -> bool:
        """Whether it is a bar at the end: of the page, or of the window."""
        return False

    @property
    def is_low(self) -> bool:
        """Whether it stands in the stack at the window's lower edge."""
        return False

    @property
    def opens(self) -> tuple[Opens, ...]:
        """Where what opens beside something in it goes, other than downwards and along the line."""
        return ("up",) if self.is_at_bottom else ()

    @property
    def is_early(self) -> bool:
        """Whether it is seen first on a page."""
        return False

    def landmark_attributes(self, page: PageContext) -> Attributes:
        """What its landmark has besides what all have: the name that tells it from others of its kind."""
        return {"aria-label": self.name}

    def content(self, rows: Sequence[Markup], page: PageContext) -> Sequence[Markup]:
        """Its rows, with what stands among or around them."""
        return rows

    def rules(self, own: str, sheet: SheetContext) -> Iterator[Rule]:
        """Where it stands on the page and how large it is, by its fields. `own`: its selector."""
        return iter(())

    def script(self, page: PageContext) -> Sequence[Markup]:
        """What runs within the page, right behind it."""
        return ()


Printed = Literal["whole", "plain", "never"]
"""All of it, without its menus, or nothing of it."""


class OnPaper(Piece):
    """A piece that can stand on a page that is printed."""

    PRINTED: ClassVar[Printed] = "whole"
    """As its kind is by itself."""

    prints: Printed | Literal["usual"] = Field(
        default="usual", description="What of it is printed: as its kind is, all, without its menus, or nothing."
    )

    @property
    def printed(self) -> Printed:
        return self.PRINTED if self.prints == "usual" else self.prints


class Moving(Piece):
    """A piece that may do something of its own while the page scrolls. See docs/movement.md."""

    WAYS: ClassVar[tuple[Way, ...]] = ("away", "stays")
    """The ways that a piece of its kind can go."""

    moves: Way = "away"
    moves_in: tuple[WayIn, ...] = Field(default=(), description="Width bands in which it goes another way.")
    pin_px: Annotated[int, Field(ge=0, le=400)] = Field(
        default=0, description="Distance from the edge, or from what is pinned there already."
    )
    up_px: Annotated[int, Field(ge=4, le=400)] = Field(
        default=24, description="So many px upwards until it comes again, and downwards until it goes."
    )
    hides_until: Distance | None = Field(default=None, description="Before this distance it does not show.")
    yields: bool = Field(default=False, description="It goes while the footer is in view.")
    motion: Literal["slide", "fade", "none"] = Field(default="slide", description="How it comes and goes.")
    in_ms: Annotated[int, Field(ge=0, le=2000)] = 200
    out_ms: Annotated[int, Field(ge=0, le=2000)] = 200
    easing: Literal["ease", "ease-out", "ease-in-out", "linear"] = "ease-out"
    calm: Literal["none", "fade", "stays"] = Field(
        default="none",
        description="Where less motion is asked for: at once, by fading, or it does not come and go but stays.",
    )

    @property
    def comes_and_goes(self) -> bool:
        """Whether it can be hidden until a distance, and give way to the footer."""
        return self.is_low

    def way_in(self, band: str | None) -> Way:
        """What stands at the window's lower edge goes the same way at all widths."""
        said = () if self.is_at_bottom or self.is_low else self.moves_in
        return next((one.way for one in said if one.band == band), self.moves)

    @property
    def ways(self) -> set[Way]:
        """All that it goes in some band."""
        return {self.moves, *(self.way_in(one.band) for one in self.moves_in)}

    @property
    def is_ever_pinned(self) -> bool:
        return self.ways != {"away"}
