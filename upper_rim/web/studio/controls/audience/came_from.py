"""With what is the condition changed that somebody came from somewhere?"""

from __future__ import annotations

from .....core.conditions.audience.came_from import CameFrom
from .....core.model.site import Site
from .field import ConditionControls, Field


def _fields(condition: CameFrom, site: Site) -> list[Field]:
    return [
        Field("listed", "hosts", "From", ", ".join(condition.hosts), hint="news.example, …"),
        Field("text", "parameter", "or by a link with", condition.parameter, hint="campaign"),
        Field("text", "value", "=", condition.value, hint="any value"),
        Field("number", "days", "Counts for", condition.days, unit="days (0: this visit)"),
    ]


CONTROLS = ConditionControls("Came from", lambda site: {"parameter": "campaign"}, _fields)
