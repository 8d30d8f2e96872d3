"""For those who are signed in, or are not."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import Annotated, ClassVar, Literal, Self

from pydantic import Field, JsonValue

from ..visitor import Group, Looking
from .condition import Around, Case, Knows, Spoken, VisitorCondition


class Member(VisitorCondition):
    """`groups`: in one of them; any, where none is named."""

    KNOWN_BY: ClassVar[Knows] = "the server"
    kind: Literal["member"] = "member"
    groups: Annotated[tuple[Group, ...], Field(max_length=20)] = ()

    def holds(self, looking: Looking) -> bool:
        mine = looking.card.groups
        return mine is not None and (not self.groups or not set(self.groups).isdisjoint(mine))

    @classmethod
    def cases(cls, wanted: Sequence[Self], unwanted: Sequence[Self], around: Around) -> Iterator[Case]:
        refused = {one for each in unwanted for one in each.groups}
        named = dict.fromkeys(one for each in wanted for one in each.groups if one not in refused)
        yield from ({"groups": one} for one in (None, (), tuple(named)))

    def told(self, zone: str) -> list[JsonValue]:
        return [list(self.groups)]

    def in_words(self, spoken: Spoken = str) -> str:
        return f"members of {' or '.join(self.groups)}" if self.groups else "those who are signed in"
