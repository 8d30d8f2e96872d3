"""With what can a new piece begin? A few arrangements of our own for each kind, so that nobody starts from an empty
box."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator, Mapping
from dataclasses import dataclass, field
from html import escape
from typing import Any

from ..kinds.context import SiteOffer
from ..kinds.items import ITEM_KINDS
from ..kinds.items.base import ShowsMenu
from ..kinds.pieces import PIECE_KINDS
from .editing.edits import Add, Edit
from .site import Menu, Site
from .tree import ROOT, items_of

FIRST_LEVELS = 2
"""Of the site's pages, in its first menu."""
NewId = Callable[[str], str]
"""Makes an id that nothing has, behind the letters of its kind."""
JsonNode = dict[str, Any]
PlannedItem = str | tuple[str, Mapping[str, Any]]
"""An item's kind, and the fields that it begins with."""


@dataclass(frozen=True)
class CellPlan:
    track: str
    align: str
    items: tuple[PlannedItem, ...]


@dataclass(frozen=True)
class RowPlan:
    name: str
    cells: tuple[CellPlan, ...]
    fields: Mapping[str, Any] = field(default_factory=dict)
    styles: Mapping[str, str] = field(default_factory=dict)


@dataclass(frozen=True)
class Arrangement:
    kind: str
    name: str
    about: str
    rows: tuple[RowPlan, ...]
    fields: Mapping[str, Any] = field(default_factory=dict)
    styles: Mapping[str, str] = field(default_factory=dict)

    @property
    def kinds(self) -> list[str]:
        """Of its items."""
        planned = [item for row in self.rows for cell in row.cells for item in cell.items]
        return [item if isinstance(item, str) else item[0] for item in planned]

    def piece(self, site: Site, name: str, new_id: NewId) -> JsonNode:
        """The piece as an edit adds it, with new ids. A kind's first piece shows everywhere; after that, reach is left
        to the designer. Drawers have none, and gates begin by guarding nothing."""
        first = PIECE_KINDS[self.kind].SHOWS_AT_FIRST and not any(piece.kind == self.kind for piece in site.pieces)
        return {
            "id": new_id("pc"),
            "kind": self.kind,
            "name": name,
            "rows": [planned_row(site, row, new_id) for row in self.rows],
            "reach": [{"id": new_id("rr")}] if first else [],
            "styles": _styles(self.styles, new_id),
            **self._fields(site),
        }

    def _fields(self, site: Site) -> JsonNode:
        """Phones only: in the bands but the narrowest it does not show."""
        fields = dict(self.fields)
        if fields.pop("narrowest_only", False):
            fields["hidden_in"] = [band.id for band in site.bands[1:]]
        return fields


def with_menu(site: Site, kinds: Iterable[str], new_id: NewId) -> tuple[Site, tuple[Edit, ...]]:
    """The site for which new items of these kinds are made, and what is to be done before: where one shows a menu and
    the site has none, there is one first, whose entries are the site's pages and come and go with them."""
    if site.menus or not any(issubclass(ITEM_KINDS[kind], ShowsMenu) for kind in kinds):
        return site, ()
    menu: JsonNode = {"id": new_id("mn"), "name": "Main", "grows": {"path": "/", "depth": FIRST_LEVELS}}
    made = site.replaced(menus=(Menu.model_validate(menu),))
    return made, (Add(parent=ROOT, slot="menus", values=(menu,)),)


def planned_row(site: Site, row: RowPlan, new_id: NewId) -> JsonNode:
    cells = [
        {
            "id": new_id("cl"),
            "track": {"kind": cell.track},
            "align": cell.align,
            "items": [_planned_item(site, item, new_id) for item in _said(site, cell.items)],
        }
        for cell in row.cells
    ]
    fields = dict(row.fields)
    if fields.pop("folds", False) and len(site.bands) > 1:
        fields["columns"] = [{"band": site.bands[0].id, "count": 1}]
        if len(site.bands) > 2 and len(cells) > 2:
            fields["columns"] += [{"band": band.id, "count": 2} for band in site.bands[1:-1]]
    return {"id": new_id("rw"), "name": row.name, "cells": cells, "styles": _styles(row.styles, new_id), **fields}


def _said(site: Site, planned: Iterable[PlannedItem]) -> Iterator[PlannedItem]:
    """What the site says of itself where it says something, and nothing in its place where it does not."""
    for item in planned:
        if item is not _ABOUT_THE_SITE:
            yield item
        elif site.description.text:
            yield ("rich", {"rich": {"text": f"<p>{escape(site.description.text, quote=False)}</p>"}})


