"""What does a site become by an edit, and which edit takes it back?

`apply(site, edit)` gives the next site or a located refusal; `inverse(site, edit)` gives the edit that,
applied to `apply(site, edit)`, yields `site` again. Neither changes what it is given.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable
from typing import Any, cast

from pydantic import JsonValue, TypeAdapter, ValidationError
from pydantic_core import to_jsonable_python

from ...values.nodes import Node, Value
from ..site import Site
from ..tree import (
    ROOT,
    SLOTS,
    SORTED_SLOTS,
    Spot,
    ancestors,
    find,
    holder_of,
    insertion_point,
    slot_adapter,
    slots_of,
    walk,
)
from .check import broken_references
from .edits import Add, Edit, Move, Remove, Set, SetEach, Together
from .refusal import Refusal, RefusalKind
from .rules import Rules, broken_rule


class _Refused(Exception):
    def __init__(self, node: str, field: str, kind: RefusalKind, **about: str) -> None:
        self.refusal = Refusal(node, field, kind, about)


def apply(site: Site, edit: Edit, rules: Rules | None = None) -> Site | Refusal:
    """The site after the edit. On a `Refusal` nothing of the edit has happened. `rules`: of the shell; without them
    only what the site itself tells is asked, as where an edit that was accepted once is played again."""
    try:
        after = _apply(site, edit)
    except _Refused as refused:
        return refused.refusal
    if after is site:
        return site
    fault = broken_references(after, site)
    if fault is None and rules is not None:
        fault = broken_rule(site, after, rules) or rules.edit_fault(site, edit)
    return after if fault is None else fault


def inverse(site: Site, edit: Edit) -> Edit:
    """The edit that takes `edit` back. `edit` must be one that `apply` accepts on this site."""
    match edit:
        case Set():
            return Set(node=edit.node, field=edit.field, value=field_json(_holder(site, edit.node), edit.field))
        case SetEach():
            nodes = _nodes_by_id(site, {node for node, _ in edit.values})
            return SetEach(
                field=edit.field, values=tuple((node, field_json(nodes[node], edit.field)) for node, _ in edit.values)
            )
        case Add():
            return Remove(nodes=tuple(str(cast(dict[str, JsonValue], value)["id"]) for value in edit.values))
        case Move():
            spot = _spot(site, edit.node)
            return Move(node=edit.node, parent=spot.parent, slot=spot.slot, at=spot.at)
        case Remove():
            return _put_back(site, edit)
        case Together():
            undoing: list[Edit] = []
            for part in edit.edits:
                undoing.append(inverse(site, part))
                site = _apply(site, part)
            return Together(edits=tuple(reversed(undoing)))


def field_json(holder: Value, field: str) -> JsonValue:
    """A field's value as JSON, as an edit carries it."""
    written = holder.model_dump(mode="json", include={field})
    # Some fields are not written where they hold nothing.
    return cast(JsonValue, written[field] if field in written else to_jsonable_python(getattr(holder, field)))


def _apply(site: Site, edit: Edit) -> Site:
    match edit:
        case Set():
            return _set(site, edit)
        case SetEach():
            return _set_each(site, edit)
        case Add():
            return _add(site, edit)
        case Move():
            return _move(site, edit)
        case Remove():
            return _remove(site, edit)
        case Together():
            for part in edit.edits:
                site = _apply(site, part)
            return site


def _set(site: Site, edit: Set) -> Site:
    holder = _holder(site, edit.node, edit.field)
    after = _with_field(holder, edit.field, edit.value, edit.node)
    if after == holder:
        return site
    if edit.node == ROOT:
        return cast(Site, after)
    return _replace_node(site, cast(Node, after))


