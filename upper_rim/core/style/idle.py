"""Would it change anything, if a property were set here? Told before it is set, with what has to be otherwise first.

Only what is so whatever is set counts: a border's colour where it has no line (CSS Backgrounds 3, 4.2), the size of a
picture that is not there (3.1), the line of an outline or a decoration (CSS UI 4, 4; CSS Text Decoration 3, 2.1), the
pace of a change that takes no time (CSS Transitions, 2.3), and what a width band says for itself.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from typing import NamedTuple

from ..values.properties import SIDES
from ..values.styling import STATES_OF, Declaration, Part, State
from .resolve import StyledElement, Styling


class Idle(NamedTuple):
    """`needs`: the property that has to have another value than `value`; empty where `band` says it itself, which is
    the more exact."""

    needs: str
    value: str
    band: str | None = None


NEEDS: Mapping[str, tuple[str, frozenset[str]]] = {
    **{f"border-{side}-{what}": (f"border-{side}-style", frozenset({"none"})) for side in SIDES for what in ("width", "color")},
    **{f"outline-{what}": ("outline-style", frozenset({"none"})) for what in ("width", "color", "offset")},
    **{
        f"text-decoration-{what}": ("text-decoration-line", frozenset({"none"}))
        for what in ("style", "color", "thickness")
    },
    **{
        f"background-{what}": ("background-image", frozenset({"none"}))
        for what in ("size", "repeat", "position", "attachment", "drift", "blend-mode")
    },
    "transition-timing-function": ("transition-duration", frozenset({"0s", "0ms"})),
}  # fmt: skip
"""By property: another one, and its values with which the first is not painted at all."""


def idle(
    styling: Styling,
    element: StyledElement,
    names: Iterable[str],
    said: tuple[Iterable[Declaration], Part],
    view: tuple[State, str | None],
    band: str | None,
) -> Idle | None:
    """Why these properties, which are set together, would change nothing, set for the state of `view` in `band` (None: at
    all widths); None where any of them would. `view`: the state, and the band that is looked at; `said`: what its holder
    says, and the part that it would be said of."""
    found = [_of_one(styling, element, name, view[0], band) or _by_band(said, name, view, band) for name in names]
    return found[0] if all(found) else None


def _of_one(styling: Styling, element: StyledElement, name: str, state: State, band: str | None) -> Idle | None:
    """What is said at rest is said of all states, and what is said at all widths of every band: it is idle where it is
    in each of them."""
    needs, values = NEEDS.get(name, ("", frozenset()))
    if not needs:
        return None
    states = STATES_OF[element.role] if state == "rest" else (state,)
    every: list[str | None] = [one.id for one in styling.site.bands] or [None]
    bands = every if band is None else [band]
    found = [styling.resolve(element, needs, one, at).value for one in states for at in bands]
    return Idle(needs, found[0]) if values.issuperset(found) else None


def _by_band(
    said: tuple[Iterable[Declaration], Part], name: str, view: tuple[State, str | None], band: str | None
) -> Idle | None:
    styles, part = said
    if band is not None or view[1] is None:
        return None
    more_exact = any((one.property, one.part, one.state, one.band) == (name, part, *view) for one in styles)
    return Idle("", "", view[1]) if more_exact else None
