"""With which controls is a notice bar changed?"""

from __future__ import annotations

from .....core.kinds.pieces.notice import Notice
from .....core.model.site import Site
from ..control import Control, Group, choice, yes


def groups(piece: Notice, site: Site) -> list[Group]:
    return [
        Group(
            "Bar",
            [choice(piece, "edge", "Stands at", (("top", "the top"), ("bottom", "the bottom")))],
        ),
        Group(
            "Closing",
            [
                yes(piece, "closable", "Can be closed"),
                Control(
                    "number",
                    "Stays closed",
                    piece.id,
                    "closed_days",
                    piece.closed_days,
                    unit="days",
                    least=1,
                    greatest=3650,
                ),
            ],
        ),
        Group(
            "Period, by the visitor’s clock",
            [
                Control("moment", "From", piece.id, "shows_from", piece.shows_from or ""),
                Control("moment", "Until", piece.id, "shows_until", piece.shows_until or ""),
            ],
        ),
    ]
