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


class Answer(BaseItem):
    """It is a yes or a no, whatever it says."""

    NAME = "Answer"
    ABOUT = "A yes or a no at a gate"
    CALLED = ("yes", "no", "enter", "leave", "unlock", "agree")
    ONLY_IN = frozenset({"password", "age"})

    kind: Literal["answer"] = "answer"
    says: Literal["yes", "no"] = "yes"
    words: Words = Words(text="Continue")
    look: Literal["first", "second", "link"] = Field(default="first", description="Whose defaults it takes.")

    @property
    def roles(self) -> Mapping[Part, Role]:
        return {"box": {"first": "button", "second": "second", "link": "link"}[self.look]}  # type: ignore[dict-item]

    def outline_name(self, menu_names: Mapping[str, str]) -> str:
        return named_by("Yes" if self.says == "yes" else "No", self.words.text)

    def markup(self, page: PageContext) -> tuple[Markup, ...]:
        """Nothing is asked any more of whom a gate has refused."""
        if page.gate_state == "refused":
            return ()
        asked: Attributes = {"form": page.html_id("gate"), "name": "answer", "value": self.says}
        # A no needs nothing filled in.
        free: Attributes = {"formnovalidate": True} if self.says == "no" else {}
        attributes = {**page.attributes(self, self.roles["box"], self.id), **asked, **free}
        return (element("button", attributes, page.words(self.words, self.id)),)
