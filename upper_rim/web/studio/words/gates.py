"""States of gates, in words."""

from __future__ import annotations

from ....core.gates.guards import states_of
from ....core.kinds.context import GateState
from ....core.kinds.pieces.asking import Asking
from ....core.kinds.pieces.consent import ASKED
from ....core.kinds.pieces.gate import Gate
from ....core.model.site import Site

WORDS: dict[GateState, str] = {
    "asked": "It asks",
    "wrong": "Wrong answer",
    "waiting": "Too often wrong",
    "refused": "Refused",
}


def states_shown(piece: Asking, site: Site) -> dict[str, str]:
    """Those in which it can be met."""
    states = states_of(piece, site) if isinstance(piece, Gate) else (ASKED,)
    return {state: WORDS[state] for state in states}
