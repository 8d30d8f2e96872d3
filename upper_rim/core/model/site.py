"""What is a site? One immutable value, from its name down to the last menu entry."""

from __future__ import annotations

import hashlib
import json
import re
from typing import Annotated, Any, ClassVar, Literal

from pydantic import AfterValidator, Field, StringConstraints, model_validator

from ..conditions import Where
from ..conditions.below import Below
from ..conditions.closed_before import ClosedBefore
from ..conditions.everywhere import Everywhere
from ..conditions.on_page import OnPage
from ..conditions.period import Moment, Period
from ..conditions.visit import VisitCondition
from ..kinds.entries import Branch
from ..kinds.items import Item
from ..kinds.items.menu import MenuItem
from ..values.addresses import PagePath
from ..values.nodes import Hash, Node, Pixels, Value
from ..values.refs import BandRef, LiftRef, PageRef, RowRef, StageRef
from ..values.scalars import TextSize, Weight
from ..values.styling import Look, RoleDefault, Styled, Swatch
from ..values.words import Label, LanguageTag, Name, Text, Words
from .fonts import Font
from .movement import Distance, Stage, Way, WayIn


class Band(Node):
    """A named range of viewport widths: from `from_px` up to where the next band begins."""

    name: Name
    from_px: Annotated[int, Field(ge=0, le=5000)]


class Menu(Branch):
    name: Name


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
    stage: StageRef | None = Field(
        default=None, description="It shows in that stage of its header only, in place of the rows that have none."
    )
    shares: RowRef | None = Field(
        default=None,
        description="Another piece's row that stands here, as it is there; this one has nothing of its own.",
    )


class ReachRule(Node):
    """One sentence of a piece's reach: it shows there, or it does not."""

    shows: bool = True
    where: Where = Everywhere()


def _without_markers(code: str) -> str:
    if re.search(r"<!--\s*/?rim", code):
        raise ValueError("the comments <!--rim:…--> and <!--/rim--> are Upper Rim's own")
    return code


class Piece(Styled):
    """One thing around the content of pages: what all kinds have in common. `kind` says which it is."""

    kind: str
    name: Name
    rows: tuple[Row, ...] = ()
    reach: tuple[ReachRule, ...] = ()
    hidden_in: tuple[BandRef, ...] = Field(default=(), description="Width bands in which the piece does not show.")
    roles: tuple[RoleDefault, ...] = Field(default=(), description="Defaults by role that count within this piece.")
    on: bool = True

    @property
    def is_at_bottom(self) -> bool:
        """Whether it is a bar at the end: of the page, or of the window."""
        return False

    @property
    def is_low(self) -> bool:
        """Whether it stands in the stack at the window's lower edge."""
        return False


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


class Header(Moving):
    """Before the content: a banner landmark."""

    WAYS = ("away", "stays", "up")
    kind: Literal["header"] = "header"
    over: bool = Field(default=False, description="It takes no room: the page's content begins beneath it.")
    stages: tuple[Stage, ...] = Field(default=(), description="Of those whose distance is passed, the last holds.")

    @property
    def comes_and_goes(self) -> bool:
        return True


class Footer(Piece):
    """After the content: a contentinfo landmark."""

    kind: Literal["footer"] = "footer"
    uncovered: bool = Field(
        default=False, description="It lies beneath the page, which uncovers it while it is scrolled to its end."
    )


class Sidebar(Moving):
    """Beside the content: a complementary landmark of its own name. Where the window leaves the text less than its
    least measure, it stands before or after the content."""

    kind: Literal["sidebar"] = "sidebar"
    side: Literal["start", "end"] = "start"
    width_px: Annotated[int, Field(ge=80, le=1000)] | None = Field(
        default=None, description="Width of its content; the foundations' where None."
    )
    narrow: Literal["before", "after"] = "after"


class Notice(Moving):
    """A bar with a message, a region of its own name. Closed by a visitor, it stays closed for a time."""

    kind: Literal["notice"] = "notice"
    edge: Literal["top", "bottom"] = "top"
    closable: bool = True
    closed_days: Annotated[int, Field(ge=1, le=3650)] = 30
    shows_from: Moment | None = None
    shows_until: Moment | None = None

    @model_validator(mode="before")
    @classmethod
    def _as_it_was(cls, given: Any) -> Any:
        """Bundles of before there were ways said `pinned`."""
        if isinstance(given, dict) and "pinned" in given:
            pinned = given["pinned"]
            given = {name: value for name, value in given.items() if name != "pinned"}
            return {"moves": "stays" if pinned else "away", **given}
        return given

    @property
    def conditions(self) -> tuple[VisitCondition, ...]:
        """When it shows to somebody who is on a page that it reaches."""
        found: list[VisitCondition] = [ClosedBefore(self.closed_days)] if self.closable else []
        if self.shows_from or self.shows_until:
            found.append(Period(self.shows_from, self.shows_until))
        return tuple(found)

    @property
    def is_at_bottom(self) -> bool:
        return self.edge == "bottom"

    @property
    def is_low(self) -> bool:
        return self.is_at_bottom and self.moves != "away"


