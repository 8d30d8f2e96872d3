"""For whom, and when: what every condition can be asked that only the visitor's browser knows to be true or not."""

from __future__ import annotations

from collections.abc import Iterator
from typing import ClassVar, Literal, Protocol

Fact = Literal["what the browser remembers", "the browser's clock"]
"""What a condition goes by, and so who decides it."""


class VisitCondition(Protocol):
    """Decided in the page before anything is drawn, by the script that ships for it (runtime/notice.js)."""

    FACT: ClassVar[Fact]

    def data(self, key: str) -> Iterator[tuple[str, str]]:
        """What the script has to know: names and values of `data-rim-…` attributes. `key`: the piece's own."""
        ...

    def in_words(self) -> str:
        """As it is read on screen."""
        ...
