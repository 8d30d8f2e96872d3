"""With what is the condition changed that somebody is in a region?"""

from __future__ import annotations

from .....core.conditions.audience.in_region import InRegion
from .....core.model.site import Site
from .field import ConditionControls, Field


def _fields(condition: InRegion, site: Site) -> list[Field]:
    said = ", ".join(condition.regions)
    return [Field("listed", "regions", "Countries, or parts of them", said, hint="GB, DE-BY: codes of ISO 3166")]


CONTROLS = ConditionControls("Region", lambda site: {"regions": ["GB"]}, _fields)
