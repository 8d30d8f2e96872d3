"""What is found about a node, as a mark beside it: the same in the outline, in the tray, on rulers, on the board."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from typing import NamedTuple
from urllib.parse import urlencode

from django.urls import reverse

from ....core.findings.finding import FindingKind
from ....core.findings.severity import SEVERITIES, Severity, severity_of
from ....core.findings.told import Teller
from ....core.findings.whole import Cause
from ....core.findings.words import short_words
from ....core.kinds.pieces.base import Piece
from ....core.model.site import Site
from ....core.model.tree import walk
from ...sites.looking import sorted_last

SEEN_AT_ONCE: frozenset[FindingKind] = frozenset({
    "tight", "wraps", "breaks words", "clips", "overflows", "collides", "weak text", "over a picture", "squeezed", "overlap",
})  # fmt: skip
"""Kinds that the workbench works out itself, for what is on its stage."""


class Mark(NamedTuple):
    """Of the worst that is found. `words`: two or three; `title`: more of it; `more`: how many others there are."""

    severity: Severity
    words: str
    title: str
    more: int = 0


def mark_of(kind: FindingKind, title: str = "") -> Mark:
    return Mark(severity_of(kind), short_words(kind), title)


def worse(one: Mark | None, other: Mark | None) -> Mark | None:
    """The worse of two; the first of equals."""
    if one is None or other is None:
        return one or other
    return one if SEVERITIES.index(one.severity) <= SEVERITIES.index(other.severity) else other


class Marked:
    """What is found and open about a site, as far as it has been looked at: of each node, of each piece."""

    def __init__(self, site_id: int, site: Site) -> None:
        found = sorted_last(site_id, site)
        self._by_node: dict[str, list[Cause]] = {}
        for cause in found.open:
            self._by_node.setdefault(cause.node, []).append(cause)
        self._let_be = {
            (short_words(cause.kind), node) for cause, _ in found.let_be for node in (cause.node, cause.other)
        }

    def about(self, node: str) -> list[Cause]:
        """The worst first."""
        return self._by_node.get(node, [])

    def beside(self, live: Mapping[str, Mark]) -> dict[str, Mark]:
        """Of each node the worst of what is found and what is worked out `live`, without what is let be."""
        found = {node: mark for node, mark in live.items() if (mark.words, node) not in self._let_be}
        for node, causes in self._by_node.items():
            mark = worse(found.get(node), _mark([one for one in causes if one.kind not in SEEN_AT_ONCE]))
            if mark is not None:
                found[node] = mark
        return found

    def of_piece(self, piece: Piece) -> Mark | None:
        """Of the piece and all in it."""
        nodes = (piece, *walk(piece)) if self._by_node else ()
        listed = [cause for node in nodes for cause in self.about(node.id)]
        return _mark(sorted(listed, key=lambda one: SEVERITIES.index(one.severity)))


class Told(NamedTuple):
    """One that is found about what is chosen. `there`: the list, at it."""

    mark: Mark
    said: str
    there: str


def told_about(marked: Marked, node: str, site: Site, slug: str, most: int = 4) -> list[Told]:
    causes = [one for one in marked.about(node) if one.kind not in SEEN_AT_ONCE][:most]
    if not causes:
        return []
    teller, there = Teller(site), reverse("findings", args=[slug])
    return [Told(mark_of(one.kind), teller.said(one), f"{there}?{urlencode({'at': one.key})}") for one in causes]


def _mark(causes: Iterable[Cause]) -> Mark | None:
    listed = list(causes)
    if not listed:
        return None
    said = [short_words(one.kind) for one in listed]
    return Mark(listed[0].severity, said[0], ", ".join(dict.fromkeys(said)), len(listed) - 1)
