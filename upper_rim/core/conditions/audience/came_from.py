"""For those who came from somewhere, or by a campaign's link."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import Annotated, ClassVar, Literal, Self

from pydantic import Field, JsonValue, StringConstraints, model_validator

from ..visitor import Days, Host, Looking, Parameter, Told
from .condition import Around, Case, Knows, Spoken, VisitorCondition

_SOME = "some"
"""A value, where any will do."""


class CameFrom(VisitorCondition):
    """From one of these hosts, or what lies below one; or with this parameter in the address, of this value where one is
    said. `days`: for how long that counts; 0 for this visit alone."""

    KNOWN_BY: ClassVar[Knows] = "the browser"
    kind: Literal["came-from"] = "came-from"
    hosts: Annotated[tuple[Host, ...], Field(max_length=40)] = ()
    parameter: Parameter | Literal[""] = ""
    value: Annotated[str, StringConstraints(max_length=200)] = ""
    days: Days = 0

    @model_validator(mode="after")
    def _says_something(self) -> Self:
        if not (self.hosts or self.parameter):
            raise ValueError("say a host, or the name of a parameter")
        return self

    def holds(self, looking: Looking) -> bool:
        card = looking.card
        if card.came_days > self.days:
            return False
        below = any(card.came_from == one or card.came_from.endswith(f".{one}") for one in self.hosts)
        told = any(one.name == self.parameter and self.value in {"", one.value} for one in card.came_with)
        return below or told

    @classmethod
    def cases(cls, wanted: Sequence[Self], unwanted: Sequence[Self], around: Around) -> Iterator[Case]:
        hosts = dict.fromkeys(("", *(host for one in wanted for host in one.hosts)))
        links = dict.fromkeys((one.parameter, one.value or _SOME) for one in wanted if one.parameter)
        refused = {(one.parameter, one.value) for one in unwanted}
        allowed = [link for link in links if not {(link[0], ""), link} & refused]
        for days in sorted({0} | {one.days + 1 for one in unwanted}):
            for said in ((), allowed, links):
                told = tuple(Told(name=name, value=value) for name, value in said)
                yield from ({"came_from": host, "came_with": told, "came_days": days} for host in hosts)

    def told(self, zone: str) -> list[JsonValue]:
        return [list(self.hosts), self.parameter, self.value, self.days]

    def in_words(self, spoken: Spoken = str) -> str:
        links = f"{self.parameter}={self.value}" if self.value else self.parameter
        ways = [*self.hosts, *([f"a link with {links}"] if self.parameter else [])]
        for_long = f", for {self.days} day{'s' if self.days > 1 else ''}" if self.days else ""
        return f"those who came from {' or '.join(ways)}{for_long}"
