"""Who gets what: each condition by a table, and the outcome by what must hold of any site, page, card and clock."""

from __future__ import annotations

from datetime import UTC, datetime, timedelta
from itertools import pairwise
from random import Random
from zoneinfo import ZoneInfo

import pytest
from pydantic import TypeAdapter, ValidationError

from tests.core.test_reach import generated
from tests.visitors import any_audience, any_card, any_condition, any_period, some_moment
from upper_rim.core.conditions.audience import AUDIENCE_KINDS, AnyCondition
from upper_rim.core.conditions.audience.asks_for import AsksFor, looked_up
from upper_rim.core.conditions.audience.audience import Audience
from upper_rim.core.conditions.audience.came_from import CameFrom
from upper_rim.core.conditions.audience.device import Device
from upper_rim.core.conditions.audience.in_period import InPeriod, instant_in
from upper_rim.core.conditions.audience.in_region import InRegion
from upper_rim.core.conditions.audience.member import Member
from upper_rim.core.conditions.audience.not_closed import NotClosed
from upper_rim.core.conditions.audience.prefers import Prefers
from upper_rim.core.conditions.audience.unseen import Unseen
from upper_rim.core.conditions.audience.visits import Visits
from upper_rim.core.conditions.visitor import Looking, Remembered, Told, VisitorCard
from upper_rim.core.kinds.pieces.base import ReachRule
from upper_rim.core.kinds.pieces.header import Header
from upper_rim.core.model.site import Page, Site
from upper_rim.core.reach.coverage import Coverage, Why

CARD = VisitorCard(id="vc-a")
NEVER = Audience(every=(Device(pointer="touch"),), none=(Device(pointer="touch"),))


@pytest.mark.parametrize(
    ("wanted", "there", "found"),
    [
        (["zh-Hant-CN-x-private1-private2"], ["zh-Hant", "zh"], "zh-hant"),
        (["zh-Hant-CN-x-private1-private2"], ["zh", "zh-Hant-CN"], "zh-hant-cn"),
        (["de-CH-1996"], ["de", "en"], "de"),
        (["de"], ["de-AT"], None),
        (["fr", "EN-gb"], ["en", "de"], "en"),
        (["fr"], ["en"], None),
    ],
)
def test_a_language_is_looked_up_as_the_rfc_says(wanted: list[str], there: list[str], found: str | None) -> None:
    assert looked_up(wanted, there) == found


@pytest.mark.parametrize(
    ("condition", "said", "holds"),
    [
        (AsksFor(languages=("en",)), {"languages": ("de", "en")}, False),
        (AsksFor(languages=("de",)), {"languages": ("fr", "de-AT", "en")}, True),
        (AsksFor(languages=("de",)), {"languages": ("fr",)}, False),
        (InRegion(regions=("GB",)), {"region": "GB-WLS"}, True),
        (InRegion(regions=("GB-WLS",)), {"region": "GB"}, False),
        (InRegion(regions=("GB",)), {"region": ""}, False),
        (Member(), {"groups": ()}, True),
        (Member(), {"groups": None}, False),
        (Member(groups=("crew", "press")), {"groups": ("press",)}, True),
        (Member(groups=("crew",)), {"groups": ("press",)}, False),
        (Visits(last=1), {"visit": 1}, True),
        (Visits(last=1), {"visit": 2}, False),
        (Visits(first=3), {"visit": 3}, True),
        (Visits(first=3), {"visit": 2}, False),
        (Unseen(days=7), {"saw": (Remembered(node="pc-a", days=6),)}, False),
        (Unseen(days=7), {"saw": (Remembered(node="pc-a", days=7),)}, True),
        (Unseen(days=7), {"saw": (Remembered(node="pc-a", days=0),)}, True),
        (Unseen(days=7), {"saw": (Remembered(node="pc-b", days=1),)}, True),
        (CameFrom(hosts=("island.example",)), {"came_from": "news.island.example"}, True),
        (CameFrom(hosts=("island.example",)), {"came_from": "thisland.example"}, False),
        (CameFrom(hosts=("island.example",)), {"came_from": "island.example", "came_days": 1}, False),
        (CameFrom(hosts=("island.example",), days=2), {"came_from": "island.example", "came_days": 2}, True),
        (CameFrom(parameter="c", value="w"), {"came_with": (Told(name="c", value="w"),)}, True),
        (CameFrom(parameter="c", value="w"), {"came_with": (Told(name="c", value="x"),)}, False),
        (CameFrom(parameter="c"), {"came_with": (Told(name="c", value="x"),)}, True),
        (CameFrom(parameter="c"), {}, False),
        (Device(pointer="touch"), {"pointer": "touch"}, True),
        (Device(pointer="touch", to_px=500), {"pointer": "touch", "width_px": 501}, False),
        (Device(from_px=500), {"width_px": 500}, True),
        (Prefers(what="dark"), {"prefers": ("dark",)}, True),
        (Prefers(what="dark"), {}, False),
        (NotClosed(days=30), {}, True),
        (NotClosed(days=30), {"shuts": (Remembered(node="pc-a", days=29),)}, False),
        (NotClosed(days=30), {"shuts": (Remembered(node="pc-a", days=30),)}, True),
        (NotClosed(days=30, until_changed=True), {"shuts": (Remembered(node="pc-a", text="old"),)}, True),
        (NotClosed(days=30, until_changed=True), {"shuts": (Remembered(node="pc-a", text="new"),)}, False),
    ],
)
def test_a_condition_holds_for_whom_it_says(condition: AnyCondition, said: dict[str, object], holds: bool) -> None:
    card = VisitorCard.model_validate({"id": "vc-a", **said})
    assert condition.holds(Looking(card, ("en", "de", "cy"), node="pc-a", text="new")) is holds


