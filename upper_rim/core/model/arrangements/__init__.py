"""With what can a new piece begin? A few arrangements of our own for each kind, so that nobody starts from an empty box.
One module a kind."""

from __future__ import annotations

from . import bottom, consent, drawer, float, footer, gates, header, notice, sidebar
from .arranging import Arrangement

ARRANGEMENTS: dict[str, Arrangement] = {
    **header.ARRANGEMENTS,
    **footer.ARRANGEMENTS,
    **sidebar.ARRANGEMENTS,
    **notice.ARRANGEMENTS,
    **bottom.ARRANGEMENTS,
    **float.ARRANGEMENTS,
    **drawer.ARRANGEMENTS,
    **gates.ARRANGEMENTS,
    **consent.ARRANGEMENTS,
}
"""By their keys, in the order in which they are offered."""
