"""What is said of the site in several places, its address, hours and profiles, is one truth: who else says it, and where
is it said otherwise?

What changes in one place changes in all that said the same. A place may say less than another, and so taking something
away concerns that place alone. It says otherwise where both say something of the same fact, and not the same.
"""

from __future__ import annotations

from collections.abc import Iterator

from ..kinds.items.base import BaseItem, Fact
from .editing.edits import Edit, Set, Together, parts_of_edit
from .site import Site
from .tree import items_of


def said_alike(site: Site, edit: Edit) -> tuple[tuple[BaseItem, Set], ...]:
    """Other items that say now what the edit changes, each with the edit after which they say the new thing."""
    changes = {(part.node, part.field): part.value for part in parts_of_edit(edit) if isinstance(part, Set)}
    items = [item for item in items_of(site.pieces) if item.facts()] if changes else []
    found: list[tuple[BaseItem, Set]] = []
    for item in items:
        for name, fact in item.facts().items():
            value = changes.get((fact.node, fact.field))
            if not value or value == fact.value:
                continue
            for other in items:
                same = other.facts().get(name)
                if other is item or same is None or same.value != fact.value or _of_others(same, fact):
                    continue
                if (same.node, same.field) not in changes:
                    found.append((other, Set(node=same.node, field=same.field, value=value)))
    return tuple(found)


def _of_others(one: Fact, other: Fact) -> bool:
    return bool(one.of and other.of and one.of != other.of)


def said_otherwise(site: Site, item: BaseItem) -> Iterator[tuple[BaseItem, Set]]:
    """Other items with a fact that they tell otherwise than `item`, each with the edit after which they do not."""
    facts = item.facts()
    for other in items_of(site.pieces) if facts else ():
        if other.id == item.id:
            continue
        for name, fact in other.facts().items():
            mine = facts.get(name)
            if mine is None or mine.value == fact.value or _of_others(mine, fact):
                continue
            yield other, Set(node=fact.node, field=fact.field, value=mine.value)


def said_everywhere(site: Site, item: BaseItem) -> Edit | None:
    """The edit after which all say what `item` says; None where they do."""
    edits = tuple(edit for _, edit in said_otherwise(site, item))
    return Together(edits=edits) if edits else None
