"""Where pages hang in a menu, and what putting them in and taking them out does to it."""

from __future__ import annotations

import itertools
import random

import pytest

from upper_rim.core.kinds.entries import Entry, Grown
from upper_rim.core.model.editing.apply import apply
from upper_rim.core.model.editing.edits import Edit
from upper_rim.core.model.navigation.hanging import Hanging, Where
from upper_rim.core.model.navigation.menus import Menus, all_entries
from upper_rim.core.model.site import Menu, Page, Site
from upper_rim.core.values.targets import ToAddress, ToPage, ToPlace
from upper_rim.demo import ostrey

PATHS = ("/", "/a/", "/a/b/", "/a/b/c/", "/a/d/", "/a-old/", "/e.html", "/f/g/", "/f/h/")
PAGES = tuple(Page(id=f"pg-{path.strip('/').replace('/', '-') or 'front'}".replace(".", "-"), path=path) for path in PATHS)  # fmt: skip
GERMAN = Page(id="pg-de", path="/de/", language="de")
IDS = {page.path: page.id for page in PAGES}


def site_of(*entries: Entry, grows: Grown | None = None) -> Site:
    menu = Menu(id="mn-a", name="Main", entries=entries, grows=grows)
    pages = tuple(sorted((*PAGES, GERMAN), key=lambda page: page.path))
    return Site(name="Ferries", key="q1x7", pages=pages, menus=(menu,))


def to(path: str, *below: Entry, grows: Grown | None = None) -> Entry:
    return Entry(id=f"en-{IDS[path][3:]}", target=ToPage(page=IDS[path]), entries=below, grows=grows)


class Worked:
    """A site on which one thing is done after the other."""

    def __init__(self, site: Site) -> None:
        self.site, self._numbers = site, itertools.count(1)

    @property
    def hanging(self) -> Hanging:
        return Hanging(self.site, self.site.menus[0], Menus(self.site))

    def new_id(self, letters: str) -> str:
        return f"{letters}-new{next(self._numbers)}"

    def toggle(self, *paths: str) -> Worked:
        for path in paths:
            self._do(self.hanging.toggled(self.page(path), self.new_id))
        return self

    def grow(self, path: str) -> Worked:
        self._do(self.hanging.growing(self.page(path), self.new_id))
        return self

    def put(self, what: str, beside: str, where: Where) -> Worked:
        self._do(self.hanging.put(what, beside, where, self.new_id))
        return self

    def page(self, path: str) -> Page:
        return next(page for page in self.site.pages if page.path == path)

    def _do(self, edit: Edit) -> None:
        after = apply(self.site, edit)
        assert isinstance(after, Site), after
        self.site = after

    @property
    def told(self) -> list[str]:
        """`3.2 /path/`, in the menu's order."""
        paths = {page.id: page.path for page in self.site.pages}
        hanging = self.hanging
        return [
            f"{hanging.numbers[one.id]} {paths[one.target.page]}"
            for one in all_entries(hanging.whole)
            if isinstance(one.target, ToPage)
        ]


def test_the_tree_is_that_of_the_paths_and_tells_where_each_page_hangs() -> None:
    entries = (
        to("/a/", to("/a/d/")),
        Entry(id="en-far", target=ToAddress(address="https://x.example/")),
        to("/e.html"),
    )
    place = Entry(id="en-nest", target=ToPlace(page=IDS["/a/"], place="nest"))
    lines = Hanging(site := site_of(*entries, place), site.menus[0], Menus(site)).lines()
    told = [(line.depth, line.path, [one.number for one in line.places], line.below, line.inside) for line in lines]
    assert told == [
        (0, "/", [], 0, 0),
        (0, "/a-old/", [], 0, 0),
        (0, "/a/", ["1", "4"], 3, 1),
        (1, "/a/b/", [], 1, 0),
        (2, "/a/b/c/", [], 0, 0),
        (1, "/a/d/", ["1.1"], 0, 0),
        (0, "/e.html", ["3"], 0, 0),
        (0, "/f/", [], 2, 0),
        (1, "/f/g/", [], 0, 0),
        (1, "/f/h/", [], 0, 0),
    ]
    assert [(number, one.id) for number, one in Worked(site).hanging.elsewhere()] == [("2", "en-far")]


@pytest.mark.parametrize(
    ("paths", "folders"),
    [
        ((), []),
        (("/a/b/c/1/", "/a/b/c/2/"), ["/a/b/c/"]),
        (("/a/b/1/", "/a/b/2/", "/a/c/"), ["/a/", "/a/b/"]),
        (("/a/", "/a/b/1.html", "/a/b/2.html", "/x/1/"), ["/a/b/"]),
        (("/a", "/ab/1", "/ab/2"), ["/ab/"]),
    ],
)
def test_several_pages_below_a_path_at_which_none_stands_are_in_a_folder(
    paths: tuple[str, ...], folders: list[str]
) -> None:
    pages = tuple(Page(id=f"pg-{at}", path=path) for at, path in enumerate(sorted(paths)))
    site = site_of().replaced(pages=pages)
    lines = Hanging(site, site.menus[0], Menus(site)).lines()
    assert [line.path for line in lines if line.page is None] == folders
    assert [line.page for line in lines if line.page] == list(pages)


