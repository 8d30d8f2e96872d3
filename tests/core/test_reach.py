"""Which piece shows where, and why: checked against the rule said plainly, over generated sites."""

from __future__ import annotations

import random
import re
from typing import get_args

import pytest

from upper_rim.core.conditions import PLACES
from upper_rim.core.conditions.below import Below
from upper_rim.core.conditions.everywhere import Everywhere
from upper_rim.core.conditions.in_language import InLanguage
from upper_rim.core.conditions.matching import Matching
from upper_rim.core.conditions.of_kind import OfKind, PageKind
from upper_rim.core.conditions.on_page import OnPage
from upper_rim.core.conditions.tagged import Tagged
from upper_rim.core.kinds.pieces.base import ReachRule, ReachSet
from upper_rim.core.kinds.pieces.header import Header
from upper_rim.core.kinds.pieces.notice import Notice
from upper_rim.core.model.site import Band, Page, Site, Splice
from upper_rim.core.output.page.compose import Composer
from upper_rim.core.reach.coverage import Coverage, Why, coverage_of, in_words, sorted_by_rules
from upper_rim.demo import ostrey
from upper_rim.shipped import shelf

PATHS = ["/", "/a/", "/a/b/", "/a/b/c/", "/a/b.html", "/ab/", "/press/", "/press/x/"]
BANDS = (Band(id="bd-n", name="Narrow", from_px=0), Band(id="bd-w", name="Wide", from_px=800))


def generated(seed: int) -> Site:
    chance = random.Random(seed)
    count = iter(range(1000))

    def rule() -> ReachRule:
        where = chance.choice(
            [
                Everywhere(),
                InLanguage(language=chance.choice(["de", "de-AT", "en"])),
                Below(path=chance.choice(PATHS)),
                Matching(path=chance.choice(["/*/", "/a/*/", "/*/b/", "/a/*/c/", "/*/x/"])),
                OfKind(which=chance.choice(get_args(PageKind))),
                OnPage(page=f"pg-{chance.randrange(8)}"),
                Tagged(tag="t"),
            ]
        )
        return ReachRule(id=f"rr-{next(count)}", shows=chance.random() < 0.7, where=where)

    pages = tuple(
        Page(
            id=f"pg-{at}",
            path=path,
            tags=("t",) if chance.random() < 0.4 else (),
            language=chance.choice(["en", "de", "de-AT", "ab"]),
            dated=chance.choice([None, None, "2026-11-02"]),
            splice=Splice(head_at=0, body_at=0, has_form=chance.random() < 0.4),
            bare=chance.random() < 0.1,
        )
        for at, path in enumerate(sorted(PATHS))
    )
    sets = tuple(
        ReachSet(id=f"rs-{at}", name=f"S{at}", rules=tuple(rule() for _ in range(chance.randrange(3))))
        for at in range(2)
    )
    pieces = tuple(
        Header(
            id=f"pc-{at}",
            name=f"P{at}",
            on=chance.random() < 0.9,
            hidden_in=("bd-n",) if chance.random() < 0.3 else (),
            reach=tuple(rule() for _ in range(chance.randrange(4))),
            reach_sets=tuple(chance.sample(["rs-0", "rs-1"], chance.choice([0, 0, 1, 2]))),
        )
        for at in range(4)
    )
    return Site(key="qtest", name="T", pages=pages, pieces=pieces, bands=BANDS, reach_sets=sets)


def plainly(site: Site, page: Page, band: str) -> str | None:
    """The same rule in its plainest form: strongest rule of each piece, then strongest piece, first in order."""

    def strength(rule: ReachRule) -> tuple[int, int] | None:
        match rule.where:
            case OnPage(page=page_id):
                return (5, 0) if page_id == page.id else None
            case OfKind(which="front"):
                return (4, 0) if page.path in {"/", f"/{page.language}/"} else None
            case OfKind(which="form"):
                return (4, 0) if page.splice and page.splice.has_form else None
            case OfKind(which="dated"):
                return (4, 0) if page.dated else None
            case OfKind():
                return None
            case Tagged(tag=tag):
                return (3, 0) if tag in page.tags else None
            case Below(path=path):
                inside = (page.path.rstrip("/") + "/").startswith(path.rstrip("/") + "/")
                return (2, 2 * path.rstrip("/").count("/")) if inside else None
            case Matching(path=path):
                inside = re.match(path.rstrip("/").replace("*", "[^/]+") + "/", page.path.rstrip("/") + "/")
                return (2, 2 * path.rstrip("/").count("/") - 1) if inside else None
            case InLanguage(language=language):
                same = page.language == language or page.language.startswith(f"{language}-")
                return (1, language.count("-")) if same else None
            case _:
                return (0, 0)

    best: tuple[tuple[int, int], str] | None = None
    for piece in site.pieces:
        used = [rule for one in site.reach_sets if one.id in piece.reach_sets for rule in one.rules]
        rules = [*piece.reach, *used]
        matching = [(strength(rule), not rule.shows, rule) for rule in rules if strength(rule) is not None]
        if not piece.on or page.bare or not matching or band in piece.hidden_in:
            continue
        strong, _, rule = max(matching, key=lambda found: (found[0], found[1]))
        assert strong is not None
        if rule.shows and (best is None or strong > best[0]):
            best = (strong, piece.id)
    return best[1] if best else None


