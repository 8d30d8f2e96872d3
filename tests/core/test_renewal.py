"""Pages that are not made again are what they would have become, whatever is changed; and nothing that they load is missing."""

from __future__ import annotations

import random
from collections.abc import Mapping

import pytest

from upper_rim.core.exchange.imports.import_pages import described_page, digest, file_name
from upper_rim.core.kinds.items.logo import Logo
from upper_rim.core.kinds.items.posts import Posts
from upper_rim.core.kinds.items.trail import Trail
from upper_rim.core.model.editing.apply import apply
from upper_rim.core.model.editing.edits import Remove, Set
from upper_rim.core.model.site import Menu, Page, Site
from upper_rim.core.model.tree import items_of
from upper_rim.core.output.publication import publication
from upper_rim.core.output.renewal import Making, Sorts, kept_pages
from upper_rim.demo import ostrey
from upper_rim.shipped import shelf

Contents = dict[str, bytes]


def published(site: Site, contents: Contents, kept: Mapping[str, bytes] | None = None) -> dict[str, bytes]:
    made = publication(site, shelf(), contents.__getitem__, year=2026, kept=frozenset(kept or ()))
    return {file.name: file.data for file in made}


def making_of(site: Site, files: Mapping[str, bytes]) -> Making:
    sorts = Sorts()
    for page in site.pages:
        sorts.add(page, files[file_name(page.path)])
    return Making(made_by="this", sorts=sorts.found)


def without_telling_of_all(site: Site) -> Site:
    """The demo, where no piece shows what pages are called that nobody has named."""
    quiet = tuple(
        piece.replaced(on=piece.on and not any(isinstance(item, Posts | Trail) for item in site.shown_items(piece)))
        for piece in site.pieces
    )
    menus = []
    for menu in site.menus:
        entries = tuple(entry.replaced(grows=None) for entry in menu.entries)
        menus.append(menu.replaced(grows=None, entries=entries) if isinstance(menu, Menu) else menu)
    return site.replaced(menus=tuple(menus), pieces=quiet)


class Changes:
    """Draws what may happen to a site between two editions."""

    def __init__(self, chance: random.Random, contents: Contents) -> None:
        self.chance, self.contents = chance, contents

    def one(self, site: Site) -> tuple[str, Site]:
        ways = {
            "text": 6,
            "title": 2,
            "new page": 3,
            "gone page": 2,
            "moved page": 2,
            "translates": 2,
            "tagged": 1,
            "bare": 1,
            "words": 1,
            "card": 1,
            "file": 2,
        }
        way = self.chance.choices([*ways], [*ways.values()])[0]
        page = self.chance.choice([page for page in site.pages if page.content])
        number = self.chance.randrange(10**6)
        if way == "words":
            menu, *others = site.menus
            return way, site.replaced(menus=(menu.replaced(name=f"Name {number}"), *others))
        if way == "card":
            return way, site.replaced(cards=site.cards[1:])
        if way == "file":
            some = self.chance.choice(site.assets)
            changed = some.replaced(id=f"as-{number}", content=self.chance.choice(site.assets).content)
            return way, site.replaced(assets=tuple(changed if one is some else one for one in site.assets))
        if way == "gone page":
            after = apply(site, Remove(nodes=(page.id,)))
            return way, after if isinstance(after, Site) else site
        if way == "new page":
            path = self.chance.choice([page.path, "/", "/news/"]).rstrip("/") + f"/n{number}/"
            new = self._with_text(Page(id=f"pg-n{number}", path=path, language=page.language), number)
            return way, self._with(site, new)
        changed = {
            "text": lambda: self._with_text(page, number),
            "title": lambda: page.replaced(title=f"Title {number}"),
            "moved page": lambda: page.replaced(path=f"{page.path.rstrip('/')}-{number}/"),
            "translates": lambda: page.replaced(
                translates=None if page.translates else self.chance.choice(site.pages).id, language="de"
            ),
            "tagged": lambda: page.replaced(tags=() if page.tags else ("t",)),
            "bare": lambda: page.replaced(bare=not page.bare),
        }[way]()
        return way, self._with(site, changed)

    def _with_text(self, page: Page, number: int) -> Page:
        """Another content, and with that other places for pieces."""
        source = (
            f"<!DOCTYPE html><html lang={page.language}><head><title>{page.title}</title></head><body>"
            f"{'<p>more</p>' * (number % 9)}<main><h{number % 3 + 1}>Text {number}</h{number % 3 + 1}></main></body></html>"
        ).encode()
        self.contents[digest(source)] = source
        described = described_page(Page(id=page.id, path=page.path, language=page.language), source)
        known = {"title": page.title} if page.title else {}
        return described.replaced(
            tags=page.tags,
            bare=page.bare,
            translates=page.translates,
            dated=page.dated,
            language=page.language,
            **known,
        )

    def _with(self, site: Site, page: Page) -> Site:
        others = [one for one in site.pages if one.id != page.id]
        if page.path in {one.path for one in others}:
            return site
        return site.replaced(pages=tuple(sorted([*others, page], key=lambda one: one.path)))


