"""What is an arrangement, with which a new piece begins, and how does it become one?"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator, Mapping
from dataclasses import dataclass, field
from html import escape
from typing import Any

from ...kinds.context import SiteOffer
from ...kinds.items import ITEM_KINDS
from ...kinds.items.base import ShowsMenu
from ...kinds.pieces import PIECE_KINDS
from ..editing.edits import Add, Edit
from ..memo import Memo
from ..site import Menu, Page, Site
from ..tree import ROOT, items_of

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
        if item is not ABOUT_THE_SITE:
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
    known = _sections.of(site.pages, lambda _: {})
    if site.language not in known:
        pages = (page for page in site.pages if page.language == site.language and page.path != "/" and page.title)
        first = min(pages, key=lambda page: page.path.rstrip("/").count("/"), default=None)
        known[site.language] = (first.id, first.title) if first else None
    return known[site.language]


_sections: Memo[tuple[Page, ...], dict[str, tuple[str, str] | None]] = Memo(8)
"""By language."""


def words(text: str) -> JsonNode:
    return {"words": {"text": text}}


def cells(*cells: tuple[str, str, tuple[PlannedItem, ...]]) -> tuple[CellPlan, ...]:
    return tuple(CellPlan(*cell) for cell in cells)


CLOSING = {
    "border-block-start-width": "1px",
    "border-block-start-style": "solid",
    "border-block-start-color": "@:line",
}
BOX = {
    "padding-block-start": "32px",
    "padding-block-end": "32px",
    "padding-inline-start": "28px",
    "padding-inline-end": "28px",
}
ABOUT_THE_SITE: PlannedItem = ("rich", {})
"""What the site says of itself."""