class BottomBar(Moving):
    """Two to five targets at the bottom of small screens, always there: a navigation landmark."""

    WAYS = ("stays", "up")
    kind: Literal["bottom"] = "bottom"
    moves: Way = "stays"
    height_px: Annotated[int, Field(ge=44, le=120)] = 56

    @property
    def is_low(self) -> bool:
        return True


FloatPlace = Literal["top-start", "top-end", "middle-start", "middle-end", "bottom-start", "bottom-end"]


class Float(Moving):
    """A button, or a small fan of them, over the page at one of six places."""

    WAYS = ("stays", "up")
    kind: Literal["float"] = "float"
    moves: Way = "stays"
    place: FloatPlace = "bottom-end"
    inset_px: Annotated[int, Field(ge=0, le=200)] = 16
    fan: bool = Field(default=False, description="Only its first item shows, until that one is pressed.")
    yields: bool = Field(default=True, description="It goes while the footer is in view.")

    @property
    def is_low(self) -> bool:
        return True


class Drawer(Piece):
    """Rows within what a menu's button opens, above and below the menu's entries. It has no reach of its own: it shows
    wherever a menu that holds it does."""

    kind: Literal["drawer"] = "drawer"
    above: Annotated[int, Field(ge=0, le=20)] = Field(
        default=0, description="So many of its rows stand above the entries; the others stand below them."
    )


AnyPiece = Annotated[Header | Footer | Sidebar | Notice | BottomBar | Float | Drawer, Field(discriminator="kind")]
PIECE_KINDS: dict[str, type[Piece]] = {
    "header": Header,
    "notice": Notice,
    "footer": Footer,
    "sidebar": Sidebar,
    "bottom": BottomBar,
    "float": Float,
    "drawer": Drawer,
}


class Cut(Value):
    """Bytes of a page's content, `start` up to `end`, that are left out when it is published."""

    start: Annotated[int, Field(ge=0)]
    end: Annotated[int, Field(ge=0)]
    lift: LiftRef


class Lift(Node):
    """Old bits of pages that are left out: what a CSS selector matches, on one page or below a path."""

    selector: Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=400)]
    where: Annotated[Below | OnPage, Field(discriminator="kind")] = Below(path="/")


class Splice(Value):
    """Where pieces can be put into a page's bytes: found when the page came in, true of that content for good."""

    encoding: Label = Field(default="utf-8", description="Label of the WHATWG Encoding Standard.")
    head_at: Annotated[int, Field(ge=0)]
    body_at: Annotated[int, Field(ge=0)]
    end_at: Annotated[int, Field(ge=0)] | None = Field(
        default=None, description="Where the body's content ends; None: nothing can be put behind it."
    )
    close: Annotated[str, StringConstraints(pattern=r"^(</[a-z][a-z0-9]*>)*$", max_length=400)] = Field(
        default="", description="Closes what the page leaves open at its end."
    )
    wraps: bool = Field(default=False, description="The content from `body_at` to `end_at` can be put into an element.")


class Page(Node):
    """A page: its address, what is known of it, and the content it came with (by hash)."""

    path: PagePath
    title: Label = ""
    language: LanguageTag = "en"
    tags: tuple[Name, ...] = ()
    dated: Annotated[str, StringConstraints(pattern=r"^\d{4}-[01]\d-[0-3]\d$")] | None = Field(
        default=None, description="Day of its publication (ISO 8601)."
    )
    bare: bool = Field(default=False, description="No piece shows on it.")
    translates: PageRef | None = Field(default=None, description="The page that this one is a translation of.")
    content: Hash | None = Field(default=None, description="None: the path is known, its content is still to come.")
    splice: Splice | None = Field(default=None, description="None: pieces cannot be put in; `remark` says why.")
    remark: Label = ""
    source: Text | None = Field(default=None, description="Markdown, where the page was written by hand.")
    cuts: tuple[Cut, ...] = ()

    @property
    def encoding(self) -> str:
        """Label of its content's (WHATWG Encoding Standard)."""
        return self.splice.encoding if self.splice else "utf-8"


class Snippet(Node):
    """Code of the designer's own: put into pages as it stands, never run in the studio."""

    name: Name
    place: Literal["head", "start", "end"] = Field(
        default="head", description="In the head, or at the start or the end of the body."
    )
    where: Annotated[Everywhere | Below | OnPage, Field(discriminator="kind")] = Everywhere()
    code: Annotated[Text, StringConstraints(max_length=20_000), AfterValidator(_without_markers)] = ""
    on: bool = True


class Asset(Node):
    """A file carried along unchanged."""

    path: PagePath
    content: Hash
    size: Annotated[int, Field(ge=0)]


