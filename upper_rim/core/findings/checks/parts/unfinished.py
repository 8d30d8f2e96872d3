"""What is not finished: first words, links that lead nowhere, empty lists, pictures that are not there?"""

from __future__ import annotations

import re
from collections.abc import Iterator, Sequence
from functools import partial
from typing import Any, get_args
from urllib.parse import urlsplit

from ....kinds.items import Item
from ....kinds.items.base import ShowsMenu
from ....kinds.rows import Row
from ....model.site import Site
from ....model.tree import walk
from ....values.nodes import Node
from ....values.targets import Target, ToAddress
from ...finding import Finding
from ...keeping import Keeps, anew

_MADE_UP = re.compile(r"(.+\.)?example\.(com|net|org|edu)")
"""RFC 2606, 3. What stands for an address that is still to come; names below `.example` are made up on purpose."""
_TARGETS = get_args(get_args(Target)[0])


def in_unfinished(site: Site, kept: Keeps = anew) -> list[Finding]:
    """In the order of the pieces, each from above; `about` tells the field that would mend it."""
    menus = {menu.id for menu in site.menus if menu.entries or menu.grows}
    files = {asset.path for asset in site.assets}
    found: list[Finding] = []
    for piece in site.pieces:
        if piece.on:
            told = (piece.id, site.shown_rows(piece), menus, files)
            found += kept(("unfinished in", piece.id), told, partial(_in_piece, *told))
    found += [Finding("empty list", menu.id, about={"field": "entries"}) for menu in site.menus if menu.id not in menus]
    entries = (entry for menu in site.menus for entry in walk(menu))
    return [*found, *(one for entry in entries for one in _addresses(entry))]


def _in_piece(piece: str, rows: Sequence[Row], menus: set[str], files: set[str]) -> list[Finding]:
    items = [item for row in rows for cell in row.cells for item in cell.items]
    if not items:
        return [Finding("empty piece", piece, about={"field": "rows"})]
    return [one for item in items for one in _in_item(item, menus, files)]


def _in_item(item: Item, menus: set[str], files: set[str]) -> Iterator[Finding]:
    for lack in item.lacks():
        yield Finding(lack.what, lack.node or item.id, about={"field": lack.field})
    if isinstance(item, ShowsMenu) and item.menu and item.menu not in menus:
        yield Finding("empty list", item.id, item.menu, about={"field": "menu"})
    for node in (item, *walk(item)):
        picture = getattr(node, "picture", None)
        if isinstance(picture, str) and picture and picture not in files:
            yield Finding("picture gone", node.id, about={"path": picture, "field": "picture"})
        yield from _addresses(node)


def _addresses(node: Node) -> Iterator[Finding]:
    """Of all fields that say where something leads, or is."""
    for field in type(node).model_fields:
        value: Any = getattr(node, field)
        address = value.address if isinstance(value, ToAddress) else value if _is_address(field, value) else None
        if address is None:
            continue
        if address.strip() in {"", "#"} and isinstance(value, _TARGETS):
            yield Finding("leads to itself", node.id, about={"field": field})
        elif _MADE_UP.fullmatch(_host_of(address)):
            yield Finding("made-up address", node.id, about={"address": address[:200], "field": field})


def _is_address(field: str, value: object) -> bool:
    return field in {"address", "own_address", "mail"} and isinstance(value, str)


def _host_of(address: str) -> str:
    if "@" in address and "//" not in address:
        return address.rpartition("@")[2].partition("?")[0].lower()
    try:
        return (urlsplit(address).hostname or "").lower()
    except ValueError:
        return ""
