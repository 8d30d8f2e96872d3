"""What of the pieces is printed: as each kind is by itself, or as somebody chose."""

from __future__ import annotations

import pytest

from upper_rim.core.kinds.pieces.base import OnPaper
from upper_rim.core.model.site import Site
from upper_rim.core.output.css.print_rules import print_rules
from upper_rim.demo import ostrey

SITE: Site = ostrey()[0]


def left_out(site: Site) -> set[str]:
    """Nodes that are not printed."""
    rules = list(print_rules(site))
    assert all(rule.within == ("@media print",) and rule.declarations == {"display": "none"} for rule in rules)
    return {rule.selector.split(" ")[-1].rpartition(f".{site.key}-")[2] for rule in rules}


def with_prints(kind: str, prints: str) -> Site:
    pieces = (one.replaced(prints=prints) if one.kind == kind else one for one in SITE.pieces)
    return SITE.replaced(pieces=tuple(pieces))


def test_by_itself_headers_lose_their_menus_and_what_lies_over_pages_is_gone() -> None:
    out = left_out(SITE)
    for piece in SITE.pieces:
        assert (piece.id in out) == (piece.kind in {"notice", "bottom", "float"}), piece.kind
    menus = {
        item.id
        for piece in SITE.pieces
        if piece.kind == "header"
        for item in SITE.shown_items(piece)
        if item.kind == "menu"
    }
    assert menus and menus <= out
    assert not {item.id for piece in SITE.pieces if piece.kind == "footer" for item in SITE.shown_items(piece)} & out


@pytest.mark.parametrize("kind", ["header", "footer", "notice", "sidebar"])
def test_each_piece_that_stands_on_pages_can_be_printed_otherwise(kind: str) -> None:
    pieces = [piece for piece in SITE.pieces if piece.kind == kind]
    assert pieces and all(isinstance(piece, OnPaper) for piece in pieces)
    ids = {piece.id for piece in pieces}
    within = {item.id for piece in pieces for item in SITE.shown_items(piece)}
    assert not left_out(with_prints(kind, "whole")) & (ids | within)
    assert ids <= left_out(with_prints(kind, "never"))
    assert not ids & left_out(with_prints(kind, "plain"))
