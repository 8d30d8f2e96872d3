"""Where does running text have too few or too many characters on a line?

Counted as the scale counts them: the room of a text over the mean advance of its face. The least and the wished measure
are the site's foundations; a line half as long again as the wished one is too long.
"""

from __future__ import annotations

from collections.abc import Iterator
from typing import NamedTuple

from ...model.site import Site
from ..css.amount import Viewport
from ..css.boxes import Box, Frame
from ..css.inline import Inline
from ..css.linear import value
from ..rows.states import row_of
from ..rows.sweep import RowFit, frame_at

TOO_LONG = 1.5
"""Times the wished measure."""
SHORTEST_TEXT = 60
"""Characters from which on a text is read as running text, and not as a label."""


class Measure(NamedTuple):
    """Widths at which an item's running text has the given characters on a line, on the average. `state`: `narrow`
    below the least measure, `wide` above the greatest."""

    node: str
    language: str
    from_px: int
    to_px: int
    state: str
    characters: float


def measures(site: Site, fit: RowFit, height_px: float = 800.0) -> list[Measure]:
    """Looked at where the row's layout changes, and at both ends of each of its spans."""
    found: list[Measure] = []
    running: dict[Box, bool] = {}
    for laid in fit.laid:
        if laid.context.piece is None or not _has_running_text(row_of(laid.context.piece), running):
            continue
        for width in dict.fromkeys((laid.from_px, laid.to_px)):
            for node, characters in _texts(frame_at(laid, width, height_px), running):
                state = _state(site, characters)
                last = next((one for one in reversed(found) if one.node == node), None)
                if last is not None and last.state == state:
                    found[found.index(last)] = last._replace(to_px=width)
                else:
                    found.append(Measure(node, fit.language, width, width, state, characters))
    return [one for one in found if one.state != "well"]


def _state(site: Site, characters: float) -> str:
    if characters < site.least_measure:
        return "narrow"
    return "wide" if characters > site.measure * TOO_LONG else "well"


def _has_running_text(box: Box, known: dict[Box, bool]) -> bool:
    if box not in known:
        known[box] = _runs(box) or any(_has_running_text(kid, known) for kid in box.kids())
    return known[box]


def _runs(box: Box) -> bool:
    return isinstance(box, Inline) and box.paragraph is not None and len(box.paragraph.text) >= SHORTEST_TEXT


def _texts(frame: Frame, running: dict[Box, bool], node: str = "") -> Iterator[tuple[str, float]]:
    """Running texts in a frame: the item's id, and how many characters fit on a line of it. `running`: which boxes hold
    any, as far as that is known."""
    box = frame.box
    if not _has_running_text(box, running):
        return
    node = box.node if box.node.startswith("it-") else node
    if isinstance(box, Inline) and box.paragraph is not None and _runs(box):
        _, most = box.paragraph.widths(_NOWHERE)
        mean = value(most) / len(box.paragraph.text)
        if mean:
            yield node, round(value(frame.width) / mean, 1)
    for _, _, kid in frame.kids:
        yield from _texts(kid, running, node)


_NOWHERE = Viewport(1280.0, 800.0)
