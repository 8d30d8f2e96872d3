"""A visit played through: what is met, where each answer leads, and what is wrong with the ways."""

from __future__ import annotations

import json
from datetime import timedelta
from pathlib import Path

import pytest

from upper_rim.cli.__main__ import main
from upper_rim.core.conditions.below import Below
from upper_rim.core.conditions.visitor import VisitorCard
from upper_rim.core.exchange.bundle import write_bundle
from upper_rim.core.findings.checks.shown.gates import in_files, in_gates, in_pages
from upper_rim.core.findings.words import finding_words
from upper_rim.core.gates.guards import Guards, guards_of
from upper_rim.core.gates.passing import Answer as Said
from upper_rim.core.gates.unserved import Unserved
from upper_rim.core.gates.visit import RIGHT, Screen, Visit, fitting, ways
from upper_rim.core.kinds.items.answer import Answer
from upper_rim.core.kinds.items.birth import BirthField
from upper_rim.core.kinds.items.picture import PictureItem
from upper_rim.core.kinds.items.secret import PasswordField
from upper_rim.core.kinds.pieces.age import AgeGate
from upper_rim.core.kinds.pieces.base import ReachRule
from upper_rim.core.kinds.pieces.gate import Gate
from upper_rim.core.kinds.pieces.header import Header
from upper_rim.core.kinds.pieces.password import PasswordGate
from upper_rim.core.kinds.rows import Cell, Row
from upper_rim.core.model.site import Asset, Page, Site, Splice
from upper_rim.core.values.targets import ToPage
from upper_rim.demo import ostrey

SITE, CONTENTS = ostrey()
NEW = VisitorCard(id="vc-a", clock="2026-11-30T12:00Z")
SHOP, DOOR = "pc-shop-age", "pc-press-door"
YES, NO = Said(True, (1980, 1, 1), RIGHT), Said(False)


def guards(site: Site = SITE) -> Guards:
    found = guards_of(site)
    assert found is not None
    return found


def test_a_visit_to_the_shop_step_by_step() -> None:
    visit = Visit(guards(), NEW)
    assert visit.open("/shop/") == Screen("/shop/", SHOP, "asked")
    assert visit.answer(Said(True, (2000, 2, 30))) == Screen("/shop/", SHOP, "wrong")
    assert visit.answer(Said(True, (2008, 12, 1))) == Screen("/"), "too young by a day: sent home"
    visit.open("/shop/")
    assert visit.answer(Said(True, (2008, 11, 30))) == Screen("/shop/")
    assert visit.open("/shop/spirits/") == Screen("/shop/spirits/"), "one answer for all that it guards"
    visit.wait(timedelta(days=30))
    assert visit.open("/shop/").gate == SHOP
    visit.answer(YES)
    visit.lose_cookies()
    assert visit.open("/shop/").state == "asked"


def test_at_a_door_one_waits_after_too_many_tries_and_longer_each_time() -> None:
    visit = Visit(guards(), NEW)
    visit.open("/press/")
    wrong = Said(True, password="guessed")
    assert [visit.answer(wrong).state for _ in range(5)] == ["wrong"] * 4 + ["waiting"]
    waiting = visit.answer(YES)
    assert waiting.state == "waiting" and waiting.opens == visit.now + timedelta(seconds=60)
    visit.wait(timedelta(seconds=60))
    assert [visit.answer(wrong).state for _ in range(5)] == ["wrong"] * 4 + ["waiting"]
    visit.wait(timedelta(seconds=119))
    assert visit.answer(YES).state == "waiting"
    visit.wait(timedelta(seconds=1))
    assert visit.answer(YES) == Screen("/press/")


@pytest.mark.parametrize("clock", ["2026-02-28T12:00Z", "2028-02-29T12:00Z", "2026-03-01T00:00Z", "2026-12-31T23:59Z"])
def test_the_fitting_answer_is_let_through_on_any_day(clock: str) -> None:
    card = NEW.replaced(clock=clock)
    for path, gate in (("/shop/", SHOP), ("/press/", DOOR)):
        visit = Visit(guards(), card)
        visit.open(path)
        assert visit.answer(fitting(guards(), guards().gates[gate], card, visit.now, yes=True)) == Screen(path)


def test_all_ways_to_a_page_are_told() -> None:
    found = {(way.ends, way.presses): way.screens[-1] for way in ways(guards(), NEW, "/shop/")}
    assert found == {("page", 1): Screen("/shop/"), ("elsewhere", 1): Screen("/")}
    assert [way.ends for way in ways(guards(), NEW, "/")] == ["page"]
    assert [(way.ends, way.presses) for way in ways(guards(), NEW.replaced(groups=("crew",)), "/shop/")] == [
        ("page", 0)
    ]
    assert {way.ends for way in ways(guards(), NEW, "/press/")} == {"page"}, "its door has no button for a no"


