"""For whom is what of a page? The table by which its script decides, before anything is drawn."""

from __future__ import annotations

import json
from collections.abc import Iterable, Iterator
from typing import Any, NamedTuple

from ...conditions.audience.audience import is_for_everybody
from ...conditions.visitor import Looking, VisitorCard
from ...model.site import Page, Site
from ...reach.coverage import Coverage
from ..naming import VISITOR_PATH
from ..shelf import Shelf

EVERY_BAND = ""


class Rivals(NamedTuple):
    """Pieces of one kind of which the first that takes a visitor in shows, and the ids of the width bands in which it is
    so (`EVERY_BAND`: in all)."""

    bands: tuple[str, ...]
    pieces: tuple[str, ...]


def rivals_on(coverage: Coverage, page: Page) -> tuple[Rivals, ...]:
    """Wherever it hangs on the visitor which one shows."""
    found: list[Rivals] = []
    for in_slot in coverage.may_show(page).values():
        bands: dict[tuple[str, ...], list[str]] = {}
        for band, pieces in zip(coverage.bands, in_slot, strict=True):
            if len(pieces) > 1:
                bands.setdefault(tuple(piece.id for piece in pieces), []).append(band or EVERY_BAND)
        for rivals, there in bands.items():
            found.append(Rivals((EVERY_BAND,) if len(there) == len(coverage.bands) else tuple(there), rivals))
    return tuple(found)


def audiences_in(site: Site, pieces: Iterable[str]) -> dict[str, Any]:
    """By node, of these pieces, their rows and items and the drawers in them, whatever is not for everybody."""
    return {node.id: node.audience for node in _nodes(site, set(pieces)) if not is_for_everybody(node)}


def _nodes(site: Site, shown: set[str]) -> Iterator[Any]:
    held = {drawer for piece in site.pieces if piece.id in shown for _, drawer in site.drawers_in(piece)}
    for piece in site.pieces:
        if piece.id in shown | held:
            yield piece
            for row in site.shown_rows(piece):
                yield row
                yield from (item for cell in row.cells for item in cell.items)


def asks_the_server(site: Site) -> bool:
    """Whether a condition goes by what only a server knows."""
    audiences = audiences_in(site, (piece.id for piece in site.pieces)).values()
    return any(one.KNOWN_BY == "the server" for audience in audiences for one in audience.conditions)


def out_for(site: Site, pieces: Iterable[str], card: VisitorCard) -> tuple[str, ...]:
    """Ids of what is not for a visitor, of what stands in these pieces."""
    languages = site.languages
    return tuple(
        node
        for node, audience in audiences_in(site, pieces).items()
        if not card.has_script or not audience.takes_in(Looking(card, languages, site.zone, node))
    )


def decided(out: Iterable[str]) -> str:
    """The script of a page that is shown to one visitor alone, as the stage is: it only marks what is not for them."""
    mark = "document.documentElement.dataset.rimOut=document.currentScript.dataset.rimOut"
    return f'<script data-rim-out="{" ".join(out)}">{mark}</script>'


def decision(site: Site, shelf: Shelf, pieces: Iterable[str], rivals: tuple[Rivals, ...]) -> str:
    """The script of pages with these pieces; empty where all of it is for everybody."""
    audiences = audiences_in(site, pieces)
    if not audiences:
        return ""
    conditions = [one for audience in audiences.values() for one in audience.conditions]
    kinds = list(dict.fromkeys(one.kind for one in conditions))
    table: dict[str, Any] = {
        "k": f"{site.key}-who",
        "a": {node: _told(audience, site.zone) for node, audience in audiences.items()},
        "r": [[list(one.bands), *one.pieces] for one in rivals],
    }
    if "asks-for" in kinds:
        table["l"] = [tag.lower() for tag in site.languages]
    if "not-closed" in kinds:
        table["t"] = {}
    written = json.dumps(table, separators=(",", ":")).replace("<", "\\u003c")
    parts = "".join(shelf.audience_scripts[part] for part in ("begin", *kinds, "end"))
    asks = f'<script src="{VISITOR_PATH}"></script>' * any(one.KNOWN_BY == "the server" for one in conditions)
    return f"{asks}<script>(()=>{{const table={written};{parts}}})();</script>"


def _told(audience: Any, zone: str) -> list[Any]:
    return [[[one.kind, *one.told(zone)] for one in part] for part in (audience.every, audience.some, audience.none)]
