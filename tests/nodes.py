"""A node of a site by its id, for tests that look at its fields."""

from __future__ import annotations

from typing import Any

from upper_rim.core.model.site import Site
from upper_rim.core.model.tree import find


def node_in(site: Site, node: str) -> Any:
    spot = find(site, node)
    assert spot is not None, node
    return spot.node
