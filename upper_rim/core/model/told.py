"""How are an item's facts told, in the page's language: opening hours, an address, a place, the years of a copyright?"""

from __future__ import annotations

from ..languages import phrase
from .items import Contact, Copyright, Day, Hours, MapItem

DAY_ORDER: tuple[Day, ...] = ("Mo", "Tu", "We", "Th", "Fr", "Sa", "Su")


def days_in_words(hours: Hours, language: str) -> str:
    """`Mon–Fri`, `Sat, Sun`: three days or more in a row are joined."""
    return joined_days(hours, phrase("days", language).split(), "–", ", ")


def joined_days(hours: Hours, names: list[str], to: str, comma: str) -> str:
    """The days by `names`, Monday's first; three or more in a row as a range."""
    places = sorted({DAY_ORDER.index(day) for day in hours.days})
    runs: list[list[int]] = []
    for place in places:
        if runs and runs[-1][-1] == place - 1:
            runs[-1].append(place)
        else:
            runs.append([place])
    parts = [
        f"{names[run[0]]}{to}{names[run[-1]]}" if len(run) > 2 else comma.join(names[day] for day in run)
        for run in runs
    ]
    return comma.join(parts)


def address_lines(item: Contact) -> list[str]:
    """Name, street, postcode with town; without what is not given."""
    place = " ".join(part for part in (item.postcode, item.town) if part)
    return [line for line in (item.name, item.street, place) if line]


def place_told(item: MapItem) -> str:
    """`52.1234° N, 4.5000° W`."""
    return (
        f"{abs(item.latitude):.4f}° {'N' if item.latitude >= 0 else 'S'}, "
        f"{abs(item.longitude):.4f}° {'E' if item.longitude >= 0 else 'W'}"
    )


def years_told(item: Copyright, year: int | None) -> str:
    """`2019–2026`, `2026`; empty where no year is known. `year`: the present one."""
    first, last = item.first_year, year or item.first_year
    if last is None:
        return ""
    return f"{first}–{last}" if first is not None and first < last else str(last)
