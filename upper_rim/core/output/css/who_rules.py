"""What is not for a visitor does not show: by the marks that the page's script puts on the root, and without it."""

from __future__ import annotations

import re
from collections.abc import Iterable, Iterator
from typing import Any

from ...conditions.audience.audience import is_for_everybody
from ...kinds.pieces.base import Piece
from ...kinds.pieces.sidebar import Sidebar
from ...kinds.rule import Rule
from ...model.site import Site
from .style_rules import band_queries

OUT = "data-rim-out"
"""On the root: what is not for the visitor, by node, or in a width band as `node~band`."""
_GONE = {"display": "none"}


def who_rules(site: Site) -> Iterator[Rule]:
    nodes = [node for piece in site.pieces for node in _within(piece) if not is_for_everybody(node)]
    if nodes:
        yield Rule(f":root:not([{OUT}]) .{site.key}-if", _GONE)
    for node in nodes:
        yield Rule(_out(site, node.id, node.id), _GONE)
    for piece in site.pieces:
        if not may_be_out(site, piece):
            continue
        if is_for_everybody(piece):
            yield Rule(_out(site, piece.id, piece.id), _GONE)
        if isinstance(piece, Sidebar):
            yield Rule(f':root[{OUT}~="{piece.id}"] .{site.key}-{piece.id}-beside', {"display": "block"})
        for band in site.bands if _rivals_differ(site, piece) else ():
            for query in band_queries(site, {band.id}):
                yield Rule(_out(site, f"{piece.id}~{band.id}", piece.id), _GONE, (f"@media {query}",))


def without_visitors(rules: Iterable[Rule]) -> Iterator[Rule]:
    """The same for a page on which all of it is for everybody."""
    for rule in rules:
        if OUT not in rule.selector:
            yield rule
        elif not _ASKS.match(rule.selector):
            yield rule._replace(selector=_IS_NOT_OUT.sub("", rule.selector))


_ASKS = re.compile(rf":root(?:\[{OUT}|:not\(\[{OUT}\]\))")
_IS_NOT_OUT = re.compile(rf':not\(\[{OUT}~="[^"]*"\]\)')


def may_be_out(site: Site, piece: Piece) -> bool:
    """Whether it hangs on the visitor if it shows: it has an audience, or one of its kind has."""
    return any(other.kind == piece.kind and not is_for_everybody(other) for other in site.pieces)


def _rivals_differ(site: Site, piece: Piece) -> bool:
    """Whether others may be shown in one width band than in another."""
    rivals = [other for other in site.pieces if other.kind == piece.kind]
    return len(rivals) > 1 and any(other.hidden_in for other in rivals)


def there_by_band(site: Site, piece: Piece, from_px: int, to_px: int) -> Iterator[tuple[str, str, int, int]]:
    """At these widths: what selects the root where the piece is not out for the visitor, what the piece is not where it
    shows, and the widths for which that holds: all of them, or band by band, where others may show in some."""
    root = while_it_is_there(site, piece)
    if not _rivals_differ(site, piece):
        yield root, "", from_px, to_px
        return
    ends = [*(band.from_px - 1 for band in site.bands[1:]), to_px]
    for band, end in zip(site.bands, ends, strict=True):
        first, last = max(from_px, band.from_px), min(to_px, end)
        if first <= last:
            there = f'{root}:not([{OUT}~="{piece.id}~{band.id}"])' if may_be_out(site, piece) else root
            yield there, f":not(.{site.key}-out-{band.id})", first, last


def while_it_is_there(site: Site, piece: Piece) -> str:
    """Selects the root, where the piece is not out for the visitor in all width bands."""
    if not may_be_out(site, piece):
        return ":root"
    decided = "" if is_for_everybody(piece) else f"[{OUT}]"
    return f':root{decided}:not([{OUT}~="{piece.id}"])'


def _out(site: Site, token: str, node: str) -> str:
    return f':root[{OUT}~="{token}"] .{site.key}-{node}'


def _within(piece: Any) -> Iterator[Any]:
    yield piece
    for row in piece.rows:
        yield row
        yield from (item for cell in row.cells for item in cell.items)
