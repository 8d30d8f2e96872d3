"""Who looks, from where and when: a visitor as far as a condition may know them, said by a card.

What a browser tells is named as the standards name it: languages in the order of `navigator.languages` (HTML, 8.1.10),
preferences as Media Queries 5 has them, a region by ISO 3166, a time zone by the IANA's database.
"""

from __future__ import annotations

from datetime import UTC, datetime
from functools import lru_cache
from typing import Annotated, Literal, NamedTuple, Self
from zoneinfo import ZoneInfo, available_timezones

from pydantic import AfterValidator, Field, StringConstraints, model_validator

from ..values.nodes import Node, Value
from ..values.words import LanguageTag, Name

Region = Annotated[str, StringConstraints(pattern=r"^[A-Z]{2}(-[A-Z0-9]{1,3})?$")]
"""A country, or a part of one: `DE`, `GB-WLS` (ISO 3166-1 and -2)."""
Group = Annotated[str, StringConstraints(pattern=r"^[a-z][a-z0-9-]{0,39}$")]
"""A group of members."""
Host = Annotated[
    str, StringConstraints(pattern=r"^[a-z0-9]([a-z0-9-]*[a-z0-9])?(\.[a-z0-9]([a-z0-9-]*[a-z0-9])?)*$", max_length=253)
]
Parameter = Annotated[str, StringConstraints(pattern=r"^[A-Za-z0-9_.~-]{1,60}$")]
Instant = Annotated[str, StringConstraints(pattern=r"^\d{4}-[01]\d-[0-3]\dT[0-2]\d:[0-5]\dZ$")]
"""A moment in UTC, to the minute (RFC 3339)."""
Days = Annotated[int, Field(ge=0, le=3650)]
Pointer = Literal["mouse", "touch"]
LEAST_PX, MOST_PX = 280, 7680
"""Of a screen's width."""
Preference = Literal["reduced-motion", "more-contrast", "dark", "reduced-data"]


def is_zone(name: str) -> bool:
    return name in _zones()


def _known_zone(name: str) -> str:
    if not is_zone(name):
        raise ValueError("no time zone is called so: Europe/London, say")
    return name


@lru_cache(maxsize=1)
def _zones() -> frozenset[str]:
    return frozenset(available_timezones())


Zone = Annotated[str, StringConstraints(max_length=60), AfterValidator(_known_zone)]


class Remembered(Value):
    """Something of the site that they closed, or saw, so many days ago. `text`: what it said then, in short."""

    node: str
    days: Days = 0
    text: str = ""


class Told(Value):
    """A parameter of the address that they came by."""

    name: Parameter
    value: Annotated[str, StringConstraints(max_length=200)] = ""


class VisitorCard(Node):
    """A simulated visitor. `groups`: of members; None where they are not signed in. `came_days`: so many days ago they
    came from there, 0 with this visit. `shuts` and `saw`: what the browser remembers."""

    name: Name = "Somebody"
    width_px: Annotated[int, Field(ge=LEAST_PX, le=MOST_PX)] = 1280
    height_px: Annotated[int, Field(ge=200, le=4320)] = 800
    pointer: Pointer = "mouse"
    languages: tuple[LanguageTag, ...] = ("en",)
    region: Region | Literal[""] = ""
    groups: tuple[Group, ...] | None = None
    visit: Annotated[int, Field(ge=1, le=10_000)] = 1
    came_from: Host | Literal[""] = ""
    came_with: tuple[Told, ...] = ()
    came_days: Days = 0
    prefers: tuple[Preference, ...] = ()
    shuts: tuple[Remembered, ...] = ()
    saw: tuple[Remembered, ...] = ()
    clock: Instant = "2026-06-15T12:00Z"
    zone: Zone = "Europe/London"
    has_script: bool = True
    signals: bool = Field(default=False, description="The browser says no to being sold or shared (Sec-GPC).")

    @model_validator(mode="after")
    def _is_a_moment(self) -> Self:
        instant_of(self.clock)
        return self


def instant_of(moment: str) -> datetime:
    """Raises ValueError where there is no such day or time."""
    return datetime.strptime(moment, "%Y-%m-%dT%H:%MZ").replace(tzinfo=UTC)


class Looking(NamedTuple):
    """A visitor on a site. `languages`: the site's; `zone`: the one that its periods are meant in. `text`: of the node
    that is asked about, what it says now, in short."""

    card: VisitorCard
    languages: tuple[str, ...]
    zone: str = "UTC"
    node: str = ""
    text: str = ""

    @property
    def at(self) -> datetime:
        return instant_of(self.card.clock)

    def wall(self, zone: str) -> datetime:
        """What a clock on the wall shows there."""
        return self.at.astimezone(ZoneInfo(zone))
