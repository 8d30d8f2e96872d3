"""What can stand in a cell? One class an item; `Item` is their union, told apart by `kind`."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field, StringConstraints

from ..values.addresses import Address, PagePath
from ..values.nodes import Node, Pixels, Value
from ..values.refs import BandRef, DrawerRef, EntryRef, MenuRef, PageRef
from ..values.rich import RichWords
from ..values.words import Label, Name, Words
from .styling import Styled


class ToPage(Value):
    """A link to one of the site's pages; it follows the page when its path changes."""

    kind: Literal["page"] = "page"
    page: PageRef


class ToAddress(Value):
    kind: Literal["address"] = "address"
    address: Address


class ToNothing(Value):
    """No link: an entry that only heads its branch."""

    kind: Literal["nothing"] = "nothing"


class ToPlace(Value):
    """A link to a place in one of the site's pages: the element with that id (HTML, 7.4.2.3)."""

    kind: Literal["place"] = "place"
    page: PageRef
    place: Annotated[str, StringConstraints(pattern=r"^[^\s\x00-\x1f]+$", max_length=200)]


Target = Annotated[ToPage | ToPlace | ToAddress | ToNothing, Field(discriminator="kind")]
IconName = Annotated[str, StringConstraints(pattern=r"^[a-z0-9]+(-[a-z0-9]+)*$", max_length=60)]

Weight = Annotated[int, Field(ge=100, le=1000)]
TextSize = Annotated[int, Field(ge=8, le=160)]
IconSize = Annotated[int, Field(ge=12, le=96)]
Percent = Annotated[int, Field(ge=0, le=100)]
WordsShown = Literal["none", "beside", "below"]
Day = Literal["Mo", "Tu", "We", "Th", "Fr", "Sa", "Su"]
Clock = Annotated[str, StringConstraints(pattern=r"^([01]\d|2[0-4]):[0-5]\d$")]


class _Item(Styled):
    hidden_in: tuple[BandRef, ...] = Field(default=(), description="Width bands in which the item does not show.")
    hint: Words = Field(default=Words(), description="Told while one points at it, or it has the focus.")


class Logo(_Item):
    """The site's title, or a picture carried with the site; leads to the front page."""

    kind: Literal["logo"] = "logo"
    words: Words = Field(
        default=Words(), description="Shown as text, or as the picture's name; the site's name where empty."
    )
    picture: PagePath | None = Field(default=None, description="Path of a picture among the site's files.")
    height_px: Annotated[int, Field(ge=8, le=400)] = 40


class _ShowsMenu(_Item):
    """Something that shows a menu, or a part of it."""

    menu: MenuRef | None = None
    branch: EntryRef | None = Field(default=None, description="Only what lies below this entry.")
    without: tuple[EntryRef, ...] = Field(default=(), description="Entries left out, with all below them.")


DrawerSide = Literal["start", "end", "top", "bottom", "whole"]