def row(*items: object) -> tuple[Row, ...]:
    return (Row(id="rw-a", name="R", cells=(Cell(id="cl-a", items=items),)),)  # type: ignore[arg-type]


def below(path: str, name: str) -> tuple[ReachRule, ...]:
    return (ReachRule(id=f"rr-{name}", where=Below(path=path)),)


def site(*gates: Gate, **more: object) -> Site:
    paths = ("/", "/in/", "/in/deep/", "/out/", "/out/x/")
    pages = tuple(Page(id=f"pg-{at}", path=path) for at, path in enumerate(paths))
    return Site.model_validate({"key": "qtest", "name": "T", "pages": pages, "pieces": gates, **more})


def kinds(site: Site) -> set[tuple[str, str]]:
    found = in_gates(site, guards_of(site))
    assert all(finding_words(one, lambda node: node) for one in found)
    return {(one.kind, one.node) for one in found}


BOTH = (Answer(id="it-yes"), Answer(id="it-no", says="no"))


def test_circles_doors_and_dead_ends_are_found() -> None:
    age = AgeGate(id="pc-age", name="Age", reach=below("/in/", "age"), rows=row(*BOTH))
    door = PasswordGate(
        id="pc-door", name="Door", reach=below("/out/", "door"), rows=row(PasswordField(id="it-p"), BOTH[0])
    )
    assert kinds(site(age, door)) == set()
    # A page that the refused are sent to is never behind the same gate; one that lies beside it may be.
    assert kinds(site(age.replaced(target=ToPage(page="pg-2")), door)) == set()
    assert kinds(site(age.replaced(target=ToPage(page="pg-4")), door)) == {("refused to a door", "pc-age")}
    here = age.replaced(reach=below("/in/", "age"), target=ToPage(page="pg-3"))
    there = age.replaced(id="pc-there", reach=below("/out/", "there"), target=ToPage(page="pg-1"))
    assert ("goes round", "pc-age") in kinds(site(here, there)) or kinds(site(here, there)) == set()
    assert kinds(site(age.replaced(rows=row(BOTH[1])))) == {("no yes", "pc-age")}
    assert kinds(site(age.replaced(rows=row(BOTH[0])))) == {("no no", "pc-age")}
    assert kinds(site(age.replaced(rows=row(BOTH[0], BirthField(id="it-b"))))) == set()
    assert kinds(site(door.replaced(rows=row(*BOTH)))) == {("no field", "pc-door")}


def test_a_circle_of_addresses_is_one() -> None:
    from upper_rim.core.values.targets import ToAddress

    age = AgeGate(
        id="pc-age", name="Age", reach=below("/in/", "a"), rows=row(*BOTH), target=ToAddress(address="/in/deep/")
    )
    assert kinds(site(age)) == {("goes round", "pc-age")}
    assert [way.ends for way in ways(guards(site(age)), NEW, "/in/")].count("loop") == 1


def test_a_locked_picture_that_is_shown_openly_is_found() -> None:
    door = PasswordGate(
        id="pc-door", name="Door", reach=below("/in/", "door"), rows=row(PasswordField(id="it-p"), BOTH[0])
    )
    picture = (Asset(id="as-a", path="/in/plan.svg", content="0" * 64, size=1),)
    rows = (
        Row(id="rw-b", name="R", cells=(Cell(id="cl-b", items=(PictureItem(id="it-plan", picture="/in/plan.svg"),)),)),
    )
    header = Header(id="pc-head", name="H", rows=rows, reach=(ReachRule(id="rr-head"),))
    assert kinds(site(door, assets=picture).replaced(pieces=(door, header))) == {("locked picture", "pc-head")}
    within = header.replaced(reach=below("/in/", "head"))
    assert kinds(site(door, assets=picture).replaced(pieces=(door, within))) == set()


SITEMAP = """<?xml version="1.0"?><urlset><url><loc>https://t.example/in/?a=1&amp;b=2</loc></url><url><loc>https://t.example/out/</loc></url>
<url><loc>/in/deep/</loc></url><url><loc>https://t.example/in/caf%C3%A9/</loc></url><url><loc>https://[/in/</loc></url></urlset>"""


