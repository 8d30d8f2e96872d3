"""At a time: between two moments, each year, on some weekdays, at some hours."""

from __future__ import annotations

from calendar import isleap
from collections.abc import Iterable, Iterator, Sequence
from datetime import UTC, datetime, time, timedelta
from typing import Annotated, ClassVar, Literal, Self
from zoneinfo import ZoneInfo

from pydantic import Field, JsonValue, StringConstraints, model_validator

from ..period import Moment
from ..visitor import Looking
from .condition import Around, Case, Knows, Spoken, VisitorCondition

Weekday = Literal["mon", "tue", "wed", "thu", "fri", "sat", "sun"]
WEEKDAYS: tuple[Weekday, ...] = ("mon", "tue", "wed", "thu", "fri", "sat", "sun")
MIDNIGHT = time()
Hour = Annotated[str, StringConstraints(pattern=r"^([01]\d|2[0-3]):[0-5]\d$")]


_STARTS = datetime(2026, 6, 15, 12, tzinfo=UTC)
_VISITORS = "UTC"
"""Where somebody is looked for whose own clock counts."""


class InPeriod(VisitorCondition):
    """What is said of it all holds at once. The last moment is no longer in it; nor is the last of the hours, which may
    lie after midnight: then they belong to the day on which they began. `yearly`: from the one day of the year to the
    other, also over its end, whatever year is said. In the site's time zone, or in the visitor's."""

    KNOWN_BY: ClassVar[Knows] = "the clock"
    kind: Literal["period"] = "period"
    begins: Moment | None = None
    ends: Moment | None = None
    yearly: bool = False
    weekdays: Annotated[tuple[Weekday, ...], Field(max_length=7)] = ()
    from_hour: Hour | None = None
    to_hour: Hour | None = None
    zone_of: Literal["site", "visitor"] = "site"

    @model_validator(mode="after")
    def _is_a_period(self) -> Self:
        if not (self.begins or self.ends or self.weekdays or self.from_hour or self.to_hour):
            raise ValueError("say from when, until when, on which weekdays or at which hours")
        if (self.from_hour is None) != (self.to_hour is None) or (self.from_hour and self.from_hour == self.to_hour):
            raise ValueError("hours have a beginning and another end")
        if self.yearly and not (self.begins and self.ends):
            raise ValueError("what comes each year has a beginning and an end")
        for moment in (self.begins, self.ends):
            if moment is not None:
                datetime.fromisoformat(moment)
        if self.begins and self.ends and not self.yearly and self.ends <= self.begins:
            raise ValueError("it ends before it begins")
        return self

    def holds(self, looking: Looking) -> bool:
        zone = looking.zone if self.zone_of == "site" else looking.card.zone
        return self.holds_at(looking.at, zone)

    def holds_at(self, at: datetime, zone: str) -> bool:
        wall = at.astimezone(ZoneInfo(zone))
        clock, day = wall.strftime("%H:%M"), wall.weekday()
        if self.from_hour is not None and self.to_hour is not None:
            if not _between(clock, self.from_hour, self.to_hour):
                return False
            if self.to_hour < self.from_hour and clock < self.to_hour:
                day = (day - 1) % 7
        if self.weekdays and WEEKDAYS[day] not in self.weekdays:
            return False
        if self.yearly and self.begins and self.ends:
            return _between(wall.strftime("%m-%dT%H:%M"), self.begins[5:], self.ends[5:])
        after = self.begins is None or instant_in(self.begins, zone) <= at
        return after and (self.ends is None or at < instant_in(self.ends, zone))

    @classmethod
    def cases(cls, wanted: Sequence[Self], unwanted: Sequence[Self], around: Around) -> Iterator[Case]:
        begun = [_STARTS if around.after is None else around.after]
        for one in (*wanted, *unwanted):
            zone = around.zone if one.zone_of == "site" else _VISITORS
            begun += [moment for end in (one.begins, one.ends) if end for moment in one._moments(end, zone)]
        hours = dict.fromkeys(hour for one in (*wanted, *unwanted) for hour in (one.from_hour, one.to_hour) if hour)
        for moment in begun:
            for at in _about(moment, hours, around.zone):
                if around.after is None or at >= around.after:
                    yield {"clock": f"{at.astimezone(UTC):%Y-%m-%dT%H:%MZ}", "zone": _VISITORS}

    def _moments(self, end: Moment, zone: str) -> Iterator[datetime]:
        """A moment and the minute before it; of what comes each year so many years, that each day of the year has been
        each day of the week."""
        years = range(2026, 2026 + 28) if self.yearly else (int(end[:4]),)
        for year in years:
            if end[5:10] == "02-29" and not isleap(year):
                continue
            at = instant_in(f"{year:04}{end[4:]}", zone)
            yield from (at, at - timedelta(minutes=1))

    def told(self, zone: str) -> list[JsonValue]:
        begins, ends = (
            "" if moment is None else moment[5:] if self.yearly else self._written(moment, zone)
            for moment in (self.begins, self.ends)
        )
        days: list[JsonValue] = [WEEKDAYS.index(day) for day in self.weekdays]
        hours = (self.from_hour or "", self.to_hour or "")
        return [begins, ends, int(self.yearly), days, *hours, zone if self.zone_of == "site" else ""]

    def _written(self, moment: Moment, zone: str) -> JsonValue:
        """In the site's zone as milliseconds since the epoch; the visitor's clock is read where it is."""
        return moment if self.zone_of == "visitor" else round(instant_in(moment, zone).timestamp() * 1000)

    def in_words(self, spoken: Spoken = str) -> str:
        said = [
            f"{word} {_in_words(moment, with_year=not self.yearly)}"
            for word, moment in (("from", self.begins), ("until", self.ends))
            if moment
        ]
        if self.yearly:
            said.append("each year")
        if self.weekdays:
            said.append("on " + ", ".join(day.capitalize() for day in WEEKDAYS if day in self.weekdays))
        if self.from_hour:
            said.append(f"{self.from_hour} to {self.to_hour}")
        return " ".join(said) + (" by their own clock" if self.zone_of == "visitor" else "")


def instant_in(moment: Moment, zone: str) -> datetime:
    """The moment as a clock there shows it. One that is left out when clocks go forward is as much later; of one that
    comes twice the first is meant (so does ECMAScript, 21.4.1.26)."""
    return datetime.fromisoformat(moment).replace(tzinfo=ZoneInfo(zone), fold=0).astimezone(UTC)


_MONTHS = ("Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec")


def _in_words(moment: Moment, *, with_year: bool) -> str:
    at = datetime.fromisoformat(moment)
    year = f" {at.year}" if with_year else ""
    return f"{at.day} {_MONTHS[at.month - 1]}{year}" + (f" {at:%H:%M}" if at.time() != MIDNIGHT else "")


def _about(moment: datetime, hours: Iterable[str], zone: str) -> Iterator[datetime]:
    """The moment and the days behind and before it, at that time and at these hours."""
    for days in (*range(8), *range(-7, 0)):
        later = moment + timedelta(days=days)
        yield later
        wall = later.astimezone(ZoneInfo(zone))
        for hour in hours:
            at = wall.replace(hour=int(hour[:2]), minute=int(hour[3:]))
            yield from (at, at - timedelta(minutes=1))


def _between(now: str, begins: str, ends: str) -> bool:
    """On a circle: a day, or a year."""
    return begins <= now < ends if begins < ends else now >= begins or now < ends
