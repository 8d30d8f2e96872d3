"""What a gate says to an answer."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from ...values.words import Words
from ..context import PageContext
from ..markup import Attributes, Markup, element
from .base import BaseItem

WAIT = "data-rim-wait"
"""What has it tells how long one has to wait: the server says it."""


class Told(BaseItem):
    """Nothing at first. `{0}` stands for the time that one has to wait."""

    NAME = "What is told"
    ABOUT = "What a gate says to a wrong answer, after too many, or to a no"
    CALLED = ("message", "error", "refused", "wrong")
    ROLES = {"box": "text"}
    FILLS = True
    ONLY_IN = frozenset({"password", "age"})

    kind: Literal["told"] = "told"
    wrong: Words = Field(default=Words(), description="In the gate's own words where empty; so with the others.")
    waiting: Words = Words()
    refused: Words = Words()

    def markup(self, page: PageContext) -> tuple[Markup, ...]:
        state = page.gate_state
        if state == "asked":
            return ()
        own = {"wrong": self.wrong, "waiting": self.waiting, "refused": self.refused}[state]
        words = own.in_language(page.language) or page.phrase(f"gate_{state}", "{0}")
        attributes: Attributes = {
            **page.attributes(self, "text", self.id),
            "role": "alert",
            "id": page.html_id("told"),
        }
        before, time, behind = words.partition("{0}")
        return (element("div", attributes, before, element("span", {WAIT: True}, "1 min") if time else None, behind),)
