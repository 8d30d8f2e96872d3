"""A question about age."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from ...conditions.visitor import Group, Region
from ...values.nodes import Value
from .gate import Gate


class AgeByRegion(Value):
    region: Region
    years: Annotated[int, Field(ge=1, le=99)]


class AgeGate(Gate):
    """Passed by who is old enough where they are. Of a date of birth nothing is kept but that somebody has passed."""

    NAME = "Age gate"

    kind: Literal["age"] = "age"
    years: Annotated[int, Field(ge=1, le=99)] = 18
    by_region: tuple[AgeByRegion, ...] = Field(default=(), description="Other ages, by where somebody is.")
    excused: tuple[Group, ...] = Field(default=(), description="Groups of members that are not asked.")
    lets_crawlers_in: bool = Field(
        default=False, description="Programs that say of themselves that they search get the pages unasked."
    )
