"""For whom something shows: everybody, unless it is said."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Annotated, Any, Literal

from pydantic import Field

from ...values.nodes import Value
from ..visitor import Looking
from . import AnyCondition
from .condition import Spoken

Part = Literal["every", "some", "none"]
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
        return self.failing(looking) is None

    def failing(self, looking: Looking) -> tuple[Part, AnyCondition] | None:
        """The condition that keeps a visitor out, and its part; of `some`, none of which holds, the first."""
        for one in self.every:
            if not one.holds(looking):
                return "every", one
        for one in self.none:
            if one.holds(looking):
                return "none", one
        if self.some and not any(one.holds(looking) for one in self.some):
            return "some", self.some[0]
        return None

    @property
    def conditions(self) -> Iterator[AnyCondition]:
        yield from (*self.every, *self.some, *self.none)

    def in_words(self, spoken: Spoken = str) -> str:
        """As it is read after “for”. A time alone is for everybody then."""
        said = [one.in_words(spoken) for one in self.every]
        if self.some:
            said.append(" or ".join(one.in_words(spoken) for one in self.some))
        names_people = any(one.KNOWN_BY != "the clock" for one in (*self.every, *self.some))
        first = [] if names_people else ["everybody " + said.pop(0) if said else "everybody"]
        but = "".join(f", but not {one.in_words(spoken)}" for one in self.none)
        return "; ".join([*first, *said]) + but


def is_for_everybody(node: Any) -> bool:
    """So is what has no audience of its own."""
    audience = getattr(node, "audience", None)
    return audience is None or bool(audience.is_everybody)
