"""With what can a new header begin? A few arrangements of our own, so that nobody starts from an empty box."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from ...core.model.site import Site
from ..sites.store import new_id

JsonNode = dict[str, Any]


@dataclass(frozen=True)
class Arrangement:
    """`cells` are rows of (track, alignment, kinds of items)."""

    name: str
    about: str
    rows: tuple[tuple[str, tuple[tuple[str, str, tuple[str, ...]], ...]], ...]

    def piece(self, site: Site, name: str) -> JsonNode:
        """The piece as an edit adds it, with new ids. Reach is left to the designer."""
        rows = [
            {"id": new_id("rw"), "name": row_name, "cells": [self._cell(site, *cell) for cell in cells]}
            for row_name, cells in self.rows
        ]
        return {
            "id": new_id("pc"),
            "name": name,
            "rows": rows,
            "reach": [{"id": new_id("rr")}] if not site.pieces else [],
        }

    def _cell(self, site: Site, track: str, align: str, kinds: tuple[str, ...]) -> JsonNode:
        return {
            "id": new_id("cl"),
            "track": {"kind": track},
            "align": align,
            "items": [new_item(site, kind) for kind in kinds],
        }


def new_item(site: Site, kind: str) -> JsonNode:
    """An item with what the site has to offer it: a menu comes with the site's first, as a drawer below its widest band."""
    item: JsonNode = {"id": new_id("it"), "kind": kind}
    if kind == "menu" and site.menus:
        item["menu"] = site.menus[0].id
        if len(site.bands) > 1:
            item["drawer_below"] = site.bands[-1].id
    return item


ARRANGEMENTS: dict[str, Arrangement] = {
    "line": Arrangement(
        "One line",
        "Title at the start, menu beside it, a button at the end.",
        (
            (
                "Main row",
                (("content", "start", ("logo",)), ("share", "start", ("menu",)), ("content", "end", ("button",))),
            ),
        ),
    ),
    "crown": Arrangement(
        "Crown",
        "The title in the middle, the menu centred in a row below.",
        (
            (
                "Title row",
                (("share", "start", ("text",)), ("content", "center", ("logo",)), ("share", "end", ("icon",))),
            ),
            ("Menu row", (("share", "center", ("menu",)),)),
        ),
    ),
    "band": Arrangement(
        "With a band above",
        "A narrow row for news and contact over title and menu.",
        (
            ("Band", (("share", "start", ("text",)), ("content", "end", ("icon",)))),
            ("Main row", (("content", "start", ("logo",)), ("share", "end", ("menu",)))),
        ),
    ),
}
