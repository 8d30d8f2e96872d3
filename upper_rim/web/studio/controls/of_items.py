"""Which controls does an item of each kind have for what it says?"""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any, get_args

from ....core.model.items import (
    SEPARATORS,
    BackToTop,
    BusinessKind,
    ButtonItem,
    Contact,
    Copyright,
    Day,
    Divider,
    Form,
    FormField,
    Hours,
    IconLink,
    LinkList,
    Logo,
    MapItem,
    MenuItem,
    Pager,
    PictureItem,
    PictureLink,
    PictureList,
    Posts,
    RichText,
    SearchBox,
    SocialRow,
    Spacer,
    TextItem,
    Trail,
    Viewer,
)
from ....core.model.site import Site
from ....core.model.told import joined_days
from .control import (
    Control,
    Group,
    choice,
    link,
    note,
    number,
    order,
    pictures,
    px,
    rich,
    target_in_words,
    text,
    words,
    yes,
)
from .of_menus import menu_groups, menu_use

RANKS = (("first", "First button"), ("second", "Second button"))
RATIOS = (
    ("", "its own"),
    ("1/1", "square"),
    ("4/3", "4 to 3"),
    ("3/2", "3 to 2"),
    ("16/9", "16 to 9"),
    ("3/4", "3 to 4, upright"),
)
BUSINESSES = [(kind, kind) for kind in get_args(BusinessKind)]


