"""What does a kind get to know of the site and of the page that its markup and its rules are written for?

The types of what is passed in: they are filled by `core.output`.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Literal, NamedTuple, Protocol

from ..values.brands import Mark
from ..values.styling import Styled
from ..values.targets import Target
from ..values.words import Words
from .consent import Category
from .entries import Entry, MenuPart
from .markup import Markup
from .spoken import SpokenLanguage

GateState = Literal["asked", "wrong", "waiting", "refused"]
"""What a gate shows: at first; after a wrong answer; after too many; after a no."""


class Destination(NamedTuple):
    """Where a target leads in a page's language. `href` is None for what has no link; `title` is that of the site's own
    page; `is_current`: it is the page that the markup is for."""

    href: str | None
    title: str = ""
    is_current: bool = False


class Post(NamedTuple):
    """`date` is a day in ISO 8601, or empty."""

    title: str
    address: str
    date: str


class Speaks(Protocol):
    """In which language something is named, and in which words."""

    @property
    def language(self) -> str: ...

    def phrase(self, name: str, *parts: str) -> str:
        """What pieces say of themselves, in that language."""

    def menu_name(self, menu_id: str | None) -> str | None:
        """None where there is no such menu."""


class PageContext(Speaks, Protocol):
    """For which page a piece is written."""

    @property
    def languages(self) -> Sequence[str]:
        """Those that are offered on such pages, their own among them."""

    def said_of(self, language: str) -> SpokenLanguage:
        """What the site says of one."""

    @property
    def site_name(self) -> str: ...
    @property
    def year(self) -> int | None:
        """The present one; None where it is not to be told."""

    @property
    def marks(self) -> bool:
        """Whether it is for the stage, which tells by node ids what was pressed."""

    @property
    def early(self) -> bool:
        """Whether what is written is seen first on the page."""

    @property
    def holder(self) -> str:
        """The piece that shows a row of another one, which may stand on the same page; else empty."""

    @property
    def gate_state(self) -> GateState:
        """What the gate shows that is written."""

    @property
    def asks_consent(self) -> bool:
        """Whether it is a question about consent that is written: a script hears the answers."""

    @property
    def categories(self) -> Sequence[Category]:
        """What visitors may agree to."""

    def waits_for(self, host: str, code: str, category: str | None) -> str:
        """To which categories a yes is needed before something of a host, or that code fetches, is there, which is said to be
        of a category; empty: to none."""

    @property
    def front(self) -> str:
        """Address of the front page in the page's language."""

    @property
    def index_path(self) -> str:
        """Where the search index in the page's language is."""

    @property
    def results_path(self) -> str:
        """Where the page of search results in that language is."""

    @property
    def band_from_px(self) -> Mapping[str, int]:
        """The viewport width from which each width band counts, by its id."""

    def words(self, words: Words, node: str) -> str:
        """What a node says in the page's language."""

    def name(self, part: str = "") -> str:
        """A class as it is published."""

    def html_id(self, part: str) -> str:
        """An id that is the only one of its kind on a page."""

    def attributes(self, node: Styled, *classes: str) -> dict[str, str]:
        """Class, with the looks that the node wears; and what marks it on the stage."""

    def mark(self, node_id: str) -> dict[str, str]:
        """What marks a node on the stage; nothing elsewhere."""

    def size(self, path: str, height_px: int | None = None) -> dict[str, str]:
        """Width and height of a picture, so that its room is kept until it is there: its natural ones, or at a
        height."""

    def smaller_pictures(self, path: str, width_px: int) -> Sequence[tuple[str, int]]:
        """Where the smaller sizes of a picture are published, and how wide they are."""

    def destination(self, target: Target) -> Destination: ...
    def is_current(self, page_id: str | None) -> bool: ...
    def is_heading(self, item_id: str) -> bool:
        """Whether that item is the page's first heading, since the page has none."""

    @property
    def has_heading(self) -> bool:
        """Whether some item is."""

    def label(self, entry: Entry) -> str:
        """An entry's words, or the title of its page."""

    def entries(self, part: MenuPart) -> Sequence[Entry]: ...
    def drawer_rows(self, drawer: str | None, item_id: str) -> tuple[Sequence[Markup], Sequence[Markup]]:
        """What stands above and below the entries in the drawer that a menu's button opens."""

    def brand_mark(self, address: str) -> Mark: ...
    def posts(self, feed: str | None, below: str) -> Sequence[Post]:
        """Those of a feed among the site's files, or of its own dated pages below a path."""

    @property
    def notice_script(self) -> str:
        """The script that settles whether a notice bar shows."""

    def module(self, name: str) -> str:
        """Where the module is that is fetched when something is first used."""


class PictureSize(Protocol):
    """A picture's natural size in px."""

    @property
    def width(self) -> float: ...
    @property
    def height(self) -> float: ...


class SheetContext(Protocol):
    """What a site's style sheet is written for."""

    @property
    def key(self) -> str:
        """With which all published names begin."""

    @property
    def band_from_px(self) -> Mapping[str, int]: ...
    @property
    def content_px(self) -> int:
        """How wide content becomes at most, and"""

    @property
    def gutter_px(self) -> int:
        """how much is left free at each side of it."""

    def picture(self, path: str) -> PictureSize | None: ...
    def brand_mark(self, address: str) -> Mark: ...


class SiteOffer(NamedTuple):
    """What a site has for a new item to begin with: the first of its menus, its widest band where it has more than one,
    `section`: id and title of its first page below the front page. `in_drawer`: whether it is put into a drawer."""

    site_name: str
    menu: str | None
    widest_band: str | None
    in_drawer: bool = False
    section: tuple[str, str] | None = None
