"""A node of a site by its id, for tests that look at its fields; and a site in which one is dressed otherwise."""

from __future__ import annotations

from collections.abc import Callable
from random import Random
from typing import Any

from upper_rim.core.model.editing.apply import apply
from upper_rim.core.model.editing.edits import Add, Edit, Remove, Together
from upper_rim.core.model.site import Site
from upper_rim.core.model.tree import find
from upper_rim.core.style.resolve import styled_in
from upper_rim.core.values.styling import Declaration


def node_in(site: Site, node: str) -> Any:
    spot = find(site, node)
    assert spot is not None, node
    return spot.node


def redressed(site: Site, chance: Random, declared: Callable[[Any], tuple[Declaration, ...]]) -> Site:
    """With other styles on one node of its pieces."""
    node = chance.choice([node for piece in site.pieces for node in styled_in(piece)])
    edits: list[Edit] = [Remove(nodes=tuple(style.id for style in node.styles))] if node.styles else []
    new = tuple(style.model_dump() for style in declared(node))
    if new:
        edits.append(Add(parent=node.id, slot="styles", values=new))
    made = apply(site, Together(edits=tuple(edits))) if edits else site
    assert isinstance(made, Site), made
    return made