def _set_each(site: Site, edit: SetEach) -> Site:
    wanted = dict(edit.values)
    nodes = _nodes_by_id(site, wanted.keys())
    after = {node: _with_field(nodes[node], edit.field, value, node) for node, value in wanted.items()}
    parents = {slot for node in list(after)[:1] if (slot := _spot_slot(site, node))}
    for slot in parents:
        children = tuple(after.pop(child.id, child) for child in getattr(site, slot))
        site = site.replaced(**{slot: _in_order(slot, cast(tuple[Node, ...], children))})
    for node in after:
        # One by one, for one of them may lie within another.
        site = _set(site, Set(node=node, field=edit.field, value=wanted[node]))
    return site


def _add(site: Site, edit: Add) -> Site:
    holder = _holder(site, edit.parent, edit.slot)
    _require_slot(holder, edit.slot, edit.parent)
    new = _validated(slot_adapter(type(holder), edit.slot), edit.values, edit.parent, edit.slot)
    _require_new_ids(site, new)
    return _with_children(site, edit.parent, edit.slot, _inserted(edit.slot, getattr(holder, edit.slot), new, edit.at))


def _move(site: Site, edit: Move) -> Site:
    spot = _spot(site, edit.node)
    if edit.parent == edit.node or edit.node in ancestors(site, edit.parent):
        raise _Refused(edit.node, edit.slot, "into itself")
    without = _without(site, spot.parent, spot.slot, {edit.node})
    holder = _holder(without, edit.parent, edit.slot)
    _require_slot(holder, edit.slot, edit.parent)
    as_json = [spot.node.model_dump(mode="json")]
    moved = _validated(slot_adapter(type(holder), edit.slot), as_json, edit.node, edit.slot)
    if type(moved[0]) is not type(spot.node):
        raise _Refused(edit.node, edit.slot, "another type")
    after = _with_children(
        without, edit.parent, edit.slot, _inserted(edit.slot, getattr(holder, edit.slot), moved, edit.at)
    )
    return site if find(after, edit.node) == spot else after


def _remove(site: Site, edit: Remove) -> Site:
    if not edit.nodes:
        return site
    first = _spot(site, edit.nodes[0])
    children = {child.id for child in getattr(_holder(site, first.parent), first.slot)}
    strangers = set(edit.nodes) - children
    if strangers:
        raise _Refused(min(strangers), first.slot, "elsewhere")
    return _without(site, first.parent, first.slot, set(edit.nodes))


def _put_back(site: Site, edit: Remove) -> Edit:
    if not edit.nodes:
        return Together(edits=())
    first = _spot(site, edit.nodes[0])
    children: tuple[Node, ...] = getattr(_holder(site, first.parent), first.slot)
    gone = set(edit.nodes)
    runs: list[Add] = []
    previous = -2
    for at, child in enumerate(children):
        if child.id not in gone:
            continue
        value = child.model_dump(mode="json")
        if at == previous + 1 and runs:
            runs[-1] = runs[-1].replaced(values=(*runs[-1].values, value))
        else:
            runs.append(Add(parent=first.parent, slot=first.slot, values=(value,), at=at))
        previous = at
    if first.slot in SORTED_SLOTS:
        values = tuple(value for run in runs for value in run.values)
        return Add(parent=first.parent, slot=first.slot, values=values)
    return runs[0] if len(runs) == 1 else Together(edits=tuple(runs))


def _holder(site: Site, node_id: str, field: str = "") -> Value:
    holder = holder_of(site, node_id)
    if holder is None:
        raise _Refused(node_id, field, "gone")
    return holder


def _spot(site: Site, node_id: str) -> Spot:
    spot = find(site, node_id)
    if spot is None:
        raise _Refused(node_id, "", "gone")
    return spot


def _spot_slot(site: Site, node_id: str) -> str:
    spot = _spot(site, node_id)
    return spot.slot if spot.parent == ROOT else ""


def _nodes_by_id(site: Site, wanted: Iterable[str]) -> dict[str, Node]:
    missing = set(wanted)
    found = {page.id: page for page in site.pages if page.id in missing}
    for node_id in missing - found.keys():
        found[node_id] = cast(Any, _spot(site, node_id).node)
    return cast(dict[str, Node], found)


