"""The pages of a site by path: folders in parts, pages found by title or path, at any size."""

from __future__ import annotations

import random
import re

import pytest
from django.contrib.auth.models import User

from upper_rim.core.model.site import Page, Site
from upper_rim.web.sites import store
from upper_rim.web.studio.pages.tree import PART, PageBranch, branch_of, found_in, part_of

from .conftest import signed_in


def site_of_paths(paths: set[str]) -> Site:
    pages = (Page(id=f"pg-{at}", path=path, title=f"Title {at}") for at, path in enumerate(sorted(paths)))
    return Site(key="qtest", name="T", pages=tuple(pages))


def all_in_parts(branch: PageBranch) -> list[str]:
    found: list[str] = []
    begin, more = 0, 1
    while more:
        part = part_of(branch, begin)
        here = [*(page.path for page in part.pages), *(folder.path for folder in part.below)]
        assert len(here) <= PART
        found += here
        begin, more = part.onward, part.more
    return found


@pytest.mark.parametrize("seed", range(12))
def test_opened_folder_by_folder_and_part_by_part_every_page_is_there_once(seed: int) -> None:
    chance = random.Random(seed)
    names = ["a", "b", "c", "deep", *(f"n{at}" for at in range(300))]
    paths = {
        "/" + "".join(f"{chance.choice(names)}/" for _ in range(chance.randrange(5))) + chance.choice(["", "x.html"])
        for _ in range(1500)
    }
    site = site_of_paths(paths)
    seen: list[str] = []

    def open_all(path: str) -> int:
        branch = branch_of(site, path, whole=False)
        seen.extend(page.path for page in branch.pages)
        listed = all_in_parts(branch)
        assert listed == [*(page.path for page in branch.pages), *(folder.path for folder in branch.below)]
        below = sum(open_all(folder.path) for folder in branch.below)
        assert [folder.count for folder in branch.below] == [
            branch_of(site, folder.path, whole=False).count for folder in branch.below
        ]
        assert branch.count == len(branch.pages) + below
        return branch.count

    assert open_all("/") == len(paths)
    assert sorted(seen) == sorted(paths)


def test_a_crowded_folder_is_shown_in_parts_and_pages_are_found(ada: User) -> None:
    site = site_of_paths({"/", *(f"/api/{at:03}/" for at in range(450))})
    store.new_site(ada, site, {}, slug="crowded")
    client = signed_in(ada)

    def shown(address: str) -> tuple[list[str], str]:
        said = client.get(f"/s/crowded/pages/{address}").content.decode()
        more = re.search(r'hx-get="([^"]*begin=\d+)"', said)
        return re.findall(r'text-soft">(/[^<]*)</span>', said), more[1].replace("&amp;", "&") if more else ""

    assert shown("")[0] == ["/"], "folders of a large site are shut"
    seen, onward = shown("branch/?below=/api/")
    while onward:
        more, onward = shown(onward.removeprefix("/s/crowded/pages/"))
        seen += more
    assert seen == [f"/api/{at:03}/" for at in range(450)]
    assert shown("branch/?q=PI/44")[0] == [f"/api/44{at}/" for at in range(10)]
    assert shown("?q=title 450")[0] == ["/api/449/"], "without script, too"
    first, onward = shown("branch/?q=api")
    assert len(first) == PART and len(shown(onward.removeprefix("/s/crowded/pages/"))[0]) == PART
    assert "No page has “&lt;nothing”" in client.get("/s/crowded/pages/branch/?q=<nothing").content.decode()
    assert found_in(site, "/api/", 400).more == 0