class MenuItem(_ShowsMenu):
    """A menu in one of several ways; below a band of choice, a button that opens it."""

    kind: Literal["menu"] = "menu"
    depth: Annotated[int, Field(ge=1, le=9)] | None = Field(default=None, description="Levels shown; all where None.")
    way: Literal["row", "column", "columns"] = Field(
        default="row", description="Entries beside each other, below each other, or each at the head of a column."
    )
    panels: Literal["narrow", "wide"] = Field(
        default="narrow", description="What opens below an entry of a row: a list, or a panel as wide as the piece."
    )
    panel_columns: Annotated[int, Field(ge=1, le=6)] = 4
    on_hover: bool = Field(default=False, description="Panels open while one points at their entry, too.")
    drawer_below: BandRef | None = Field(
        default=None, description="The first width band, from narrow to wide, that shows it; below it, the button."
    )
    drawer_when_full: bool = Field(
        default=False,
        description="The button shows wherever the row would not fit in some language; the band counts until that is known.",
    )
    drawer_below_px: Annotated[int, Field(ge=1, le=5000)] | None = Field(
        default=None, description="The viewport width below which the button shows; where the band begins, if None."
    )
    drawer_always: bool = Field(default=False, description="The button shows at all widths, whatever the band.")
    drawer_side: DrawerSide = Field(
        default="end", description="Where what the button opens comes from; `whole`: it covers the screen."
    )
    drawer_px: Annotated[int, Field(ge=160, le=2000)] | None = Field(
        default=None, description="Its width, or its height from the top or bottom; None: what is built in."
    )
    drawer_ms: Annotated[int, Field(ge=0, le=2000)] = Field(
        default=0, description="How long it takes to come and go; it does so at once where the visitor asked for calm."
    )
    drawer_pushes: bool = Field(default=False, description="The page gives way to it.")
    drawer: DrawerRef | None = Field(
        default=None, description="The piece whose rows stand above and below the entries in what the button opens."
    )
    submenus: Literal["open", "current", "shut", "levels"] = Field(
        default="open",
        description="Where entries stand below each other: all open, those above the page open at first, all shut, or one level at a time with a way back.",
    )
    one_at_a_time: bool = Field(default=False, description="Opening a submenu there shuts the one beside it.")
    gap_px: Pixels = 24
    button_words: Words = Words(text="Menu")
    button_words_shown: bool = False
    button_words_open: Words = Field(default=Words(), description="What the button says while it is open.")
    button_icon: IconName = "menu"
    button_picture: PagePath | None = Field(
        default=None, description="A drawing of one's own among the site's files, in place of the icon."
    )
    button_words_first: bool = Field(default=False, description="Its word stands before the icon.")
    button_turns: bool = Field(default=False, description="Its icon turns into a cross while it is open.")

    @property
    def has_button(self) -> bool:
        """Whether at some widths a button stands for it."""
        return self.drawer_below is not None or self.drawer_always

    @property
    def opens_on_hover(self) -> bool:
        return self.on_hover and self.way == "row"

    @property
    def has_toggles(self) -> bool:
        """Whether submenus can be shut where entries stand below each other."""
        return self.submenus != "open"


class TextItem(_Item):
    kind: Literal["text"] = "text"
    words: Words = Words(text="Text")


class ButtonItem(_Item):
    kind: Literal["button"] = "button"
    words: Words = Words(text="Button")
    target: Target = ToNothing()
    rank: Literal["first", "second"] = Field(
        default="first", description="Whose defaults it takes: those of the button, or of the second button."
    )


class IconLink(_Item):
    """An icon with a link; its words are its accessible name."""

    kind: Literal["icon"] = "icon"
    icon: IconName = "link"
    picture: PagePath | None = Field(default=None, description="A drawing of one's own among the site's files.")
    words: Words = Words(text="Link")
    target: Target = ToNothing()
    icon_px: IconSize = 22
    words_shown: WordsShown = "none"


class RichText(_Item):
    """A text with a small set of marks. Whatever comes in is cleaned (see `core.values.rich`)."""

    kind: Literal["rich"] = "rich"
    rich: RichWords = RichWords(text="<p>Text</p>")


class PictureItem(_Item):
    """A picture carried with the site. Its words are its alternative; an ornament has none."""

    kind: Literal["picture"] = "picture"
    picture: PagePath | None = None
    words: Words = Words()
    ornament: bool = False
    width_px: Annotated[int, Field(ge=8, le=4000)] = 320
    ratio: Annotated[str, StringConstraints(pattern=r"^([1-9]\d{0,3}/[1-9]\d{0,3})?$")] = Field(
        default="", description="Width/height that it is cropped to; its own where empty."
    )
    focus_x: Percent = Field(default=50, description="What stays in view when it is cropped: from the start, in %.")
    focus_y: Percent = Field(default=50, description="From the top, in %.")
    target: Target = ToNothing()


class LinkList(_ShowsMenu):
    """The first level of a menu as a list under a title."""

    kind: Literal["links"] = "links"
    words: Words = Words()


SEPARATORS = {"chevron": "›", "slash": "/", "dot": "·"}


class Trail(_Item):
    """By which pages one comes to the page that is looked at: a breadcrumb trail."""

    kind: Literal["trail"] = "trail"
    words: Words = Field(default=Words(), description="What the front page is called; its title where empty.")
    menu: MenuRef | None = Field(
        default=None, description="The menu whose branches it follows; None: the pages' paths."
    )
    separator: Literal["chevron", "slash", "dot"] = "chevron"


