"""The field for a password at a locked door."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Literal

from pydantic import Field

from ...values.styling import Part
from ...values.words import Words
from ..context import PageContext
from ..markup import Markup, element
from .base import BaseItem, named_by

SHORTEST_PASSWORD, LONGEST_PASSWORD = 8, 256


class PasswordField(BaseItem):
    """It may be pasted, and filled in by what keeps passwords (WCAG 2.2, 3.3.8)."""

    NAME = "Password"
    ABOUT = "Where the password of a locked page is typed"
    CALLED = ("secret", "field", "unlock")
    ROLES = {"box": "block", "label": "label", "field": "field"}
    FILLS = True
    ONLY_IN = frozenset({"password"})

    kind: Literal["secret"] = "secret"
    words: Words = Field(
        default=Words(), description="The field's name; “Password” in the page's language where empty."
    )

    def outline_name(self, menu_names: Mapping[str, str]) -> str:
        return named_by(self.NAME, self.words.text)

    def markup(self, page: PageContext) -> tuple[Markup, ...]:
        if page.gate_state == "refused":
            return ()
        field = page.html_id(f"{self.id}-field")
        label = self.words.in_language(page.language) or page.phrase("password")
        is_wrong = page.gate_state in {"wrong", "waiting"}
        typed = element(
            "input",
            {
                "class": page.name("field"),
                "id": field,
                "form": page.html_id("gate"),
                "type": "password",
                "name": "password",
                "autocomplete": "current-password",
                "required": True,
                "maxlength": str(LONGEST_PASSWORD),
                "aria-invalid": "true" if is_wrong else None,
                "aria-describedby": page.html_id("told") if is_wrong else None,
            },
        )
        return (
            element(
                "div",
                page.attributes(self, "block", "asked", self.id),
                element("label", {"class": page.name("label"), "for": field}, label),
                typed,
            ),
        )

    def texts_within(self) -> tuple[Part, ...]:
        return ("label", "field")
