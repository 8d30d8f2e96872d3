"""A float."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Annotated, Literal

from pydantic import Field

from ..context import PageContext
from ..markup import Markup, element
from ..moving import Way
from .base import Moving

FloatPlace = Literal["top-start", "top-end", "middle-start", "middle-end", "bottom-start", "bottom-end"]


class Float(Moving):
    """A button, or a small fan of them, over the page at one of six places."""

    NAME = "Float"
    TAG = "section"
    ROLE = "float"
    IN_LINES = True
    CLASSES = ("float",)
    WAYS = ("stays", "up")

    kind: Literal["float"] = "float"
    moves: Way = "stays"
    place: FloatPlace = "bottom-end"
    inset_px: Annotated[int, Field(ge=0, le=200)] = 16
    fan: bool = Field(default=False, description="Only its first item shows, until that one is pressed.")
    yields: bool = Field(default=True, description="It goes while the footer is in view.")

    @property
    def is_low(self) -> bool:
        return True

    def content(self, rows: Sequence[Markup], page: PageContext) -> Sequence[Markup]:
        if not self.fan:
            return rows
        summary = element("summary", {"class": page.name("button")}, self.name)
        return [element("details", {"class": page.name("fan")}, summary, *rows)]
