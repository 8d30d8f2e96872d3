"""For those who come for the first time, or have come before."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import Annotated, ClassVar, Literal, Self

from pydantic import Field, JsonValue, model_validator

from ..visitor import Looking
from .condition import Around, Case, Knows, Spoken, VisitorCondition

Count = Annotated[int, Field(ge=1, le=1000)]


class Visits(VisitorCondition):
    """From one visit on, up to another, both included. A visit ends after half an hour in which no page was opened."""

    KNOWN_BY: ClassVar[Knows] = "the browser"
    kind: Literal["visits"] = "visits"
    first: Count = 1
    last: Count | None = None

    @model_validator(mode="after")
    def _are_in_order(self) -> Self:
        if self.last is not None and self.last < self.first:
            raise ValueError("the last visit comes before the first")
        return self

    def holds(self, looking: Looking) -> bool:
        return self.first <= looking.card.visit and (self.last is None or looking.card.visit <= self.last)

    @classmethod
    def cases(cls, wanted: Sequence[Self], unwanted: Sequence[Self], around: Around) -> Iterator[Case]:
        ends = {1} | {one.first for one in wanted} | {one.last + 1 for one in unwanted if one.last}
        yield from ({"visit": one} for one in sorted(ends))

    def told(self, zone: str) -> list[JsonValue]:
        return [self.first, self.last or 0]

    def in_words(self, spoken: Spoken = str) -> str:
        if self.last is None:
            return f"those who come for the {_nth(self.first)} time, or more"
        if self.first == self.last:
            return f"those who come for the {_nth(self.first)} time"
        return f"those who come for the {_nth(self.first)} to the {_nth(self.last)} time"


def _nth(number: int) -> str:
    ending = "th" if 11 <= number % 100 <= 13 else {1: "st", 2: "nd", 3: "rd"}.get(number % 10, "th")
    return "first" if number == 1 else f"{number}{ending}"
