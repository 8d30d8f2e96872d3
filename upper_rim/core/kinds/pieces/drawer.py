"""A drawer."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from .base import Piece


class Drawer(Piece):
    """Rows within what a menu's button opens, above and below the menu's entries. It has no reach of its own: it shows
    wherever a menu that holds it does."""

    NAME = "Drawer"
    TAG = "div"
    SHOWS_AT_FIRST = False

    kind: Literal["drawer"] = "drawer"
    above: Annotated[int, Field(ge=0, le=20)] = Field(
        default=0, description="So many of its rows stand above the entries; the others stand below them."
    )