class Site(Value):
    """Everything a designer decides about one site. `pages` and `assets` are sorted by path, `bands` by width."""

    format: Literal[1] = 1
    key: Annotated[str, StringConstraints(pattern=r"^[a-z][a-z0-9]{3,11}$")]
    name: Name
    language: LanguageTag = "en"
    icon: PagePath | None = Field(
        default=None, description="Path of a picture among the site's files: its icon, for pages that name none."
    )
    description: Words = Field(default=Words(), description="Of the site, for pages that have none of their own.")
    face: Label = "figtree"
    text_px: TextSize = 16
    text_weight: Weight = 450
    heading_face: Label = Field(
        default="", description="Face of the headings and the title; that of the text where empty."
    )
    ratio: Annotated[float, Field(ge=1, le=2)] = Field(
        default=1.25, description="From one size of the scale to the next."
    )
    measure: Annotated[int, Field(ge=20, le=120)] = Field(default=66, description="Wished characters per line.")
    least_measure: Annotated[int, Field(ge=10, le=120)] = Field(default=45, description="Fewest characters per line.")
    content_px: Annotated[int, Field(ge=280, le=4000)] = 1120
    gutter_px: Annotated[int, Field(ge=0, le=200)] = 20
    sidebar_px: Annotated[int, Field(ge=80, le=1000)] = 280
    covered_percent: Annotated[int, Field(ge=5, le=90)] = Field(
        default=30, description="Pinned pieces that cover more of a screen are found fault with."
    )
    fonts: tuple[Font, ...] = ()
    looks: tuple[Look, ...] = ()
    roles: tuple[RoleDefault, ...] = Field(default=(), description="Defaults by role, for the whole site.")
    css: Annotated[Text, StringConstraints(max_length=60_000)] = Field(
        default="", description="The designer's own CSS."
    )
    snippets: tuple[Snippet, ...] = ()
    swatches: tuple[Swatch, ...] = ()
    bands: tuple[Band, ...] = ()
    menus: tuple[Menu, ...] = ()
    pieces: tuple[AnyPiece, ...] = ()
    lifts: tuple[Lift, ...] = ()
    pages: tuple[Page, ...] = ()
    assets: tuple[Asset, ...] = ()

    def menu(self, menu_id: str | None) -> Menu | None:
        return next((menu for menu in self.menus if menu.id == menu_id), None)

    def shown_rows(self, piece: Piece) -> tuple[Row, ...]:
        """A piece's rows as they are published: shared ones are those that they share."""
        if not any(row.shares for row in piece.rows):
            return piece.rows
        rows = {row.id: row for other in self.pieces for row in other.rows}
        return tuple(_in_place(rows[row.shares], row) if row.shares else row for row in piece.rows)

    def rows_in(self, piece: Piece, stage: str | None = None) -> tuple[Row, ...]:
        """The rows that it shows at rest, or that it hands over to in a stage: none where it keeps its own."""
        return tuple(row for row in self.shown_rows(piece) if row.stage == stage)

    def shown_items(self, piece: Piece) -> tuple[Item, ...]:
        """The items that a piece shows, shared rows' among them."""
        return tuple(item for row in self.shown_rows(piece) for cell in row.cells for item in cell.items)

    def drawer(self, drawer_id: str | None) -> Drawer | None:
        return next((piece for piece in self.pieces if isinstance(piece, Drawer) and piece.id == drawer_id), None)

    def drawers_in(self, piece: Piece) -> list[tuple[MenuItem, str]]:
        """The menus of a piece that hold a drawer, and which."""
        menus = (item for item in self.shown_items(piece) if isinstance(item, MenuItem))
        return [(item, item.drawer) for item in menus if item.drawer is not None]

    def holders(self, drawer: Piece) -> list[tuple[Piece, MenuItem]]:
        """The menus in which a drawer's rows stand, each with its piece."""
        return [(piece, item) for piece in self.pieces for item, held in self.drawers_in(piece) if held == drawer.id]

    def unshared(self) -> Site:
        """The same with every shared row in place, ids and all: for reading, not for keeping."""
        return self.replaced(pieces=tuple(piece.replaced(rows=self.shown_rows(piece)) for piece in self.pieces))

    def without_pages(self, before: Site | None = None) -> str:
        """All but pages and files, as JSON: the part that the store keeps as one document. With `before`, only
        the fields that are not the same objects there."""
        fields = set(type(self).model_fields) - {"pages", "assets"}
        if before is not None:
            fields = {field for field in fields if getattr(self, field) is not getattr(before, field)}
        return self.model_dump_json(include=fields)


def _in_place(shared: Row, own: Row) -> Row:
    return shared if shared.stage == own.stage else shared.replaced(stage=own.stage)


def drawer_width(item: MenuItem, site: Site) -> int | None:
    """The viewport width in px below which the menu is a drawer; None where it never is."""
    return item.drawer_below_width(band_widths(site))


def band_widths(site: Site) -> dict[str, int]:
    """The viewport width in px from which each width band counts, by its id."""
    return {band.id: band.from_px for band in site.bands}


def content_hash(site: Site) -> str:
    """SHA-256 of a site's canonical JSON: equal exactly where two sites are equal."""
    return hashlib.sha256(canonical_json(site.model_dump(mode="json"))).hexdigest()


def canonical_json(value: Any) -> bytes:
    return json.dumps(value, sort_keys=True, separators=(",", ":"), ensure_ascii=False).encode()
