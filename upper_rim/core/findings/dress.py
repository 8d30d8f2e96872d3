"""How is all in a piece dressed, whatever it says?"""

from __future__ import annotations

from typing import Any

from ..kinds.items.base import BaseItem, ShowsMenu
from ..kinds.pieces.base import Piece
from ..model.editing.check import roles_of
from ..style.resolve import styled_in


def dress_of(piece: Piece) -> list[tuple[Any, ...]]:
    """Of each that can be styled in it; equal as long as it looks the same but for its words. What shows a menu is told
    whole: how it opens is said by its fields."""
    return [(type(node), node.id, roles_of(node), *_said(node)) for node in styled_in(piece)]


def _said(node: Any) -> tuple[Any, ...]:
    unseen = node.unseen_parts if isinstance(node, BaseItem) else ()
    whole = node if isinstance(node, ShowsMenu) else None
    return (node.styles, node.wears, getattr(node, "roles", ()), unseen, whole)
