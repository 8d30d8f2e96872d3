"""For those who point in a way, or have a screen of a size."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import Annotated, ClassVar, Literal, Self, get_args

from pydantic import Field, JsonValue, model_validator

from ..visitor import LEAST_PX, MOST_PX, Looking, Pointer
from .condition import Around, Case, Knows, Spoken, VisitorCondition

Px = Annotated[int, Field(ge=1, le=20_000)]


class Device(VisitorCondition):
    """`pointer`: the first one (Media Queries 5, 8.2, `pointer`: fine or coarse). The screen's width, both included."""

    KNOWN_BY: ClassVar[Knows] = "the browser"
    kind: Literal["device"] = "device"
    pointer: Pointer | Literal[""] = ""
    from_px: Px | None = None
    to_px: Px | None = None

    @model_validator(mode="after")
    def _says_something(self) -> Self:
        if not (self.pointer or self.from_px or self.to_px):
            raise ValueError("say a pointer, or a width of the screen")
        if self.from_px and self.to_px and self.to_px < self.from_px:
            raise ValueError("the screen's width ends before it begins")
        return self

    def holds(self, looking: Looking) -> bool:
        card = looking.card
        points = self.pointer in {"", card.pointer}
        return points and (self.from_px or 0) <= card.width_px <= (self.to_px or card.width_px)

    @classmethod
    def cases(cls, wanted: Sequence[Self], unwanted: Sequence[Self], around: Around) -> Iterator[Case]:
        sides = {1280} | {one.from_px for one in wanted if one.from_px} | {one.to_px for one in wanted if one.to_px}
        sides |= {one.from_px - 1 for one in unwanted if one.from_px} | {one.to_px + 1 for one in unwanted if one.to_px}
        for px in sorted(sides):
            if LEAST_PX <= px <= MOST_PX:
                yield from ({"width_px": px, "pointer": pointer} for pointer in get_args(Pointer))

    def told(self, zone: str) -> list[JsonValue]:
        return [self.pointer, self.from_px or 0, self.to_px or 0]

    def in_words(self, spoken: Spoken = str) -> str:
        said = {"touch": "who point with a finger", "mouse": "who point with a mouse", "": "who look"}[self.pointer]
        if self.from_px and self.to_px:
            return f"those {said} on a screen of {self.from_px} to {self.to_px} px"
        if self.from_px:
            return f"those {said} on a screen of {self.from_px} px or more"
        return f"those {said} on a screen of at most {self.to_px} px" if self.to_px else f"those {said}"
