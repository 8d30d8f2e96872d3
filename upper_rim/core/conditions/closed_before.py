"""Not for some days after the visitor closed it."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import ClassVar

from .visit import Fact


@dataclass(frozen=True)
class ClosedBefore:
    FACT: ClassVar[Fact] = "what the browser remembers"
    days: int

    def data(self, key: str) -> Iterator[tuple[str, str]]:
        yield "key", key
        yield "days", str(self.days)

    def in_words(self) -> str:
        return f"not for {self.days} days after it was closed"