@pytest.mark.parametrize("seed", range(4))
def test_what_is_not_made_again_is_what_it_would_have_become(seed: int) -> None:
    chance = random.Random(seed)
    site, shipped = ostrey()
    contents = dict(shipped)
    if seed % 3:
        site = without_telling_of_all(site)
    changes = Changes(chance, contents)
    files = published(site, contents)
    for _ in range(3):
        told, after = [], site
        for _ in range(chance.choice([1, 1, 2])):
            way, after = changes.one(after)
            told.append(way)
        kept = kept_pages(site, making_of(site, files), after, "this")
        anew = published(after, contents)
        by_id = {page.id: file_name(page.path) for page in after.pages}
        names = {by_id[page]: files[by_id[page]] for page in kept.pages}
        assert all(anew[name] == data for name, data in names.items()), told
        assert all(anew[by_id[page]] == files[by_id[page]] for page in kept.proofs), told
        made = published(after, contents, kept=names)
        assert not made.keys() & names.keys()
        assert {**names, **made} == anew, (told, [name for name in anew if name not in {**names, **made}])
        site, files = after, anew


def test_a_page_that_says_something_else_is_made_again_alone() -> None:
    site, contents = ostrey()
    contents = dict(contents)
    changes, files = Changes(random.Random(1), contents), published(site, contents)
    page = next(page for page in site.pages if page.path == "/sailings/fares/")
    after = changes._with(site, changes._with_text(page, 7))
    making = making_of(site, files)
    kept = kept_pages(site, making, after, "this")
    assert kept.pages.keys() | kept.proofs == {one.id for one in site.pages} - {page.id}
    assert len(kept.proofs) < len(site.pages) / 3
    assert not kept_pages(site, making, after, "another program").pages
    assert not kept_pages(site, making, after.replaced(name="Other"), "this").pages
    plain = without_telling_of_all(site)
    new = changes._with_text(Page(id="pg-new", path="/guide/new/"), 8)
    making = making_of(plain, published(plain, contents))
    assert not kept_pages(site, making, changes._with(site, new), "this").pages, "a trail tells of it"
    kept = kept_pages(plain, making, changes._with(plain, new), "this")
    assert kept.pages.keys() | kept.proofs == {one.id for one in site.pages}


def test_a_picture_whose_name_is_no_plain_path_is_known_to_be_shown() -> None:
    site, _ = ostrey()
    pictures = [asset for asset in site.assets if asset.path.endswith(".svg")]
    odd = pictures[0].replaced(id="as-odd", path="/img/a'b(1),2.svg")
    logo = next(item for item in items_of(site.pieces) if isinstance(item, Logo))
    for value in (
        Set(node=logo.id, field="picture", value=odd.path),
        Set(node="pc-main", field="name", value="/img/a"),
    ):
        shown = apply(site.replaced(assets=(*site.assets, odd)), value)
        assert isinstance(shown, Site), shown
        changed = shown.replaced(assets=(*site.assets, odd.replaced(content=pictures[1].content)))
        making = Making(made_by="this", sorts={page.id: 0 for page in site.pages})
        is_kept = bool(kept_pages(shown, making, changed, "this").pages)
        assert is_kept is (value.node == "pc-main")
