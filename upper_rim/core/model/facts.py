"""What is said of the site in several places, its address, hours and profiles, is one truth: where is it said otherwise, and
which edit mends it?

A place may say less than another. It says otherwise where both say something of the same fact, and not the same.
"""

from __future__ import annotations

from collections.abc import Iterator

from ..kinds.items.base import BaseItem
from .editing.edits import Edit, Set, Together
from .site import Site
from .tree import items_of


def said_otherwise(site: Site, item: BaseItem) -> Iterator[tuple[BaseItem, Set]]:
    """Other items with a fact that they tell otherwise than `item`, each with the edit after which they do not."""
    facts = item.facts()
    for other in items_of(site.pieces) if facts else ():
        if other.id == item.id:
            continue
        for name, fact in other.facts().items():
            mine = facts.get(name)
            if mine is None or mine.value == fact.value or (mine.of and fact.of and mine.of != fact.of):
                continue
            yield other, Set(node=fact.node, field=fact.field, value=mine.value)


def said_everywhere(site: Site, item: BaseItem) -> Edit | None:
    """The edit after which all say what `item` says; None where they do."""
    edits = tuple(edit for _, edit in said_otherwise(site, item))
    return Together(edits=edits) if edits else None
