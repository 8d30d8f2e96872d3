"""With what is the condition changed that somebody has not closed it?"""

from __future__ import annotations

from .....core.conditions.audience.not_closed import NotClosed
from .....core.model.site import Site
from .field import ConditionControls, Field


def _fields(condition: NotClosed, site: Site) -> list[Field]:
    return [
        Field("number", "days", "Once closed, it stays away for", condition.days, unit="days"),
        Field("yes", "until_changed", "or until it says something else", condition.until_changed),
    ]


CONTROLS = ConditionControls("Not closed", lambda site: {"days": 30}, _fields)
