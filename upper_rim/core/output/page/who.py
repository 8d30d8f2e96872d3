"""For whom is what of a page? The table by which its script decides, before anything is drawn."""

from __future__ import annotations

import json
from collections.abc import Iterable, Iterator
from typing import Any, NamedTuple

from ...conditions.audience.audience import is_for_everybody
from ...conditions.visitor import VisitorCard
from ...model.site import Page, Site
from ...reach.coverage import Coverage
from ...reach.looking import goes_by_text, looking_at, says
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


def for_some(site: Site, pieces: Iterable[str]) -> list[Any]:
    """Of these pieces, their rows and items and the drawers in them, whatever is not for everybody."""
    return [node for node in _nodes(site, set(pieces)) if not is_for_everybody(node)]


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
    nodes = for_some(site, (piece.id for piece in site.pieces))
    return any(one.KNOWN_BY == "the server" for node in nodes for one in node.audience.conditions)


def out_for(site: Site, pieces: Iterable[str], card: VisitorCard) -> tuple[str, ...]:
    """Ids of what is not for a visitor, of what stands in these pieces."""
    languages = site.languages
    return tuple(
        node.id
        for node in for_some(site, pieces)
        if not card.has_script or not node.audience.takes_in(looking_at(node, card, site, languages))
    )


def decided(out: Iterable[str]) -> str:
    """The script of a page that is shown to one visitor alone, as the stage is: it only marks what is not for them."""
    mark = "document.documentElement.dataset.rimOut=document.currentScript.dataset.rimOut"
    return f'<script data-rim-out="{" ".join(out)}">{mark}</script>'


def decision(site: Site, shelf: Shelf, pieces: Iterable[str], rivals: tuple[Rivals, ...]) -> str:
    """The script of pages with these pieces; empty where all of it is for everybody."""
    nodes = for_some(site, pieces)
    if not nodes:
        return ""
    conditions = [one for node in nodes for one in node.audience.conditions]
    kinds = list(dict.fromkeys(one.kind for one in conditions))
    table: dict[str, Any] = {
        "k": site.key,
        "a": {node.id: _told(node.audience, site.zone) for node in nodes},
        "r": [[list(one.bands), *one.pieces] for one in rivals],
    }
    if "asks-for" in kinds:
        table["l"] = [tag.lower() for tag in site.languages]
    if "not-closed" in kinds:
        table["t"] = {node.id: says(node, site) for node in nodes if goes_by_text(node.audience)}
    written = json.dumps(table, separators=(",", ":")).replace("<", "\\u003c")
    parts = "".join(shelf.audience_scripts[part] for part in ("begin", *kinds, "end"))
    asks = f'<script src="{VISITOR_PATH}"></script>' * any(one.KNOWN_BY == "the server" for one in conditions)
    return f"{asks}<script>(()=>{{const table={written};{parts}}})();</script>"


def _told(audience: Any, zone: str) -> list[Any]:
    return [[[one.kind, *one.told(zone)] for one in part] for part in (audience.every, audience.some, audience.none)]