def _with_field(holder: Value, field: str, value: JsonValue, node_id: str) -> Value:
    if field not in type(holder).model_fields or field in {"id", "kind", "format", *slots_of(holder)}:
        raise _Refused(node_id, field, "no such field", field_name=field)
    as_json = {name: current for name, current in holder.__dict__.items() if name in type(holder).model_fields}
    as_json[field] = value
    try:
        return type(holder).model_validate(as_json)
    except ValidationError as error:
        raise _Refused(node_id, field, "no such value", fault=reason_of(error)) from None


def _validated(adapter: TypeAdapter[Any], values: Any, node_id: str, field: str) -> tuple[Node, ...]:
    try:
        return cast(tuple[Node, ...], adapter.validate_python(tuple(values)))
    except ValidationError as error:
        named = [part for part in error.errors()[0]["loc"] if isinstance(part, str)]
        raise _Refused(node_id, named[-1] if named else field, "no such value", fault=reason_of(error)) from None


def reason_of(error: ValidationError) -> str:
    """The first fault that pydantic found, as the end of a sentence."""
    first = error.errors()[0]
    if first["type"] == "too_long" and isinstance(first["input"], str):
        return f"it has {len(first['input']):,} characters; {first['ctx']['max_length']:,} are the most"
    message = first["msg"]
    return message.removeprefix("Value error, ").replace("Input should", "it should")


def _require_slot(holder: Value, slot: str, node_id: str) -> None:
    if slot not in slots_of(holder):
        raise _Refused(node_id, slot, "no such slot", slot=slot)


def _require_new_ids(site: Site, new: tuple[Node, ...]) -> None:
    ids: list[str] = []
    for node in new:
        ids.append(node.id)
        if type(node) in SLOTS:
            ids.extend(child.id for child in walk(node))
    wanted = set(ids)
    if len(wanted) < len(ids) or ROOT in wanted:
        raise _Refused(ids[0], "id", "ids alike")
    for slot in SLOTS[Site]:
        for child in getattr(site, slot):
            if child.id in wanted:
                raise _Refused(child.id, "id", "id taken")
            if type(child) in SLOTS:
                for below in walk(child):
                    if below.id in wanted:
                        raise _Refused(below.id, "id", "id taken")


def _inserted(slot: str, children: tuple[Node, ...], new: tuple[Node, ...], at: int | None) -> tuple[Node, ...]:
    if slot in SORTED_SLOTS and len(new) > 1:
        return _in_order(slot, (*children, *new))
    point = insertion_point(slot, children, new[0], at) if new else 0
    return (*children[:point], *new, *children[point:])


def _in_order(slot: str, children: tuple[Node, ...]) -> tuple[Node, ...]:
    return tuple(sorted(children, key=SORTED_SLOTS[slot])) if slot in SORTED_SLOTS else children


def _with_children(site: Site, parent: str, slot: str, children: tuple[Node, ...]) -> Site:
    if parent == ROOT:
        return site.replaced(**{slot: children})
    return _rebuilt(site, parent, lambda holder: holder.replaced(**{slot: children}))


def _without(site: Site, parent: str, slot: str, gone: set[str]) -> Site:
    children = getattr(_holder(site, parent), slot)
    return _with_children(site, parent, slot, tuple(child for child in children if child.id not in gone))


def _replace_node(site: Site, node: Node) -> Site:
    return _rebuilt(site, node.id, lambda _: node)


def _rebuilt(site: Site, node_id: str, change: Callable[[Any], Value]) -> Site:
    """The site with one node replaced, and its ancestors with it."""
    spot = _spot(site, node_id)
    node: Any = change(spot.node)
    while True:
        holder: Any = site if spot.parent == ROOT else _spot(site, spot.parent).node
        children = getattr(holder, spot.slot)
        children = (*children[: spot.at], node, *children[spot.at + 1 :])
        node = holder.replaced(**{spot.slot: _in_order(spot.slot, children)})
        if spot.parent == ROOT:
            return cast(Site, node)
        spot = _spot(site, spot.parent)
