"""How would a piece stand otherwise, with all that is in it? Any piece takes on any arrangement of its kind.

Items go where the arrangement has one of their kind, in the order in which they are read; what it has no place for stays
beside what it stood beside, or in its row where that keeps all of its own. A row that goes on holding what it held stays
the same node, with its looks; one that other pieces share is never taken away, and shows there as it stands here. Rows of
stages, and of other pieces, stay as they are.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Any

from ..kinds.pieces.base import Piece
from ..kinds.rows import Cell, Row
from .arrangements import ARRANGEMENTS
from .arrangements.arranging import Arrangement, JsonNode, NewId, RowPlan, planned_row
from .editing.edits import Add, Edit, Move, Remove, Set, Together
from .site import Site


@dataclass
class _Planned:
    """A row of the arrangement with the items that come into each of its cells, and the row that it goes on in."""

    plan: RowPlan
    cells: list[list[str]]
    goes_on: Row | None = None

    @property
    def items(self) -> list[str]:
        return [item for cell in self.cells for item in cell]


def arrangements_for(piece: Piece) -> dict[str, Arrangement]:
    """What a piece could take on, by key."""
    return {key: one for key, one in ARRANGEMENTS.items() if one.kind == piece.kind}


def rearranged(site: Site, piece: Piece, key: str, new_id: NewId) -> Edit | None:
    """The edit after which the piece stands in that arrangement; None where it is of another kind, or the piece has
    nothing that could stand otherwise."""
    arrangement = arrangements_for(piece).get(key)
    shared = {row.shares for one in site.pieces for row in one.rows if row.shares is not None}
    rows = [row for row in piece.rows if row.stage is None and row.shares is None]
    if arrangement is None or not any(cell.items for row in rows for cell in row.cells):
        return None
    planned = _filled(arrangement, rows)
    staying = [row for row in rows if not _ids(row) & {item for one in planned for item in one.items}]
    _go_on(planned, [row for row in rows if row not in staying])
    first = next(at for at, row in enumerate(piece.rows) if row in rows)
    adds: list[Edit] = []
    moves: list[Edit] = []
    for at, one in enumerate(planned, first):
        made = _made(site, one, new_id)
        adds += _room_for(piece, one, made, at)
        for cell, items in zip(made["cells"], one.cells, strict=True):
            moves += [Move(node=item, parent=cell["id"], slot="items", at=to) for to, item in enumerate(items)]
    old = [one.goes_on for one in planned if one.goes_on is not None]
    empty = [tuple(cell.id for cell in row.cells) for row in old if row.cells]
    empty.append(tuple(row.id for row in rows if row not in staying and row not in old and row.id not in shared))
    return Together(edits=(*adds, *moves, *(Remove(nodes=nodes) for nodes in empty if nodes)))


def _ids(row: Row) -> set[str]:
    return {item.id for cell in row.cells for item in cell.items}


def _filled(arrangement: Arrangement, rows: Sequence[Row]) -> list[_Planned]:
    """The arrangement's rows that have something to hold."""
    waiting: list[tuple[Cell, Any]] = [(cell, item) for row in rows for cell in row.cells for item in cell.items]
    planned = []
    for plan in arrangement.rows:
        cells = []
        for plan_of_cell in plan.cells:
            found = []
            for wanted in plan_of_cell.items:
                kind = wanted if isinstance(wanted, str) else wanted[0]
                one = next((one for one in waiting if one[1].kind == kind), None)
                if one is not None:
                    waiting.remove(one)
                    found.append(one[1].id)
            cells.append(found)
        planned.append(_Planned(plan, cells))
    planned = [one for one in planned if one.items]
    for stood_in, left in waiting:
        row = next(row for row in rows if stood_in in row.cells)
        in_row = [one.id for cell in row.cells for one in cell.items]
        if not _put_beside(planned, left.id, [one.id for one in stood_in.items]):
            _put_beside(planned, left.id, in_row)
    return planned


def _put_beside(planned: Sequence[_Planned], item: str, neighbours: list[str]) -> bool:
    """Behind the nearest one before it that has a place, else before the next; whether there is any."""
    at = neighbours.index(item)
    for near in (*reversed(neighbours[:at]), *neighbours[at + 1 :]):
        for cell in (cell for one in planned for cell in one.cells):
            if near in cell:
                cell.insert(cell.index(near) + (neighbours.index(near) < at), item)
                return True
    return False


def _go_on(planned: Sequence[_Planned], rows: list[Row]) -> None:
    """Each goes on in the row that has most of what it holds, if any is left. What has colours of its own counts for
    more: it was made for its row's ground, and the others take on another."""
    for one in planned:
        held = set(one.items)
        best = max(rows, key=lambda row: _share(row, held), default=None)
        if best is not None and _share(best, held):
            one.goes_on = best
            rows = [row for row in rows if row is not best]


_PAINTED, _PAINTED_COUNTS = frozenset({"logo", "picture", "pictures"}), 4


def _share(row: Row, held: set[str]) -> int:
    items = (item for cell in row.cells for item in cell.items if item.id in held)
    return sum(_PAINTED_COUNTS if item.kind in _PAINTED else 1 for item in items)


def _made(site: Site, one: _Planned, new_id: NewId) -> JsonNode:
    """The row as the arrangement has it, its cells still empty."""
    return planned_row(site, replace(one.plan, cells=tuple(replace(cell, items=()) for cell in one.plan.cells)), new_id)


def _room_for(piece: Piece, one: _Planned, made: JsonNode, at: int) -> list[Edit]:
    if one.goes_on is None:
        return [Add(parent=piece.id, slot="rows", values=(made,), at=at)]
    row = one.goes_on.id
    return [
        Add(parent=row, slot="cells", values=tuple(made["cells"])),
        Set(node=row, field="columns", value=made.get("columns", [])),
        Move(node=row, parent=piece.id, slot="rows", at=at),
    ]
