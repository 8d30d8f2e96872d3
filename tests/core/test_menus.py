"""Menus as content: what grows and what is left out, what is read from a text, where a page stands, what is
doubtful."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from upper_rim.core.conditions.below import Below
from upper_rim.core.exchange.html.places import ids_in, places_in
from upper_rim.core.exchange.imports.import_menu import (
    Draft,
    navigations_in,
    read_outline,
    read_table,
)
from upper_rim.core.exchange.imports.import_pages import digest
from upper_rim.core.exchange.imports.typed_links import TypedLinks
from upper_rim.core.findings.checks.parts.menus import in_menu, two_buttons
from upper_rim.core.findings.words import finding_words
from upper_rim.core.kinds.entries import Entry, Grown
from upper_rim.core.kinds.items.links import LinkList
from upper_rim.core.kinds.items.menu import MenuItem
from upper_rim.core.kinds.items.search import SearchBox
from upper_rim.core.kinds.items.trail import Trail
from upper_rim.core.kinds.pieces.base import ReachRule
from upper_rim.core.kinds.pieces.drawer import Drawer
from upper_rim.core.kinds.pieces.header import Header
from upper_rim.core.kinds.rows import Cell, Row
from upper_rim.core.model.editing.apply import apply
from upper_rim.core.model.editing.check import broken_references
from upper_rim.core.model.editing.edits import Add, Remove, Set
from upper_rim.core.model.editing.refusal import Refusal
from upper_rim.core.model.navigation.current import NOWHERE, Standing, Standings
from upper_rim.core.model.navigation.links import Links
from upper_rim.core.model.navigation.menu_uses import longest_labels, pages_in_no_menu, uses
from upper_rim.core.model.navigation.menus import Menus, all_entries, grown
from upper_rim.core.model.navigation.trail import Trails
from upper_rim.core.model.site import Band, Menu, Page, Site
from upper_rim.core.reach.coverage import Coverage, reach_shape
from upper_rim.core.values.targets import ToAddress, ToNothing, ToPage, ToPlace
from upper_rim.core.values.words import Words
from upper_rim.demo import ostrey

PATHS = (
    "/", "/guide/", "/guide/birds/", "/guide/birds/gannet/", "/guide/birds/puffin/", "/guide/flora/",
    "/guide-old/", "/harbours/", "/harbours/skerry/", "/harbours/strand/east/pier/",
)  # fmt: skip


def page(path: str, **more: Any) -> Page:
    name = path.strip("/").replace("/", "-") or "front"
    return Page(id=f"pg-{name}"[:40], path=path, title=name.rpartition("-")[2].title(), content=digest(b""), **more)


def site_of(*menus: Menu, pages: Iterable[Page] | None = None) -> Site:
    listed = [page(path) for path in PATHS] if pages is None else pages
    return Site(key="qmenu", name="O", menus=menus, pages=tuple(sorted(listed, key=lambda one: one.path)))


def shape(entries: Sequence[Entry]) -> list[object]:
    return [
        (one.id.removeprefix("pg-"), shape(one.entries)) if one.entries else one.id.removeprefix("pg-")
        for one in entries
    ]


def to(page_id: str, *below: Entry, **more: Any) -> Entry:
    return Entry(id=f"en-{page_id}", target=ToPage(page=f"pg-{page_id}"), entries=below, **more)


def test_pages_grow_below_the_nearest_page_above_them() -> None:
    pages = site_of().pages
    assert shape(grown(Grown(path="/", depth=9), pages, "en")) == [
        "guide-old",
        ("guide", [("guide-birds", ["guide-birds-gannet", "guide-birds-puffin"]), "guide-flora"]),
        ("harbours", ["harbours-skerry", "harbours-strand-east-pier"]),
    ]
    assert shape(grown(Grown(path="/guide/", depth=1), pages, "en")) == ["guide-birds", "guide-flora"]
    assert grown(Grown(path="/nowhere/"), pages, "en") == ()


def test_pages_that_are_left_out_take_with_them_what_is_below() -> None:
    pages = site_of().pages
    assert shape(grown(Grown(path="/", depth=9, without=("pg-guide-birds",)), pages, "en"))[1] == (
        "guide",
        ["guide-flora"],
    )


def test_pages_grow_in_the_order_that_is_asked_for_and_in_the_sites_language() -> None:
    told = (("a", "Zebra", "2026-01-05"), ("b", "apple", "2026-03-01"), ("c", "Mango", None))
    pages = [page(f"/news/{name}/").replaced(title=title, dated=dated) for name, title, dated in told]
    pages.append(page("/news/d/", language="de"))

    def order(name: str) -> list[object]:
        return shape(grown(Grown.model_validate({"path": "/news/", "order": name}), tuple(pages), "en"))

    assert order("path") == ["news-a", "news-b", "news-c"]
    assert order("title") == ["news-b", "news-c", "news-a"]
    assert order("newest") == ["news-b", "news-a", "news-c"]


def test_what_grows_follows_the_pages_and_is_not_doubled_by_hand_made_entries() -> None:
    menu = Menu(
        id="mn-a",
        name="M",
        entries=(to("guide-flora", label=Words(text="Plants")),),
        grows=Grown(path="/guide/", depth=1),
    )
    site = site_of(menu)
    assert shape(Menus(site).whole(menu)) == ["en-guide-flora", "guide-birds"]
    more = site.replaced(pages=tuple(sorted((*site.pages, page("/guide/rocks/")), key=lambda one: one.path)))
    assert shape(Menus(more).whole(menu)) == ["en-guide-flora", "guide-birds", "guide-rocks"]
    fewer = site.replaced(pages=tuple(one for one in site.pages if one.id != "pg-guide-birds"))
    assert shape(Menus(fewer).whole(menu)) == ["en-guide-flora", "guide-birds-gannet", "guide-birds-puffin"]


def test_an_item_shows_a_branch_so_many_levels_deep_less_what_it_leaves_out() -> None:
    menu = Menu(
        id="mn-a",
        name="M",
        entries=(to("guide", to("guide-birds", to("guide-birds-gannet")), to("guide-flora")), to("harbours")),
    )
    menus = Menus(site_of(menu))

    def shown(**fields: Any) -> list[object]:
        return shape(menus.shown(MenuItem(id="it-a", menu="mn-a", **fields)))

    assert shown(depth=1) == ["en-guide", "en-harbours"]
    assert shown(depth=2, without=("en-guide-flora",)) == [("en-guide", ["en-guide-birds"]), "en-harbours"]
    assert shown(branch="en-guide") == [("en-guide-birds", ["en-guide-birds-gannet"]), "en-guide-flora"]
    assert shown(branch="en-gone") == [] and menus.shown(MenuItem(id="it-a", menu="mn-gone")) == ()
    assert shape(menus.shown(LinkList(id="it-b", menu="mn-a"))) == ["en-guide", "en-harbours"]
    assert menus.shown(MenuItem(id="it-c", menu="mn-a")) is menus.shown(MenuItem(id="it-d", menu="mn-a"))


@given(st.lists(st.lists(st.sampled_from("abc"), min_size=0, max_size=4), max_size=20), st.integers(1, 5))
@settings(max_examples=200, deadline=None)
def test_every_page_below_a_path_grows_once_and_no_deeper_than_asked(segments: list[list[str]], depth: int) -> None:
    paths = sorted({"/" + "".join(f"{part}/" for part in one) for one in segments})
    pages = tuple(page(path) for path in paths)
    entries = grown(Grown(path="/a/", depth=9), pages, "en")
    below = [one.id for one in pages if one.path.startswith("/a/") and one.path != "/a/"]
    assert sorted(one.id for one in all_entries(entries)) == sorted(below)
    shallow = grown(Grown(path="/a/", depth=depth), pages, "en")

    def deepest(listed: Sequence[Entry]) -> int:
        return max((1 + deepest(one.entries) for one in listed), default=0)

    assert deepest(shallow) == min(depth, deepest(entries))


def test_a_page_stands_at_its_entry_below_those_above_it_or_else_at_the_nearest() -> None:
    entries = (to("front"), to("guide", to("guide-birds", to("guide-birds-puffin"))), to("harbours"))
    site = site_of()
    standings = Standings(Links(site))

    def of(path: str) -> Standing:
        found = next((one for one in site.pages if one.path == path), None)
        return standings.of(entries, "en", found.id if found else None, path)

    assert of("/guide/birds/puffin/") == ({"en-guide-birds-puffin"}, {"en-guide", "en-guide-birds"})
    assert of("/guide/") == ({"en-guide"}, set())
    assert of("/guide/birds/gannet/") == (set(), {"en-guide", "en-guide-birds"}), "the nearest is the birds' entry"
    assert of("/harbours/strand/east/pier/") == (set(), {"en-harbours"})
    assert of("/") == ({"en-front"}, set()) and of("/guide-old/") == NOWHERE
    assert standings.nearest(entries, "en", "/guide/birds/gannet/") == "/guide/birds/"


def test_a_translation_stands_where_its_original_does() -> None:
    german = page("/de/guide/", language="de", translates="pg-guide")
    site = site_of(pages=[*(page(path) for path in PATHS), german])
    standings = Standings(Links(site))
    entries = (to("guide"),)
    assert standings.of(entries, "de", german.id, german.path).here == {"en-guide"}
    assert standings.of(entries, "en", german.id, german.path) == NOWHERE


def outline(text: str) -> tuple[list[object], list[int]]:
    read = read_outline(text)
    return _told(read.entries), [fault.line for fault in read.faults]


def _told(drafts: Iterable[Draft]) -> list[object]:
    return [(one.label, one.leads_to, _told(one.below)) if one.below else (one.label, one.leads_to) for one in drafts]


def test_an_indented_list_becomes_a_tree() -> None:
    text = "\n".join(
        (
            "Harbours\t/harbours/",
            "  - Skerry | /harbours/skerry/ | Ferries daily",
            "    1. Pier -> /harbours/skerry/#pier",
            "  * Strand",
            "",
            "Call us | +44 1632 960144",
        )
    )
    assert outline(text) == (
        [
            (
                "Harbours",
                "/harbours/",
                [("Skerry", "/harbours/skerry/", [("Pier", "/harbours/skerry/#pier")]), ("Strand", "")],
            ),
            ("Call us", "+44 1632 960144"),
        ],
        [],
    )
    assert read_outline(text).entries[0].below[0].second == "Ferries daily"
    assert outline("Fares - all | /fares/\n\\- Dash | \\| x") == ([("Fares - all", "/fares/"), ("- Dash", "| x")], [])


def test_lines_that_cannot_be_meant_are_told_by_number_and_the_rest_goes_in() -> None:
    assert outline("A\n    B\n  C\n    D\nE") == ([("A", "", [("B", ""), ("D", "")]), ("E", "")], [3])
    assert outline("    A\nB\n | \nC") == ([("A", ""), ("B", ""), ("C", "")], [3])
    deep = "\n".join("  " * at + str(at) for at in range(20))
    assert outline(deep)[1] == list(range(13, 21))


@given(
    st.lists(st.tuples(st.integers(0, 6), st.text(min_size=1, max_size=12)), max_size=40),
    st.sampled_from(["  ", "\t", "    "]),
)
@settings(max_examples=200, deadline=None)
def test_any_text_is_read_and_every_line_is_an_entry_or_a_fault(lines: list[tuple[int, str]], indent: str) -> None:
    text = "\n".join(indent * depth + said for depth, said in lines)
    read = read_outline(text)

    def count(drafts: Iterable[Draft]) -> int:
        return sum(1 + count(one.below) for one in drafts)

    assert count(read.entries) + len(read.faults) == sum(1 for line in text.splitlines() if line.strip())


def test_a_table_becomes_a_tree() -> None:
    text = 'Level;Label;Leads to;Label de;Second line;Mark\n1;Harbours;/harbours/;Häfen;;\n2;Skerry;/harbours/skerry/;;Daily;New\n1;"Post; mail";post@ostrey.example;;;\n'
    read = read_table(text)
    assert read.faults == [] and _told(read.entries) == [
        ("Harbours", "/harbours/", [("Skerry", "/harbours/skerry/")]),
        ("Post; mail", "post@ostrey.example"),
    ]
    assert read.entries[0].translations == (("de", "Häfen"),)
    assert (read.entries[0].below[0].second, read.entries[0].below[0].mark) == ("Daily", "New")


@pytest.mark.parametrize(
    ("text", "lines"),
    [
        ("level,label\n1,A\n3,B\n2,C\nx,D\n2,\n", [3, 5, 6]),
        ("where,what\n/a/,A\n", [1]),
        ("label\nA\nB\n", []),
        ('label,path\nA,"/a/\n', []),
        ("label,path\n\nA,/a/\n,\nB,/b/\nC\n", []),
    ],
)
def test_faults_of_a_table_are_told_by_line(text: str, lines: list[int]) -> None:
    assert [fault.line for fault in read_table(text).faults] == lines


def test_the_navigation_of_a_page_becomes_a_tree() -> None:
    html = """
    <header><nav aria-label="Main"><a href="/">Home</a><ul>
      <li><a href="harbours/">Har<b>bours</b></a><ul><li><a href="harbours/skerry/?x=1#pier">Skerry</a></li>
        <li><span>Islands</span><ol><li><a href="https://other.example/a">Other</a></li></ol></li></ul></li>
      <li><a href="javascript:void(0)">More</a><ul><li><a href="#top">Top</a></li></ul></li>
    </ul></nav></header>
    <main><p><a href="/x/">x</a></p><ul><li>no</li><li>links</li><li>here</li></ul></main>
    <footer><ul><li><a href="/a/">A</a></li><li><a href="/b/">B</a></li><li><a href="/c/">C</a></li></ul></footer>
    """
    main, foot = navigations_in(html, "/guide/")
    assert (main.name, main.selector, main.links) == ("Main", "nav 1", 7)
    assert _told(main.entries) == [
        ("Home", "/"),
        ("Harbours", "/guide/harbours/", [("Skerry", "/guide/harbours/skerry/#pier"), ("Islands", "", [("Other", "https://other.example/a")])]),
        ("More", "", [("Top", "/guide/#top")]),
    ]  # fmt: skip
    assert [one.label for one in foot.entries] == ["A", "B", "C"]
    assert navigations_in("<p>nothing", "/") == navigations_in("", "/") == []


@pytest.mark.parametrize(
    ("text", "target"),
    [
        ("/harbours", ToPage(page="pg-harbours")),
        ("Harbours", ToPage(page="pg-harbours")),
        ("/harbours/#east%20pier", None),
        ("/harbours/#pier", ToPlace(page="pg-harbours", place="pier")),
        ("/harbours/#", ToPage(page="pg-harbours")),
        ("#top", ToAddress(address="#top")),
        ("post@ostrey.example", ToAddress(address="mailto:post@ostrey.example")),
        ("+44 (1632) 960-144", ToAddress(address="tel:+441632960144")),
        ("ostrey.example/x", ToAddress(address="https://ostrey.example/x")),
        ("", ToNothing()),
        ("javascript:alert(1)", None),
        ("//other.example/", None),
    ],
)
def test_typed_links_are_what_they_look_like(text: str, target: object) -> None:
    links = TypedLinks(site_of())
    if target is None:
        with pytest.raises(ValueError, match=r"\w"):
            links.target(text)
    else:
        assert links.target(text) == target


PAGE = b"""<!doctype html><body><h1 id=title>Harbours</h1><section id=skerry><h2>Skerry</h2><p id=times>Times</section>
<section id=strand>Text<h2>Strand</h2></section><h3>No way here</h3><a name=old></a>"""


def test_places_of_a_page_are_its_headings_and_ids() -> None:
    assert [tuple(one) for one in places_in(PAGE, "utf-8")] == [
        ("title", "Harbours", 1),
        ("skerry", "Skerry", 2),
        ("times", "Times", None),
        ("strand", "TextStrand", None),
        ("", "Strand", 2),
        ("", "No way here", 3),
    ]
    assert ids_in(PAGE, "utf-8") == {"title", "skerry", "times", "strand", "old"}


def test_what_is_doubtful_about_a_menu_is_told() -> None:
    entries = (
        to("guide", to("guide-birds", to("guide-flora", to("guide-birds-gannet")))),
        Entry(id="en-again", label=Words(text="Guide"), target=ToPage(page="pg-harbours")),
        Entry(id="en-twice", label=Words(text="Twice"), target=ToPage(page="pg-guide")),
        Entry(id="en-gone", target=ToPage(page="pg-gone")),
        Entry(id="en-place", label=Words(text="P"), target=ToPlace(page="pg-guide", place="nowhere")),
        Entry(id="en-well", label=Words(text="W"), target=ToPlace(page="pg-guide", place="here")),
        Entry(id="en-path", label=Words(text="Q"), target=ToAddress(address="/missing/?a#b")),
        Entry(id="en-known", label=Words(text="K"), target=ToAddress(address="/harbours/?a")),
        Entry(id="en-blank", label=Words(text="B")),
        Entry(id="en-grows", label=Words(text="G"), grows=Grown(path="/nothing/")),
        Entry(id="en-later", target=ToPage(page="pg-later")),
    )
    menu = Menu(id="mn-a", name="M", entries=entries)
    later = page("/later/").replaced(content=None)
    site = site_of(menu, pages=[*(page(path) for path in PATHS), later])
    found = in_menu(menu, site, Menus(site), Links(site), lambda page: frozenset({"here"}))
    assert [(one.node, one.kind, one.other or "".join(map(str, one.about.values()))) for one in found] == [
        ("en-guide-birds-gannet", "deep", ""),
        ("en-again", "same label", "en-guide"),
        ("en-twice", "double", "en-guide"),
        ("en-gone", "page gone", ""),
        ("en-place", "no place", "nowhere"),
        ("en-path", "no page", "/missing/"),
        ("en-blank", "nothing", ""),
        ("en-grows", "nothing grows", "/nothing/"),
        ("en-later", "to come", "/later/"),
    ]
    assert [one.path for one in pages_in_no_menu(site, Menus(site))] == [
        "/",
        "/guide-old/",
        "/guide/birds/puffin/",
        "/harbours/skerry/",
        "/harbours/strand/east/pier/",
    ]


def test_two_menu_buttons_on_a_page_are_told_where_they_show_in_the_same_band() -> None:
    site, _ = ostrey()
    assert two_buttons(site) == [], "of headers only one shows"
    bar = next(piece for piece in site.pieces if piece.kind == "bottom")
    second = MenuItem(id="it-second", menu="mn-main", drawer_below="bd-middle")
    row = bar.rows[0].replaced(cells=(*bar.rows[0].cells, Cell(id="cl-second", items=(second,))))
    both = site.replaced(pieces=tuple(piece.replaced(rows=(row,)) if piece is bar else piece for piece in site.pieces))
    (found,) = [one for one in two_buttons(both) if one.node == "it-menu"]
    assert (found.other, found.place.band) == ("it-second", "bd-narrow")
    assert finding_words(found, str).startswith(f"“Main header” and “{bar.name}” both bring one, on / and elsewhere")
    wide = second.replaced(hidden_in=("bd-narrow",))
    apart = bar.rows[0].replaced(cells=(*bar.rows[0].cells, Cell(id="cl-second", items=(wide,))))
    alone = site.replaced(
        pieces=tuple(piece.replaced(rows=(apart,)) if piece is bar else piece for piece in site.pieces)
    )
    assert two_buttons(alone) == []


def trails_of(site: Site) -> Trails:
    links = Links(site)
    return Trails(site, links, Menus(site), Standings(links))


def test_a_trail_goes_by_paths_or_by_a_menu_and_ends_at_the_page() -> None:
    menu = Menu(id="mn-a", name="M", entries=(to("harbours", to("guide-birds-puffin")),))
    site = site_of(menu)
    pages = {one.path: one for one in site.pages}
    trails = trails_of(site)
    puffin, by_paths = pages["/guide/birds/puffin/"], Trail(id="it-a", words=Words(text="Home"))
    assert [tuple(step) for step in trails.steps(by_paths, puffin)] == [
        ("Home", "/"), ("Guide", "/guide/"), ("Birds", "/guide/birds/"), ("Puffin", None),
    ]  # fmt: skip
    by_menu = by_paths.replaced(menu="mn-a")
    assert [step.words for step in trails.steps(by_menu, puffin)] == ["Home", "Harbours", "Puffin"]
    assert [step.words for step in trails.steps(by_menu, pages["/guide-old/"])] == ["Home", "Old"]
    assert [tuple(step) for step in trails.steps(by_paths, pages["/"])] == [("Front", None)]
    longest = trails.longest(by_paths, "en", site.pages)
    assert [step.words for step in longest] == ["Home", "Guide", "Birds", "Gannet"]


def test_where_a_menu_is_used_and_its_longest_labels() -> None:
    site, _ = ostrey()
    menu = site.menus[0]
    assert {use.piece.name for use in uses(menu, site)} >= {"Main header"}
    languages = ("en", "de")
    for language, label, node in longest_labels(Menus(site).whole(menu), Links(site), languages):
        everything = [Links(site).label(entry, language) for entry in all_entries(menu.entries)]
        assert len(label) == max(map(len, everything)) and node in {entry.id for entry in all_entries(menu.entries)}


def drawer_site() -> Site:
    """A header whose menu holds a drawer with a search."""
    menu = MenuItem(id="it-menu", menu="mn-a", drawer_below="bd-wide", drawer="pc-drawer")
    head = Header(
        id="pc-head",
        name="Head",
        rows=(Row(id="rw-a", cells=(Cell(id="cl-a", items=(menu,)),)),),
        reach=(ReachRule(id="rr-a", where=Below(path="/guide/")),),
    )
    rows = (Row(id="rw-b", cells=(Cell(id="cl-b", items=(SearchBox(id="it-search"),)),)),)
    bands = (Band(id="bd-slim", name="Slim", from_px=0), Band(id="bd-wide", name="Wide", from_px=900))
    site = site_of(Menu(id="mn-a", name="A", entries=(to("guide"),)))
    pages = tuple(one.replaced(content=None) for one in site.pages)
    return site.replaced(bands=bands, pages=pages, pieces=(head, Drawer(id="pc-drawer", name="In the menu", rows=rows)))


def test_a_drawer_shows_where_the_menus_that_hold_it_do() -> None:
    site = drawer_site()
    coverage = Coverage(site)
    assert coverage.slots == ("header",), "drawers do not compete for a place"
    shown = {one.path for one in site.pages if "pc-drawer" in coverage.pieces_on(one)}
    assert shown == {path for path in PATHS if path.startswith("/guide/")}
    off = apply(site, Set(node="pc-drawer", field="on", value=False))
    assert isinstance(off, Site) and not any("pc-drawer" in Coverage(off).pieces_on(one) for one in off.pages)
    let_go = apply(site, Set(node="it-menu", field="drawer", value=None))
    assert isinstance(let_go, Site) and reach_shape(let_go) != reach_shape(site)
    assert not any("pc-drawer" in Coverage(let_go).pieces_on(one) for one in let_go.pages)


def test_drawers_that_are_held_stay_and_none_stands_in_another() -> None:
    site = drawer_site()
    assert broken_references(site) is None
    gone = apply(site, Remove(nodes=("pc-drawer",)))
    assert isinstance(gone, Refusal) and (gone.node, gone.field) == ("it-menu", "drawer")
    inner = {"id": "it-inner", "kind": "menu", "menu": "mn-a"}
    column = apply(site, Add(parent="cl-b", slot="items", values=(inner,)))
    assert isinstance(column, Site)
    button = apply(column, Set(node="it-inner", field="drawer_below", value="bd-wide"))
    assert isinstance(button, Refusal) and button.kind == "button within a drawer"
    shared = apply(site, Add(parent="pc-drawer", slot="rows", values=({"id": "rw-c", "shares": "rw-a"},)))
    assert isinstance(shared, Refusal), "not by way of a shared row either"


def test_entries_go_no_deeper_than_a_document_that_can_be_opened_again() -> None:
    site: Site | Refusal = Site(key="qcore", name="O", menus=(Menu(id="mn-a", name="Main"),))
    parent, last = "mn-a", site
    for level in range(60):
        assert isinstance(site, Site)
        last = site
        site = apply(site, Add(parent=parent, slot="entries", values=({"id": f"en-{level}"},)))
        parent = f"en-{level}"
        if isinstance(site, Refusal):
            break
    assert isinstance(site, Refusal) and site.kind == "too deep" and "levels deep" in site.words
    assert isinstance(last, Site) and Site.model_validate_json(last.model_dump_json()) == last
