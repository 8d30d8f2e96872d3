"""With what is the condition changed that somebody comes for the n-th time?"""

from __future__ import annotations

from .....core.conditions.audience.visits import Visits
from .....core.model.site import Site
from .field import ConditionControls, Field


def _fields(condition: Visits, site: Site) -> list[Field]:
    return [
        Field("number", "first", "From visit", condition.first),
        Field("number", "last", "up to", condition.last, hint="any"),
    ]


CONTROLS = ConditionControls("Visits", lambda site: {"first": 1, "last": 1}, _fields)
