"""What every condition about visitors can be asked."""

from __future__ import annotations

from collections.abc import Callable
from typing import ClassVar, Literal, TypeAlias

from pydantic import JsonValue

from ...values.nodes import Value
from ..visitor import Looking

Knows = Literal["the browser", "the server", "the clock"]
"""Who knows what a condition goes by. What only a server knows is not known in a folder of files."""
Spoken: TypeAlias = Callable[[str], str]
"""What a language is called, by its tag."""


class VisitorCondition(Value):
    """`kind` names it, in the model and to the script that decides it (`runtime/audience/`)."""

    KNOWN_BY: ClassVar[Knows]

    kind: str

    def holds(self, looking: Looking) -> bool:
        raise NotImplementedError

    def told(self, zone: str) -> list[JsonValue]:
        """What the script has to know besides its kind. `zone`: the site's."""
        raise NotImplementedError

    def in_words(self, spoken: Spoken = str) -> str:
        """As it is read after “for”."""
        raise NotImplementedError
