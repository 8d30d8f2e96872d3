"""For those who are signed in, or are not."""

from __future__ import annotations

from typing import Annotated, ClassVar, Literal

from pydantic import Field, JsonValue

from ..visitor import Group, Looking
from .condition import Knows, Spoken, VisitorCondition


class Member(VisitorCondition):
    """`groups`: in one of them; any, where none is named."""

    KNOWN_BY: ClassVar[Knows] = "the server"
    kind: Literal["member"] = "member"
    groups: Annotated[tuple[Group, ...], Field(max_length=20)] = ()

    def holds(self, looking: Looking) -> bool:
        mine = looking.card.groups
        return mine is not None and (not self.groups or not set(self.groups).isdisjoint(mine))

    def told(self, zone: str) -> list[JsonValue]:
        return [list(self.groups)]

    def in_words(self, spoken: Spoken = str) -> str:
        return f"members of {' or '.join(self.groups)}" if self.groups else "those who are signed in"
