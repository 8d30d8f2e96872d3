"""Where in a site is the node with this id, and what may be put where?

A site is a tree of nodes. A *slot* is a field that holds child nodes; `SLOTS` says which class has which.
"""

from __future__ import annotations

from bisect import bisect_left
from collections.abc import Callable, Iterable, Iterator
from functools import cache
from typing import Any, NamedTuple

from pydantic import TypeAdapter

from ..kinds.entries import Entry
from ..kinds.items import ITEM_KINDS, Item
from ..kinds.moving import Stage
from ..kinds.pieces import PIECE_KINDS
from ..kinds.pieces.base import Piece, ReachSet
from ..kinds.rows import Cell, Row
from ..values.nodes import Node, Value
from ..values.styling import Look, RoleDefault
from .memo import Memo
from .site import Menu, Site

SLOTS: dict[type[Value], tuple[str, ...]] = {
    Site: (
        "swatches",
        "bands",
        "fonts",
        "looks",
        "roles",
        "menus",
        "reach_sets",
        "pieces",
        "snippets",
        "categories",
        "hosts",
        "phrases",
        "lifts",
        "cards",
        "let_be",
        "shapes",
        "pages",
        "assets",
    ),
    Menu: ("entries",),
    ReachSet: ("rules",),
    Entry: ("entries",),
    **{kind: kind.CHILDREN for kind in PIECE_KINDS.values()},
    Stage: ("styles",),
    Row: ("cells", "styles"),
    Cell: ("items", "styles"),
    Look: ("styles",),
    RoleDefault: ("styles",),
    **{kind: (*kind.CHILDREN, "styles") for kind in ITEM_KINDS.values()},
}

SORTED_SLOTS: dict[str, Callable[[Any], Any]] = {
    "pages": lambda page: page.path,
    "assets": lambda asset: asset.path,
    "bands": lambda band: (band.from_px, band.id),
}
"""Slots whose order follows from their nodes: a place in them cannot be chosen."""

ROOT = "site"
"""The id by which edits name the site itself."""


class Spot(NamedTuple):
    """Where a node stands: the holder's id, the slot, the index in it, and the node."""

    parent: str
    slot: str
    at: int
    node: Node


def slots_of(value: Value) -> tuple[str, ...]:
    return SLOTS.get(type(value), ())


@cache
def slot_adapter(holder: type[Value], slot: str) -> TypeAdapter[Any]:
    """Validates what a slot holds: a tuple of its nodes."""
    annotation: Any = holder.model_fields[slot].annotation
    return TypeAdapter(annotation)


def walk(value: Value) -> Iterator[Node]:
    """All nodes below `value`, parents first."""
    waiting = _children(value)
    waiting.reverse()
    while waiting:
        node = waiting.pop()
        yield node
        if type(node) in SLOTS:
            waiting.extend(reversed(_children(node)))


def items_of(pieces: Iterable[Piece]) -> Iterator[Item]:
    """The items in the pieces' own rows."""
    return (item for piece in pieces for row in piece.rows for cell in row.cells for item in cell.items)


def _children(value: Value) -> list[Node]:
    return [child for slot in SLOTS.get(type(value), ()) for child in getattr(value, slot)]


def find(site: Site, node_id: str) -> Spot | None:
    """The spot of the node with that id. Pages and files are looked up last, and not walked into."""
    return _find_below(site, ROOT, node_id)


def _find_below(holder: Value, holder_id: str, node_id: str) -> Spot | None:
    for slot in slots_of(holder):
        for at, child in enumerate(getattr(holder, slot)):
            if child.id == node_id:
                return Spot(holder_id, slot, at, child)
            if type(child) is Menu and node_id not in _ids_in(child):
                continue
            if type(child) in SLOTS:
                spot = _find_below(child, child.id, node_id)
                if spot is not None:
                    return spot
    return None


_menu_ids: Memo[Menu, frozenset[str]] = Memo(64)


def _ids_in(menu: Menu) -> frozenset[str]:
    """Ids of all entries of a menu, which may be many."""
    return _menu_ids.of(menu, lambda menu: frozenset(node.id for node in walk(menu)))


def holder_of(site: Site, node_id: str) -> Value | None:
    """The site or the node with that id."""
    if node_id == ROOT:
        return site
    spot = find(site, node_id)
    return spot.node if spot else None


def siblings_of(site: Site, spot: Spot) -> tuple[Node, ...]:
    """All nodes of the slot in which a spot lies, its own node among them."""
    siblings: tuple[Node, ...] = getattr(holder_of(site, spot.parent), spot.slot)
    return siblings


def ancestors(site: Site, node_id: str) -> list[str]:
    """Ids of the nodes that hold a node, nearest first; without the site."""
    found: list[str] = []
    spot = find(site, node_id)
    while spot is not None and spot.parent != ROOT:
        found.append(spot.parent)
        spot = find(site, spot.parent)
    return found


def insertion_point(slot: str, children: tuple[Node, ...], node: Node, at: int | None) -> int:
    """Where a node goes: by its key in a sorted slot, else at `at`, kept within bounds; the end where None."""
    if slot in SORTED_SLOTS:
        key = SORTED_SLOTS[slot]
        return bisect_left(children, key(node), key=key)
    return len(children) if at is None else max(0, min(at, len(children)))
