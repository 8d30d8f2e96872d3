"""What is a site? One immutable value, from its name down to the last menu entry."""

from __future__ import annotations

import hashlib
import json
import operator
from collections.abc import Iterable
from typing import Annotated, Any, Literal

from pydantic import Field, StringConstraints

from ..conditions.below import Below
from ..conditions.everywhere import Everywhere
from ..conditions.on_page import OnPage
from ..conditions.visitor import VisitorCard, Zone
from ..kinds.consent import CATEGORIES, Category, ConsentRules, Fetch, OtherHost
from ..kinds.entries import Branch
from ..kinds.items import Item
from ..kinds.items.menu import MenuItem
from ..kinds.let_be import LetBe
from ..kinds.page_shapes import PageShape
from ..kinds.phrases import SaidPhrase
from ..kinds.pieces import AnyPiece
from ..kinds.pieces.base import Piece, ReachRule, ReachSet
from ..kinds.pieces.drawer import Drawer
from ..kinds.rows import Row
from ..kinds.spoken import SpokenLanguage, SpokenLanguages
from ..languages import filled, phrase
from ..values.addresses import FilePath, Origin, PagePath
from ..values.nodes import Hash, Node, Value
from ..values.refs import CategoryRef, LiftRef, PageRef, ShapeRef
from ..values.scalars import TextSize, Weight
from ..values.styling import Look, RoleDefault, Swatch
from ..values.words import Code, Label, LanguageTag, Name, Text, Words
from .fonts import Font
from .memo import Memo


class Band(Node):
    """A named range of viewport widths: from `from_px` up to where the next band begins."""

    name: Name
    from_px: Annotated[int, Field(ge=0, le=5000)]


class Menu(Branch):
    name: Name


class Cut(Value):
    """Bytes of a page's content, `start` up to `end`, that are left out when it is published."""

    start: Annotated[int, Field(ge=0)]
    end: Annotated[int, Field(ge=0)]
    lift: LiftRef


class Lift(Node):
    """Old bits of pages that are left out: what a CSS selector matches, on one page or below a path."""

    selector: Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=400)]
    where: Annotated[Below | OnPage, Field(discriminator="kind")] = Below(path="/")


class Alternate(Value):
    """What a page says itself of the same in another language (`rel=alternate`, `hreflang`)."""

    language: LanguageTag
    address: Annotated[Text, StringConstraints(max_length=2000)]


class _OfMany(Value):
    """There are tens of thousands at once: which of its fields were written somewhere is not kept of each."""

    def model_post_init(self, _: object) -> None:
        object.__setattr__(self, "__pydantic_fields_set__", _UNKEPT)


_UNKEPT: set[str] = set()


class Splice(_OfMany):
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
    has_form: bool = Field(default=False, description="There is a form in the content, other than a search.")
    fetches: tuple[Fetch, ...] = Field(default=(), description="What the content fetches from others.")
    alternates: tuple[Alternate, ...] = Field(default=(), exclude_if=operator.not_)
    turned: bool = Field(
        default=False,
        exclude_if=operator.not_,
        description="It runs from right to left by its CSS, and does not say so in its HTML (`dir`).",
    )
    dark: Literal["", "always", "asked"] = Field(
        default="",
        exclude_if=operator.not_,
        description="Its own ground is dark, always or where visitors ask for a dark one.",
    )
    unscaled: bool = Field(
        default=False,
        exclude_if=operator.not_,
        description="It has no viewport meta: phones draw it as wide as a screen, and make it small.",
    )


class Page(_OfMany, Node):
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
    of: Hash | None = Field(default=None, description="What its original held when it was translated.")
    also: tuple[LanguageTag, ...] = Field(default=(), description="Languages that it stands for besides its own.")
    content: Hash | None = Field(default=None, description="None: the path is known, its content is still to come.")
    splice: Splice | None = Field(default=None, description="None: pieces cannot be put in; `remark` says why.")
    shape: ShapeRef | None = Field(
        default=None, exclude_if=operator.not_, description="None: pieces stand in its body as it is."
    )
    likely: LanguageTag | Literal[""] = Field(
        default="",
        description="The language of its words, where neither it nor its path nor the designer says one; und where its"
        " words do not, either.",
    )
    remark: Label = ""
    source: Text | None = Field(default=None, description="Markdown, where the page was written by hand.")
    cuts: tuple[Cut, ...] = ()

    @property
    def has_form(self) -> bool:
        return self.splice is not None and self.splice.has_form

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
    code: Code = ""
    waits: CategoryRef | None = Field(default=None, description="It runs only after a yes to it.")
    on: bool = True


