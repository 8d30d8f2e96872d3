"""What stands before what: every address that a gate reaches is guarded, and what is locked is nowhere else."""

from __future__ import annotations

import random
from urllib.parse import unquote

import pytest

from upper_rim.core.conditions.audience.audience import Audience
from upper_rim.core.conditions.audience.in_region import InRegion
from upper_rim.core.conditions.audience.member import Member
from upper_rim.core.conditions.audience.visits import Visits
from upper_rim.core.conditions.below import Below
from upper_rim.core.conditions.everywhere import Everywhere
from upper_rim.core.conditions.on_page import OnPage
from upper_rim.core.conditions.visitor import VisitorCard
from upper_rim.core.exchange.imports.import_pages import digest, file_name
from upper_rim.core.gates.guards import Guards, Kept, guards_of, states_of
from upper_rim.core.gates.opened import open_site
from upper_rim.core.kinds.entries import Entry, Grown
from upper_rim.core.kinds.items import Item
from upper_rim.core.kinds.items.answer import Answer
from upper_rim.core.kinds.items.birth import BirthField
from upper_rim.core.kinds.items.button import ButtonItem
from upper_rim.core.kinds.items.logo import Logo
from upper_rim.core.kinds.items.menu import MenuItem
from upper_rim.core.kinds.items.posts import Posts
from upper_rim.core.kinds.items.trail import Trail
from upper_rim.core.kinds.pieces.age import AgeGate
from upper_rim.core.kinds.pieces.base import ReachRule
from upper_rim.core.kinds.pieces.gate import GATE_STATES, Gate
from upper_rim.core.kinds.pieces.header import Header
from upper_rim.core.kinds.pieces.password import PasswordGate
from upper_rim.core.kinds.rows import Cell, Row
from upper_rim.core.model.editing.apply import apply
from upper_rim.core.model.editing.edits import Add, Set
from upper_rim.core.model.editing.refusal import Refusal
from upper_rim.core.model.site import Asset, Menu, Page, Site
from upper_rim.core.output.page.compose import Composer
from upper_rim.core.output.publication import PublishedFile, publication
from upper_rim.core.values.targets import ToPage
from upper_rim.core.values.words import Words
from upper_rim.demo import ostrey
from upper_rim.shipped import shelf

SITE, CONTENTS = ostrey()
SOMEBODY = VisitorCard(id="vc-a")


def door(*rules: ReachRule, **fields: object) -> PasswordGate:
    return PasswordGate.model_validate({"id": "pc-door", "name": "Door", "reach": rules, **fields})


def below(path: str, name: str = "a", *, shows: bool = True) -> ReachRule:
    return ReachRule(id=f"rr-{name}", where=Below(path=path), shows=shows)


def met(site: Site, path: str, card: VisitorCard = SOMEBODY) -> list[str]:
    guards = guards_of(site)
    return [] if guards is None else [gate.id for gate in guards.met(path, card)]


def test_the_demo_s_gates_stand_before_all_below_and_before_what_is_not_there() -> None:
    for page in SITE.pages:
        guarded = {"/press/": ["pc-press-door"], "/shop/": ["pc-shop-age"]}
        wanted = next((gates for path, gates in guarded.items() if page.path.startswith(path)), [])
        assert met(SITE, page.path) == wanted, page.path
    assert met(SITE, "/press/nothing/at/all.pdf") == ["pc-press-door"]
    assert met(SITE, "/pressed/") == [] and met(SITE, "/nothing/") == []


def test_bare_pages_and_those_without_a_place_for_pieces_are_guarded_too() -> None:
    pages = (
        Page(id="pg-a", path="/in/a/", bare=True),
        Page(id="pg-b", path="/in/b/", content="0" * 64),
        Page(id="pg-c", path="/in/ä b/".replace("ä b", "%C3%A4%20b"), content="0" * 64, bare=True),
    )
    assets = (Asset(id="as-a", path="/in/plan.pdf", content="0" * 64, size=1),)
    site = Site(key="qtest", name="T", pieces=(door(below("/in/")),), pages=pages, assets=assets)
    for path in (*(unquote(page.path) for page in pages), "/in/plan.pdf", "/in/"):
        assert met(site, path) == ["pc-door"], path


