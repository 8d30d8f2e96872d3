"""Where a piece shows: its own rules, and those of the sets that it uses."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any, NamedTuple

from ....core.kinds.pieces.base import Piece, ReachRule
from ....core.model.site import Site
from ..words.reach import rule_in_words


class UsedSet(NamedTuple):
    """`others`: the names of the other pieces that use it."""

    id: str
    name: str
    rules: list[tuple[ReachRule, str]]
    others: list[str]


def reach_shown(site: Site, piece: Piece) -> dict[str, Any]:
    def told(rules: Iterable[ReachRule]) -> list[tuple[ReachRule, str]]:
        return [(rule, rule_in_words(rule, site)) for rule in rules]

    others = [other for other in site.pieces if other is not piece]
    return {
        "rules": told(piece.reach),
        "sets": [
            UsedSet(one.id, one.name, told(one.rules), [other.name for other in others if one.id in other.reach_sets])
            for one in site.reach_sets
            if one.id in piece.reach_sets
        ],
        "other_sets": [(one.id, one.name) for one in site.reach_sets if one.id not in piece.reach_sets],
    }
