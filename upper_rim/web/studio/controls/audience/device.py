"""With what is the condition changed that somebody points in a way, or has a screen of a size?"""

from __future__ import annotations

from .....core.conditions.audience.device import Device
from .....core.model.site import Site
from .field import ConditionControls, Field

_POINTERS = (("", "any pointer"), ("touch", "a finger"), ("mouse", "a mouse"))


def _fields(condition: Device, site: Site) -> list[Field]:
    return [
        Field("choice", "pointer", "Points with", condition.pointer, _POINTERS),
        Field("number", "from_px", "Screen from", condition.from_px, hint="any", unit="px"),
        Field("number", "to_px", "up to", condition.to_px, hint="any", unit="px"),
    ]


CONTROLS = ConditionControls("Pointer and screen", lambda site: {"pointer": "touch"}, _fields)