def test_a_page_is_guarded_by_its_address_without_the_stroke_at_its_end_too() -> None:
    pages = (Page(id="pg-a", path="/a/"), Page(id="pg-b", path="/a/b/"))
    around = door(below("/"), ReachRule(id="rr-not", shows=False, where=OnPage(page="pg-a")))
    site = Site(key="qtest", name="T", pieces=(around,), pages=pages)
    assert met(site, "/a") == met(site, "/a/") == []
    assert met(site, "/a/b") == met(site, "/a/b/") == ["pc-door"] == met(site, "/a/c")


def test_of_two_gates_the_more_specific_stands_there_and_a_password_comes_before_a_question() -> None:
    other = AgeGate(id="pc-age", name="Age", reach=(ReachRule(id="rr-all", where=Everywhere()),))
    inner = PasswordGate(id="pc-inner", name="Inner", reach=(below("/in/deep/", "deep"),))
    site = Site(key="qtest", name="T", pieces=(other, door(below("/in/")), inner))
    assert met(site, "/in/deep/x") == ["pc-inner", "pc-age"]
    assert met(site, "/in/x") == ["pc-door", "pc-age"] and met(site, "/x") == ["pc-age"]
    open_within = site.replaced(pieces=(door(below("/in/"), below("/in/free/", "free", shows=False)),))
    assert met(open_within, "/in/free/x") == [] and met(open_within, "/in/freed") == ["pc-door"]
    off = site.replaced(pieces=tuple(piece.replaced(on=False) for piece in site.pieces))
    assert guards_of(off) is None


def test_members_are_excused_and_an_audience_counts() -> None:
    excused = SOMEBODY.replaced(groups=("crew",))
    assert met(SITE, "/shop/", excused) == [] and met(SITE, "/shop/", SOMEBODY.replaced(groups=("others",)))
    for_members = door(below("/in/"), audience=Audience(none=(Member(groups=("press",)),)))
    site = Site(key="qtest", name="T", pieces=(for_members,))
    assert met(site, "/in/") == ["pc-door"] and met(site, "/in/", SOMEBODY.replaced(groups=("press",))) == []


def test_a_question_about_age_never_stands_before_what_it_leads_to_and_a_door_does() -> None:
    page = Page(id="pg-policy", path="/policy/")
    link = ButtonItem(id="it-link", target=ToPage(page="pg-policy"))
    rows = (Row(id="rw-a", name="R", cells=(Cell(id="cl-a", items=(Logo(id="it-logo"), link)),)),)
    everywhere = (ReachRule(id="rr-all"),)
    age = AgeGate(id="pc-age", name="Age", reach=everywhere, rows=rows)
    site = Site(key="qtest", name="T", pieces=(age,), pages=(Page(id="pg-home", path="/"), page))
    assert met(site, "/policy/") == [] and met(site, "/") == ["pc-age"], "a logo opens nothing"
    locked = site.replaced(pieces=(door(*everywhere, rows=rows),))
    assert met(locked, "/policy/") == ["pc-door"]


def test_what_is_kept_for_the_server_says_the_same() -> None:
    guards = guards_of(SITE)
    assert guards is not None
    again = Guards(Kept.model_validate_json(guards.kept.model_dump_json()))
    for path in [page.path for page in SITE.pages] + [asset.path for asset in SITE.assets] + ["/press/x", "/x", "\x00"]:
        assert again.before(path) == guards.before(path)
    kept = guards.kept.model_dump_json()
    assert "Press room" not in kept and not any(page.title in kept for page in SITE.pages if len(page.title) > 12)