def test_files_that_tell_of_what_is_locked_are_found() -> None:
    door = PasswordGate(id="pc-door", name="Door", reach=below("/in/", "door"), rows=row(PasswordField(id="it-p"), BOTH[0]))  # fmt: skip
    listed = [("/sitemap.xml", SITEMAP), ("/feed.json", '{"url": "https:\\/\\/t.example/in/"}'), ("/in/sitemap.xml", SITEMAP), ("/map.svg", SITEMAP), ("/robots.txt", "Disallow: /in/deep/")]  # fmt: skip
    assets = tuple(Asset(id=f"as-{at}", path=path, content=f"{at:064}", size=9) for at, (path, _) in enumerate(listed))
    cafe = Page(id="pg-cafe", path="/in/caf%C3%A9/")
    made = site(door, assets=assets)
    made = made.replaced(pages=(*made.pages, cafe))
    read = {asset.content: text.encode() for asset, (_, text) in zip(assets, listed, strict=True)}.__getitem__
    found = list(in_files(made, guards_of(made), read))
    told = {str(one.about["file"]): (one.node, one.about["count"]) for one in found}
    assert told == {"/sitemap.xml": ("pc-door", 3), "/robots.txt": ("pc-door", 1), "/feed.json": ("pc-door", 1)}
    assert "stand in /robots.txt, which anybody may read: 1, /in/deep/" in finding_words(found[-1], str)
    hostile = b"a" * 3_000_000 + b"/in/ " + b"&" * 500_000
    assert all(one.about["count"] == 1 for one in in_files(made, guards_of(made), lambda content: hostile + b" /in/"))
    assert list(in_files(SITE, guards(), CONTENTS.__getitem__)) == [] == list(in_files(made, None, read))


def test_open_pages_that_say_what_a_locked_one_is_called_are_found() -> None:
    door = PasswordGate(id="pc-door", name="Door", reach=below("/in/", "door"), rows=row(PasswordField(id="it-p"), BOTH[0]))  # fmt: skip
    locked = [("/in/a/", "Winter budget of 2027"), ("/in/b/", "News"), ("/in/c/", "What our ships cost")]
    texts = {
        "/x/": "<p>See the <b>Winter</b>\n budget&#32;of 2027</p>".encode("utf-16"),
        "/y/": b"<h1>What our ships cost</h1><p>News, and Winter budget of 2028</p>",
        "/in/a/": b"<p>Winter budget of 2027</p>",
        "/hostile/": b"<p " * 200_000 + b"Winter " * 100_000,
    }
    pages = [
        Page(id=f"pg-{at}", path=path, title=title, content=f"{at:064}") for at, (path, title) in enumerate(locked)
    ]
    splice = Splice(encoding="utf-16le", head_at=0, body_at=0)
    for path in ("/x/", "/y/", "/hostile/"):
        own = {"title": "What our ships cost"} if path == "/y/" else {"splice": splice} if path == "/x/" else {}
        pages.append(Page(id=f"pg-{path[1]}", path=path, content=f"{len(pages):064}", **own))
    made = site(door).replaced(pages=tuple(pages))
    by_hash = {page.content: texts.get(page.path, b"") for page in pages}
    (found,) = in_pages(made, guards_of(made), lambda content: by_hash[content])
    assert (found.node, found.place.page) == ("pc-door", "pg-x")
    assert (
        finding_words(found, str) == "Open pages say “Winter budget of 2027”, which “pc-door” locks: 1, /x/ among them"
    )
    assert list(in_pages(made, guards_of(made), lambda content: by_hash[content], most=0)) == []
    assert list(in_pages(SITE, guards(), CONTENTS.__getitem__)) == [] == list(in_pages(made, None, texts.__getitem__))


def test_the_demo_has_no_fault_at_its_gates() -> None:
    assert in_gates(SITE, guards()) == [] and in_gates(SITE.replaced(pieces=()), None) == []


def test_the_command_line_tells_the_ways(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    bundle = tmp_path / "ostrey.zip"
    with bundle.open("wb") as out:
        write_bundle(out, SITE, CONTENTS.__getitem__)
    assert main(["visit", str(bundle), "--page", "/shop/", "--json", "--card", '{"region": "IS"}']) == 0
    told = json.loads(capsys.readouterr().out)
    assert [way["ends"] for way in told["ways"]] == ["page", "elsewhere"] and told["page"] == "/shop/"
    assert main(["visit", str(bundle), "--page", "/press/releases"]) == 0
    said = capsys.readouterr().out
    assert "Door of the press room is answered yes" in said and "1 press: the page is seen" in said
    assert main(["visit", str(bundle), "--page", "/"]) == 0
    assert "0 presses: the page is seen" in capsys.readouterr().out


def test_on_another_server_nobody_is_known(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    found = guards()
    there = Unserved(found.kept, NEW.clock)
    crew = NEW.replaced(region="IS", groups=("crew",))
    gates_met = [
        [gate.id for gate in there.met("/shop/", card)] for card in (NEW, crew, NEW.replaced(has_script=False))
    ]
    assert gates_met == [[SHOP], [SHOP], []], "whoever it is; and without scripts nobody is asked"
    bundle = tmp_path / "site.rim.zip"
    with bundle.open("wb") as out:
        write_bundle(out, SITE, CONTENTS.__getitem__)
    main(
        ["visit", str(bundle), "--page", "/shop/", "--card", json.dumps({"groups": ["crew"]}), "--taken-away", "--json"]
    )
    assert json.loads(capsys.readouterr().out)["ways"][0]["screens"][0]["gate"] == SHOP