class Asset(Node):
    """A file carried along unchanged."""

    path: FilePath
    content: Hash
    size: Annotated[int, Field(ge=0)]


_languages: Memo[tuple[Page, ...], frozenset[str]] = Memo(8)


class Site(Value):
    """Everything a designer decides about one site. `pages` and `assets` are sorted by path, `bands` by width."""

    format: Literal[3] = 3
    key: Annotated[str, StringConstraints(pattern=r"^[a-z][a-z0-9]{3,11}$")]
    name: Name
    language: LanguageTag = "en"
    address: Origin = Field(default="", description="Where it is published: what is told to search engines is whole.")
    spoken: SpokenLanguages = Field(
        default=(),
        description="Languages that it is chosen to be in, or of which something is said, in their order; those of pages that are not among them come last.",
    )
    untranslated: Literal["above", "front", "stay", "hide"] = Field(
        default="above",
        description="Where a switch leads from a page that is not there in a language: to what stands above it, to the front page, nowhere; or the language is left out.",
    )
    zone: Zone = Field(default="UTC", description="Time zone in which its periods are meant.")
    viewport: bool = Field(default=False, description="Pages that have no viewport meta are given one.")
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
    reach_sets: tuple[ReachSet, ...] = Field(default=(), description="Rules that several pieces use.")
    pieces: tuple[AnyPiece, ...] = ()
    consent: ConsentRules = ConsentRules()
    categories: tuple[Category, ...] = Field(default=CATEGORIES, description="What visitors may agree to.")
    hosts: tuple[OtherHost, ...] = Field(default=(), description="What is said of others' hosts.")
    phrases: tuple[SaidPhrase, ...] = Field(
        default=(), description="What the pieces say of themselves, where it is not what ships."
    )
    lifts: tuple[Lift, ...] = ()
    cards: tuple[VisitorCard, ...] = Field(default=(), description="Simulated visitors, to look as.")
    let_be: tuple[LetBe, ...] = Field(default=(), description="What was found, and need not be mended.")
    shapes: tuple[PageShape, ...] = Field(default=(), description="Of the pages' bodies.")
    pages: tuple[Page, ...] = ()
    assets: tuple[Asset, ...] = ()

    @property
    def languages(self) -> tuple[str, ...]:
        """Its own first, then those that are chosen, then those that its pages are in besides."""
        of_pages = _languages.of(
            self.pages, lambda pages: frozenset(tag for one in pages for tag in (one.language, *one.also))
        )
        return tuple(dict.fromkeys((self.language, *(one.language for one in self.spoken), *sorted(of_pages))))

    @property
    def other_languages(self) -> tuple[str, ...]:
        """Those into which its texts are translated."""
        return self.languages[1:]

    def offered_in(self, language: str) -> tuple[str, ...]:
        """Those that switches on pages in a language offer: that one, and what is not held back."""
        held_back = {one.language for one in self.spoken if not one.on} - {self.language, language}
        return tuple(tag for tag in self.languages if tag not in held_back)

    def said_of(self, language: str) -> SpokenLanguage:
        """Of a language, of which nothing may be said."""
        return next((one for one in self.spoken if one.language == language), SpokenLanguage(language=language))

    def phrase(self, name: str, language: str, *parts: str) -> str:
        """What the pieces say of themselves in a language: in the site's words, else in those that ship."""
        own = next((one for one in self.phrases if one.phrase == name), None)
        said = own.said_in(language, own=language == self.language) if own else ""
        return filled(said, parts) if said else phrase(name, language, *parts)

    def with_all_languages_on(self) -> Site:
        """As it is for whoever may see what is still held back."""
        return self.replaced(spoken=tuple(one.replaced(on=True) for one in self.spoken))

    def first_looked_at(self, pages: Iterable[Page]) -> Page | None:
        """Of these pages the front page, else the first in the site's language; None where there are none."""
        return min(pages, key=lambda page: (page.path != "/", page.language != self.language, page.path), default=None)

    def menu(self, menu_id: str | None) -> Menu | None:
        return next((menu for menu in self.menus if menu.id == menu_id), None)

    def rules_of(self, piece: Piece) -> tuple[ReachRule, ...]:
        """A piece's own, then those of the sets that it uses."""
        sets = {one.id: one.rules for one in self.reach_sets} if piece.reach_sets else {}
        return (*piece.reach, *(rule for one in piece.reach_sets for rule in sets[one]))

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