def item_groups(node: Any, site: Site) -> list[Group]:
    """What an item says, and how its own kind is arranged."""
    match node:
        case Logo():
            return [
                Group(
                    "Content",
                    [
                        *words(node, "words", "Title", site),
                        pictures(node, "picture", site, "none: show the title"),
                        px(node, "height_px", "Height", 400),
                    ],
                ),
            ]
        case MenuItem():
            return menu_groups(node, site)
        case TextItem():
            return [Group("Content", list(words(node, "words", "Text", site)))]
        case ButtonItem():
            return [
                Group("Content", [*words(node, "words", "Says", site), link(node, site)]),
                Group("Button", [Control("choice", "Rank", node.id, "rank", node.rank, RANKS)]),
            ]
        case IconLink():
            return [
                Group(
                    "Content",
                    [
                        Control("icon", "Icon", node.id, "icon", node.icon, suggestions="icons"),
                        *own_drawing(node),
                        *words(node, "words", "Its name", site),
                        link(node, site),
                    ],
                ),
                Group("Icon", [px(node, "icon_px", "Size", 96), words_shown(node)]),
            ]
        case RichText():
            return [Group(control.label, [control]) for control in rich(node, "rich", "Text", site)]
        case PictureItem():
            return [
                Group(
                    "Content",
                    [
                        *_alternative(node),
                        pictures(node, "picture", site, "none yet"),
                        Control("upload", "Bring one", node.id, "picture", ""),
                        *words(node, "words", "It shows", site),
                        yes(node, "ornament", "Ornament: says nothing"),
                        link(node, site),
                    ],
                ),
                Group(
                    "Crop",
                    [
                        px(node, "width_px", "Width", 4000),
                        choice(node, "ratio", "Shape", RATIOS),
                        number(node, "focus_x", "In view, across", "%", 0, 100),
                        number(node, "focus_y", "In view, down", "%", 0, 100),
                    ],
                ),
            ]
        case LinkList():
            return [Group("Content", list(words(node, "words", "Title", site))), Group("Menu", menu_use(node, site))]
        case Trail():
            ways = [("", "the pages’ paths")] + [(menu.id, f"menu {menu.name}") for menu in site.menus]
            signs = [(name, sign) for name, sign in SEPARATORS.items()]
            return [
                Group("Way", [choice(node, "menu", "Follows", ways), choice(node, "separator", "Between", signs)]),
                Group("Front page", list(words(node, "words", "Is called", site))),
            ]
        case Contact():
            return [
                Group("Who", [text(node, "name", "Name"), choice(node, "business", "Is a", BUSINESSES)]),
                Group(
                    "Where",
                    [
                        text(node, "street", "Street"),
                        text(node, "postcode", "Postcode"),
                        text(node, "town", "Town"),
                        text(node, "country", "Country (two letters)"),
                    ],
                ),
                Group("How", [text(node, "telephone", "Telephone"), text(node, "mail", "Mail")]),
                Group(
                    "Hours",
                    [
                        Control(
                            "lines",
                            "Open",
                            node.id,
                            "hours",
                            hours_in_lines(node.hours),
                            hint="Mo-Fr 09:00-17:30, a line each",
                        )
                    ],
                ),
            ]
        case SocialRow():
            addresses = "\n".join(
                " | ".join((profile.address, profile.name, profile.colour)).rstrip(" |") for profile in node.profiles
            )
            return [
                Group(
                    "Profiles",
                    [
                        Control(
                            "lines",
                            "Addresses",
                            node.id,
                            "profiles",
                            addresses,
                            hint="https://there.example/you | name | #1f5c57",
                        ),
                        *order(node, "profiles", [one.name or one.address for one in node.profiles]),
                    ],
                ),
                Group(
                    "Icons",
                    [
                        px(node, "icon_px", "Size", 96),
                        px(node, "gap_px", "Between", 200),
                        words_shown(node),
                        yes(node, "own_colours", "In their own colours"),
                        yes(node, "new_window", "Open a new window"),
                    ],
                ),
            ]
        case Copyright():
            years = Control(
                "number", "First year", node.id, "first_year", node.first_year or "", least=1000, greatest=9999
            )
            return [Group("Content", [*words(node, "words", "Whose", site), years])]
        case Divider():
            return [Group("Divider", [yes(node, "upright", "Upright")])]
        case Spacer():
            return [Group("Spacer", [px(node, "size_px", "Size", 1000), yes(node, "grows", "All that is left")])]
        case BackToTop():
            return [Group("Content", [*words(node, "words", "Says", site), px(node, "after_px", "Shows after", 10000)])]
        case SearchBox():
            return [Group("Content", list(words(node, "words", "Its name", site)))]
        case PictureList():
            lines = "\n".join(_picture_line(one, site) for one in node.links)
            hint = "Title | second line | /picture.svg | /path"
            bands = [("", "at all widths")] + [
                (band.id, f"from {band.name}") for band in site.bands if band.from_px > 0
            ]
            places = (("beside", "beside the list"), ("behind", "behind it"), ("edges", "behind, edge to edge"))
            sides = (("start", "Start"), ("end", "End"))
            return [
                Group(
                    "Links",
                    [
                        Control("lines", "Links", node.id, "links", lines, hint=hint),
                        *order(node, "links", [one.words.text for one in node.links]),
                    ],
                ),
                Group(
                    "Pictures",
                    [
                        choice(node, "place", "Stand", places),
                        choice(node, "pictures_from", "Show", bands),
                        px(node, "least_height_px", "At least high", 2000),
                    ],
                ),
                Group(
                    "List",
                    [
                        choice(node, "list_side", "Side", sides),
                        number(node, "list_percent", "Takes", "%", 10, 100),
                        px(node, "list_padding_px", "Padding", 400),
                        px(node, "gap_px", "Between", 400),
                        number(node, "gap_grows", "and of the window", "%", 0, 20),
                    ],
                ),
            ]
        case Pager():
            page = next((page.path for page in site.pages if page.id == node.list_on), "")
            on_page = Control("text", "On the page", node.id, "list_on", page, suggestions="paths", hint="/path")
            return [
                Group(
                    "List",
                    [
                        on_page,
                        Control("text", "Is", node.id, "selector", node.selector, hint="press the list on the stage"),
                    ],
                ),
                Group(
                    "Part",
                    [
                        number(node, "size", "Has", "", 1, 1000),
                        choice(node, "counts", "Counted in", (("entries", "entries"), ("lines", "lines of text"))),
                    ],
                ),
            ]
        case Viewer():
            return [
                Group("Pictures", [text(node, "selector", "Which"), yes(node, "captions", "With captions")]),
                Group("Ground", [number(node, "opacity_percent", "Covers", "%", 0, 100)]),
            ]
        case Form():
            lines = "\n".join(map(_field_line, node.fields))
            hint = (
                "Your name* | text\nMail* | mail | you@there.example\nWhen | choice | morning, evening\nMessage | long"
            )
            return [
                Group(
                    "Fields",
                    [
                        Control("lines", "Fields", node.id, "fields", lines, hint=hint),
                        *order(node, "fields", [one.words.text for one in node.fields]),
                    ],
                ),
                Group(
                    "Form",
                    [
                        text(node, "name", "Name"),
                        *words(node, "button", "Button says", site),
                        *words(node, "thanks", "Thanks", site),
                    ],
                ),
                Group(
                    "Where to",
                    [
                        Control(
                            "text",
                            "In the ZIP",
                            node.id,
                            "own_address",
                            node.own_address,
                            hint="an address of your own",
                        ),
                    ],
                ),
            ]
        case Posts():
            feeds = [("", "dated pages of this site")] + [
                (asset.path, asset.path) for asset in site.assets if asset.path.endswith((".xml", ".atom", ".rss"))
            ]
            return [
                Group("Content", list(words(node, "words", "Title", site))),
                Group(
                    "Posts",
                    [
                        choice(node, "feed", "Are", feeds),
                        Control("upload", "Bring a feed", node.id, "feed", ""),
                        *(
                            []
                            if node.feed
                            else [Control("text", "below", node.id, "below", node.below, suggestions="paths")]
                        ),
                        number(node, "count", "At most", "", 1, 50),
                        yes(node, "dates_shown", "With dates"),
                    ],
                ),
            ]
        case MapItem():
            return [
                Group(
                    "Place",
                    [
                        *words(node, "words", "Name", site),
                        text(node, "latitude", "Latitude"),
                        text(node, "longitude", "Longitude"),
                    ],
                ),
                Group("Drawing", [px(node, "width_px", "Width", 2000), px(node, "height_px", "Height", 2000)]),
            ]
        case _:
            return []


