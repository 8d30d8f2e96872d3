"""What are the smallest values a site is made of?

Frozen and validated; everything larger is built from these.
"""

from __future__ import annotations

from collections.abc import Iterator
from typing import Annotated, Any, Self

from pydantic import BaseModel, ConfigDict, Field, StringConstraints


class Value(BaseModel):
    """A frozen, validated value. Two values with equal fields are equal."""

    model_config = ConfigDict(frozen=True, extra="forbid", str_max_length=100_000)

    def replaced(self, **fields: Any) -> Self:
        """A copy with some fields replaced by already validated ones."""
        return self.model_copy(update=fields)


def within(value: object) -> Iterator[object]:
    """A value and all that it holds, however deep, in the order of its fields."""
    yield value
    if isinstance(value, Value):
        for name in type(value).model_fields:
            yield from within(getattr(value, name))
    elif isinstance(value, tuple):
        for one in value:
            yield from within(one)


NodeId = Annotated[str, StringConstraints(pattern=r"^[a-z][a-z0-9-]{1,39}$")]


class Node(Value):
    """A value with an identity of its own: edits name it by `id`, unique within the site."""

    id: NodeId


Hash = Annotated[str, StringConstraints(pattern=r"^[0-9a-f]{64}$")]
"""SHA-256 in lower-case hexadecimal; names a file's content."""

Pixels = Annotated[int, Field(ge=0, le=10_000)]
