"""Two people changed a site at once: can the second edit go onto the newest site, or do they contradict?

An edit made while looking at `base` is replayed on `newest`. It is refused only where both changed the same
thing to different ends; then both versions are in the answer, and nothing is lost.
"""

from __future__ import annotations

from collections.abc import Iterator
from typing import cast

from pydantic import JsonValue, ValidationError

from ...values.nodes import Value
from ...values.words import Translatable, Translated
from ..site import Site
from ..tree import find, holder_of
from .apply import apply, field_json
from .edits import Add, Edit, Move, Remove, Set, SetEach, Together
from .refusal import Refusal
from .rules import Rules


class Conflict(Value):
    """Both changed `field` of `node`: what it was, what it is now, what this edit would make of it. `language`: of a
    text, the one in which they did; empty for the site's own; None where it is no text."""

    node: str
    field: str
    was: JsonValue
    theirs: JsonValue
    mine: JsonValue
    language: str | None = None


GONE = "removed"


def replay(edit: Edit, base: Site, newest: Site, rules: Rules | None = None) -> Site | Refusal | Conflict:
    """The newest site with the edit on it; a `Conflict` where it contradicts a later change; a `Refusal` as `apply`."""
    rebased = rebase(edit, base, newest)
    return rebased if isinstance(rebased, Conflict) else apply(newest, rebased, rules)


def rebase(edit: Edit, base: Site, newest: Site) -> Edit | Conflict:
    """The edit as it is to be made on the newest site. Texts are taken language by language: of one that others have
    changed in another language, theirs stays."""
    if base is newest:
        return edit
    for conflict in _conflicts(edit, base, newest):
        return conflict
    return _merged(edit, base, newest)


def _merged(edit: Edit, base: Site, newest: Site) -> Edit:
    match edit:
        case Set():
            return edit.replaced(value=_merged_words(edit.node, edit.field, edit.value, base, newest))
        case SetEach():
            values = tuple((node, _merged_words(node, edit.field, value, base, newest)) for node, value in edit.values)
            return edit.replaced(values=values)
        case Together():
            return edit.replaced(edits=tuple(_merged(part, base, newest) for part in edit.edits))
        case _:
            return edit


def _merged_words(node: str, field: str, mine: JsonValue, base: Site, newest: Site) -> JsonValue:
    before, now = holder_of(base, node), holder_of(newest, node)
    if before is None or now is None or before is now or field not in type(before).model_fields:
        return mine
    texts = _texts(getattr(before, field), getattr(now, field), mine)
    if texts is None:
        return mine
    was, theirs, own = (_by_language(text) for text in texts)
    merged = {**theirs, **{tag: own.get(tag) for tag in {*was, *own} if own.get(tag) != was.get(tag)}}
    others = [one.model_dump(mode="json") for tag, one in sorted(merged.items()) if tag and one]
    first, second, third = texts
    text = _newest_of(first.text, second.text, third.text)
    note = _newest_of(first.note, second.note, third.note)
    return {"text": text, "translations": cast(JsonValue, others), "note": note}


def _newest_of(was: str, theirs: str, mine: str) -> str:
    """Mine, where I changed it."""
    return theirs if mine == was else mine


def _texts(was: object, theirs: object, mine: JsonValue) -> tuple[Translatable, Translatable, Translatable] | None:
    """Where they are versions of one text."""
    if not isinstance(was, Translatable) or not isinstance(theirs, Translatable):
        return None
    try:
        return was, theirs, type(was).model_validate(mine)
    except ValidationError:
        return None


def _by_language(words: Translatable) -> dict[str, Translated]:
    return {one.language: one for one in words.translations}


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
    if theirs in (was, mine) or mine == was:
        return
    texts = _texts(getattr(before, field), getattr(now, field), mine) if now is not None else None
    if texts is not None:
        spoken = [{"": text.text, **{one.language: one.text for one in text.translations}} for text in texts]
        for tag in sorted(set[str]().union(*spoken)):
            said = [text.get(tag, "") for text in spoken]
            if len(set(said)) == 3:
                yield Conflict(node=node, field=field, was=said[0], theirs=said[1], mine=said[2], language=tag)
        return
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