@pytest.mark.parametrize("seed", range(30))
def test_generated_rules_guard_a_page_and_a_file_alike_and_no_page_less_than_its_rules(seed: int) -> None:
    chance = random.Random(seed)
    paths = ["/", "/a/", "/a/b/", "/a/b/c.html", "/d/", "/d/e/", "/f.html"]
    pages = tuple(Page(id=f"pg-{at}", path=path, bare=chance.random() < 0.3) for at, path in enumerate(paths))
    rules = []
    for at in range(chance.randrange(1, 4)):
        where = chance.choice(
            [Below(path=chance.choice(paths)), OnPage(page=f"pg-{chance.randrange(7)}"), Everywhere()]
        )
        rules.append(ReachRule(id=f"rr-{at}", where=where, shows=chance.random() < 0.7))
    site = Site(key="qtest", name="T", pieces=(door(*rules),), pages=pages)
    by_below = [rule for rule in rules if not isinstance(rule.where, OnPage)]
    for page in pages:
        strongest = max(
            (rule for rule in rules if rule.where.covers(page)),
            key=lambda rule: (rule.where.strength, not rule.shows),
            default=None,
        )
        assert (met(site, page.path) == ["pc-door"]) == bool(strongest and strongest.shows), page.path
    without = site.replaced(pages=(), pieces=(door(*by_below),))
    with_pages = site.replaced(pieces=(door(*by_below),))
    assert [met(without, path) for path in paths] == [met(with_pages, path) for path in paths]


SECRET = "Quicksilver"


def with_secrets() -> tuple[Site, dict[str, bytes]]:
    """Locked pages whose words are nowhere else, which everything that lists pages is asked about."""
    content = f"<!doctype html><title>{SECRET}</title><body><main><h1>{SECRET}</h1><p>{SECRET} 42</p></main>".encode()
    found = next(page for page in SITE.pages if page.path == "/")
    pages = tuple(
        Page(id=f"pg-{name}", path=f"/press/{name}/", title=f"{SECRET} {name}", content=digest(content), splice=found.splice, dated="2026-11-01", tags=(SECRET,))
        for name in ("one", "two")
    )  # fmt: skip
    pages = tuple(
        page.replaced(splice=page.splice.replaced(head_at=0, body_at=0, end_at=0)) for page in pages if page.splice
    )
    listed = (
        Entry(id="en-one", target=ToPage(page="pg-one")),
        Entry(id="en-own", label=Words(text=SECRET), target=ToPage(page="pg-two")),
    )
    menu = Menu(id="mn-grown", name="Grown", entries=listed, grows=Grown(path="/", depth=4))
    items = (
        MenuItem(id="it-grown", menu="mn-grown"),
        Posts(id="it-all", below="/", count=9),
        Trail(id="it-trail"),
        ButtonItem(id="it-door", words=Words(text="Press"), target=ToPage(page="pg-one")),
    )
    row = Row(id="rw-x", name="R", cells=(Cell(id="cl-x", items=items),))
    listing = Header(
        id="pc-listing", name="L", rows=(row,), reach=(ReachRule(id="rr-listing", where=OnPage(page=found.id)),)
    )
    asset = Asset(id="as-secret", path="/press/secret.svg", content=digest(SECRET.encode()), size=len(SECRET))
    site = SITE.replaced(
        pieces=(*SITE.pieces, listing),
        menus=(*SITE.menus, menu),
        pages=tuple(sorted((*SITE.pages, *pages), key=lambda page: page.path)),
        assets=tuple(sorted((*SITE.assets, asset), key=lambda one: one.path)),
    )
    return site, {**CONTENTS, digest(content): content, digest(SECRET.encode()): SECRET.encode()}


def test_nothing_that_anybody_may_see_knows_of_what_is_locked() -> None:
    site, contents = with_secrets()
    guards = guards_of(site)
    assert guards is not None
    locked = {file_name(page.path) for page in (*site.pages, *site.assets) if guards.is_locked(page.path)}
    assert len(locked) >= 6
    served = {file.name: file for file in publication(site, shelf(), contents.__getitem__, year=2026)}
    assert locked <= set(served)
    for name in sorted(set(served) - locked):
        assert SECRET.encode() not in served[name].data, name
    assert b'href="/press/one/"' in served["index.html"].data, "the way to the door is the designer's"


def test_behind_the_door_all_is_there() -> None:
    site, contents = with_secrets()
    served: dict[str, PublishedFile] = {
        file.name: file for file in publication(site, shelf(), contents.__getitem__, year=2026)
    }
    page = served["press/releases/index.html"].data.decode()
    assert SECRET in page or "Press" in page
    assert open_site(site, guards_of(site)) is not site and open_site(SITE.replaced(pieces=()), None).pieces == ()


