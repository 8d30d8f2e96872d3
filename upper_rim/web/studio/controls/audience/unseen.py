"""With what is the condition changed that somebody has not seen it for some time?"""

from __future__ import annotations

from .....core.conditions.audience.unseen import Unseen
from .....core.model.site import Site
from .field import ConditionControls, Field


def _fields(condition: Unseen, site: Site) -> list[Field]:
    return [Field("number", "days", "Once shown, it rests for", condition.days, unit="days")]


CONTROLS = ConditionControls("Not seen lately", lambda site: {"days": 7}, _fields)
