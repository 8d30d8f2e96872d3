"""The way back to the question about consent."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Literal

from pydantic import Field

from ...values.styling import Part, Role
from ...values.words import Words
from ..context import PageContext
from ..markup import Attributes, Markup, element
from .answer import LOOKS, AnswerLook
from .base import BaseItem, named_by


class PrivacyChoices(BaseItem):
    """Whoever presses it is asked again, with what they answered."""

    NAME = "Privacy choices"
    ABOUT = "Opens the question about consent again"
    CALLED = ("cookies", "consent", "settings", "opt out", "withdraw")
    ALIKE = ("words",)

    kind: Literal["privacy"] = "privacy"
    words: Words = Words(text="Privacy choices")
    look: AnswerLook = Field(default="link", description="Whose defaults it takes.")

    @property
    def roles(self) -> Mapping[Part, Role]:
        return {"box": LOOKS[self.look][0]}

    def outline_name(self, menu_names: Mapping[str, str]) -> str:
        return named_by(self.NAME, self.words.text)

    def markup(self, page: PageContext) -> tuple[Markup, ...]:
        attributes: Attributes = {
            **page.attributes(self, LOOKS[self.look][1], self.id),
            "type": "button",
            "data-rim-choices": True,
        }
        return (element("button", attributes, page.words(self.words, self.id)),)
