"""A menu is read from its own text as it is, and a changed text changes what it says and nothing else."""

from __future__ import annotations

import itertools
import random
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from upper_rim.core.exchange.menu_text import MenuText, edits_between, matched
from upper_rim.core.kinds.entries import Entry, Grown
from upper_rim.core.model.editing.apply import apply
from upper_rim.core.model.editing.edits import Add, Edit, Move, Remove, Set, Together, parts_of_edit
from upper_rim.core.model.navigation.menus import all_entries
from upper_rim.core.model.site import Menu, Page, Site
from upper_rim.core.values.targets import Target, ToAddress, ToNothing, ToPage, ToPlace
from upper_rim.core.values.words import Translation, Words
from upper_rim.demo import ostrey, quillwort

PAGES = tuple(
    Page(id=f"pg-{name}", path=path, title=title)
    for name, path, title in (
        ("front", "/", "Home | start"), ("fares", "/fares/", "Fares"), ("guide", "/guide/", "- Guide"),
        ("birds", "/guide/birds/", "1. Birds"), ("old", "/guide/old/", "  Old  things "), ("bare", "/x/", ""),
    )
)  # fmt: skip
GERMAN = Page(id="pg-de", path="/de/", language="de")
HARD = ("Fares", "", "a | b", "|", "-> b", "- a", "1. a", "\\", "\\- a", "a\\|b", "a \\| b", "* all below /x/", "a\u00a0b", "a\u2028b", "x => y", "•", "+ 4", "(nothing)", "label, text", "\t")  # fmt: skip
WORDS = st.one_of(st.sampled_from(HARD), st.text(max_size=12)).map(lambda text: Words(text=text.strip()))
TARGETS: st.SearchStrategy[Target] = st.one_of(
    st.sampled_from([*(ToPage(page=page.id) for page in PAGES), ToNothing(), ToPage(page="pg-gone")]),
    st.sampled_from([ToPlace(page="pg-guide", place="a|b%20"), ToPlace(page="pg-front", place="nest")]),
    st.sampled_from(
        ["https://ferry.example/a?b=c#d", "mailto:quay@ostrey.example", "tel:+441632960144", "mailto:a@b.example?subject=x", "https://ferry.example", "/no/page/"]
    ).map(lambda address: ToAddress(address=address)),
)  # fmt: skip
GROWN = st.one_of(
    st.none(),
    st.builds(
        Grown,
        path=st.sampled_from(["/guide/", "/"]),
        depth=st.integers(1, 9),
        order=st.sampled_from(["path", "title", "newest"]),
        without=st.lists(st.sampled_from(["pg-birds", "pg-old", "pg-gone", "pg-gone-too"]), unique=True).map(tuple),
    ),
)


@st.composite
def menus(draw: st.DrawFn, start: int = 0) -> Menu:
    numbers = itertools.count(start)

    def entries(depth: int) -> tuple[Entry, ...]:
        return tuple(
            Entry(
                id=f"en-{next(numbers)}",
                label=draw(WORDS).saying("de", draw(st.sampled_from(["", "Wort"]))),
                target=draw(TARGETS),
                second=draw(WORDS),
                mark=draw(WORDS),
                icon=draw(st.sampled_from([None, "anchor"])),
                new_window=draw(st.booleans()),
                entries=entries(depth + 1),
                grows=draw(GROWN),
            )
            for _ in range(draw(st.integers(0, 3 - depth)))
        )

    return Menu(id="mn-a", name="Main", entries=entries(0), grows=draw(GROWN))


def site_with(menu: Menu) -> Site:
    return Site(
        name="Ferries", key="q1x7", pages=tuple(sorted((*PAGES, GERMAN), key=lambda page: page.path)), menus=(menu,)
    )


def carried_out(site: Site, edit: Edit | None) -> Site:
    after = apply(site, edit) if edit else site
    assert isinstance(after, Site), after
    return after


def counted() -> itertools.count[int]:
    return itertools.count(1000)


def read_into(menu: Menu, text: str) -> tuple[Menu, Edit | None]:
    site, numbers = site_with(menu), counted()
    read = MenuText(site).read(text, menu, lambda letters: f"{letters}-{next(numbers)}")
    assert read.faults == []
    return carried_out(site, read.edit).menus[0], read.edit


