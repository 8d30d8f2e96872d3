"""For those who point in a way, or have a screen of a size."""

from __future__ import annotations

from typing import Annotated, ClassVar, Literal, Self

from pydantic import Field, JsonValue, model_validator

from ..visitor import Looking, Pointer
from .condition import Knows, Spoken, VisitorCondition

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

    def told(self, zone: str) -> list[JsonValue]:
        return [self.pointer, self.from_px or 0, self.to_px or 0]

    def in_words(self, spoken: Spoken = str) -> str:
        said = {"touch": "who point with a finger", "mouse": "who point with a mouse", "": "who look"}[self.pointer]
        if self.from_px and self.to_px:
            return f"those {said} on a screen of {self.from_px} to {self.to_px} px"
        if self.from_px:
            return f"those {said} on a screen of {self.from_px} px or more"
        return f"those {said} on a screen of at most {self.to_px} px" if self.to_px else f"those {said}"
