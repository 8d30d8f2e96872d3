"""Two people changed a site at once: can the second edit go onto the newest site, or do they contradict?

An edit made while looking at `base` is replayed on `newest`. It is refused only where both changed the same
thing to different ends; then both versions are in the answer, and nothing is lost.
"""

from __future__ import annotations

from collections.abc import Iterator

from pydantic import JsonValue

from .apply import apply, field_json
from .edits import Add, Edit, Move, Refusal, Remove, Set, SetEach, Together
from .site import Site
from .tree import find, holder_of
from .values import Value


class Conflict(Value):
    """Both changed `field` of `node`: what it was, what it is now, what this edit would make of it."""

    node: str
    field: str
    was: JsonValue
    theirs: JsonValue
    mine: JsonValue


GONE = "removed"


def replay(edit: Edit, base: Site, newest: Site) -> Site | Refusal | Conflict:
    """The newest site with the edit on it; a `Conflict` where it contradicts a later change; a `Refusal` as `apply`."""
    if base is not newest:
        for conflict in _conflicts(edit, base, newest):
            return conflict
    return apply(newest, edit)


def _conflicts(edit: Edit, base: Site, newest: Site) -> Iterator[Conflict]:
    match edit:
        case Set():
            yield from _set_conflicts(edit.node, edit.field, edit.value, base, newest)
        case SetEach():
            for node, value in edit.values:
                yield from _set_conflicts(node, edit.field, value, base, newest)
        case Move():
            yield from _place_conflicts(edit, base, newest)
        case Remove():
            yield from _removal_conflicts(edit, base, newest)
        case Add():
            if holder_of(base, edit.parent) is not None and holder_of(newest, edit.parent) is None:
                yield Conflict(node=edit.parent, field=edit.slot, was="", theirs=GONE, mine=list(edit.values))
        case Together():
            for part in edit.edits:
                yield from _conflicts(part, base, newest)


def _set_conflicts(node: str, field: str, mine: JsonValue, base: Site, newest: Site) -> Iterator[Conflict]:
    before, now = holder_of(base, node), holder_of(newest, node)
    if before is None and now is not None and field in type(now).model_fields and field_json(now, field) != mine:
        # Somebody else has made the node meanwhile, with a value of their own.
        yield Conflict(node=node, field=field, was="", theirs=field_json(now, field), mine=mine)
    if before is None or before is now or field not in type(before).model_fields:
        return
    was = field_json(before, field)
    theirs = GONE if now is None else field_json(now, field)
    if theirs != was and theirs != mine:
        yield Conflict(node=node, field=field, was=was, theirs=theirs, mine=mine)


def _place_conflicts(edit: Move, base: Site, newest: Site) -> Iterator[Conflict]:
    before, now = find(base, edit.node), find(newest, edit.node)
    if before is None:
        return
    if now is None:
        yield Conflict(node=edit.node, field="place", was=before.parent, theirs=GONE, mine=edit.parent)
    elif (now.parent, now.slot) != (before.parent, before.slot):
        yield Conflict(node=edit.node, field="place", was=before.parent, theirs=now.parent, mine=edit.parent)


def _removal_conflicts(edit: Remove, base: Site, newest: Site) -> Iterator[Conflict]:
    for node in edit.nodes:
        before, now = find(base, node), find(newest, node)
        if before is not None and now is not None and before.node != now.node:
            theirs = now.node.model_dump(mode="json")
            yield Conflict(node=node, field="", was=before.node.model_dump(mode="json"), theirs=theirs, mine=GONE)
