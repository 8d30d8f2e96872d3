"""What every condition about visitors can be asked."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from datetime import datetime
from typing import Any, ClassVar, Literal, NamedTuple, Self, TypeAlias

from pydantic import JsonValue

from ...values.nodes import Value
from ..visitor import Looking

Knows = Literal["the browser", "the server", "the clock"]
"""Who knows what a condition goes by. What only a server knows is not known in a folder of files."""
Spoken: TypeAlias = Callable[[str], str]
"""What a language is called, by its tag."""


Case: TypeAlias = dict[str, Any]
"""Fields of a card."""


class Around(NamedTuple):
    """Where a visitor is looked for: the site's languages and time zone, the node that is asked about, and the moment
    before which nobody is; None: at any time."""

    languages: tuple[str, ...]
    zone: str
    node: str = ""
    after: datetime | None = None


class VisitorCondition(Value):
    """`kind` names it, in the model and to the script that decides it (`runtime/audience/`)."""

    KNOWN_BY: ClassVar[Knows]

    kind: str

    def holds(self, looking: Looking) -> bool:
        raise NotImplementedError

    @classmethod
    def cases(cls, wanted: Sequence[Self], unwanted: Sequence[Self], around: Around) -> Iterator[Case]:
        """What a card can say, of all that its kind goes by, so that somebody is among them for whom all `wanted` hold
        and none of the `unwanted`, if anybody can be."""
        raise NotImplementedError

    def told(self, zone: str) -> list[JsonValue]:
        """What the script has to know besides its kind. `zone`: the site's."""
        raise NotImplementedError

    def in_words(self, spoken: Spoken = str) -> str:
        """As it is read after “for”."""
        raise NotImplementedError
