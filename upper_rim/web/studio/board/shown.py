"""How is the board drawn? Its rows and cells with letters, colours and words; and what a cell tells."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any, NamedTuple

from ....core.kinds.pieces import PIECE_KINDS
from ....core.kinds.pieces.base import Piece
from ....core.model.site import Site
from ....core.reach.board import BoardRow, Share
from ....core.reach.coverage import Coverage, Gets
from ..words.reach import by_bands

COLOURS, LETTERS = 6, 26


class PieceShown(NamedTuple):
    """`look`: the class of its colour and pattern."""

    id: str
    name: str
    letter: str
    look: str


class ShareShown(NamedTuple):
    """A part of a cell: what shows on so many pages, and to the other visitor, where that is something else."""

    first: PieceShown | None
    second: PieceShown | None
    differs: bool
    pages: int


class CellShown(NamedTuple):
    """`key`: the slot, whether it is of a page or a section, and the path, by which the address names it."""

    key: str
    shares: list[ShareShown]
    said: str


def pieces_shown(site: Site) -> dict[str, PieceShown]:
    """A letter for each piece within its slot, and a colour; behind the sixth, a colour and a pattern."""
    found: dict[str, PieceShown] = {}
    counts: dict[str, int] = {}
    for piece in site.pieces:
        at = counts[piece.kind] = counts.get(piece.kind, -1) + 1
        letter = chr(ord("A") + at % LETTERS) + (str(at // LETTERS + 1) if at >= LETTERS else "")
        pattern = f" pattern-{at // COLOURS % 4}" if at >= COLOURS else ""
        found[piece.id] = PieceShown(piece.id, piece.name, letter, f"colour-{at % COLOURS}{pattern}")
    return found


def cells_shown(row: BoardRow, slots: Sequence[str], pieces: dict[str, PieceShown]) -> list[CellShown]:
    cells = []
    for slot, shares in zip(slots, row.cells, strict=True):
        shown = [_share(share, pieces) for share in shares]
        said = "; ".join(_said(share, row.pages) for share in shown)
        cells.append(CellShown(f"{slot} {'page' if row.page else 'below'} {row.path}", shown, said))
    return cells


def _share(share: Share, pieces: dict[str, PieceShown]) -> ShareShown:
    one, other = share.shown
    return ShareShown(pieces.get(one or ""), pieces.get(other or ""), one != other, share.pages)


def _said(share: ShareShown, pages: int) -> str:
    named = share.first.name if share.first else "nothing"
    if share.differs:
        named += f", and for the other {share.second.name if share.second else 'nothing'}"
    return named if share.pages == pages else f"{named} on {share.pages}"


def told_of_cell(
    cell: str, site: Site, coverage: Coverage, looking: tuple[Gets, Gets | None], rows: Sequence[BoardRow]
) -> dict[str, Any] | None:
    """What a cell tells: of a page each outcome with its reason, of a section what shows on how many of its pages; and
    the exceptions that can be taken there."""
    slot, _, rest = cell.partition(" ")
    kind, _, path = rest.partition(" ")
    row = next((one for one in rows if one.path == path and bool(one.page) == (kind == "page")), None)
    if slot not in coverage.slots or row is None:
        return None
    rivals = [piece for piece in site.pieces if piece.kind == slot]
    shares = row.cells[coverage.slots.index(slot)]
    shown = [share.shown[0] for share in shares]
    return {
        "path": path,
        "slot": PIECE_KINDS[slot].NAME,
        "where": "page" if row.page else "below",
        "page": row.page,
        "pages": row.pages,
        "reasons": [list(by_bands(coverage.on(row.page, gets)[slot], site)) for gets in looking if gets is not None]
        if row.page
        else [],
        "shares": [(_named(share.shown[0], rivals), share.pages) for share in shares],
        "shown": [piece for piece in rivals if piece.id in shown],
        "others": [(piece.id, piece.name) for piece in rivals if piece.id not in shown],
    }


def _named(piece: str | None, rivals: Sequence[Piece]) -> str:
    return next((one.name for one in rivals if one.id == piece), "nothing")
