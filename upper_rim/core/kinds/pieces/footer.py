"""A footer."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Literal

from pydantic import Field

from ..context import PageContext
from ..markup import Attributes, Markup, element
from .base import Piece


class Footer(Piece):
    """After the content: a contentinfo landmark."""

    NAME = "Footer"
    TAG = "footer"

    kind: Literal["footer"] = "footer"
    uncovered: bool = Field(
        default=False, description="It lies beneath the page, which uncovers it while it is scrolled to its end."
    )

    def landmark_attributes(self, page: PageContext) -> Attributes:
        return {"data-rim-footer": True}

    def content(self, rows: Sequence[Markup], page: PageContext) -> Sequence[Markup]:
        return [element("div", {"class": page.name("beneath")}, *rows)] if self.uncovered else rows
