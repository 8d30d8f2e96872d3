"""What can be done to a site? Six kinds of edit, values like the site itself.

Nodes are named by id (the site by `site`), values are JSON as in the bundle's schema.
`apply` (beside this module) is the one place that checks and carries them out.
"""

from __future__ import annotations

from collections.abc import Iterator
from typing import Annotated, Literal

from pydantic import Field, JsonValue, TypeAdapter

from ...values.nodes import NodeId, Value


class Set(Value):
    """Give one field of a node another value."""

    kind: Literal["set"] = "set"
    node: NodeId
    field: str
    value: JsonValue


class SetEach(Value):
    """Give one field of many nodes a value each."""

    kind: Literal["set_each"] = "set_each"
    field: str
    values: tuple[tuple[NodeId, JsonValue], ...]


class Add(Value):
    """Put new nodes into a slot, from index `at` on (at the end where None; sorted slots place them themselves)."""

    kind: Literal["add"] = "add"
    parent: NodeId
    slot: str
    values: tuple[JsonValue, ...]
    at: int | None = None


class Move(Value):
    """Take a node with all below it to another place; `at` counts without the node itself."""

    kind: Literal["move"] = "move"
    node: NodeId
    parent: NodeId
    slot: str
    at: int


class Remove(Value):
    """Take nodes out, with all below them. They stand in one slot of one holder."""

    kind: Literal["remove"] = "remove"
    nodes: tuple[NodeId, ...]


class Together(Value):
    """Several edits as one: all of them, or none."""

    kind: Literal["together"] = "together"
    edits: tuple[Edit, ...]


Edit = Annotated[Set | SetEach | Add | Move | Remove | Together, Field(discriminator="kind")]
Together.model_rebuild()
edit_adapter: TypeAdapter[Edit] = TypeAdapter(Edit)


def parts_of_edit(edit: Edit) -> Iterator[Edit]:
    """The edits that it is made of, none of which is made of others."""
    if isinstance(edit, Together):
        for part in edit.edits:
            yield from parts_of_edit(part)
    else:
        yield edit