def _planned_item(site: Site, planned: PlannedItem, new_id: NewId) -> JsonNode:
    """In the site's own words, where it has such an item already."""
    kind, fields = (planned, {}) if isinstance(planned, str) else planned
    like = next((item for item in items_of(site.pieces) if item.kind == kind), None)
    said = like.model_dump(mode="json", include=set(like.ALIKE)) if like else {}
    return new_item(site, (kind, {**_with_new_ids(said, new_id), **fields}), new_id)


def _with_new_ids(value: Any, new_id: NewId) -> Any:
    if isinstance(value, list):
        return [_with_new_ids(one, new_id) for one in value]
    if not isinstance(value, dict):
        return value
    return {
        name: new_id(inner.partition("-")[0]) if name == "id" else _with_new_ids(inner, new_id)
        for name, inner in value.items()
    }


def _styles(values: Mapping[str, str], new_id: NewId) -> list[JsonNode]:
    return [{"id": new_id("st"), "property": name, "value": value} for name, value in values.items()]


def new_item(site: Site, planned: PlannedItem, new_id: NewId, *, in_drawer: bool = False) -> JsonNode:
    """An item with what the site has to offer it."""
    kind, fields = (planned, {}) if isinstance(planned, str) else planned
    widest = site.bands[-1].id if len(site.bands) > 1 else None
    offer = SiteOffer(site.name, site.menus[0].id if site.menus else None, widest, in_drawer, _section(site))
    item: JsonNode = {"id": new_id("it"), "kind": kind, **ITEM_KINDS[kind].beginning(offer), **fields}
    if ITEM_KINDS[kind].FILLS:
        item["styles"] = [*item.get("styles", []), *_styles({"inline-size": "100%"}, new_id)]
    return item


def _section(site: Site) -> tuple[str, str] | None:
    pages = (page for page in site.pages if page.language == site.language and page.path != "/" and page.title)
    first = min(pages, key=lambda page: page.path.rstrip("/").count("/"), default=None)
    return (first.id, first.title) if first else None


def _words(text: str) -> JsonNode:
    return {"words": {"text": text}}


def _cells(*cells: tuple[str, str, tuple[PlannedItem, ...]]) -> tuple[CellPlan, ...]:
    return tuple(CellPlan(*cell) for cell in cells)


_PLAIN_ROW = {"padding-block-start": "0px", "padding-block-end": "0px"}
_WIDE_ROW = {"padding-block-start": "36px", "padding-block-end": "28px"}
_CLOSING = {
    "border-block-start-width": "1px",
    "border-block-start-style": "solid",
    "border-block-start-color": "@:line",
}
_BOX = {
    "padding-block-start": "32px",
    "padding-block-end": "32px",
    "padding-inline-start": "28px",
    "padding-inline-end": "28px",
}
_ABOUT_THE_SITE: PlannedItem = ("rich", {})
_TO_SEE: PlannedItem = ("icon", {"icon": "menu", "words": {"text": "Contents"}, "words_shown": "below"})

_MAY_WE: PlannedItem = (
    "rich",
    {
        "rich": {
            "text": "<p>Some of what this site shows comes from others, who learn of your visit then. May it be fetched? "
            "You can change your answer at any time.</p>"
        }
    },
)
_YES_TO_ALL: PlannedItem = ("answer", {"says": "yes", **_words("Yes to all")})
_NO_TO_ALL: PlannedItem = ("answer", {"says": "no", **_words("No to all")})
_YES_TO_TICKED: PlannedItem = ("answer", {"says": "ticked", "look": "second", **_words("Yes to what is ticked")})
_OVER_A_PAGE = {"background-color": "@:ground", "box-shadow": "0px 2px 24px 0px #0006"}
_ASKING_BAR = {"padding-block-start": "16px", "padding-block-end": "16px"}
_ASKING_FIRST = {**_BOX, "background-color": "@:ground"}

