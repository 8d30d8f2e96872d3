"""How does one node of a site name another?"""

from __future__ import annotations

from typing import Annotated, NamedTuple

from .nodes import NodeId


class RefersTo(NamedTuple):
    """Marks a field that names another node by its id. `slot`: where that stands: one of the site's slots, or one of a
    node's (`entries`, `rows`, `stages`)."""

    slot: str


BandRef = Annotated[NodeId, RefersTo("bands")]
SwatchRef = Annotated[NodeId, RefersTo("swatches")]
LookRef = Annotated[NodeId, RefersTo("looks")]
MenuRef = Annotated[NodeId, RefersTo("menus")]
EntryRef = Annotated[NodeId, RefersTo("entries")]
DrawerRef = Annotated[NodeId, RefersTo("pieces")]
RowRef = Annotated[NodeId, RefersTo("rows")]
StageRef = Annotated[NodeId, RefersTo("stages")]
PartRef = Annotated[NodeId, RefersTo("parts")]
"""A row or an item of the same piece."""
ReachSetRef = Annotated[NodeId, RefersTo("reach_sets")]
PageRef = Annotated[NodeId, RefersTo("pages")]
ShapeRef = Annotated[NodeId, RefersTo("shapes")]
CategoryRef = Annotated[NodeId, RefersTo("categories")]
"""Of what a visitor may agree to."""
LiftRef = Annotated[NodeId, RefersTo("lifts")]
