"""What may be agreed to, one by one."""

from __future__ import annotations

from typing import Literal

from ...values.styling import Part
from ..consent import Category
from ..context import PageContext
from ..markup import Attributes, Element, Markup, element
from .base import BaseItem


class Choices(BaseItem):
    """The site's categories, each with a box to tick. What is necessary is ticked, and stays so."""

    NAME = "Choices"
    ABOUT = "What may be agreed to, to be ticked one by one"
    CALLED = ("categories", "purposes", "cookies", "settings")
    ROLES = {"box": "block", "label": "label"}
    FILLS = True
    ONLY_IN = frozenset({"consent"})

    kind: Literal["choices"] = "choices"

    def markup(self, page: PageContext) -> tuple[Markup, ...]:
        attributes = page.attributes(self, "block", "choices", self.id)
        return (element("div", attributes, *(self._choice(one, page) for one in page.categories)),)

    def _choice(self, category: Category, page: PageContext) -> Element:
        field = page.html_id(f"{self.id}-{category.id}")
        about = category.told(page.language)
        ticked: Attributes = {
            "type": "checkbox",
            "class": page.name("tick-box"),
            "id": field,
            "data-rim-choice": category.id,
            "checked": category.is_necessary,
            "disabled": category.is_necessary,
            "aria-describedby": f"{field}-about" if about else None,
        }
        words = element("label", {"class": page.name("label"), "for": field}, category.called(page.language))
        told = element("div", {"class": page.name("said"), "id": f"{field}-about"}, about) if about else None
        return element(
            "div",
            {"class": page.name("choice")},
            element("input", ticked),
            element("div", {"class": page.name("said")}, words, told),
        )

    def texts_within(self) -> tuple[Part, ...]:
        return ("label",)
