"""Generated visitors and audiences, from all that the model allows."""

from __future__ import annotations

from datetime import UTC, datetime, timedelta
from random import Random
from typing import Any, get_args

from upper_rim.core.conditions.audience import AUDIENCE_KINDS, AnyCondition
from upper_rim.core.conditions.audience.audience import Audience
from upper_rim.core.conditions.audience.in_period import WEEKDAYS, InPeriod
from upper_rim.core.conditions.visitor import Preference, Remembered, Told, VisitorCard

LANGUAGES = ("en", "en-GB", "de", "de-AT", "de-CH-1996", "cy", "ar", "zh-Hant-TW", "fr")
REGIONS = ("DE", "DE-BY", "GB", "GB-WLS", "AT", "US-CA")
GROUPS = ("crossing-club", "crew", "press")
HOSTS = ("island.example", "news.island.example", "search.example", "sland.example")
ZONES = ("UTC", "Europe/London", "Europe/Berlin", "America/St_Johns", "Pacific/Apia", "Australia/Lord_Howe")
PARAMETERS = (("utm_campaign", "winter"), ("utm_campaign", "spring"), ("ref", ""))
TURNS = (
    datetime(2026, 3, 29, 1, tzinfo=UTC),
    datetime(2026, 10, 25, 1, tzinfo=UTC),
    datetime(2026, 3, 8, 5, 30, tzinfo=UTC),
    datetime(2026, 12, 31, 23, tzinfo=UTC),
    datetime(2026, 4, 4, 15, tzinfo=UTC),
)
"""Moments near which clocks are put forward or back somewhere, or a year ends."""
NODES = ("pc-0", "pc-1", "pc-2", "pc-3")


def some_moment(chance: Random) -> datetime:
    return chance.choice(TURNS) + timedelta(minutes=chance.randrange(-4 * 24 * 60, 4 * 24 * 60, 15))


def any_card(chance: Random, node: str = "vc-a") -> VisitorCard:
    def remembered() -> tuple[Remembered, ...]:
        made = chance.sample(NODES, chance.randrange(3))
        return tuple(Remembered(node=one, days=chance.choice([0, 1, 6, 7, 29, 30, 400])) for one in made)

    return VisitorCard(
        id=node,
        width_px=chance.choice([320, 390, 760, 1280, 1920]),
        pointer=chance.choice(["mouse", "touch"]),
        languages=tuple(chance.sample(LANGUAGES, chance.randrange(1, 4))),
        region=chance.choice(["", *REGIONS]),
        groups=chance.choice([None, (), tuple(chance.sample(GROUPS, 2))]),
        visit=chance.choice([1, 1, 2, 3, 10]),
        came_from=chance.choice(["", *HOSTS]),
        came_with=tuple(Told(name=name, value=value) for name, value in chance.sample(PARAMETERS, chance.randrange(2))),
        came_days=chance.choice([0, 0, 3, 40]),
        prefers=tuple(chance.sample(get_args(Preference), chance.randrange(3))),
        shuts=remembered(),
        saw=remembered(),
        clock=some_moment(chance).strftime("%Y-%m-%dT%H:%MZ"),
        zone=chance.choice(ZONES),
        has_script=chance.random() < 0.9,
    )


def any_condition(chance: Random) -> AnyCondition:
    kind: Any = chance.choice(AUDIENCE_KINDS)
    return kind(**_FIELDS[kind.model_fields["kind"].default](chance))


def any_audience(chance: Random) -> Audience:
    if chance.random() < 0.4:
        return Audience()
    parts: dict[str, tuple[AnyCondition, ...]] = {
        name: tuple(any_condition(chance) for _ in range(chance.choice([0, 0, 1, 2])))
        for name in ("every", "some", "none")
    }
    return Audience(**parts)


def any_period(chance: Random) -> InPeriod:
    return InPeriod(**_period(chance))


def _period(chance: Random) -> dict[str, Any]:
    begins, ends = sorted(some_moment(chance).strftime("%Y-%m-%dT%H:%M") for _ in range(2))
    made: dict[str, Any] = {"zone_of": chance.choice(["site", "visitor"])}
    kind = chance.randrange(5)
    if begins < ends and kind < 3:
        said = chance.choice([("begins",), ("ends",), ("begins", "ends")])
        made |= {name: {"begins": begins, "ends": ends}[name] for name in said}
    elif begins != ends and kind == 3:
        made |= dict(zip(("begins", "ends"), chance.sample([begins, ends], 2), strict=True)) | {"yearly": True}
    if chance.random() < 0.5 or len(made) == 1:
        made["weekdays"] = tuple(chance.sample(WEEKDAYS, chance.randrange(1, 4)))
    if chance.random() < 0.4:
        made["from_hour"], made["to_hour"] = chance.sample(["00:00", "01:30", "08:00", "18:00", "22:00"], 2)
    return made


def _came(chance: Random) -> dict[str, Any]:
    name, value = chance.choice(PARAMETERS)
    hosts = tuple(chance.sample(HOSTS, chance.randrange(3)))
    link = {"parameter": name, "value": chance.choice(["", value])} if not hosts or chance.random() < 0.4 else {}
    return {"hosts": hosts, **link, "days": chance.choice([0, 3, 30])}


def _device(chance: Random) -> dict[str, Any]:
    return chance.choice(
        [{"pointer": "touch"}, {"pointer": "mouse", "from_px": 760}, {"to_px": 760}, {"from_px": 320, "to_px": 1280}]
    )


_FIELDS: dict[str, Any] = {
    "asks-for": lambda chance: {"languages": tuple(chance.sample(LANGUAGES, chance.randrange(1, 3)))},
    "region": lambda chance: {"regions": tuple(chance.sample(REGIONS, chance.randrange(1, 3)))},
    "member": lambda chance: {"groups": tuple(chance.sample(GROUPS, chance.randrange(3)))},
    "visits": lambda chance: {"first": chance.choice([1, 2, 3]), "last": chance.choice([None, 3, 10])},
    "unseen": lambda chance: {"days": chance.choice([1, 7, 30])},
    "came-from": _came,
    "device": _device,
    "prefers": lambda chance: {"what": chance.choice(get_args(Preference))},
    "not-closed": lambda chance: {"days": chance.choice([1, 7, 30]), "until_changed": chance.random() < 0.5},
    "period": _period,
}
