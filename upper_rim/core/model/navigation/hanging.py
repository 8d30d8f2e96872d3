"""Where do the site's pages hang in a menu, and which edit puts one in, takes it out, or has pages grow from it?"""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable, Iterable, Iterator, Mapping
from functools import lru_cache
from typing import Literal, NamedTuple

from ...kinds.entries import Entry, Grown
from ...values.targets import ToPage, ToPlace
from ..editing.edits import Add, Edit, Move, Remove, Set, Together
from ..memo import Memo
from ..site import Menu, Page, Site
from .menus import Menus, all_entries, grown

NewId = Callable[[str], str]
Where = Literal["before", "after", "below"]


class Place(NamedTuple):
    """`number`: `3.2` for the second entry below the third; `entry`: its id, which is the page's where it grows;
    `grows_in`: the entry or the menu that it grows in, empty for one made by hand."""

    number: str
    entry: str
    grows_in: str


class PageLine(NamedTuple):
    """A page in the site's tree, or a folder of pages where no page stands at its path. `key`: the page's id, or the
    folder's path; `parent`: the key of what it stands below. `below`: how many pages stand below it, `inside`: how many
    of them hang in the menu; `left_out_of`: which branch leaves it out of what grows there."""

    key: str
    path: str
    page: Page | None
    parent: str
    depth: int
    below: int
    places: tuple[Place, ...] = ()
    inside: int = 0
    left_out_of: str = ""


class _Tree:
    """The pages in one language, whatever hangs in a menu. Worked out once for the very same pages."""

    def __init__(self, pages: tuple[Page, ...], language: str) -> None:
        self.pages = [page for page in pages if page.language == language]
        outlined = _outlined(tuple((page.path, page.id) for page in self.pages))
        self.parents = outlined.parents
        by_id = {page.id: page for page in self.pages}
        self.nodes = [PageLine(key, path, by_id.get(key), *place) for (key, path), place in outlined.lines]
        self.below = {node.key: node.below for node in self.nodes}


class _Outlined(NamedTuple):
    """`parents`: of pages among themselves; `lines`: with the folders, of each its key and path, and what it stands below,
    how deep, and how many pages stand below it."""

    parents: Mapping[str, str]
    lines: tuple[tuple[tuple[str, str], tuple[str, int, int]], ...]


@lru_cache(maxsize=8)
def _outlined(pages: tuple[tuple[str, str], ...]) -> _Outlined:
    """Of paths and ids, in the order of the paths."""
    folders = _folders([path for path, _ in pages])
    listed = sorted([*pages, *((path, path) for path in folders)], key=lambda one: one[0])
    parents, taken = _parents(listed), frozenset(folders)
    depths: dict[str, int] = {"": -1}
    below: dict[str, int] = {}
    for _, key in listed:
        depths[key] = depths[parents[key]] + 1
    for _, key in reversed(listed):
        below[parents[key]] = below.get(parents[key], 0) + below.get(key, 0) + (key not in taken)
    lines = (((key, path), (parents[key], depths[key], below.get(key, 0))) for path, key in listed)
    return _Outlined(_parents(pages), tuple(lines))


def _folders(paths: Iterable[str]) -> list[str]:
    """Paths that several pages stand below, but none at; of folders that hold but a folder the innermost."""
    counts: Counter[str] = Counter()
    taken = set(paths)
    for path in taken:
        at = path.find("/", 1)
        while 0 < at < len(path) - 1:
            counts[path[: at + 1]] += 1
            at = path.find("/", at + 1)
    nested = {path[: path.rstrip("/").rfind("/") + 1] for path in counts if _is_all_of(path, counts)}
    return [path for path, count in counts.items() if count > 1 and path not in taken and path not in nested]


_trees: Memo[tuple[Page, ...], dict[str, _Tree]] = Memo(8)


def _tree_of(site: Site) -> _Tree:
    trees = _trees.of(site.pages, lambda _: {})
    if site.language not in trees:
        trees[site.language] = _Tree(site.pages, site.language)
    return trees[site.language]


