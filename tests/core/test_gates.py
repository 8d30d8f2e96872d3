"""Consent, age, answers and tries: what they say is what the rules say, at their edges and for anything drawn."""

from __future__ import annotations

from datetime import UTC, date, datetime, timedelta
from itertools import pairwise

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from upper_rim.core.gates.age import age_on, born, comes_of_age, needed_years
from upper_rim.core.gates.answers import Given, in_short, lapsed
from upper_rim.core.gates.attempts import Patience, opens_at
from upper_rim.core.gates.consent import Answer, law_of, rulings, shipped_table
from upper_rim.core.kinds.consent import CATEGORIES, ConsentByRegion, ConsentRules
from upper_rim.core.kinds.pieces.age import AgeByRegion

NOON = datetime(2026, 11, 30, 12, tzinfo=UTC)
DAYS = st.dates(date(1900, 1, 1), date(2100, 12, 31))
REGIONS = st.sampled_from(["", "DE", "GB", "GB-WLS", "US", "US-CA", "US-VA", "CH", "JP", "IS"])
ANSWERS = st.none() | st.sets(st.sampled_from([one.id for one in CATEGORIES])).map(lambda yes: Answer(yes=tuple(yes)))


@pytest.mark.parametrize(
    ("region", "mode", "signal"),
    [
        ("DE", "opt-in", False),
        ("GB-WLS", "opt-in", False),
        ("US-CA", "opt-out", True),
        ("US-VA", "opt-out", False),
        ("US-TX", "notice", False),
        ("", "opt-in", True),
    ],
)
def test_the_law_is_that_of_the_part_then_of_the_country_and_strictest_where_nobody_knows(
    region: str, mode: str, signal: bool
) -> None:
    law = law_of(region)
    assert (law.mode, law.honours_signal) == (mode, signal)


def test_every_line_of_the_table_has_its_source_and_the_table_its_date() -> None:
    table = shipped_table()
    assert date.fromisoformat(table.as_of)
    assert all(law.source for law in table.laws.values())


def test_a_sites_own_word_counts_before_the_table_and_for_the_nearest_region() -> None:
    own = (ConsentByRegion(region="GB", mode="notice"), ConsentByRegion(region="GB-WLS", mode="opt-in"))
    assert [law_of(one, own).mode for one in ("GB", "GB-ENG", "GB-WLS", "DE")] == [
        "notice",
        "notice",
        "opt-in",
        "opt-in",
    ]


@given(REGIONS, ANSWERS, st.booleans(), st.booleans())
def test_nothing_that_needs_a_yes_runs_before_one_and_nothing_after_a_no(
    region: str, answer: Answer | None, signals: bool, heeds: bool
) -> None:
    rules, law = ConsentRules(heeds_signal=heeds), law_of(region)
    found = rulings(CATEGORIES, rules, law, answer, signals=signals)
    for category in CATEGORIES:
        ruling = found[category.id]
        if category.is_necessary:
            assert ruling.runs
        elif answer is not None:
            assert ruling.runs == (category.id in answer.yes)
        elif law.mode == "opt-in":
            assert not ruling.runs
        elif signals and category.is_sold and law.honours_signal:
            assert not ruling.runs, "a law that takes a signal for a no is kept, whatever the site wants"


@given(REGIONS, ANSWERS, st.booleans())
def test_the_reason_that_is_named_is_the_one_that_decides(region: str, answer: Answer | None, signals: bool) -> None:
    rules, law = ConsentRules(), law_of(region)
    for id_, ruling in rulings(CATEGORIES, rules, law, answer, signals=signals).items():
        if ruling.why == "signal":
            assert rulings(CATEGORIES, rules, law, answer, signals=False)[id_].runs
        if ruling.why == "answered no":
            yes = Answer(yes=(*(answer.yes if answer else ()), id_))
            assert rulings(CATEGORIES, rules, law, yes, signals=signals)[id_].runs


@given(DAYS, DAYS, st.integers(1, 99))
def test_somebody_is_of_age_from_the_very_day_on_that_is_told(birth: date, day: date, years: int) -> None:
    assume(day >= birth)
    assert (age_on(birth, day) >= years) == (day >= comes_of_age(birth, years))


def test_who_was_born_on_the_29th_of_february_waits_for_the_first_of_march() -> None:
    birth = date(2008, 2, 29)
    assert comes_of_age(birth, 18) == date(2026, 3, 1)
    assert [age_on(birth, day) for day in (date(2026, 2, 28), date(2026, 3, 1), date(2028, 2, 29))] == [17, 18, 20]


@pytest.mark.parametrize(
    ("year", "month", "day", "fault"),
    [
        (2008, 2, 30, "no such day"),
        (2007, 2, 29, "no such day"),
        (2008, 13, 1, "no such month"),
        (2008, 0, 1, "no such month"),
        (2008, None, 1, "missing"),
        (2026, 12, 1, "still to come"),
        (1800, 1, 1, "too long ago"),
        (0, 1, 1, "too long ago"),
        (99_999, 1, 1, "still to come"),
        (2008, 2, 29, None),
        (2026, 11, 30, None),
    ],
)
def test_a_day_that_cannot_be_is_told_why(year: int, month: int, day: int | None, fault: str | None) -> None:
    found = born(year, month, day, date(2026, 11, 30))
    assert found.fault == fault and (found.day is None) == (fault is not None)


def test_the_age_is_that_of_the_nearest_region() -> None:
    by_region = (AgeByRegion(region="US", years=21), AgeByRegion(region="US-PR", years=18))
    assert [needed_years(18, by_region, one) for one in ("DE", "US", "US-CA", "US-PR", "")] == [18, 21, 21, 18, 18]


def test_an_answer_counts_for_its_days_or_its_visit_and_to_its_question_alone() -> None:
    asked = in_short("Are you 18?", "yes", "no")
    told = Given(NOON, 3, asked)
    day = timedelta(days=1)
    assert lapsed(None, asked, 30, 3, NOON) == "never answered"
    assert lapsed(told, asked, 30, 9, NOON + 30 * day - timedelta(seconds=1)) is None
    assert lapsed(told, asked, 30, 9, NOON + 30 * day) == "too long ago"
    assert lapsed(told, asked, 0, 3, NOON + day) is None and lapsed(told, asked, 0, 4, NOON) == "another visit"
    assert lapsed(told, in_short("Are you 21?", "yes", "no"), 30, 3, NOON) == "the question has changed"
    assert lapsed(told, asked, 30, 3, NOON - day) == "the clock was set back"
    assert in_short("ab", "c") != in_short("a", "bc")


@given(st.integers(1, 6), st.integers(1, 300), st.integers(1, 4000))
def test_so_many_tries_are_heard_and_then_waits_that_grow_to_the_longest(tries: int, wait: int, longest: int) -> None:
    patience, now, wrong, waits = Patience(tries=tries, wait_s=wait, longest_s=longest), NOON, [], []
    for _ in range(4 * tries):
        opens = opens_at(patience, wrong, now)
        if opens is not None:
            waits.append((opens - now).total_seconds())
            assert opens_at(patience, wrong, opens) is None and len(wrong) % tries == 0
            now = opens
        wrong.append(now)
    assert len(waits) == 3 and waits[0] == min(wait, longest)
    assert all(one <= other <= longest for one, other in pairwise(waits))


def test_a_wrong_try_is_forgotten() -> None:
    wrong = [NOON] * 5
    assert opens_at(Patience(), wrong, NOON) == NOON + timedelta(minutes=1)
    assert opens_at(Patience(), wrong, NOON + timedelta(days=1)) is None
