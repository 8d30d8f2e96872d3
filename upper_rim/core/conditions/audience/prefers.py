"""For those who asked their system for something."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import ClassVar, Literal, Self

from pydantic import JsonValue

from ..visitor import Looking, Preference
from .condition import Around, Case, Knows, Spoken, VisitorCondition


class Prefers(VisitorCondition):
    """Media Queries 5, 11: `prefers-reduced-motion`, `-contrast: more`, `-color-scheme: dark`, `-reduced-data`."""

    KNOWN_BY: ClassVar[Knows] = "the browser"
    kind: Literal["prefers"] = "prefers"
    what: Preference

    def holds(self, looking: Looking) -> bool:
        return self.what in looking.card.prefers

    @classmethod
    def cases(cls, wanted: Sequence[Self], unwanted: Sequence[Self], around: Around) -> Iterator[Case]:
        yield {"prefers": tuple(dict.fromkeys(one.what for one in wanted))}

    def told(self, zone: str) -> list[JsonValue]:
        return [QUERIES[self.what]]

    def in_words(self, spoken: Spoken = str) -> str:
        return f"those who ask for {PREFERENCES[self.what]}"


QUERIES: dict[Preference, str] = {
    "reduced-motion": "(prefers-reduced-motion:reduce)",
    "more-contrast": "(prefers-contrast:more)",
    "dark": "(prefers-color-scheme:dark)",
    "reduced-data": "(prefers-reduced-data:reduce)",
}
PREFERENCES: dict[Preference, str] = {
    "reduced-motion": "less motion",
    "more-contrast": "more contrast",
    "dark": "dark colours",
    "reduced-data": "less data",
}
