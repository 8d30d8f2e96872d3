"""A footer."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import Literal

from pydantic import Field

from ..context import PageContext, SheetContext
from ..markup import Attributes, Markup, element
from ..rule import Rule
from .base import OnPaper, Opens


class Footer(OnPaper):
    """After the content: a contentinfo landmark."""

    NAME = "Footer"
    TAG = "footer"

    kind: Literal["footer"] = "footer"
    uncovered: bool = Field(
        default=False, description="It lies beneath the page, which uncovers it while it is scrolled to its end."
    )

    @property
    def opens(self) -> tuple[Opens, ...]:
        return ("up",)

    def landmark_attributes(self, page: PageContext) -> Attributes:
        return {"data-rim-footer": True}

    def content(self, rows: Sequence[Markup], page: PageContext) -> Sequence[Markup]:
        return [element("div", {"class": page.name("beneath")}, *rows)] if self.uncovered else rows

    def rules(self, own: str, sheet: SheetContext) -> Iterator[Rule]:
        if not self.uncovered:
            return
        yield Rule(own, {"overflow": "clip"})
        uncovers = {
            "display": "block",
            "translate": f"0 var(--{sheet.key}-uncover)",
            "animation-name": f"{sheet.key}-uncover",
            "animation-timing-function": "linear",
            "animation-fill-mode": "both",
            "animation-timeline": "view()",
            "animation-range": "entry-crossing 0% entry-crossing 100%",
        }
        able = ("@supports (animation-timeline:view())", "@media (prefers-reduced-motion:no-preference)")
        yield Rule(f"{own}>.{sheet.key}-beneath", uncovers, able)
