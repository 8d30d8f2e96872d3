"""When is what in force? The spans of a timetable against the conditions themselves, a quarter of an hour at a time."""

from __future__ import annotations

from datetime import timedelta
from itertools import pairwise
from random import Random

import pytest

from tests.visitors import TURNS, ZONES, any_period
from upper_rim.core.conditions.audience.audience import Audience
from upper_rim.core.conditions.audience.in_period import InPeriod
from upper_rim.core.conditions.audience.visits import Visits
from upper_rim.core.conditions.below import Below
from upper_rim.core.kinds.pieces.base import ReachRule
from upper_rim.core.kinds.pieces.notice import Notice
from upper_rim.core.model.site import Page, Site
from upper_rim.core.reach.coverage import Coverage
from upper_rim.core.reach.timetable import Span, days_from, in_force, timetable


@pytest.mark.parametrize("seed", range(150))
def test_what_is_in_force_is_what_the_conditions_say(seed: int) -> None:
    chance = Random(seed)
    zone = chance.choice(ZONES)
    parts = {
        name: tuple(any_period(chance) for _ in range(chance.choice(count)))
        for name, count in (("every", [1, 2]), ("some", [0, 0, 1, 2]), ("none", [0, 0, 1]))
    }
    audience = Audience(every=parts["every"], some=parts["some"], none=parts["none"])
    during = days_from(f"{chance.choice(TURNS) - timedelta(days=3):%Y-%m-%d}", 8, zone)
    spans = in_force(audience, during, zone)
    at = during.begin
    while at < during.end:
        held = all(one.holds_at(at, zone) for one in parts["every"])
        held &= not parts["some"] or any(one.holds_at(at, zone) for one in parts["some"])
        held &= not any(one.holds_at(at, zone) for one in parts["none"])
        assert held == any(span.begin <= at < span.end for span in spans), at
        at += timedelta(minutes=15)
    for one, other in pairwise(spans):
        assert one.end < other.begin, "what adjoins is one"


def notice(name: str, audience: Audience, path: str = "/", **more: str) -> Notice:
    reach = (ReachRule(id=f"rr-{name}", where=Below(path=path)),)
    return Notice(id=f"pc-{name}", name=name, reach=reach, audience=audience, **more)  # type: ignore[arg-type]


def during(begins: str, ends: str) -> Audience:
    return Audience(every=(Visits(), InPeriod(begins=begins, ends=ends)))


def test_where_two_meet_and_where_there_is_none() -> None:
    pages = (Page(id="pg-a", path="/a/"), Page(id="pg-b", path="/b/"))
    first = notice("first", during("2026-12-01T00:00", "2026-12-04T00:00"), "/a/")
    second = notice("second", during("2026-12-03T00:00", "2026-12-06T00:00"), "/a/")
    apart = notice("apart", Audience(), "/b/", shows_from="2026-12-03T00:00", shows_until="2026-12-05T12:00")
    site = Site(key="qtest", name="T", pages=pages, pieces=(first, second, apart))
    week = days_from("2026-12-01", 7, "UTC")

    def days(span: Span) -> tuple[int, int]:
        return span.begin.day, span.end.day

    (slot,) = timetable(Coverage(site), week)
    assert [(one.node.id, one.turned, [days(span) for span in one.spans]) for one in slot.timed] == [
        ("pc-first", 1, [(1, 4)]),
        ("pc-second", 1, [(3, 6)]),
        ("pc-apart", None, [(3, 5)]),
    ]
    assert [(days(span), one, other) for span, one, other in slot.meets] == [((3, 4), "pc-first", "pc-second")]
    assert [days(span) for span in slot.none] == [(6, 8)]
    always = site.replaced(pieces=(*site.pieces, notice("always", Audience())))
    assert timetable(Coverage(always), week)[0].none == ()
    assert timetable(Coverage(site.replaced(pieces=(notice("always", Audience()),))), week) == []