@pytest.mark.parametrize("seed", range(30))
def test_pages_put_in_in_any_order_make_the_same_menu_where_those_above_them_come_first(seed: int) -> None:
    chance, paths = random.Random(seed), list(PATHS)
    chance.shuffle(paths)
    paths.sort(key=lambda path: path.count("/"))
    work = Worked(site_of()).toggle(*paths)
    assert work.told == [
        "1 /", "2 /a-old/", "3 /a/", "3.1 /a/b/", "3.1.1 /a/b/c/", "3.2 /a/d/", "4 /e.html", "5 /f/g/", "6 /f/h/",
    ]  # fmt: skip
    assert work.toggle(*reversed(paths)).site.menus[0].entries == ()


def test_what_stands_in_an_order_of_ones_own_keeps_it_and_what_comes_goes_to_the_end() -> None:
    assert Worked(site_of(to("/e.html"), to("/a/"))).toggle("/a-old/", "/a/b/").told == [
        "1 /e.html", "2 /a/", "2.1 /a/b/", "3 /a-old/",
    ]  # fmt: skip


def test_what_is_below_a_page_that_is_taken_out_moves_up_to_its_place() -> None:
    site = site_of(to("/a/", to("/a/b/", to("/a/b/c/")), to("/a/d/")), to("/e.html"))
    work = Worked(site).toggle("/a/")
    assert work.told == ["1 /a/b/", "1.1 /a/b/c/", "2 /a/d/", "3 /e.html"]
    assert work.toggle("/a/b/").told == ["1 /a/b/c/", "2 /a/d/", "3 /e.html"]


def test_a_page_that_grows_is_left_out_and_grows_again() -> None:
    work = Worked(site_of(to("/e.html"))).grow("/a/")
    assert work.told == ["1 /a/", "1.1 /a/b/", "1.1.1 /a/b/c/", "1.2 /a/d/", "2 /e.html"]
    lines = {line.path: line for line in work.hanging.lines()}
    assert lines["/a/b/"].places[0].grows_in == lines["/a/"].places[0].entry
    work.toggle("/a/b/")
    assert work.told == ["1 /a/", "1.1 /a/d/", "2 /e.html"]
    assert {line.path: line.left_out_of for line in work.hanging.lines() if line.left_out_of}.keys() == {"/a/b/"}
    work.toggle("/a/b/")
    assert work.told == ["1 /a/", "1.1 /a/b/", "1.1.1 /a/b/c/", "1.2 /a/d/", "2 /e.html"]
    assert work.grow("/a/").told == ["1 /a/", "2 /e.html"]


def test_a_page_left_out_that_would_not_grow_is_put_in_by_hand() -> None:
    grows = Grown(path="/a/", depth=1, without=(IDS["/a/b/c/"],))
    assert Worked(site_of(to("/a/", grows=grows))).toggle("/a/b/c/").told[1] == "1.1 /a/b/c/"


@pytest.mark.parametrize(
    ("what", "beside", "where", "told"),
    [
        ("en-e-html", "en-a", "before", ["1 /e.html", "2 /a/", "2.1 /a/d/"]),
        ("en-e-html", "en-a", "below", ["1 /a/", "1.1 /a/d/", "1.2 /e.html"]),
        ("en-e-html", "en-a-d", "before", ["1 /a/", "1.1 /e.html", "1.2 /a/d/"]),
        ("en-a-d", "en-a", "after", ["1 /a/", "2 /a/d/", "3 /e.html"]),
        ("en-a", "en-e-html", "after", ["1 /e.html", "2 /a/", "2.1 /a/d/"]),
        ("pg-a-b", "en-a-d", "after", ["1 /a/", "1.1 /a/d/", "1.2 /a/b/", "2 /e.html"]),
        ("pg-a-d", "en-e-html", "below", ["1 /a/", "2 /e.html", "2.1 /a/d/"]),
        ("pg-f-g", "", "after", ["1 /a/", "1.1 /a/d/", "2 /e.html", "3 /f/g/"]),
    ],
)
def test_an_entry_or_a_page_is_put_beside_another(what: str, beside: str, where: Where, told: list[str]) -> None:
    assert Worked(site_of(to("/a/", to("/a/d/")), to("/e.html"))).put(what, beside, where).told == told


def test_beside_what_grows_is_behind_all_that_stands_there_by_hand() -> None:
    site = site_of(to("/a/", to("/e.html"), grows=Grown(path="/a/")))
    assert Worked(site).put("pg-f-g", "pg-a-b", "before").told[:3] == ["1 /a/", "1.1 /e.html", "1.2 /f/g/"]


def test_every_page_of_the_demo_goes_in_and_out_and_leaves_the_rest_as_it_was() -> None:
    demo = ostrey()[0]
    menus = Menus(demo)
    for menu in demo.menus:
        hanging = Hanging(demo, menu, menus)
        absent = [line.page for line in hanging.lines() if line.page and not line.places and not line.left_out_of]
        for page in absent:
            after = apply(demo, hanging.toggled(page, lambda letters: f"{letters}-new"))
            assert isinstance(after, Site)
            changed = after.menu(menu.id)
            assert changed is not None
            back = Hanging(after, changed, Menus(after)).toggled(page, lambda letters: f"{letters}-no")
            assert apply(after, back) == demo
