"""What is found about who is shown what, and whether an audience takes in anybody."""

from __future__ import annotations

from datetime import UTC, datetime
from random import Random
from typing import Any

import pytest
from pydantic import TypeAdapter

from tests.visitors import any_audience, any_card
from upper_rim.core.conditions.audience.audience import Audience
from upper_rim.core.conditions.audience.condition import Around
from upper_rim.core.conditions.audience.somebody import somebody
from upper_rim.core.conditions.below import Below
from upper_rim.core.conditions.visitor import Looking, VisitorCard
from upper_rim.core.findings.checks.shown.visibility import in_visibility
from upper_rim.core.findings.words import finding_words
from upper_rim.core.kinds.items.search import SearchBox
from upper_rim.core.kinds.pieces.base import ReachRule
from upper_rim.core.kinds.pieces.footer import Footer
from upper_rim.core.kinds.pieces.header import Header
from upper_rim.core.kinds.rows import Cell, Row
from upper_rim.core.model.site import Band, Page, Site
from upper_rim.core.reach.coverage import Coverage
from upper_rim.demo import ostrey

from .test_reach import generated

NOW = datetime(2026, 11, 29, 12, tzinfo=UTC)
LANGUAGES = ("en", "de", "cy")


@pytest.mark.parametrize("seed", range(150))
def test_somebody_is_found_wherever_there_is_somebody(seed: int) -> None:
    chance = Random(seed)
    audience = any_audience(chance)
    found = somebody(audience, Around(LANGUAGES, "Europe/London", "pc-0"))

    def takes_in(card: VisitorCard) -> bool:
        return audience.takes_in(Looking(card, LANGUAGES, "Europe/London", "pc-0"))

    if found is not None:
        assert takes_in(found)
    else:
        assert not any(takes_in(any_card(chance)) for _ in range(300))


PERIOD = {"kind": "period"}


@pytest.mark.parametrize(
    ("said", "kind"),
    [
        ({"every": [{"kind": "visits", "first": 1, "last": 1}, {"kind": "visits", "first": 2}]}, "nobody"),
        ({"every": [{"kind": "device", "pointer": "touch"}, {"kind": "device", "pointer": "mouse"}]}, "nobody"),
        ({"every": [{"kind": "device", "to_px": 500}, {"kind": "device", "from_px": 501}]}, "nobody"),
        ({"every": [{"kind": "member", "groups": ["crew"]}], "none": [{"kind": "member"}]}, "nobody"),
        ({"every": [{"kind": "region", "regions": ["GB-WLS"]}], "none": [{"kind": "region", "regions": ["GB"]}]}, "nobody"),
        ({"every": [{"kind": "asks-for", "languages": ["en"]}, {"kind": "asks-for", "languages": ["de"]}]}, "nobody"),
        # The seventh of December 2026 is a Monday.
        ({"every": [PERIOD | {"begins": "2026-12-07T00:00", "ends": "2026-12-10T00:00", "weekdays": ["sat"]}]}, "nobody"),
        # When clocks go forward nobody's shows these.
        ({"every": [PERIOD | {"begins": "2026-03-29T01:10", "ends": "2026-03-29T01:50", "from_hour": "01:00", "to_hour": "01:59"}]}, "nobody"),
        ({"every": [PERIOD | {"begins": "2026-01-01T00:00", "ends": "2026-02-01T00:00"}]}, "past"),
        ({"every": [PERIOD | {"ends": "2026-11-29T12:00"}]}, "past"),
        ({"every": [PERIOD | {"ends": "2026-11-29T12:01"}]}, None),
        ({"every": [PERIOD | {"begins": "2024-02-29T00:00", "ends": "2024-03-01T00:00", "yearly": True}]}, None),
        ({"some": [{"kind": "visits", "first": 2}, PERIOD | {"ends": "2020-01-01T00:00"}]}, None),
        ({"every": [{"kind": "unseen", "days": 7}], "none": [{"kind": "unseen", "days": 30}]}, None),
        ({"every": [{"kind": "unseen", "days": 30}], "none": [{"kind": "unseen", "days": 7}]}, "nobody"),
    ],
)  # fmt: skip
def test_what_nobody_gets_and_whose_time_is_past(said: dict[str, Any], kind: str | None) -> None:
    audience = TypeAdapter(Audience).validate_python(said)
    header = Header(id="pc-a", name="A", reach=(ReachRule(id="rr-a"),), audience=audience)
    everybody = Header(id="pc-b", name="B", reach=(ReachRule(id="rr-b"),))
    site = Site(key="qtest", name="T", zone="Europe/London", pieces=(header, everybody), pages=PAGES)
    assert [one.kind for one in in_visibility(Coverage(site), NOW)] == ([kind] if kind else [])


