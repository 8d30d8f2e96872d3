"""An answer at a gate."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Literal

from pydantic import Field

from ...values.styling import Part, Role
from ...values.words import Words
from ..context import PageContext
from ..markup import Attributes, Markup, element
from .base import BaseItem, named_by

AnswerLook = Literal["first", "second", "link"]
LOOKS: Mapping[AnswerLook, tuple[Role, str]] = {
    "first": ("button", "button"),
    "second": ("second", "second"),
    "link": ("link", "anchor"),
}
"""The role of what looks so, and the class of its element."""


class Answer(BaseItem):
    """It is a yes or a no, or a yes to what is ticked, whatever it says."""

    NAME = "Answer"
    ABOUT = "A yes or a no at a gate"
    CALLED = ("yes", "no", "enter", "leave", "unlock", "agree")
    ONLY_IN = frozenset({"password", "age", "consent"})

    kind: Literal["answer"] = "answer"
    says: Literal["yes", "no", "ticked"] = "yes"
    words: Words = Words(text="Continue")
    look: AnswerLook = Field(default="first", description="Whose defaults it takes.")

    @property
    def roles(self) -> Mapping[Part, Role]:
        return {"box": LOOKS[self.look][0]}

    def outline_name(self, menu_names: Mapping[str, str]) -> str:
        return named_by({"yes": "Yes", "no": "No", "ticked": "What is ticked"}[self.says], self.words.text)

    def markup(self, page: PageContext) -> tuple[Markup, ...]:
        """Nothing is asked any more of whom a gate has refused."""
        if page.gate_state == "refused":
            return ()
        own = page.attributes(self, LOOKS[self.look][1], self.id)
        words = page.words(self.words, self.id)
        if page.asks_consent:
            return (element("button", {**own, "type": "button", "data-rim-answer": self.says}, words),)
        asked: Attributes = {"form": page.html_id("gate"), "name": "answer", "value": self.says}
        # A no needs nothing filled in.
        free: Attributes = {"formnovalidate": True} if self.says == "no" else {}
        return (element("button", {**own, **asked, **free}, words),)
