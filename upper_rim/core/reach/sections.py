"""The sections of a site, by the paths of its pages: the same for whoever looks and whatever the rules are."""

from __future__ import annotations

from dataclasses import dataclass, field

from ..model.memo import Memo
from ..model.site import Page

ROOT_PATH = "/"


@dataclass
class Section:
    """`pages`: those that stand in it itself, by their places among the site's. `below`: the sections in it, by path."""

    path: str
    pages: list[int] = field(default_factory=list)
    below: list[Section] = field(default_factory=list)


def sections_of(pages: tuple[Page, ...]) -> dict[str, Section]:
    """By path, those around a section before it; kept for the pages that were asked for lately. A page at a section's
    own path stands in it."""
    return _kept.of(pages, _sections)


_kept: Memo[tuple[Page, ...], dict[str, Section]] = Memo(4)


def _sections(pages: tuple[Page, ...]) -> dict[str, Section]:
    found = {ROOT_PATH: Section(ROOT_PATH)}
    paths = [page.path for page in pages]
    folders = [folder_around(path) for path in paths]
    for folder in sorted(set(folders)):
        _open(folder, found)
    for at, (path, folder) in enumerate(zip(paths, folders, strict=True)):
        (found.get(path) or found[folder]).pages.append(at)
    for section in found.values():
        section.below.sort(key=lambda one: one.path)
    return dict(sorted(found.items(), key=lambda one: one[0].count("/")))


def _open(path: str, found: dict[str, Section]) -> None:
    """With those around it."""
    below: list[Section] = []
    while path not in found:
        found[path] = made = Section(path, below=below)
        below, path = [made], folder_around(path)
    found[path].below += below


def folder_around(path: str) -> str:
    """The section that a page or a section stands in."""
    return path[: path.rstrip("/").rfind("/") + 1] or ROOT_PATH