@pytest.mark.parametrize(
    ("said", "zone", "moment", "holds"),
    [
        ({"begins": "2026-12-24T18:00"}, "Europe/Berlin", "2026-12-24T16:59Z", False),
        ({"begins": "2026-12-24T18:00"}, "Europe/Berlin", "2026-12-24T17:00Z", True),
        ({"ends": "2026-12-24T18:00"}, "Europe/Berlin", "2026-12-24T17:00Z", False),
        # Half past two is left out on that day: it is meant an hour later.
        ({"begins": "2026-03-29T02:30"}, "Europe/Berlin", "2026-03-29T01:29Z", False),
        ({"begins": "2026-03-29T02:30"}, "Europe/Berlin", "2026-03-29T01:30Z", True),
        # It comes twice on that one: the first is meant.
        ({"begins": "2026-10-25T02:30"}, "Europe/Berlin", "2026-10-25T00:29Z", False),
        ({"begins": "2026-10-25T02:30"}, "Europe/Berlin", "2026-10-25T00:30Z", True),
        ({"begins": "2026-10-25T02:30"}, "Europe/Berlin", "2026-10-25T01:15Z", True),
        ({"weekdays": ("sat", "sun")}, "Pacific/Apia", "2026-11-27T10:59Z", False),
        ({"weekdays": ("sat", "sun")}, "Pacific/Apia", "2026-11-27T11:00Z", True),
        ({"from_hour": "08:00", "to_hour": "18:00"}, "UTC", "2026-11-27T18:00Z", False),
        ({"from_hour": "22:00", "to_hour": "04:00", "weekdays": ("fri",)}, "UTC", "2026-11-28T03:59Z", True),
        ({"from_hour": "22:00", "to_hour": "04:00", "weekdays": ("fri",)}, "UTC", "2026-11-27T03:59Z", False),
        ({"begins": "2020-12-01T00:00", "ends": "2020-02-01T00:00", "yearly": True}, "UTC", "2026-01-31T23:59Z", True),
        ({"begins": "2020-12-01T00:00", "ends": "2020-02-01T00:00", "yearly": True}, "UTC", "2026-02-01T00:00Z", False),
    ],
)
def test_a_period_is_meant_as_the_clock_on_the_wall_shows_it(
    said: dict[str, object], zone: str, moment: str, holds: bool
) -> None:
    period = InPeriod.model_validate(said)
    assert period.holds(Looking(CARD.replaced(clock=moment), (), zone)) is holds
    by_their_clock = period.replaced(zone_of="visitor")
    assert by_their_clock.holds(Looking(CARD.replaced(clock=moment, zone=zone), (), "America/St_Johns")) is holds