ARRANGEMENTS: dict[str, Arrangement] = {
    "line": Arrangement(
        "header",
        "One line",
        "Title at the start, menu beside it, a button at the end.",
        (
            RowPlan(
                "Main row",
                _cells(("content", "start", ("logo",)), ("share", "start", ("menu",)), ("content", "end", ("button",))),
            ),
        ),
    ),
    "crown": Arrangement(
        "header",
        "Crown",
        "The title in the middle, the menu centred in a row below.",
        (
            RowPlan(
                "Title row",
                _cells(("share", "start", ("text",)), ("content", "center", ("logo",)), ("share", "end", ("icon",))),
            ),
            RowPlan("Menu row", _cells(("share", "center", ("menu",)))),
        ),
    ),
    "band": Arrangement(
        "header",
        "With a band above",
        "A narrow row for news and contact over title and menu.",
        (
            RowPlan("Band", _cells(("share", "start", ("text",)), ("content", "end", ("icon",)))),
            RowPlan("Main row", _cells(("content", "start", ("logo",)), ("share", "end", ("menu",)))),
        ),
    ),
    "columns": Arrangement(
        "footer",
        "Four columns",
        "Who you are, two lists of links, where to find you; a closing line below.",
        (
            RowPlan(
                "Columns",
                _cells(
                    ("share", "start", ("logo", _ABOUT_THE_SITE)),
                    ("share", "start", (("links", _words("On this site")),)),
                    ("share", "start", (("links", _words("More")),)),
                    ("share", "start", ("contact",)),
                ),
                {"folds": True, "align": "start"},
                _WIDE_ROW,
            ),
            RowPlan(
                "Closing line", _cells(("share", "start", ("copyright",)), ("content", "end", ("top",))), {}, _CLOSING
            ),
        ),
    ),
    "halves": Arrangement(
        "footer",
        "Two halves",
        "Address at the start, profiles at the end.",
        (
            RowPlan(
                "Halves",
                _cells(("share", "start", ("contact",)), ("share", "end", ("social",))),
                {"folds": True, "align": "start"},
                _WIDE_ROW,
            ),
            RowPlan("Closing line", _cells(("share", "start", ("copyright",))), {}, _CLOSING),
        ),
    ),
    "colophon": Arrangement(
        "footer",
        "Colophon",
        "All in the middle: links, profiles, the copyright line.",
        (
            RowPlan("Links", _cells(("share", "center", ("links",))), {}, _WIDE_ROW),
            RowPlan("Closing line", _cells(("share", "center", ("copyright",)))),
        ),
    ),
    "contents": Arrangement(
        "sidebar",
        "Contents",
        "A title and the pages of a menu.",
        (RowPlan("Contents", _cells(("share", "start", (("links", _words("In this part")),)))),),
    ),
    "aside": Arrangement(
        "sidebar",
        "Aside",
        "A text, a button, and how to reach you.",
        (
            RowPlan("Text", _cells(("share", "start", ("rich", "button")))),
            RowPlan("Contact", _cells(("share", "start", ("contact",)))),
        ),
        {"side": "end"},
    ),
    "news": Arrangement(
        "notice",
        "A line of news",
        "One sentence across the page, closed by the visitor.",
        (
            RowPlan(
                "News",
                _cells(("share", "center", ("text",))),
                {},
                {"padding-block-start": "8px", "padding-block-end": "8px"},
            ),
        ),
        {},
        {"background-color": "@:ink", "color": "@:ground"},
    ),
    "invitation": Arrangement(
        "notice",
        "An invitation",
        "A sentence and a button, pinned to the bottom.",
        (
            RowPlan(
                "Invitation",
                _cells(("share", "start", ("text",)), ("content", "end", ("button",))),
                {},
                {"padding-block-start": "8px", "padding-block-end": "8px"},
            ),
        ),
        {"edge": "bottom", "moves": "stays"},
        {"background-color": "@:ink", "color": "@:ground"},
    ),
    "targets": Arrangement(
        "bottom",
        "Four targets",
        "Icons with a word below, for phones.",
        (
            RowPlan(
                "Targets",
                _cells(
                    ("share", "center", (("icon", {"icon": "house", **_words("Home"), "words_shown": "below"}),)),
                    ("share", "center", (("icon", {"icon": "search", **_words("Find"), "words_shown": "below"}),)),
                    ("share", "center", (("icon", {"icon": "phone", **_words("Call"), "words_shown": "below"}),)),
                    ("share", "center", (_TO_SEE,)),
                ),
            ),
        ),
        {"narrowest_only": True},
        _CLOSING,
    ),
    "pair": Arrangement(
        "bottom",
        "Two buttons",
        "What most visitors come for, and how to call.",
        (
            RowPlan(
                "Buttons",
                _cells(("share", "center", ("button",)), ("share", "center", (("button", {"rank": "second"}),))),
            ),
        ),
        {"narrowest_only": True},
        _CLOSING,
    ),
    "one-button": Arrangement(
        "float",
        "One button",
        "The one thing that a visitor should always be able to do.",
        (RowPlan("Button", _cells(("content", "end", ("button",))), {}, _PLAIN_ROW),),
    ),
    "up": Arrangement(
        "float",
        "Back to top",
        "Comes after a while, and leads back up.",
        (RowPlan("Up", _cells(("content", "end", ("top",))), {}, _PLAIN_ROW),),
    ),
    "reach-us": Arrangement(
        "drawer",
        "How to reach you",
        "Below the entries: address and profiles.",
        (
            RowPlan("Contact", _cells(("share", "start", ("contact",))), {}, _CLOSING),
            RowPlan("Profiles", _cells(("share", "start", ("social",)))),
        ),
    ),
    "search-first": Arrangement(
        "drawer",
        "Search first",
        "Above the entries a search, below them a button.",
        (
            RowPlan("Search", _cells(("share", "start", ("search",)))),
            RowPlan("Button", _cells(("share", "center", ("button",))), {}, _CLOSING),
        ),
        {"above": 1},
    ),
    "locked": Arrangement(
        "password",
        "A locked door",
        "The logo, a sentence, the password and a button.",
        (
            RowPlan(
                "Door",
                _cells(
                    (
                        "share",
                        "start",
                        (
                            "logo",
                            (
                                "rich",
                                {"rich": {"text": "<p>This part of the site is for those who know its password.</p>"}},
                            ),
                            "told",
                            "secret",
                            ("answer", {"says": "yes", **_words("Open")}),
                        ),
                    )
                ),
                {},
                _BOX,
            ),
        ),
    ),
    "yes-no": Arrangement(
        "age",
        "Yes or no",
        "A question with two buttons.",
        (
            RowPlan(
                "Question",
                _cells(
                    (
                        "share",
                        "center",
                        (
                            "logo",
                            ("rich", {"rich": {"text": "<p>Are you old enough, where you are, to go on?</p>"}}),
                            "told",
                            ("answer", {"says": "yes", **_words("Yes, I am")}),
                            ("answer", {"says": "no", "look": "second", **_words("No, I am not")}),
                        ),
                    )
                ),
                {},
                _BOX,
            ),
        ),
    ),
    "date-of-birth": Arrangement(
        "age",
        "Date of birth",
        "A date is typed; who is too young does not get in.",
        (
            RowPlan(
                "Date",
                _cells(
                    (
                        "share",
                        "start",
                        (
                            "logo",
                            (
                                "rich",
                                {
                                    "rich": {
                                        "text": "<p>To go on, tell us when you were born. We keep nothing of it.</p>"
                                    }
                                },
                            ),
                            "told",
                            "birth",
                            ("answer", {"says": "yes", **_words("Go on")}),
                            ("answer", {"says": "no", "look": "link", **_words("I would rather not say")}),
                        ),
                    )
                ),
                {},
                _BOX,
            ),
        ),
    ),
    "ask-bar": Arrangement(
        "consent",
        "A bar",
        "Along the lower edge: a sentence and two answers.",
        (
            RowPlan(
                "Question",
                _cells(("share", "start", (_MAY_WE,)), ("content", "end", (_YES_TO_ALL, _NO_TO_ALL))),
                {"folds": True},
                _ASKING_BAR,
            ),
        ),
        {"place": "bar-bottom"},
        _OVER_A_PAGE,
    ),
    "ask-box": Arrangement(
        "consent",
        "A box",
        "In a corner: what may be agreed to, one by one.",
        (
            RowPlan(
                "Question",
                _cells(("share", "start", (_MAY_WE, "choices", _YES_TO_ALL, _NO_TO_ALL, _YES_TO_TICKED))),
                {},
                _BOX,
            ),
        ),
        {"place": "bottom-end"},
        _OVER_A_PAGE,
    ),
    "ask-first": Arrangement(
        "consent",
        "Before anything else",
        "Over all of the window, until there is an answer.",
        (
            RowPlan(
                "Question", _cells(("share", "start", ("logo", _MAY_WE, _YES_TO_ALL, _NO_TO_ALL))), {}, _ASKING_FIRST
            ),
        ),
        {"place": "whole"},
        {"background-color": "#000000b3"},
    ),
}