BusinessKind = Literal[
    "Organization", "LocalBusiness", "Store", "TravelAgency", "Restaurant", "LodgingBusiness", "EducationalOrganization"
]
"""Types of schema.org that carry an address."""


class Hours(Value):
    """When one is open on some days of the week (schema.org OpeningHoursSpecification)."""

    days: tuple[Day, ...]
    opens: Clock
    closes: Clock


class Contact(_Item):
    """Who and where one is: published as an `address` and as schema.org data."""

    kind: Literal["contact"] = "contact"
    business: BusinessKind = "Organization"
    name: Label = ""
    street: Label = ""
    postcode: Label = ""
    town: Label = ""
    country: Annotated[str, StringConstraints(pattern=r"^([A-Z]{2})?$")] = Field(
        default="", description="ISO 3166-1 code of two letters."
    )
    telephone: Annotated[str, StringConstraints(strip_whitespace=True, pattern=r"^(\+?[\d ()/-]{5,24})?$")] = ""
    mail: Annotated[
        str, StringConstraints(strip_whitespace=True, pattern=r"^([^\s@/:<>]+@[^\s@/:<>]+\.[^\s@/:<>]+)?$")
    ] = ""
    hours: tuple[Hours, ...] = ()


class Profile(Node):
    """An address elsewhere. The icon is found from its host."""

    address: Address
    name: Label = Field(default="", description="What it is called; the host's own name where empty.")
    colour: Annotated[str, StringConstraints(pattern=r"^(#[0-9a-fA-F]{6})?$")] = Field(
        default="", description="Of its icon alone; that of the row where empty."
    )


class SocialRow(_Item):
    """Profiles elsewhere, mail and telephone, each as its icon."""

    kind: Literal["social"] = "social"
    profiles: tuple[Profile, ...] = ()
    icon_px: IconSize = 20
    gap_px: Pixels = 4
    words_shown: WordsShown = "none"
    new_window: bool = False
    own_colours: bool = Field(default=False, description="Each icon in the colour of its own mark.")


class Copyright(_Item):
    """The sign, the years up to the present one, and whose the rights are; the site's name where empty."""

    kind: Literal["copyright"] = "copyright"
    words: Words = Words()
    first_year: Annotated[int, Field(ge=1000, le=9999)] | None = None


class Divider(_Item):
    """A line across its cell, or along it beside other items."""

    kind: Literal["divider"] = "divider"
    upright: bool = False


class Spacer(_Item):
    """Room: a length, or all that is left."""

    kind: Literal["spacer"] = "spacer"
    size_px: Pixels = 24
    grows: bool = False


class BackToTop(_Item):
    kind: Literal["top"] = "top"
    words: Words = Words(text="Back to top")
    after_px: Pixels = Field(default=600, description="How far down one must be for it to show; 0: always.")


class SearchBox(_Item):
    """Searches the published pages, in the language of the page that it stands on."""

    kind: Literal["search"] = "search"
    words: Words = Field(default=Words(), description="The field's name; “Search” in the page's language where empty.")


class PictureLink(Node):
    """A link of a picture list, and the picture that shows with it."""

    words: Words = Words()
    second: Words = Field(default=Words(), description="A second line.")
    picture: PagePath | None = None
    target: Target = ToNothing()


class PictureList(_Item):
    """Links; the picture of the one that is pointed at, or has the focus, shows. At first, the first one's."""

    kind: Literal["pictures"] = "pictures"
    links: tuple[PictureLink, ...] = ()
    place: Literal["beside", "behind", "edges"] = Field(
        default="beside", description="Pictures beside the list, behind it, or behind it to the window's edges."
    )
    list_side: Literal["start", "end"] = "start"
    list_percent: Annotated[int, Field(ge=10, le=100)] = Field(default=45, description="The list's share of the width.")
    list_padding_px: Pixels = 16
    gap_px: Pixels = 4
    gap_grows: Annotated[int, Field(ge=0, le=20)] = Field(
        default=0, description="By how much the space between links grows, in hundredths of the viewport's width."
    )
    least_height_px: Pixels = 280
    pictures_from: BandRef | None = Field(
        default=None, description="The first width band, from narrow to wide, that shows pictures; all where None."
    )


