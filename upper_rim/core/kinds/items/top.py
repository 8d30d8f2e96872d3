"""The way back to the top of the page."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Literal

from pydantic import Field

from ...values.nodes import Pixels
from ...values.words import Words
from ..context import PageContext
from ..markup import Markup, element
from .base import BaseItem, named_by


class BackToTop(BaseItem):
    NAME = "Back to top"
    ABOUT = "Leads back to where the page begins"
    CALLED = ("up",)
    ROLES = {"box": "second"}

    kind: Literal["top"] = "top"
    words: Words = Words(text="Back to top")
    after_px: Pixels = Field(default=600, description="How far down one must be for it to show; 0: always.")

    def outline_name(self, menu_names: Mapping[str, str]) -> str:
        return named_by(self.NAME, self.words.text)

    def markup(self, page: PageContext) -> tuple[Markup, ...]:
        words = page.words(self.words, self.id) or page.phrase("top")
        after = {"data-rim-until": str(self.after_px) if self.after_px else None}
        return (element("a", {**page.attributes(self, "second", self.id), "href": "#", **after}, words),)
