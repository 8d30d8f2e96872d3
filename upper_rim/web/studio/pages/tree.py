"""The pages of a site as a tree by path: a folder of it, some at a time, and pages that are found by title or path."""

from __future__ import annotations

from dataclasses import dataclass, field

from ....core.model.site import Page, Site

OPEN_TREE_UP_TO = 120
"""Sites with no more pages than this show their whole tree at once; larger ones open a folder when asked."""
PART = 200
"""Of what stands in one folder, and of what is found, so much is shown before more is asked for."""


@dataclass
class PageBranch:
    """A folder of the tree: pages directly in it, folders below it, and how many pages in all. `onward`: where the part
    behind this one begins, of which there are `more`."""

    path: str
    name: str
    pages: list[Page] = field(default_factory=list)
    below: list[PageBranch] = field(default_factory=list)
    count: int = 0
    onward: int = 0
    more: int = 0


def branch_of(site: Site, path: str = "/", *, whole: bool) -> PageBranch:
    """The tree below a path; where not `whole`, folders below it carry their count only."""
    root = PageBranch(path, path)
    folders: dict[str, PageBranch] = {path: root}
    for page in site.pages:
        if not page.path.startswith(path):
            continue
        root.count += 1
        folder, at = root, path
        for part in page.path[len(path) :].rstrip("/").split("/")[:-1]:
            at += part + "/"
            if at not in folders:
                folders[at] = PageBranch(at, part + "/")
                folder.below.append(folders[at])
            folder = folders[at]
            folder.count += 1
            if not whole:
                break
        if whole or folder is root:
            folder.pages.append(page)
    _move_index_pages(folders)
    return root


def _move_index_pages(folders: dict[str, PageBranch]) -> None:
    """A page that answers at a folder's own path stands first inside that folder."""
    moved: list[tuple[PageBranch, Page]] = []
    for branch in folders.values():
        own = [page for page in branch.pages if folders.get(page.path, branch) is not branch]
        if own:
            gone = {page.id for page in own}
            branch.pages = [page for page in branch.pages if page.id not in gone]
            moved += ((folders[page.path], page) for page in own)
    for folder, page in moved:
        folder.pages.insert(0, page)
        folder.count += 1


def part_of(branch: PageBranch, begin: int) -> PageBranch:
    """What stands right in a branch from there on, pages before folders."""
    pages, below = branch.pages[begin : begin + PART], branch.below[max(0, begin - len(branch.pages)) :]
    shown = PageBranch(branch.path, branch.name, pages, below[: PART - len(pages)], branch.count, begin + PART)
    shown.more = max(0, len(branch.pages) + len(branch.below) - shown.onward)
    return shown


def found_in(site: Site, typed: str, begin: int) -> PageBranch:
    """The pages that have it in their title or path, as one branch."""
    sought = typed.lower()
    pages = [page for page in site.pages if sought in page.path.lower() or sought in page.title.lower()]
    return part_of(PageBranch("/", typed, pages, count=len(pages)), begin)
