"""A timetable: what is in force over days and weeks, and the ends of times, to be dragged."""

from __future__ import annotations

from datetime import datetime, timedelta
from typing import Any, NamedTuple
from zoneinfo import ZoneInfo

from django.http import HttpRequest
from django.utils import timezone

from ....core.conditions.audience.in_period import InPeriod, instant_in
from ....core.kinds.pieces import PIECE_KINDS
from ....core.model.names import node_name
from ....core.model.site import Site
from ....core.reach.coverage import coverage_of
from ....core.reach.timetable import SlotTimes, Span, Timed, days_from
from ....core.reach.timetable import timetable as timetable_of
from ..cycle.screen import Opened, screen
from ..forms.numbers import whole_number
from ..words.languages import language_name

LENGTHS = ((14, "2 weeks"), (28, "4 weeks"), (91, "13 weeks"), (364, "52 weeks"))
USUAL_DAYS = 28
MONTHS = ("Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec")


class Bar(NamedTuple):
    """In % of the axis; `said`: from when to when."""

    at: float
    wide: float
    said: str


class End(NamedTuple):
    """An end of a time that can be dragged: where it is on the axis in %, and in minutes from its beginning."""

    name: str
    at: float
    minutes: int
    said: str


class Line(NamedTuple):
    timed: Timed
    name: str
    audience: str
    bars: list[Bar]
    ends: list[End]
    below: bool


class SlotLines(NamedTuple):
    name: str
    lines: list[Line]
    meets: list[tuple[Bar, str]]
    none: list[Bar]


@screen("studio/board/timetable.html", "board")
def timetable(request: HttpRequest, opened: Opened, made: tuple[str, ...]) -> dict[str, Any]:
    site = opened.site
    asked = {name: request.POST.get(name) or request.GET.get(name) or "" for name in ("from", "days")}
    days = whole_number(asked["days"]) or USUAL_DAYS
    days = days if days in dict(LENGTHS) else USUAL_DAYS
    now = timezone.now()
    first, during = _first_day(asked["from"], days, site, now)
    slots = timetable_of(coverage_of(site), during)
    return {
        "kept": {"from": first, "days": str(days)},
        "first": first,
        "days": days,
        "lengths": [(str(length), words) for length, words in LENGTHS],
        "before": _moved(first, -days),
        "after": _moved(first, days),
        "marks": _marks(during, days, site.zone),
        "now_at": _share(now, during) if during.begin <= now < during.end else None,
        "minutes": round((during.end - during.begin).total_seconds() / 60),
        "slots": [_lines(slot, site, during) for slot in slots],
    }


def _first_day(asked: str, days: int, site: Site, now: datetime) -> tuple[str, Span]:
    """The day asked for, else the Monday of this week."""
    try:
        return asked, days_from(asked, days, site.zone)
    except (ValueError, OverflowError):
        today = now.astimezone(ZoneInfo(site.zone))
        monday = f"{today - timedelta(days=today.weekday()):%Y-%m-%d}"
        return monday, days_from(monday, days, site.zone)


def _moved(first: str, days: int) -> str:
    try:
        return f"{datetime.fromisoformat(first) + timedelta(days=days):%Y-%m-%d}"
    except OverflowError:
        return first


def _lines(slot: SlotTimes, site: Site, during: Span) -> SlotLines:
    names = {piece.id: piece.name for piece in site.pieces}
    lines = [
        Line(
            timed,
            node_name(timed.node, site) if timed.node is not timed.piece else timed.piece.name,
            timed.node.audience.in_words(language_name),
            [_bar(span, during, site.zone) for span in timed.spans],
            _ends(timed, during, site.zone),
            timed.node is not timed.piece,
        )
        for timed in slot.timed
    ]
    meets = [(_bar(span, during, site.zone), f"{names[one]} and {names[other]}") for span, one, other in slot.meets]
    return SlotLines(PIECE_KINDS[slot.slot].NAME, lines, meets, [_bar(span, during, site.zone) for span in slot.none])


def _ends(timed: Timed, during: Span, zone: str) -> list[End]:
    if timed.turned is None:
        return []
    period = timed.node.audience.every[timed.turned]
    assert isinstance(period, InPeriod)
    ends = []
    for name, moment in (("begins", period.begins), ("ends", period.ends)):
        if moment is None:
            continue
        at = instant_in(moment, zone)
        if during.begin <= at <= during.end:
            minutes = round((at - during.begin).total_seconds() / 60)
            ends.append(End(name, _share(at, during), minutes, _told(at, zone)))
    return ends


def _bar(span: Span, during: Span, zone: str) -> Bar:
    at = _share(span.begin, during)
    return Bar(at, round(_share(span.end, during) - at, 3), f"{_told(span.begin, zone)} to {_told(span.end, zone)}")


def _share(at: datetime, during: Span) -> float:
    return round(100 * (at - during.begin) / (during.end - during.begin), 3)


def _told(at: datetime, zone: str) -> str:
    wall = at.astimezone(ZoneInfo(zone))
    return f"{wall:%a} {wall.day} {MONTHS[wall.month - 1]} {wall:%H:%M}"


def _marks(during: Span, days: int, zone: str) -> list[tuple[float, str, bool]]:
    """Days, or weeks where there are many: place, words, and whether it is a weekend's."""
    step = 1 if days <= 28 else 7 if days <= 91 else 28
    begin = during.begin.astimezone(ZoneInfo(zone)).replace(tzinfo=None)
    marks = []
    for day in range(0, days, step):
        wall = begin + timedelta(days=day)
        is_short = days > 14 and step == 1
        words = f"{wall.day}" if is_short else f"{wall:%a} {wall.day}"
        if step > 1 or wall.day == 1 or (day == 0 and not is_short):
            words = f"{wall.day} {MONTHS[wall.month - 1]}"
        marks.append((round(100 * day / days, 3), words, step == 1 and wall.weekday() >= 5))
    return marks
