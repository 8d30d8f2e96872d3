"""Which texts does a piece show, whoever draws them, and in which states can each be?"""

from __future__ import annotations

from collections.abc import Iterator, Set
from typing import NamedTuple

from ...kinds.items.base import BaseItem, ShowsMenu
from ...kinds.items.menu import MenuItem
from ...kinds.pieces.base import Piece
from ...kinds.pieces.drawer import Drawer
from ...kinds.pieces.float import Float
from ...model.navigation.menus import all_entries
from ...model.site import Site
from ...model.tree import items_of
from ...values.styling import LOOK_PARTS, STATES_OF, Part, State
from ..resolve import StyledElement, Styling, element_in, elements_of


class ShownText(NamedTuple):
    """Text of a node. `opened`: from where, if it stands in what something opens. `states`: those that it can be in."""

    node: str
    element: StyledElement
    states: tuple[State, ...]
    opened: StyledElement | None = None


WITHOUT_TEXT = frozenset({"piece", "float", "row", "column-rule", "cell", "block", "divider", "upright", "menu"})
"""Roles of elements that only hold others, or a picture or line."""


def texts_of(site: Site, styling: Styling, only: str | None = None) -> Iterator[ShownText]:
    """Every text that pieces show, whoever draws it: of each element, and in what opens. What is disabled is left out
    (WCAG 2.2, 1.4.3)."""
    for piece in (one for one in site.pieces if only in {None, one.id}):
        held = (
            [styling.elements[item.id, "opened"] for _, item in site.holders(piece)]
            if isinstance(piece, Drawer)
            else []
        )
        places: list[StyledElement | None] = [*held] or [None]
        for opened in places:
            yield from _texts_of_piece(piece, styling, opened)


def _texts_of_piece(piece: Piece, styling: Styling, opened: StyledElement | None) -> Iterator[ShownText]:
    for element in elements_of(piece):
        if element.part in LOOK_PARTS and element.role not in WITHOUT_TEXT:
            yield ShownText(element.node, element, _states(element.role), opened)
    if isinstance(piece, Float) and piece.fan:
        yield ShownText(piece.id, element_in(styling, piece.id, "button"), _states("button"), opened)
    for item in items_of((piece,)):
        for part in item.texts_within():
            element = styling.elements[item.id, part]
            yield ShownText(item.id, element, _states(element.role, item), opened)
        if item.hint.text:
            yield ShownText(item.id, styling.elements[item.id, "hint"], ("rest",), opened)
        if isinstance(item, ShowsMenu):
            yield from _of_entries(item, styling, opened)


def beside_labels(item: BaseItem, site: Site) -> frozenset[Part]:
    """The parts in which a menu's entries say something, besides those of the first level their labels."""
    menu = site.menu(item.menu) if isinstance(item, ShowsMenu) else None
    entries = list(all_entries(menu.entries)) if menu else []
    said: dict[Part, bool] = {
        "second-line": any(entry.second.text for entry in entries),
        "badge": any(entry.mark.text for entry in entries),
        "lower": any(entry.entries for entry in entries) or any(one.grows for one in (menu, *entries) if one),
        "apart": any(entry.apart for entry in entries),
    }
    return frozenset(part for part, is_said in said.items() if is_said and part in set(item.roles) - item.unseen_parts)


SAID_BY_ENTRIES: frozenset[Part] = frozenset({"second-line", "badge", "apart"})
"""Parts of which a menu has only what its entries say."""
_CONTENT: tuple[Part, ...] = ("content",)


def _of_entries(item: ShowsMenu, styling: Styling, opened: StyledElement | None) -> Iterator[ShownText]:
    """What entries say besides their labels, and those below the first level; and all of them in what a menu opens,
    where that is not itself open."""
    parts = beside_labels(item, styling.site)
    in_row: set[Part] = {"second-line", "lower"} if isinstance(item, MenuItem) and item.way == "row" else set()
    surfaces: dict[Part | None, Set[Part]] = {None: parts - in_row}
    if isinstance(item, MenuItem) and opened is None:
        surfaces |= {"opened": parts.union(_CONTENT), "panel": parts - {"apart"}}
    for surface, shown in surfaces.items():
        if surface is not None and surface in item.unseen_parts:
            continue
        around = opened if surface is None else styling.elements[item.id, surface]
        for part in shown:
            element = styling.elements[item.id, part]
            if surface == "panel" and item.WITHIN.get(part) == "content":
                element = element._replace(parent=styling.elements[item.id, "lower"])
            yield ShownText(item.id, element, _states(element.role), around)


def _states(role: str, item: BaseItem | None = None) -> tuple[State, ...]:
    left_out = {"disabled"} if item is not None and item.has_placeholder else {"disabled", "placeholder"}
    return tuple(state for state in STATES_OF[role] if state not in left_out)
