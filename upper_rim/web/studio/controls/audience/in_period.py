"""With what is the condition changed that it is a time?"""

from __future__ import annotations

from datetime import datetime
from zoneinfo import ZoneInfo

from pydantic import JsonValue

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


def _from_today(site: Site) -> dict[str, JsonValue]:
    return {"begins": f"{datetime.now(ZoneInfo(site.zone)):%Y-%m-%d}T00:00"}


CONTROLS = ConditionControls("Time", _from_today, _fields)
