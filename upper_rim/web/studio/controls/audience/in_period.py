"""With what is the condition changed that it is a time?"""

from __future__ import annotations

from .....core.conditions.audience.in_period import WEEKDAYS, InPeriod
from .....core.model.site import Site
from .field import ConditionControls, Field

_DAYS = [(day, day.capitalize()) for day in WEEKDAYS]


def _fields(condition: InPeriod, site: Site) -> list[Field]:
    zones = (("site", f"by the site’s clock ({site.zone})"), ("visitor", "by the visitor’s clock"))
    return [
        Field("moment", "begins", "From", condition.begins),
        Field("moment", "ends", "until", condition.ends),
        Field("yes", "yearly", "each year", condition.yearly),
        Field("several", "weekdays", "On", condition.weekdays, _DAYS),
        Field("hour", "from_hour", "from", condition.from_hour),
        Field("hour", "to_hour", "to", condition.to_hour),
        Field("choice", "zone_of", "Told", condition.zone_of, zones),
    ]


CONTROLS = ConditionControls("Time", lambda site: {"weekdays": ["sat", "sun"]}, _fields)