@pytest.mark.parametrize(
    "gate", [piece for piece in SITE.pieces if isinstance(piece, Gate)], ids=lambda gate: str(gate.id)
)
def test_a_gate_s_page_has_what_it_asks_and_nothing_when_it_refuses(gate: Gate) -> None:
    composer = Composer(SITE, shelf(), CONTENTS.__getitem__, year=2026)
    for language in SITE.languages:
        pages = {state: composer.gate_page(gate, language, state).decode() for state in GATE_STATES}
        assert len(set(pages.values())) == len(GATE_STATES), "each state says something else"
        for state, page in pages.items():
            assert page.count("<main") == 1 and 'content="noindex"' in page and f'lang="{language}"' in page
            assert ('role="alert"' in page) == (state != "asked")
            asks = any(name in page for name in ('name="password"', 'name="year"'))
            assert asks == (state != "refused")


def test_a_date_is_typed_in_the_order_of_its_language() -> None:
    gate = next(piece for piece in SITE.pieces if isinstance(piece, AgeGate))
    composer = Composer(SITE, shelf(), CONTENTS.__getitem__, year=2026)
    for language, order in {"en": "dmy", "en-US": "mdy", "de": "dmy", "hu": "ymd", "sv": "ymd"}.items():
        page = composer.gate_page(gate, language).decode()
        found = sorted(
            "dmy", key=lambda part: page.index({"d": 'name="day"', "m": 'name="month"', "y": 'name="year"'}[part])
        )
        assert "".join(found) == order, language


def test_what_belongs_to_a_gate_means_nothing_elsewhere() -> None:
    cell = next(cell for piece in SITE.pieces if piece.id == "pc-main" for row in piece.rows for cell in row.cells)
    item = Answer(id="it-new", words=Words(text="Yes")).model_dump(mode="json")
    refused = apply(SITE, Add(parent=cell.id, slot="items", values=(item,)))
    assert isinstance(refused, Refusal) and refused.kind == "means nothing there"
    late = Audience(every=(Visits(first=2),)).model_dump(mode="json")
    refused = apply(SITE, Set(node="pc-press-door", field="audience", value=late))
    assert isinstance(refused, Refusal) and refused.kind == "known too late", "else the door would stand open"


def test_whom_a_gate_stands_before_is_no_business_of_the_page() -> None:
    """A page's bytes and its script are the same with and without a gate's audience; what stands in it may have one."""
    for_some = Audience(every=(InRegion(regions=("IS",)),))
    gates = [piece.replaced(audience=for_some) if isinstance(piece, Gate) else piece for piece in SITE.pieces]
    page = next(page for page in SITE.pages if page.path == "/shop/")
    assert page.content is not None
    plain, asked = (
        Composer(site, shelf(), CONTENTS.__getitem__, year=2026).page(page, CONTENTS[page.content])
        for site in (SITE, SITE.replaced(pieces=tuple(gates)))
    )
    assert plain == asked and b"pc-shop-age" not in plain
    gate = next(piece for piece in SITE.pieces if isinstance(piece, AgeGate))
    item = gate.rows[0].cells[0].items[1].replaced(audience=for_some)
    cell = gate.rows[0].cells[0].replaced(items=(item,))
    own = gate.replaced(rows=(gate.rows[0].replaced(cells=(cell,)),))
    pieces = tuple(own if piece is gate else piece for piece in SITE.pieces)
    made = (
        Composer(SITE.replaced(pieces=pieces), shelf(), CONTENTS.__getitem__, year=2026).gate_page(own, "en").decode()
    )
    assert f'"{item.id}"' in made and "visitor.js" in made


def test_a_gate_is_met_in_the_states_that_its_question_can_lead_to() -> None:
    def met_in(kind: type[Gate], *items: Item) -> tuple[str, ...]:
        row = Row(id="rw-a", name="R", cells=(Cell(id="cl-a", items=items),))
        gate = kind.model_validate({"id": "pc-a", "name": "A", "rows": (row,)})
        return states_of(gate, Site(key="qtest", name="T", pieces=(gate,)))

    leave = Answer(id="it-no", says="no")
    assert met_in(AgeGate) == ("asked",) and met_in(AgeGate, leave) == ("asked", "refused")
    assert met_in(AgeGate, BirthField(id="it-birth")) == ("asked", "wrong", "refused")
    assert met_in(PasswordGate) == ("asked", "wrong", "waiting")
    assert met_in(PasswordGate, leave) == ("asked", "wrong", "waiting", "refused")
