"""The fields for a date of birth at a question about age."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Literal

from pydantic import Field

from ...languages import date_order
from ...values.styling import Part
from ...values.words import Words
from ..context import PageContext
from ..markup import Attributes, Element, Markup, Raw, element
from .base import BaseItem, named_by

ZONE = "zone"
"""The hidden field in which a browser says in which time zone it is (ECMA-402), so that the day is the visitor's."""
_TELLS_ZONE = "document.currentScript.previousElementSibling.value=Intl.DateTimeFormat().resolvedOptions().timeZone"
_DIGITS = {"day": 2, "month": 2, "year": 4}


class BirthField(BaseItem):
    """Day, month and year in the order of the page's language, each typed (WCAG 2.2, 1.3.5: input purpose)."""

    NAME = "Date of birth"
    ABOUT = "Where somebody types on which day they were born"
    CALLED = ("age", "birthday", "date")
    ROLES = {"box": "block", "label": "label", "field": "field"}
    FILLS = True
    ONLY_IN = frozenset({"age"})

    kind: Literal["birth"] = "birth"
    words: Words = Field(
        default=Words(), description="What is asked for; “Date of birth” in the page's language where empty."
    )

    def outline_name(self, menu_names: Mapping[str, str]) -> str:
        return named_by(self.NAME, self.words.text)

    def markup(self, page: PageContext) -> tuple[Markup, ...]:
        if page.gate_state == "refused":
            return ()
        title = page.html_id(f"{self.id}-title")
        words = self.words.in_language(page.language) or page.phrase("birth")
        is_wrong = page.gate_state == "wrong"
        group: Attributes = {
            "role": "group",
            "class": page.name("dated"),
            "aria-labelledby": title,
            "aria-describedby": page.html_id("told") if is_wrong else None,
        }
        parts = (self._part(part, page, is_wrong=is_wrong) for part in date_order(page.language))
        zone: Attributes = {"type": "hidden", "name": ZONE, "form": page.html_id("gate")}
        return (
            element(
                "div",
                page.attributes(self, "block", "asked", self.id),
                element("div", {"class": page.name("label"), "id": title}, words),
                element("div", group, *parts),
                element("input", zone),
                element("script", {}, Raw(_TELLS_ZONE)),
            ),
        )

    def _part(self, part: str, page: PageContext, *, is_wrong: bool) -> Element:
        field, digits = page.html_id(f"{self.id}-{part}"), _DIGITS[part]
        typed: Attributes = {
            "class": page.name("field"),
            "id": field,
            "form": page.html_id("gate"),
            "name": part,
            "inputmode": "numeric",
            "autocomplete": f"bday-{part}",
            "required": True,
            "maxlength": str(digits),
            "size": str(digits),
            "pattern": f"[0-9]{{1,{digits}}}",
            "aria-invalid": "true" if is_wrong else None,
        }
        label = element("label", {"class": page.name("label"), "for": field}, page.phrase(part))
        return element("div", {"class": page.name("date-part")}, label, element("input", typed))

    def texts_within(self) -> tuple[Part, ...]:
        return ("label", "field")
