"""A line."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Literal

from ...values.styling import Part, Role
from ..context import PageContext
from ..markup import Markup, element
from .base import BaseItem


class Divider(BaseItem):
    """A line across its cell, or along it beside other items."""

    NAME = "Divider"
    ABOUT = "A line between things"
    CALLED = ("line", "rule", "separator")

    kind: Literal["divider"] = "divider"
    upright: bool = False

    @property
    def roles(self) -> Mapping[Part, Role]:
        return {"box": "upright" if self.upright else "divider"}

    def markup(self, page: PageContext) -> tuple[Markup, ...]:
        return (element("div", {**page.attributes(self, self.roles["box"], self.id), "role": "separator"}),)
