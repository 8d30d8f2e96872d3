"""How is a piece made that looks like an old part of a page? Its lines become rows, what stands beside each other cells,
its links a menu; colours, faces and sizes are read by `looks`.

Where things stand is what they hold on to; `matching` then lays the piece out and puts room between them until they stand
where the old ones did.
"""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal, NamedTuple

from ...model.arrangements.arranging import JsonNode, NewId
from ...model.editing.edits import Add, Edit
from ...model.site import Site
from ...model.tree import ROOT
from ...style.type.faces import Face
from ...values.brands import Brands
from .dividing import Lines, divided
from .items_like import Brought, ItemMaker, Stood
from .looks import Looks, px, styles_json
from .measured import Measured, px_of
from .reading import read_part
from .rows_like import FAR_PX, RowMaker, declare
from .seen import Read, rect_of

Slot = Literal["header", "footer"]
SLOTS: tuple[Slot, ...] = ("header", "footer")
_LIKE_FOOTERS = re.compile(r"foot|colophon|bottom|closing|legal|contentinfo", re.I)


def slot_of(told: str) -> Slot:
    """As what an old part seems to begin, by what it is called."""
    return "footer" if _LIKE_FOOTERS.search(told) else "header"


@dataclass
class Made:
    """`edits` add what the piece needs, and the piece itself last. `high`: how high each row has to be, `text_px`: how large
    its texts are where nothing else is said, in px; `widest_band`: the
    site's, where that is the one that was looked at."""

    edits: list[Edit]
    piece: JsonNode
    stood: list[Stood]
    unread: list[str]
    notes: list[str]
    width: int
    high: dict[str, float]
    text_px: float
    widest_band: str | None


class Asked(NamedTuple):
    """What is to be made: a piece in a `slot`, by what `name`, `where` it shows (a condition). `origin`: of the address at
    which the page was looked at; `language`: its own."""

    slot: Slot
    name: str
    where: JsonNode
    origin: str
    language: str


def made_like(
    site: Site,
    measured: Measured,
    asked: Asked,
    new_id: NewId,
    faces: Mapping[str, Face],
    brands: Brands,
    brought: Brought,
) -> Made:
    """Raises ValueError where there is nothing to begin with."""
    slot, name, where, origin, language = asked
    read = read_part(measured, brands, f"{origin}/")
    if not read.seen:
        raise ValueError("nothing in it shows that a piece could begin with")
    looks = Looks(site, measured, origin, language, new_id, faces, brought.fonts)
    items = ItemMaker(site, measured, origin, new_id, looks, brought, in_header=slot == "header")
    rows = RowMaker(site, measured, new_id, looks, items)
    ground = _ground(measured, looks, name, slot, is_whole=rows.is_whole)
    items.around = looks.type_of(_main_text(read, measured), f"{name} text")
    whole = divided(read.seen, measured)
    made = rows.rows(whole.within if isinstance(whole, Lines) else [whole])
    top = measured.parts[0]
    if slot == "header" and 0.5 < rect_of(top).top <= FAR_PX and top.styles.get("position") != "fixed":
        # What of the page stood above it stays as room.
        declare(made[0], {"margin-block-start": px(rect_of(top).top)}, new_id)
    piece: JsonNode = {
        "id": new_id("pc"),
        "kind": slot,
        "name": name,
        "reach": [{"id": new_id("rr"), "where": where}],
        "styles": styles_json({**ground, **items.around}, new_id),
        "rows": made,
        **(_way(measured) if slot == "header" else {}),
    }
    text_px = px_of(items.around.get("font-size", ""))
    edits = [*looks.edits, *items.edits, *rows.edits, Add(parent=ROOT, slot="pieces", values=(piece,))]
    return Made(
        edits, piece, items.stood, read.unread, looks.notes, measured.width, rows.high, text_px, looks.widest_band
    )


def _ground(measured: Measured, looks: Looks, name: str, slot: Slot, *, is_whole: bool) -> dict[str, str]:
    """What the whole piece has behind it: the old part's ground where that was as wide as the window, else the page's."""
    own = looks.box_of(measured.parts[0], name, with_padding=False) if is_whole else {}
    if slot == "header" and _way(measured)["over"]:
        own.setdefault("background-color", "transparent")
    if "background-color" not in own and "background-image" not in own:
        own["background-color"] = looks.colour(measured.ground, "Page ground") or "transparent"
    return own


def _way(measured: Measured) -> JsonNode:
    """Whether it stays while the page is scrolled, and whether the page begins beneath it."""
    position = measured.parts[0].styles.get("position", "static")
    return {
        "moves": "stays" if position in {"fixed", "sticky"} else "away",
        "over": position in {"fixed", "absolute"},
    }


def _main_text(read: Read, measured: Measured) -> int:
    """The commonest way in which its texts are set, by one that is set so."""
    counted: dict[tuple[str, ...], list[int]] = {}
    for one in read.seen:
        styles = measured.parts[one.at].styles
        key = tuple(styles.get(name, "") for name in ("font-family", "font-size", "color"))
        counted.setdefault(key, []).extend([one.at] * max(1, len(one.links)))
    return max(counted.values(), key=len)[0]