class Pager(_Item):
    """Parts a long list in a page's own content into pages. Without script, all of it shows."""

    kind: Literal["pager"] = "pager"
    list_on: PageRef | None = Field(default=None, description="The page with the list.")
    selector: Annotated[str, StringConstraints(strip_whitespace=True, max_length=400)] = Field(
        default="", description="Which element of that page the list is, as CSS writes it."
    )
    size: Annotated[int, Field(ge=1, le=1000)] = 10
    counts: Literal["entries", "lines"] = "entries"


class Viewer(_Item):
    """The overlay in which pictures of a page's own content open."""

    kind: Literal["viewer"] = "viewer"
    selector: Annotated[str, StringConstraints(strip_whitespace=True, max_length=400)] = "main img, article img"
    opacity_percent: Percent = Field(default=92, description="Of the ground behind the picture.")
    captions: bool = True


FieldKind = Literal["text", "mail", "telephone", "number", "date", "long", "choice", "tick"]


class FormField(Node):
    kind: FieldKind = "text"
    words: Words = Words(text="Field")
    required: bool = False
    placeholder: Words = Words()
    pattern: Annotated[str, StringConstraints(max_length=200)] = Field(
        default="", description="A regular expression that the whole answer must match (HTML Standard, `pattern`)."
    )
    choices: tuple[Name, ...] = ()


class Form(_Item):
    """Fields that a visitor fills in; the answers go to the site's inbox."""

    kind: Literal["form"] = "form"
    name: Name = "Form"
    fields: tuple[FormField, ...] = ()
    button: Words = Words(text="Send")
    thanks: Words = Words(text="Thank you. Your message has arrived.")
    own_address: Annotated[str, StringConstraints(strip_whitespace=True, pattern=r"^(https?://[^\s\"<>]+)?$")] = Field(
        default="", description="Where the form posts to in the ZIP, which has no inbox."
    )


class MapItem(_Item):
    """A drawn map of a place, with a link that map programs open (RFC 5870)."""

    kind: Literal["map"] = "map"
    words: Words = Words(text="Where we are")
    latitude: Annotated[float, Field(ge=-90, le=90)] = 54.0
    longitude: Annotated[float, Field(ge=-180, le=180)] = -4.5
    width_px: Annotated[int, Field(ge=80, le=2000)] = 320
    height_px: Annotated[int, Field(ge=80, le=2000)] = 200


class Posts(_Item):
    """The newest of the site's dated pages, or of an Atom or RSS file among its files."""

    kind: Literal["posts"] = "posts"
    words: Words = Field(default=Words(), description="A title over them.")
    below: PagePath = "/"
    feed: PagePath | None = Field(default=None, description="Path of the file; the site's own pages where None.")
    count: Annotated[int, Field(ge=1, le=50)] = 5
    dates_shown: bool = True


Item = Annotated[
    Logo
    | MenuItem
    | TextItem
    | RichText
    | PictureItem
    | ButtonItem
    | IconLink
    | LinkList
    | Trail
    | Contact
    | SocialRow
    | Copyright
    | Divider
    | Spacer
    | BackToTop
    | SearchBox
    | PictureList
    | Pager
    | Viewer
    | Form
    | MapItem
    | Posts,
    Field(discriminator="kind"),
]
ITEM_KINDS: dict[str, type[_Item]] = {
    "logo": Logo,
    "menu": MenuItem,
    "text": TextItem,
    "rich": RichText,
    "picture": PictureItem,
    "button": ButtonItem,
    "icon": IconLink,
    "links": LinkList,
    "trail": Trail,
    "contact": Contact,
    "social": SocialRow,
    "copyright": Copyright,
    "divider": Divider,
    "spacer": Spacer,
    "top": BackToTop,
    "search": SearchBox,
    "pictures": PictureList,
    "pager": Pager,
    "viewer": Viewer,
    "form": Form,
    "map": MapItem,
    "posts": Posts,
}
