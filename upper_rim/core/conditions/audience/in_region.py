"""For those in a country, or a part of one."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import Annotated, ClassVar, Literal, Self

from pydantic import Field, JsonValue

from ..visitor import Looking, Region
from .condition import Around, Case, Knows, Spoken, VisitorCondition


class InRegion(VisitorCondition):
    """A country has its parts in it: `GB` means `GB-WLS`, too. Where nobody can tell, they are in none."""

    KNOWN_BY: ClassVar[Knows] = "the server"
    kind: Literal["region"] = "region"
    regions: Annotated[tuple[Region, ...], Field(min_length=1, max_length=60)]

    def holds(self, looking: Looking) -> bool:
        there = looking.card.region
        return any(there == one or there.startswith(f"{one}-") for one in self.regions)

    @classmethod
    def cases(cls, wanted: Sequence[Self], unwanted: Sequence[Self], around: Around) -> Iterator[Case]:
        yield from ({"region": one} for one in dict.fromkeys(("", *(one for each in wanted for one in each.regions))))

    def told(self, zone: str) -> list[JsonValue]:
        return [list(self.regions)]

    def in_words(self, spoken: Spoken = str) -> str:
        return f"those in {' or '.join(self.regions)}"
