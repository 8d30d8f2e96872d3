"""With what is the condition changed that somebody is signed in?"""

from __future__ import annotations

from .....core.conditions.audience.member import Member
from .....core.model.site import Site
from .field import ConditionControls, Field


def _fields(condition: Member, site: Site) -> list[Field]:
    said = ", ".join(condition.groups)
    return [Field("listed", "groups", "Of the groups", said, hint="any; or crew, press")]


CONTROLS = ConditionControls("Signed in", lambda site: {"groups": []}, _fields)
