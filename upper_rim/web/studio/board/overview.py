"""All pages of a site at a glance, as a picture: a column for each slot, pages from the top by path."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from django.utils.safestring import SafeString

from ....core.kinds.pieces import PIECE_KINDS
from ....core.reach.board import Board
from ..preview.svg import for_template, shape, title

LINES, WIDE, COLUMN_GAP, MARK = 240, 236, 6, 4


def overview(board: Board, band: int, pieces: Mapping[str, Any]) -> SafeString:
    """Lines that show the same are one; beside them a mark where not all pages of a line do."""
    columns = len(board.slots)
    wide = (WIDE - COLUMN_GAP * (columns - 1)) / columns
    parts = []
    for at, (slot, lines) in enumerate(board.over_all(band, LINES).items()):
        left = round(at * (wide + COLUMN_GAP), 2)
        begin = 0
        for line in range(1, len(lines) + 1):
            if line < len(lines) and lines[line] == lines[begin]:
                continue
            (one, other), is_mixed = lines[begin]
            piece = pieces.get(one or "")
            look = f"{piece.look}" if piece else "colour-none"
            size = {"y": _y(begin, len(lines)), "height": round(_y(line, len(lines)) - _y(begin, len(lines)), 2)}
            named = title(f"{PIECE_KINDS[slot].NAME}: {piece.name if piece else 'nothing'}")
            parts.append(shape("rect", look, named, x=left, width=round(wide, 2), **size))
            if one != other or is_mixed:
                css = "board-differs" if one != other else "board-mixed"
                parts.append(shape("rect", css, x=round(left + wide - MARK, 2), width=MARK, **size))
            begin = line
    said = f"What shows on all {len(board.coverage.site.pages)} pages, by path from the top"
    return for_template(
        shape(
            "svg",
            "board-overview",
            *parts,
            viewBox=f"0 0 {WIDE} {LINES}",
            preserveAspectRatio="none",
            role="img",
            aria_label=said,
        )
    )


def _y(line: int, lines: int) -> float:
    return round(LINES * line / max(lines, 1), 2)
