"""The kinds of conditions about visitors. Each is one module: its value, whether it holds, who knows it, its words."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field

from .asks_for import AsksFor
from .came_from import CameFrom
from .condition import VisitorCondition
from .device import Device
from .in_period import InPeriod
from .in_region import InRegion
from .member import Member
from .not_closed import NotClosed
from .prefers import Prefers
from .unseen import Unseen
from .visits import Visits

AUDIENCE_KINDS: tuple[type[VisitorCondition], ...] = (
    AsksFor,
    InRegion,
    Member,
    Visits,
    Unseen,
    CameFrom,
    Device,
    Prefers,
    NotClosed,
    InPeriod,
)

AnyCondition = Annotated[
    AsksFor | InRegion | Member | Visits | Unseen | CameFrom | Device | Prefers | NotClosed | InPeriod,
    Field(discriminator="kind"),
]
