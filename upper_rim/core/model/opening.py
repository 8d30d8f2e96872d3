"""How are opening hours told, in the page's language?"""

from __future__ import annotations

from .items import Day, Hours
from .phrases import phrase

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
