"""States of gates, in words."""

from __future__ import annotations

from ....core.gates.guards import states_of
from ....core.kinds.context import GateState
from ....core.kinds.pieces.gate import Gate
from ....core.model.site import Site

WORDS: dict[GateState, str] = {
    "asked": "It asks",
    "wrong": "Wrong answer",
    "waiting": "Too often wrong",
    "refused": "Refused",
}


def states_shown(gate: Gate, site: Site) -> dict[str, str]:
    """Those in which it can be met."""
    return {state: WORDS[state] for state in states_of(gate, site)}
