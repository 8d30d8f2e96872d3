"""For whom something shows: everybody, unless it is said."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Annotated, Any

from pydantic import Field

from ...values.nodes import Value
from ..visitor import Looking
from . import AnyCondition
from .condition import Spoken

Conditions = Annotated[tuple[AnyCondition, ...], Field(max_length=20)]


class Audience(Value):
    """Those for whom each of `every` holds, at least one of `some`, and none of `none`."""

    every: Conditions = ()
    some: Conditions = ()
    none: Conditions = ()

    @property
    def is_everybody(self) -> bool:
        return not (self.every or self.some or self.none)

    @property
    def narrowness(self) -> int:
        """Of two audiences the one with more sentences is narrower: each of `every` and `none` is one, and `some` all
        together."""
        return len(self.every) + len(self.none) + bool(self.some)

    def takes_in(self, looking: Looking) -> bool:
        if not all(one.holds(looking) for one in self.every) or any(one.holds(looking) for one in self.none):
            return False
        return not self.some or any(one.holds(looking) for one in self.some)

    @property
    def conditions(self) -> Iterator[AnyCondition]:
        yield from (*self.every, *self.some, *self.none)

    def in_words(self, spoken: Spoken = str) -> str:
        said = [one.in_words(spoken) for one in self.every]
        if self.some:
            said.append(" or ".join(one.in_words(spoken) for one in self.some))
        said += [f"not {one.in_words(spoken)}" for one in self.none]
        return "; ".join(said) or "everybody"


def is_for_everybody(node: Any) -> bool:
    """So is what has no audience of its own."""
    audience = getattr(node, "audience", None)
    return audience is None or bool(audience.is_everybody)
