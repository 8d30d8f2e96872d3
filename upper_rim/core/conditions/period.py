"""From a moment, until a moment, or both."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Annotated, ClassVar

from pydantic import StringConstraints

from .visit import Fact

Moment = Annotated[str, StringConstraints(pattern=r"^\d{4}-[01]\d-[0-3]\dT[0-2]\d:[0-5]\d$")]
"""Date and time without a zone (RFC 3339, 5.6, `full-date` and `partial-time` to the minute)."""


@dataclass(frozen=True)
class Period:
    """The last moment is no longer in it."""

    FACT: ClassVar[Fact] = "the browser's clock"
    begins: str | None
    ends: str | None

    def data(self, key: str) -> Iterator[tuple[str, str]]:
        if self.begins is not None:
            yield "begins", self.begins
        if self.ends is not None:
            yield "ends", self.ends

    def in_words(self) -> str:
        said = {"from": self.begins, "until": self.ends}
        return " ".join(f"{word} {moment.replace('T', ' ')}" for word, moment in said.items() if moment)
