"""How old is somebody on a day, and can this be the day on which they were born?"""

from __future__ import annotations

from collections.abc import Sequence
from datetime import date
from typing import Literal, NamedTuple

from ..kinds.pieces.age import AgeByRegion

OLDEST = 130
"""Nobody has been older, in years."""
DateFault = Literal["missing", "no such month", "no such day", "still to come", "too long ago"]


class Born(NamedTuple):
    """What was answered: a day, or why it is none."""

    day: date | None
    fault: DateFault | None


def born(year: int | None, month: int | None, day: int | None, today: date) -> Born:
    """`today`: where the visitor is. A day that has not begun there cannot be one."""
    if year is None or month is None or day is None:
        return Born(None, "missing")
    if not 1 <= month <= 12:
        return Born(None, "no such month")
    try:
        found = date(year, month, day)
    except ValueError:
        return Born(None, "no such day" if 1 <= year <= today.year else "too long ago" if year < 1 else "still to come")
    if found > today:
        return Born(None, "still to come")
    if age_on(found, today) > OLDEST:
        return Born(None, "too long ago")
    return Born(found, None)


def age_on(birth: date, day: date) -> int:
    """Whole years. Who was born on 29 February is a year older on 1 March where there is none: never too early."""
    return day.year - birth.year - ((day.month, day.day) < (birth.month, birth.day))


def needed_years(years: int, by_region: Sequence[AgeByRegion], region: str) -> int:
    """The age that is asked for there: that of the part of a country, else of the country, else everywhere's."""
    said = {one.region: one.years for one in by_region}
    return next((said[part] for part in (region, region.partition("-")[0]) if part in said), years)


def comes_of_age(birth: date, years: int) -> date:
    """The first day on which somebody is so old."""
    try:
        return birth.replace(year=birth.year + years)
    except ValueError:
        return date(birth.year + years, 3, 1)