@pytest.mark.parametrize("seed", range(60))
def test_a_period_without_weekdays_and_hours_is_one_stretch_of_time(seed: int) -> None:
    """Told by the clock on the wall it would begin twice in the night in which clocks are put back."""
    chance = Random(seed)
    period = any_period(chance)
    if period.yearly or period.weekdays or period.from_hour or period.to_hour:
        return
    zone = chance.choice(["Europe/Berlin", "America/St_Johns", "Australia/Lord_Howe"])
    start = some_moment(chance)
    held = [period.holds_at(start + timedelta(minutes=15 * at), zone) for at in range(400)]
    assert sum(before != after for before, after in pairwise(held)) <= 2
    for edge in (period.begins, period.ends):
        if edge is not None:
            wall = instant_in(edge, zone).astimezone(ZoneInfo(zone)).replace(tzinfo=None)
            said = datetime.fromisoformat(edge)
            assert timedelta(0) <= wall - said <= timedelta(hours=1)


@pytest.mark.parametrize(
    "said",
    [
        {"kind": "period"},
        {"kind": "period", "begins": "2026-02-30T10:00"},
        {"kind": "period", "begins": "2026-03-02T10:00", "ends": "2026-03-01T10:00"},
        {"kind": "period", "from_hour": "10:00"},
        {"kind": "period", "from_hour": "10:00", "to_hour": "10:00"},
        {"kind": "period", "begins": "2026-03-02T10:00", "yearly": True},
        {"kind": "visits", "first": 3, "last": 2},
        {"kind": "came-from"},
        {"kind": "came-from", "hosts": ["https://island.example/"]},
        {"kind": "device"},
        {"kind": "device", "from_px": 900, "to_px": 400},
        {"kind": "region", "regions": ["Germany"]},
        {"kind": "asks-for", "languages": []},
    ],
)
def test_what_says_nothing_or_contradicts_itself_is_refused(said: dict[str, object]) -> None:
    with pytest.raises(ValidationError):
        TypeAdapter(AnyCondition).validate_python(said)


@pytest.mark.parametrize("said", [{"zone": "Europe/Ostrey"}, {"clock": "2026-02-30T10:00Z"}, {"region": "de"}])
def test_a_card_tells_of_somebody_who_can_be(said: dict[str, object]) -> None:
    with pytest.raises(ValidationError):
        VisitorCard.model_validate({"id": "vc-a", **said})


@pytest.mark.parametrize("kind", AUDIENCE_KINDS, ids=lambda kind: kind.model_fields["kind"].default)
def test_each_condition_has_words_and_is_read_as_it_was_written(kind: type) -> None:
    chance, adapter = Random(3), TypeAdapter(AnyCondition)
    made = [one for one in (any_condition(chance) for _ in range(400)) if isinstance(one, kind)]
    assert len(made) > 10
    for one in made:
        assert adapter.validate_json(adapter.dump_json(one)) == one
        words = one.in_words()
        assert words.startswith(("those ", "members ", "from ", "until ", "on ", "0", "1", "2")) and not words.endswith(
            " "
        )
    assert len({one.in_words() for one in made}) > 1


def sited(seed: int) -> tuple[Site, Random]:
    """With audiences: on each piece of a generated site."""
    chance = Random(seed * 7 + 1)
    site = generated(seed)
    pieces = tuple(piece.replaced(audience=any_audience(chance)) for piece in site.pieces)
    return site.replaced(pieces=pieces, zone=chance.choice(["UTC", "Europe/Berlin"])), chance


def shown(site: Site, card: VisitorCard) -> list[tuple[str, str | None, str | None]]:
    coverage = Coverage(site)
    gets = coverage.gets(card)
    return [
        (page.id, band, outcome.piece.id if outcome.piece else None)
        for page in site.pages
        for band, outcome in zip(coverage.bands, coverage.on(page, gets)["header"], strict=True)
    ]


@pytest.mark.parametrize("seed", range(120))
def test_the_first_that_is_for_them_shows_by_rule_then_audience_then_order(seed: int) -> None:
    site, chance = sited(seed)
    card = any_card(chance)
    gets = Coverage(site).gets(card)
    for page in site.pages:
        for band in ("bd-n", "bd-w"):
            # Each piece alone tells by which rule it would show there.
            alone = []
            for at, piece in enumerate(site.pieces):
                free = piece.replaced(audience=Audience())
                outcome = Coverage(site.replaced(pieces=(free,))).on(page)["header"][band == "bd-w"]
                if outcome.piece is not None and outcome.rule is not None:
                    strength = outcome.rule.where.strength
                    alone.append((strength, piece.audience.narrowness, -at, piece))
            wanted = max((one for one in alone if one[3].id in gets), default=None, key=lambda one: one[:3])
            outcome = Coverage(site).on(page, gets)["header"][band == "bd-w"]
            assert outcome.piece is (wanted[3] if wanted else None)
            before = [one for one in alone if wanted is None or one[:3] > wanted[:3]]
            assert set(outcome.not_for_them) == {one[3].id for one in before}
            after = [one for one in alone if wanted is not None and one[:3] < wanted[:3] and one[3].id in gets]
            assert set(outcome.beaten) == {one[3].id for one in after}
            if wanted is not None and after:
                second = max(after, key=lambda one: one[:3])
                alike = Why.TIE if second[:2] == wanted[:2] else Why.NARROWER
                assert outcome.why is (alike if second[0] == wanted[0] else Why.RULE)