@given(menus())
@settings(max_examples=150, deadline=None)
def test_a_menus_own_text_changes_nothing(menu: Menu) -> None:
    text = MenuText(site_with(menu)).written(menu)
    assert text.count("\n") == sum(1 + bool(one.grows) for one in all_entries(menu.entries)) + bool(menu.grows)
    assert read_into(menu, text) == (menu, None)


@given(menus())
@settings(max_examples=150, deadline=None)
def test_a_menus_own_table_changes_nothing_either(menu: Menu) -> None:
    assert read_into(menu, MenuText(site_with(menu)).table(menu)) == (menu, None)


@given(menus(), menus(start=500))
@settings(max_examples=100, deadline=None)
def test_any_menu_becomes_any_other_by_its_table(menu: Menu, other: Menu) -> None:
    text = MenuText(site_with(other)).table(other)
    became, _ = read_into(menu, text)
    assert MenuText(site_with(became)).written(became) == MenuText(site_with(other)).written(other)
    labels = ([entry.label.translations for entry in all_entries(one.entries)] for one in (became, other))
    said = [[(one.language, one.text) for label in listed for one in label] for listed in labels]
    assert said[0] == said[1]


@given(menus(), menus(start=500))
@settings(max_examples=150, deadline=None)
def test_any_menu_becomes_any_other_by_its_text(menu: Menu, other: Menu) -> None:
    text = MenuText(site_with(other)).written(other)
    became, _ = read_into(menu, text)
    assert MenuText(site_with(became)).written(became) == text


@given(menus(), st.integers(0, 10_000))
@settings(max_examples=150, deadline=None)
def test_entries_are_the_same_wherever_they_are_moved_and_the_edits_are_no_more_than_needed(
    menu: Menu, seed: int
) -> None:
    chance = random.Random(seed)
    there = list(all_entries(menu.entries))
    kept = [entry for entry in there if chance.random() < 0.8]
    chance.shuffle(kept)
    below: dict[str, list[Entry]] = {}
    for at, entry in enumerate(kept):
        below.setdefault(chance.choice(["", *(one.id for one in kept[:at])]), []).append(entry)

    def whole(entry: Entry) -> Entry:
        return entry.replaced(entries=tuple(whole(one) for one in below.get(entry.id, ())))

    wanted = menu.replaced(entries=tuple(whole(entry) for entry in below.get("", ())))
    edits = tuple(edits_between(menu, wanted))
    assert carried_out(site_with(menu), Together(edits=edits)).menus[0] == wanted
    assert sum(isinstance(edit, Move) for edit in edits) <= len(kept)
    assert not any(isinstance(edit, Add | Set) for edit in edits)


def entry(name: str, *below: Entry, **fields: Any) -> Entry:
    return Entry(id=f"en-{name}", label=Words(text=name.title()), entries=below, **fields)


MENU = Menu(id="mn-a", name="Main", entries=(entry("a", entry("b", icon="anchor")), entry("c"), entry("d")))


@pytest.mark.parametrize(
    ("text", "kinds"),
    [
        ("A\n    B\nC\nD\n", []),
        ("A\n    B\nC\nD\nE | /fares/\n", [Add]),
        ("E\n    F\n        G\nH\nA\n    B\nC\nD\n", [Add]),
        ("A\n    B\nD\nC\n", [Move]),
        ("A\nB\nC\nD\n", [Move]),
        ("B\n    A\nC\nD\n", [Move, Move]),
        ("A\n    B\nC\n", [Remove]),
        ("B\nC\nD\n", [Move, Remove]),
        ("A\n    B | /fares/\nC | | Second\nD\n", [Set, Set]),
        ("A\n    B\n    * all below /guide/ | 3 levels | by title | without /guide/old/, /guide/birds/\nC\nD\n", [Set]),
        ("", [Remove]),
    ],
)  # fmt: skip
def test_a_changed_text_is_few_edits(text: str, kinds: list[type[Edit]]) -> None:
    became, edit = read_into(MENU, text)
    assert [type(part) for part in parts_of_edit(edit)] == kinds if edit else kinds == []
    assert MenuText(site_with(became)).written(became) == text
    assert [one.icon for one in all_entries(became.entries) if one.id == "en-b"] in (["anchor"], [])


