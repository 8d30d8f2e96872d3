"""A bottom bar."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from ..moving import Way
from .base import Moving


class BottomBar(Moving):
    """Two to five targets at the bottom of small screens, always there: a navigation landmark."""

    NAME = "Bottom bar"
    TAG = "nav"
    IN_LINES = True
    WAYS = ("stays", "up")

    kind: Literal["bottom"] = "bottom"
    moves: Way = "stays"
    height_px: Annotated[int, Field(ge=44, le=120)] = 56

    @property
    def is_low(self) -> bool:
        return True
