"""Does an edit change anything in the view that one looks at? If not: where does it show?

The answer is found by asking the resolver before and after, in this view first, then in all others.
"""

from __future__ import annotations

from collections.abc import Collection
from typing import NamedTuple

from ..kinds.pieces.base import Piece
from ..model.site import Site
from ..values.properties import PROPERTIES
from ..values.styling import STATES_OF, State
from .paint.colour import Palette
from .resolve import StyledElement, styling_of


class SeenEffect(NamedTuple):
    """What one looks at: a piece, in a width band and a state."""

    piece: str
    band: str | None
    state: State = "rest"


class Elsewhere(NamedTuple):
    """A place where an edit shows though it does not in view: in which piece, on what, in which state and band."""

    piece: str
    node: str
    state: State
    band: str | None


class Effect(NamedTuple):
    """`in_view`: it changes what is looked at. Otherwise `elsewhere` lists where it shows, the nearest first; nowhere
    where that is empty. `off`: the reason why it cannot show here: the piece is switched off, or hidden in this
    band."""

    in_view: bool
    elsewhere: tuple[Elsewhere, ...] = ()
    off: str = ""


def effect(before: Site, after: Site, seen: SeenEffect, names: Collection[str] = PROPERTIES) -> Effect:
    """What an edit of styles, looks, defaults or swatches changes. `names`: the properties that it can concern."""
    old, new = _Looked(before, names), _Looked(after, names)
    piece = next((piece for piece in after.pieces if piece.id == seen.piece), None)
    states: tuple[State, ...] = ("rest", seen.state) if seen.state != "rest" else ("rest",)
    bands: tuple[str | None, ...] = tuple(band.id for band in after.bands) or (None,)
    off = _off(piece, seen.band)
    if not off:
        for element in new.of_piece(seen.piece):
            if _is_hidden(new, element, seen.band):
                continue
            for state in states:
                if state in STATES_OF[element.role] and old.shows(element, state, seen.band) != new.shows(
                    element, state, seen.band
                ):
                    return Effect(True)
    found: list[Elsewhere] = []
    order = sorted(after.pieces, key=lambda one: one.id != seen.piece)
    for one in order:
        for element in new.of_piece(one.id):
            for state in STATES_OF[element.role]:
                for band in bands:
                    if old.shows(element, state, band) != new.shows(element, state, band):
                        found.append(Elsewhere(one.id, element.node, state, band))
            if len(found) >= ENOUGH:
                return Effect(False, tuple(found), off)
    return Effect(False, tuple(found), off)


ENOUGH = 24
"""Places after which no more are looked for."""


class _Looked:
    def __init__(self, site: Site, names: Collection[str]) -> None:
        self._names = names
        self.styling = styling_of(site)
        self._palette = Palette(site)
        self._shown: dict[tuple[StyledElement, State, str | None], tuple[str, ...]] = {}

    def of_piece(self, piece: str) -> list[StyledElement]:
        return [element for element in self.styling.elements.values() if element.piece == piece]

    def shows(self, element: StyledElement, state: State, band: str | None) -> tuple[str, ...]:
        key = (element, state, band)
        if key not in self._shown:
            resolved = (self.styling.resolve(element, name, state, band).value for name in self._names)
            self._shown[key] = tuple(self._palette.resolved(value) for value in resolved)
        return self._shown[key]


def _off(piece: Piece | None, band: str | None) -> str:
    if piece is None:
        return "the piece is not there"
    if not piece.on:
        return "the piece is switched off"
    if band is not None and band in piece.hidden_in:
        return "the piece does not show in this width band"
    return ""


def _is_hidden(looked: _Looked, element: StyledElement, band: str | None) -> bool:
    """Whether an element, or what holds it, does not show in a band."""
    one: StyledElement | None = element
    while one is not None:
        if band is not None and band in getattr(looked.styling.holders.get(one.node), "hidden_in", ()):
            return True
        one = one.parent
    return False