class Hanging:
    """One menu of a site, as it is and against the tree of the pages in the site's language. A page stands below the
    nearest page whose path its own begins with; the front page beside the others."""

    def __init__(self, site: Site, menu: Menu, menus: Menus) -> None:
        self._site, self._menu = site, menu
        self.menu_id, self.language = menu.id, site.language
        self.own = {entry.id: entry for entry in all_entries(menu.entries)}
        self._around = {child.id: holder for holder in (menu, *self.own.values()) for child in holder.entries}
        self.whole = menus.whole(menu)
        self.numbers: dict[str, str] = {}
        self._places: dict[str, tuple[Place, ...]] = {}
        self._number(self.whole, "", menu.id)
        self._left_out = {
            page: holder.id
            for holder in (menu, *self.own.values())
            for page in (holder.grows.without if holder.grows else ())
        }
        self._tree = _tree_of(site)

    def _number(self, entries: tuple[Entry, ...], above: str, grows_in: str) -> None:
        for at, entry in enumerate(entries, 1):
            number = f"{above}{at}"
            grows = entry.id not in self.own
            self.numbers[entry.id] = number
            if isinstance(entry.target, ToPage | ToPlace):
                place = Place(number, entry.id, grows_in if grows else "")
                self._places[entry.target.page] = (*self.places(entry.target.page), place)
            self._number(entry.entries, f"{number}.", grows_in if grows else entry.id)

    def places(self, page: str) -> tuple[Place, ...]:
        return self._places.get(page, ())

    def lines(self) -> list[PageLine]:
        """All pages of the tree and their folders, each followed by what is below it."""
        inside: dict[str, int] = {}
        for node in reversed(self._tree.nodes):
            there = inside.get(node.key, 0) + (node.key in self._places)
            if there:
                inside[node.parent] = inside.get(node.parent, 0) + there
        told = {*self._places, *self._left_out, *inside}
        return [self._told(node, inside) if node.key in told else node for node in self._tree.nodes]

    def _told(self, node: PageLine, inside: Mapping[str, int]) -> PageLine:
        return node._replace(
            places=self.places(node.key),
            inside=inside.get(node.key, 0),
            left_out_of=self._left_out.get(node.key, ""),
        )

    def below(self, page: str) -> int:
        """How many pages of the tree stand below one."""
        return self._tree.below.get(page, 0)

    def elsewhere(self) -> list[tuple[str, Entry]]:
        """Entries that lead to no page of the tree, with their numbers."""
        listed = self._tree.parents
        return [
            (self.numbers[entry.id], entry)
            for entry in self.own.values()
            if not (isinstance(entry.target, ToPage | ToPlace) and entry.target.page in listed)
        ]

    def toggled(self, page: Page, new_id: NewId) -> Edit:
        """Puts a page in at the place that the tree has for it; or takes it out, and what is below it moves up."""
        places = self._places.get(page.id, ())
        if places:
            return Together(edits=tuple(edit for place in places for edit in self._taken_out(place, page)))
        holder = self._holder(self._left_out.get(page.id, ""))
        if holder is not None and holder.grows is not None:
            grows = holder.grows.replaced(without=tuple(one for one in holder.grows.without if one != page.id))
            if page.id in {one.id for one in all_entries(grown(grows, self._site.pages, self._site.language))}:
                return _growth(holder, grows)
        return self._put_in(page, new_id)

    def growing(self, page: Page, new_id: NewId) -> Edit:
        """Has the pages below one grow from its entry, which is put in if it is not there; or no longer."""
        own = next((self.own[place.entry] for place in self.places(page.id) if not place.grows_in), None)
        grows = Grown(path=page.path)
        if own is None:
            return self._put_in(page, new_id, grows)
        return _growth(own, None if own.grows else grows)

    def put(self, what: str, beside: str, where: Where, new_id: NewId) -> Edit:
        """An entry, or a page's entry, beside another one or below it; where there is none, at the menu's end. Beside
        what grows is behind all that is made by hand there."""
        own = what if what in self.own else next((one.entry for one in self.places(what) if not one.grows_in), "")
        parent, at = self.spot(beside, where, own)
        if own:
            return Move(node=own, parent=parent, slot="entries", at=at)
        entry = Entry(id=new_id("en"), target=ToPage(page=what))
        return Add(parent=parent, slot="entries", values=(entry.model_dump(mode="json"),), at=at)

    def spot(self, beside: str, where: Where, moved: str = "") -> tuple[str, int]:
        """A place beside or below an entry: the holder, and the place in it without what is moved."""
        if beside not in self.own:
            grows_in = next((place.grows_in for place in self.places(beside)), "")
            grown_in = self._holder(grows_in) or self._menu
            return grown_in.id, len([one for one in grown_in.entries if one.id != moved])
        if where == "below":
            return beside, len([one for one in self.own[beside].entries if one.id != moved])
        holder = self._around[beside]
        at = [one.id for one in holder.entries].index(beside)
        is_before = any(one.id == moved for one in holder.entries[:at])
        return holder.id, at - is_before + (where == "after" and beside != moved)

    def _taken_out(self, place: Place, page: Page) -> Iterator[Edit]:
        if place.grows_in:
            holder = self._holder(place.grows_in)
            if holder is not None and holder.grows is not None:
                yield _growth(holder, holder.grows.replaced(without=(*holder.grows.without, page.id)))
            return
        entry, around = self.own[place.entry], self._around[place.entry]
        at = [one.id for one in around.entries].index(entry.id)
        for further, child in enumerate(entry.entries, 1):
            yield Move(node=child.id, parent=around.id, slot="entries", at=at + further)
        yield Remove(nodes=(entry.id,))

    def _put_in(self, page: Page, new_id: NewId, grows: Grown | None = None) -> Edit:
        holder = self._natural_holder(page)
        entry = Entry(id=new_id("en"), target=ToPage(page=page.id), grows=grows)
        value = entry.model_dump(mode="json")
        return Add(parent=holder.id, slot="entries", values=(value,), at=self._natural_place(holder, page))

    def _natural_holder(self, page: Page) -> Menu | Entry:
        """The entry of the nearest page above it that has one of its own."""
        parents = self._tree.parents
        above = parents[page.id]
        while above:
            found = next((place.entry for place in self.places(above) if not place.grows_in), None)
            if found is not None:
                return self.own[found]
            above = parents[above]
        return self._menu

    def _natural_place(self, holder: Menu | Entry, page: Page) -> int:
        """In the order of the tree where what is there stands in it, else at the end."""
        order = {one.id: at for at, one in enumerate(self._tree.pages)}
        there = [order.get(one.target.page) if isinstance(one.target, ToPage) else None for one in holder.entries]
        known = [one for one in there if one is not None]
        if known != sorted(known):
            return len(there)
        before = [at for at, one in enumerate(there) if one is not None and one < order[page.id]]
        behind = [at for at, one in enumerate(there) if one is not None and one > order[page.id]]
        return before[-1] + 1 if before else behind[0] if behind else len(there)

    def _holder(self, node: str) -> Menu | Entry | None:
        return self._menu if node == self._menu.id else self.own.get(node)


def _is_all_of(path: str, counts: Mapping[str, int]) -> bool:
    """Whether all pages of the folder around it are in it."""
    return counts[path] == counts.get(path[: path.rstrip("/").rfind("/") + 1])


def _parents(nodes: Iterable[tuple[str, str]]) -> dict[str, str]:
    """Of paths and keys, in the order of the paths: by key that of the nearest one above it; empty where there is
    none."""
    parents: dict[str, str] = {}
    above: list[tuple[str, str]] = []
    for path, key in nodes:
        while above and not path.startswith(above[-1][0]):
            above.pop()
        parents[key] = above[-1][1] if above else ""
        if path.endswith("/") and path != "/":
            above.append((path, key))
    return parents


def _growth(holder: Menu | Entry, grows: Grown | None) -> Edit:
    return Set(node=holder.id, field="grows", value=grows.model_dump(mode="json") if grows else None)