def _alternative(node: PictureItem) -> list[Control]:
    """What is missing where a picture says nothing to those who do not see it (WCAG 2.2 1.1.1)."""
    missing = node.picture and not node.ornament and not node.words.text
    sentence = "Say what it shows, or mark it as an ornament: without that, some visitors get nothing."
    return [note(node, sentence)] if missing else []


def own_drawing(node: IconLink) -> list[Control]:
    """The drawing that is shown instead of an icon of the sets, and how one comes in."""
    upload = Control("upload", "or your own", node.id, "picture", "")
    kept = (
        Control(
            "choice",
            "Shown is",
            node.id,
            "picture",
            node.picture,
            [(node.picture, node.picture), ("", "the icon above")],
        )
        if node.picture
        else None
    )
    return [kept, upload] if kept else [upload]


def _picture_line(link: PictureLink, site: Site) -> str:
    parts = (link.words.text, link.second.text, link.picture or "", target_in_words(link.target, site))
    return " | ".join(parts).rstrip(" |")


def _field_line(field: FormField) -> str:
    extra = ", ".join(field.choices) or field.placeholder.text
    return " | ".join((field.words.text + "*" * field.required, field.kind, extra, field.pattern)).rstrip(" |")


def words_shown(node: Any) -> Control:
    return choice(node, "words_shown", "Word", (("none", "not shown"), ("beside", "beside it"), ("below", "below it")))


def hours_in_lines(hours: Iterable[Hours]) -> str:
    """Opening hours as they are typed: `Mo-Fr 09:00-17:30`."""
    names = list(get_args(Day))
    return "\n".join(f"{joined_days(one, names, '-', ',')} {one.opens}-{one.closes}" for one in hours)
