"""Which controls does a piece of each kind have, and a row for its columns?"""

from __future__ import annotations

from typing import Any

from ....core.model.site import BottomBar, Drawer, Float, Footer, Notice, Piece, Row, Sidebar, Site
from ....core.style.faces import character_em
from ....core.style.scale import sidebar_needs_px
from ....shipped import shelf
from .control import Control, Group, choice, note, px, yes

SIDES = (("start", "At the start"), ("end", "At the end"))
PLACES = (
    ("top-start", "top, start"),
    ("top-end", "top, end"),
    ("middle-start", "middle, start"),
    ("middle-end", "middle, end"),
    ("bottom-start", "bottom, start"),
    ("bottom-end", "bottom, end"),
)


def piece_groups(piece: Piece, site: Site) -> list[Group]:
    """The groups that only this kind of piece has."""
    match piece:
        case Footer():
            return [Group("Beneath", [yes(piece, "uncovered", "Uncovered by the page")])]
        case Sidebar():
            needs = sidebar_needs_px(site, character_em(site, shelf().faces), piece.width_px)
            narrow = (("before", "before the content"), ("after", "after the content"))
            width = Control(
                "number",
                "Content width",
                piece.id,
                "width_px",
                piece.width_px or "",
                unit="px",
                least=80,
                greatest=1000,
                hint=str(site.sidebar_px),
            )
            return [
                Group("Beside", [choice(piece, "side", "Stands", SIDES), width]),
                Group(f"Below {needs} px", [choice(piece, "narrow", "Stands", narrow)]),
            ]
        case Notice():
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
        case BottomBar():
            height = Control(
                "number", "Height", piece.id, "height_px", piece.height_px, unit="px", least=44, greatest=120
            )
            targets = len(site.shown_items(piece))
            few = "one target" if targets == 1 else f"{targets} targets"
            told = (
                [] if 2 <= targets <= 5 else [note(piece, f"It has {few}. Two to five can be read and hit on a phone.")]
            )
            return [Group("Bar", [height, *told])]
        case Float():
            return [
                Group(
                    "Place", [choice(piece, "place", "Stands", PLACES), px(piece, "inset_px", "From the edges", 200)]
                ),
                Group("Manner", [yes(piece, "fan", "Opens as a fan")]),
            ]
        case Drawer():
            most = len(piece.rows)
            above = Control(
                "number", "Rows above", piece.id, "above", piece.above, unit=f"of {most}", least=0, greatest=most
            )
            return [Group("Around the entries", [above])]
        case _:
            return []


def folds(row: Row, site: Site) -> list[Control]:
    """For each width band, into how many columns the cells fold."""
    counts: dict[str, Any] = {one.band: str(one.count) for one in row.columns}
    choices = [("", "side by side")] + [
        (str(count), f"{count} column{'s' if count > 1 else ''}") for count in range(1, 7)
    ]
    return [
        Control("choice", band.name, row.id, "columns", counts.get(band.id, ""), choices, band=band.id)
        for band in site.bands
    ]