PAGES = (
    Page(id="pg-de", path="/de/", language="de"),
    *(Page(id=f"pg-{at}", path=path) for at, path in enumerate(("/", "/a/", "/a/b/", "/c/"))),
)


def test_pieces_and_rules_that_do_nothing_and_pages_that_miss_something() -> None:
    rules = (ReachRule(id="rr-a"), ReachRule(id="rr-b", where=Below(path="/gone/")))
    first = Header(id="pc-a", name="A", reach=rules, rows=(searching("a"),), hidden_in=("bd-n",))
    second = Header(id="pc-b", name="B", reach=(ReachRule(id="rr-c"),), hidden_in=("bd-n",))
    footer = Footer(id="pc-f", name="F", reach=(ReachRule(id="rr-f", where=Below(path="/a/")),))
    bands = (Band(id="bd-n", name="Narrow", from_px=0), Band(id="bd-w", name="Wide", from_px=800))
    cards = (VisitorCard(id="vc-a", name="Phone", width_px=390), VisitorCard(id="vc-b", name="Desk"))
    site = Site(key="qtest", name="T", bands=bands, pieces=(first, second, footer), pages=PAGES, cards=cards)
    found = in_visibility(Coverage(site), NOW)
    assert [(one.kind, one.node, one.other) for one in found] == [
        ("no effect", "pc-a", "rr-b"),
        ("never shown", "pc-b", ""),
        ("without header", "site", ""),
        ("without footer", "site", ""),
        ("no way on", "vc-a", ""),
    ]
    words = [finding_words(one, str) for one in found]
    assert words[2].startswith("Pages without a header at Narrow: 5, ") and words[2].endswith(" among them")
    assert words[4].startswith("Pages on which Phone finds neither a menu nor a search: 5, ")


def searching(name: str) -> Row:
    cells = (Cell(id=f"cl-{name}", items=(SearchBox(id=f"it-{name}"),)),)
    return Row(id=f"rw-{name}", cells=cells)


@pytest.mark.parametrize("seed", range(60))
def test_a_rule_without_effect_taken_away_changes_nothing_and_what_never_shows_neither(seed: int) -> None:
    site, chance = generated(seed), Random(seed)
    pieces = tuple(piece.replaced(audience=any_audience(chance)) for piece in site.pieces)
    site = site.replaced(pieces=pieces)
    cards = [any_card(chance) for _ in range(3)]

    def shown(site: Site) -> list[Any]:
        coverage = Coverage(site)
        return [
            [one.piece and one.piece.id for one in coverage.on(page, coverage.gets(card))["header"]]
            for card in cards
            for page in site.pages
        ]

    for one in in_visibility(Coverage(site), NOW):
        if one.kind == "no effect":
            less = tuple(
                piece.replaced(reach=tuple(rule for rule in piece.reach if rule.id != one.other)) for piece in pieces
            )
            assert shown(site.replaced(pieces=less)) == shown(site)
        if one.kind in {"never shown", "nobody"}:
            less = tuple(piece for piece in pieces if piece.id != one.node)
            assert not less or shown(site.replaced(pieces=less)) == shown(site)


def test_the_demo_has_nothing_of_the_kind() -> None:
    site, _ = ostrey()
    assert in_visibility(Coverage(site), NOW) == []