@pytest.mark.parametrize("seed", range(150))
def test_the_outcome_is_what_the_rule_says_plainly(seed: int) -> None:
    site = generated(seed)
    coverage = Coverage(site)
    for page, slots in coverage.pages():
        for band, outcome in zip(coverage.bands, slots["header"], strict=True):
            assert (outcome.piece.id if outcome.piece else None) == plainly(site, page, band or "")
            if outcome.piece:
                assert outcome.rule in site.rules_of(outcome.piece) and outcome.why in {Why.RULE, Why.TIE}
            else:
                assert outcome.why in {Why.BARE, Why.NO_RULE, Why.EXCEPTED}


@pytest.mark.parametrize("seed", range(60))
def test_pages_sorted_by_their_rules_stay_sorted_while_pages_and_pieces_change(seed: int) -> None:
    chance = random.Random(seed)
    site = generated(seed)
    for _ in range(8):
        other = generated(chance.randrange(150))
        pages = [page if chance.random() < 0.7 else chance.choice(other.pages) for page in site.pages]
        changed = {page.id: page for page in pages if chance.random() < 0.9}
        site = site.replaced(pages=tuple(sorted(changed.values(), key=lambda page: page.path)))
        if chance.random() < 0.4:
            site = site.replaced(pieces=other.pieces, reach_sets=other.reach_sets)
        coverage, anew = coverage_of(site), Coverage(site)
        found = coverage.in_order
        assert [one.shown for one in found] == [anew.alike(page).shown for page in site.pages]
        for page, alike in zip(site.pages, found, strict=True):
            assert coverage.outcomes(alike, coverage.everybody) == anew.on(page)
        whatever = sorted_by_rules(coverage, whatever_their_markup=True)
        assert [coverage.whatever_its_markup(whatever.firsts[at]).counts for at in whatever.sorts] == [
            anew.whatever_its_markup(page).counts for page in site.pages
        ]


def test_the_reason_names_the_rule_that_won() -> None:
    main = Header(
        id="pc-main",
        name="Main",
        reach=(ReachRule(id="rr-all"), ReachRule(id="rr-not", shows=False, where=Below(path="/press/x/"))),
    )
    press = Header(id="pc-press", name="Press", reach=(ReachRule(id="rr-press", where=Below(path="/press/")),))
    pages = tuple(Page(id=f"pg-{at}", path=path) for at, path in enumerate(sorted(PATHS)))
    site = Site(key="qtest", name="T", pages=pages, pieces=(main, press), bands=BANDS)
    coverage = Coverage(site)
    by_path = {page.path: slots["header"][0] for page, slots in coverage.pages()}
    assert by_path["/a/"].rule is not None and in_words(by_path["/a/"].rule, site) == "everywhere"
    assert by_path["/press/"].piece == press and by_path["/press/"].beaten == ("pc-main",)
    assert by_path["/press/x/"].piece == press and by_path["/press/x/"].beaten == ()
    assert in_words(main.reach[1], site) == "except on /press/x/ and below"


def test_what_a_browser_decides_is_told_to_its_script_and_in_words() -> None:
    notice = Notice(id="pc-n", name="N", closed_days=9, shows_from="2026-10-20T00:00")
    closed, period = notice.conditions
    assert [*closed.data("k"), *period.data("k")] == [("key", "k"), ("days", "9"), ("begins", "2026-10-20T00:00")]
    assert closed.in_words() == "not for 9 days after it was closed"
    assert period.in_words() == "from 2026-10-20 00:00"
    assert Notice(id="pc-n", name="N", closable=False).conditions == ()


def test_a_place_covers_the_pages_on_which_its_rule_counts() -> None:
    kinds = set()
    for seed in range(40):
        site = generated(seed)
        for page in site.pages:
            for rule in (rule for piece in site.pieces for rule in piece.reach):
                alone = site.replaced(
                    pieces=(Header(id="pc-x", name="X", reach=(rule.replaced(shows=True),)),), bands=()
                )
                shown = Coverage(alone).on(page.replaced(bare=False))["header"][0].piece is not None
                assert rule.where.covers(page) is shown, (rule, page)
                kinds.add((type(rule.where), shown))
    assert kinds >= {(kind, shown) for kind in PLACES[1:] for shown in (True, False)}


def test_pages_that_come_with_a_site_are_of_a_kind_by_themselves() -> None:
    site, contents = ostrey()
    notices = tuple(
        Notice(id=f"pc-{which}", name=which, reach=(ReachRule(id=f"rr-{which}", where=OfKind(which=which)),))
        for which in get_args(PageKind)
    )
    composer = Composer(site.replaced(pieces=(*site.pieces, *notices)), shelf(), contents.__getitem__)
    front = next(page for page in site.pages if page.path == "/")
    made = {
        "not-found": composer.not_found_page(),
        "results": composer.results_page("en"),
        "front": composer.page(front, contents[front.content or ""]),
    }
    for which, page in made.items():
        shown = [kind for kind in get_args(PageKind) if f"{site.key}-pc-{kind}".encode() in page]
        assert shown == [which], which
