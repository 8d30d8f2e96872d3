"""Which texts does a piece show, whoever draws them, and in which states can each be?"""

from __future__ import annotations

from collections.abc import Iterator
from typing import NamedTuple

from ...kinds.items.base import BaseItem
from ...kinds.items.menu import MenuItem
from ...kinds.pieces.base import Piece
from ...kinds.pieces.drawer import Drawer
from ...kinds.pieces.float import Float
from ...model.site import Site
from ...model.tree import items_of
from ...values.styling import STATES_OF, State
from ..resolve import StyledElement, Styling, elements_of


class ShownText(NamedTuple):
    """Text of a node. `opened`: from where, if it stands in what something opens. `states`: those that it can be in."""

    node: str
    element: StyledElement
    states: tuple[State, ...]
    opened: StyledElement | None = None


WITHOUT_TEXT = frozenset({"piece", "float", "row", "column-rule", "cell", "block", "divider", "upright", "menu"})
"""Roles of elements that only hold others, or a picture or line."""


def texts_of(site: Site, styling: Styling, only: str | None = None) -> Iterator[ShownText]:
    """Every text that pieces show, whoever draws it: of each element, of what stands within one and has no styles of
    its own, and in what opens. What is disabled is left out (WCAG 2.2, 1.4.3)."""
    for piece in (one for one in site.pieces if only in {None, one.id}):
        held = (
            [styling.elements[item.id, "box"] for _, item in site.holders(piece)] if isinstance(piece, Drawer) else []
        )
        places: list[StyledElement | None] = [*held] or [None]
        for opened in places:
            yield from _texts_of_piece(piece, styling, opened)


def _texts_of_piece(piece: Piece, styling: Styling, opened: StyledElement | None) -> Iterator[ShownText]:
    for element in elements_of(piece):
        if element.role not in WITHOUT_TEXT:
            yield ShownText(element.node, element, _states(element.role), opened)
    if isinstance(piece, Float) and piece.fan:
        top = styling.elements[piece.id, "box"]
        yield ShownText(piece.id, StyledElement("", "box", "button", piece.id, top), _states("button"), opened)
    for item in items_of((piece,)):
        box = styling.elements[item.id, "box"]
        for role in item.texts_within():
            yield ShownText(item.id, StyledElement("", "box", role, piece.id, box), _states(role, item), opened)
        if isinstance(item, MenuItem) and opened is None:
            entries = styling.elements[item.id, "content"]
            yield ShownText(item.id, entries, _states(entries.role), box)


def _states(role: str, item: BaseItem | None = None) -> tuple[State, ...]:
    left_out = {"disabled"} if item is not None and item.has_placeholder else {"disabled", "placeholder"}
    return tuple(state for state in STATES_OF[role] if state not in left_out)
