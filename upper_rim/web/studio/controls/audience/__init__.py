"""With what is each kind of condition about visitors changed? A module for each."""

from __future__ import annotations

from . import asks_for, came_from, device, in_period, in_region, member, not_closed, prefers, unseen, visits
from .field import ConditionControls

CONTROLS_OF: dict[str, ConditionControls] = {
    "visits": visits.CONTROLS,
    "unseen": unseen.CONTROLS,
    "not-closed": not_closed.CONTROLS,
    "came-from": came_from.CONTROLS,
    "member": member.CONTROLS,
    "asks-for": asks_for.CONTROLS,
    "region": in_region.CONTROLS,
    "device": device.CONTROLS,
    "prefers": prefers.CONTROLS,
    "period": in_period.CONTROLS,
}
"""By kind, as they are offered."""