@pytest.mark.parametrize(
    ("text", "line", "said"),
    [
        ("A\nB | nowhere at all\n", 2, "leads nowhere"),
        ("A\n        B\n    C\n", 3, "indented"),
        ("A\n* all below /guide/\n* all below /x/\n", 3, "once"),
        ("* all below /guide/\n    A\n", 1, "once"),
        ("* all below /guide/ | 12 levels\n", 1, "9"),
        ("* all below /guide/ | upwards\n", 1, "upwards"),
        ("* all below /guide/ | without /none/\n", 1, "no page at /none/"),
        ("x" * 401, 1, "400"),
    ],
)
def test_a_broken_line_is_told_at_its_place_and_nothing_changes(text: str, line: int, said: str) -> None:
    site = site_with(MENU)
    read = MenuText(site).read(text, MENU, lambda letters: f"{letters}-1")
    assert read.edit is None
    (fault,) = read.faults
    assert fault.line == line and said in fault.why


def test_branches_that_grow_alike_keep_each_what_its_text_cannot_say() -> None:
    grown = [Grown(path="/guide/", without=(gone,)) for gone in ("pg-gone", "pg-gone-too")]
    menu = MENU.replaced(entries=(entry("a", grows=grown[0]), entry("b", grows=grown[1])))
    text = MenuText(site_with(menu)).written(menu)
    assert text.count("    * all below /guide/\n") == 2
    assert read_into(menu, text) == (menu, None)


def test_a_label_that_is_the_title_of_its_page_follows_the_page() -> None:
    became, _ = read_into(MENU.replaced(entries=()), "Fares | /fares/\nPrices | /fares/\n- Guide | /guide/#nest\n")
    assert [one.label.text for one in became.entries] == ["", "Prices", "Guide"]
    assert became.entries[2].target == ToPlace(page="pg-guide", place="nest")
    moved, _ = read_into(became, "Fares | /guide/birds/\nPrices | /fares/\nGuide | /guide/#nest\n")
    assert moved.entries[0].label.text == "Fares", "which is not that page's title"


def test_a_table_changes_translations_and_takes_them_away() -> None:
    label = Words(text="A", translations=(Translation(language="de", text="Ah"), Translation(language="cy", text="Â")))
    menu = MENU.replaced(entries=(Entry(id="en-a", label=label),))
    table = MenuText(site_with(menu)).table(menu)
    assert table == "level,label,leads to,second line,mark,label cy,label de\n1,A,,,,Â,Ah\n"
    became, edit = read_into(menu, table.replace("Â,Ah", ",Oh"))
    assert became.entries[0].label == Words(text="A", translations=(Translation(language="de", text="Oh"),))
    assert [type(part) for part in parts_of_edit(edit)] == [Set] if edit else False
    kept, _ = read_into(menu, "level,label\n1,A\n")
    assert kept == menu, "of a language that has no column nothing is said"


@pytest.mark.parametrize("site", [ostrey()[0], quillwort()[0]], ids=["ostrey", "quillwort"])
def test_the_demos_menus_are_read_as_they_are_written(site: Site) -> None:
    for menu in site.menus:
        read = MenuText(site).read(MenuText(site).written(menu), menu, str)
        assert read == (None, [])


def test_lines_are_known_again_by_themselves_then_by_where_they_lead_then_by_what_they_say() -> None:
    menu = MENU.replaced(entries=(entry("a", target=ToPage(page="pg-fares")), entry("b"), entry("c")))
    old = [MenuText(site_with(menu)).columns(one) for one in menu.entries]
    a, b, c = old
    assert matched(old, [c, b, a]) == {0: 2, 1: 1, 2: 0}
    assert matched(old, [a._replace(label="New"), b._replace(second="x"), c]) == {0: 0, 1: 1, 2: 2}
    assert matched([a], [c._replace(label="Other")]) == {0: 0}, "what stands in its place"
    assert matched([a], [b, c]) == {}