@pytest.mark.parametrize("seed", range(60))
def test_the_outcome_hangs_on_site_page_card_and_clock_alone(seed: int) -> None:
    site, chance = sited(seed)
    cards = [any_card(chance, f"vc-{at}") for at in range(4)]
    together = Coverage(site)
    asked = [(page, card) for page in site.pages for card in cards]
    first = {(page.id, card.id): together.on(page, together.gets(card)) for page, card in asked}
    chance.shuffle(asked)
    again = Coverage(Site.model_validate_json(site.model_dump_json()))
    for page, card in asked:
        assert again.on(page, again.gets(card)) == first[page.id, card.id]


@pytest.mark.parametrize("seed", range(60))
def test_a_piece_that_nobody_gets_changes_nothing(seed: int) -> None:
    site, chance = sited(seed)
    card = any_card(chance)
    nobody = Header(id="pc-nobody", name="N", reach=(ReachRule(id="rr-nobody"),), audience=NEVER)
    at = chance.randrange(len(site.pieces) + 1)
    more = site.replaced(pieces=(*site.pieces[:at], nobody, *site.pieces[at:]))
    assert shown(more, card) == shown(site, card)


@pytest.mark.parametrize("seed", range(120))
def test_what_is_named_as_the_reason_is_the_reason(seed: int) -> None:
    """The rule named, taken away, changes the outcome; the first that is not for them is what others are shown."""
    site, chance = sited(seed)
    card = any_card(chance).replaced(has_script=True)
    coverage = Coverage(site)
    gets = coverage.gets(card)
    for page in site.pages:
        for at, outcome in enumerate(coverage.on(page, gets)["header"]):
            if outcome.rule is not None:
                without = tuple(
                    piece.replaced(reach=tuple(rule for rule in piece.reach if rule is not outcome.rule))
                    for piece in site.pieces
                )
                sets = tuple(
                    one.replaced(rules=tuple(rule for rule in one.rules if rule is not outcome.rule))
                    for one in site.reach_sets
                )
                other = Coverage(site.replaced(pieces=without, reach_sets=sets))
                assert other.on(page, other.gets(card))["header"][at] != outcome
            for name in outcome.not_for_them[:1]:
                found = coverage.on(page, gets | {name})["header"][at]
                assert found.piece is not None and found.piece.id == name


def test_who_gets_nothing_is_told_that_it_is_not_for_them() -> None:
    header = Header(id="pc-a", name="A", reach=(ReachRule(id="rr-a"),), audience=Audience(every=(Member(),)))
    site = Site(key="qtest", name="T", pages=(Page(id="pg-a", path="/"),), pieces=(header,))
    coverage = Coverage(site)
    (outcome,) = coverage.on(site.pages[0], coverage.gets(CARD))["header"]
    assert (outcome.piece, outcome.why, outcome.not_for_them) == (None, Why.NOT_FOR_THEM, ("pc-a",))
    (outcome,) = coverage.on(site.pages[0], coverage.gets(CARD.replaced(groups=())))["header"]
    assert outcome.piece is header
    assert (
        coverage.on(site.pages[0], coverage.gets(CARD.replaced(groups=(), has_script=False)))["header"][0].piece is None
    )
    assert coverage.pieces_on(site.pages[0]) == {"pc-a"}, "somebody is shown it"


def test_a_clock_near_midnight_is_read_in_its_own_zone() -> None:
    looking = Looking(CARD.replaced(clock="2026-12-31T23:30Z"), (), "Pacific/Apia")
    assert looking.wall("Pacific/Apia") == datetime(2027, 1, 1, 12, 30, tzinfo=ZoneInfo("Pacific/Apia"))
    assert looking.at == datetime(2026, 12, 31, 23, 30, tzinfo=UTC)
