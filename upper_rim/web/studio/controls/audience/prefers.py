"""With what is the condition changed that somebody asked their system for something?"""

from __future__ import annotations

from .....core.conditions.audience.prefers import PREFERENCES, Prefers
from .....core.model.site import Site
from .field import ConditionControls, Field


def _fields(condition: Prefers, site: Site) -> list[Field]:
    return [Field("choice", "what", "Asks for", condition.what, list(PREFERENCES.items()))]


CONTROLS = ConditionControls("Preference", lambda site: {"what": "dark"}, _fields)
