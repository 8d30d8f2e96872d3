"""What does a part of a site refer to, and what does it become where these have other ids?

The types of the fields say it (`BandRef` and the like): whoever checks, copies or carries a part, or asks who uses
something, asks here, so that a new field is known to all of them.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator
from functools import cache
from typing import Any, NamedTuple, cast, get_args

from pydantic import JsonValue
from pydantic.fields import FieldInfo

from ..values.colours import REFERENCE
from ..values.nodes import Node, Value
from ..values.refs import RefersTo
from ..values.styling import Declaration
from .tree import slots_of


class Reference(NamedTuple):
    """`slot`: of what is referred to; `id`: its id, or `:role` of a swatch; `field`: of the node that refers to it."""

    slot: str
    id: str
    field: str


def references(node: Value) -> Iterator[Reference]:
    """All that a node refers to itself, without the nodes below it."""
    slots = slots_of(node)
    for field in type(node).model_fields:
        if field not in slots:
            yield from _within(node, field, field)


def _within(holder: Value, field: str, told: str) -> Iterator[Reference]:
    value = getattr(holder, field)
    if value is None or value == ():
        return
    if isinstance(holder, Declaration) and field == "value":
        yield from (Reference("swatches", found[1], told) for found in REFERENCE.finditer(value))
        if holder.property == "font-family":
            yield Reference("fonts", value, told)
        return
    slot = slot_referred(type(holder), field)
    for one in value if isinstance(value, tuple) else (value,):
        if slot is not None:
            yield Reference(slot, one, told)
        elif isinstance(one, Value):
            for inner in type(one).model_fields:
                yield from _within(one, inner, told)


@cache
def slot_referred(kind: type[Value], field: str) -> str | None:
    """Of what the field of a class holds ids; None where it holds none."""
    return next(_marks(kind.model_fields[field]), None)


def _marks(annotation: Any) -> Iterator[str]:
    metadata = annotation.metadata if isinstance(annotation, FieldInfo) else getattr(annotation, "__metadata__", ())
    yield from (mark.slot for mark in metadata if isinstance(mark, RefersTo))
    inner = annotation.annotation if isinstance(annotation, FieldInfo) else annotation
    for part in get_args(inner):
        if not (isinstance(part, type) and issubclass(part, Value)):
            yield from _marks(part)


class Gone(Exception):
    """What is referred to is not there, and the value cannot be without it."""


def renamed(
    node: Value, new: Callable[[str, str], str | None], new_id: Callable[[str], str] | None = None
) -> JsonValue:
    """A node and all below it as JSON, with what they refer to by other ids. `new` gives that for a slot and an id,
    None where it is left out; `new_id` gives a node's own new id for the old one, and is asked before `new`."""
    ids: dict[str, str] = {}

    def own(value: Any) -> None:
        if isinstance(value, Node) and new_id is not None:
            ids[value.id] = new_id(value.id)
        for field in type(value).model_fields:
            inner = getattr(value, field)
            for one in inner if isinstance(inner, tuple) else (inner,):
                if isinstance(one, Value):
                    own(one)

    def other(slot: str, old: str) -> str | None:
        return ids.get(old) or new(slot, old)

    def written(value: Any) -> Any:
        made: dict[str, Any] = value.model_dump(mode="json")
        for field in type(value).model_fields:
            inner = getattr(value, field)
            slot = slot_referred(cast(type[Value], type(value)), field)
            if field == "id" and isinstance(value, Node):
                made["id"] = ids.get(value.id, value.id)
            elif isinstance(value, Declaration) and field == "value":
                made["value"] = _declared(value, other)
            elif slot is not None and isinstance(inner, str):
                made[field] = other(slot, inner)
                if made[field] is None and type(value).model_fields[field].is_required():
                    raise Gone(inner)
            elif slot is not None and isinstance(inner, tuple):
                made[field] = [kept for one in inner if (kept := other(slot, one)) is not None]
            elif isinstance(inner, Value):
                made[field] = written(inner)
            elif isinstance(inner, tuple) and inner and isinstance(inner[0], Value):
                made[field] = list(_each(inner))
        return made

    def _each(values: tuple[Any, ...]) -> Iterator[Any]:
        for one in values:
            try:
                yield written(one)
            except Gone:
                continue

    own(node)
    made: JsonValue = written(node)
    return made


def _declared(style: Declaration, other: Callable[[str, str], str | None]) -> str:
    if style.property == "font-family":
        return other("fonts", style.value) or style.value

    def reference(found: Any) -> str:
        return f"@{other('swatches', found[1]) or found[1]}" + (f"/{found[2]}%" if found[2] else "")

    return REFERENCE.sub(reference, style.value)
