"""How do an archive's pages become part of a site, in the background?

All that could be read comes in as one edit, so that one undo takes it out again.
"""

from __future__ import annotations

from collections.abc import Iterator
from typing import NamedTuple, Self

from ...core.exchange.bundle import BrokenBundle, brought_by
from ...core.exchange.imports.import_pages import (
    BrokenArchive,
    Expected,
    Incoming,
    Problem,
    digest,
    read_archive,
    read_sitemap,
)
from ...core.kinds.page_shapes import PageShape
from ...core.model.editing.edits import Add, Edit, Remove, Together
from ...core.model.editing.refusal import Refusal
from ...core.model.navigation.renewed import renewed
from ...core.model.site import Asset, Page, Site
from .. import wall
from ..sites import contents, ids, store
from ..sites.models import Work
from ..sites.progress import Progress
from ..sites.uploads import on_disk
from .ending import end_work

CONTENTS_AT_ONCE = 200
LARGEST_SITEMAP = 50_000_000


class Arrived(NamedTuple):
    pages: list[Page]
    assets: list[Asset]
    shapes: list[PageShape]


def take_in(work_id: int) -> None:
    """Reads what arrived and adds it to the site. Pages at a path that is taken replace the page there."""
    work = Work.objects.select_related("author").get(pk=work_id)
    if work.state in {Work.State.DONE, Work.State.FAILED}:
        return
    Work.objects.filter(pk=work_id).update(state=Work.State.WORKING)
    problems: list[Problem] = []
    site, base = store.load(work.site_id)
    try:
        pages, assets, shapes = _read_bundle(work) if work.details.get("bundle") else _read(work, site, problems)
    except (BrokenArchive, BrokenBundle) as broken:
        _end(work, Work.State.FAILED, str(broken), problems)
        return
    except wall.Unread as unread:
        _end(work, Work.State.FAILED, f"It could not be read: {unread}.", problems)
        return
    if not pages and not assets:
        _end(work, Work.State.FAILED, "Nothing in it could be read as a page.", problems)
        return
    replaced = len({page.path for page in site.pages} & {page.path for page in pages})
    words = f"{len(pages)} pages and {len(assets)} other files came in." + (
        f" {replaced} of the pages replaced one at the same path." if replaced else ""
    )
    edit = _coming_in(site, pages, assets, shapes)
    # Many pages are not kept three times.
    del pages, assets, shapes
    answer = store.submit(work.site_id, work.author, edit, base, lambda *_: f"Imported {work.name}.")
    if isinstance(answer, store.Loaded):
        _end(work, Work.State.DONE, words, problems)
    else:
        reason = (
            answer.words if isinstance(answer, Refusal) else "somebody changed the same pages meanwhile; send it again"
        )
        _end(work, Work.State.FAILED, f"It could not be added: {reason}.", problems)


def _read(work: Work, site: Site, problems: list[Problem]) -> Arrived:
    with on_disk(work.file) as path:
        if work.name.lower().endswith(".xml"):
            with open(path, "rb") as file:
                paths, faults = wall.read(read_sitemap, file.read(LARGEST_SITEMAP))
            problems += faults
            known = {page.path for page in site.pages}
            pages = [
                Page(id=ids.new_id("pg"), path=path, language=site.language) for path in paths if path not in known
            ]
            return Arrived(pages, [], [])
        given = (path, work.name, ids.new_id, site.language, site.lifts)
        return _kept(work, wall.read_each(read_archive, *given, refusals=(BrokenArchive,)), problems)


def _read_bundle(work: Work) -> Arrived:
    """The pages and files of a bundle whose other parts the site has already."""
    found = Arrived([], [], [])
    with on_disk(work.file) as path, _Keeping() as keeping:
        progress, done = Progress(Work.objects.filter(pk=work.pk)), 0
        for part in wall.read_each(brought_by, path, refusals=(BrokenBundle,)):
            if part.contents:
                Work.objects.filter(pk=work.pk).update(total=part.contents)
            found.pages.extend(part.pages)
            found.assets.extend(part.assets)
            found.shapes.extend(part.shapes)
            if part.content is not None:
                keeping.keep(part.content.hash, part.content.data)
                done += 1
                progress.tell(done)
    return found


class _Keeping:
    """Keeps contents, some hundred at a time."""

    def __init__(self) -> None:
        self._waiting: dict[str, bytes] = {}

    def __enter__(self) -> Self:
        return self

    def keep(self, name: str, data: bytes) -> None:
        if digest(data) != name:
            raise wall.Unread("it holds something else than it says")
        self._waiting[name] = data
        if len(self._waiting) >= CONTENTS_AT_ONCE:
            self._write()

    def _write(self) -> None:
        contents.keep_contents(self._waiting)
        self._waiting.clear()

    def __exit__(self, *raised: object) -> None:
        if raised[0] is None:
            self._write()


def _kept(work: Work, coming: Iterator[Expected | Incoming | Problem], problems: list[Problem]) -> Arrived:
    pages: list[Page] = []
    assets: list[Asset] = []
    shapes: dict[str, PageShape] = {}
    progress = Progress(Work.objects.filter(pk=work.pk))
    with _Keeping() as keeping:
        for found in coming:
            if isinstance(found, Expected):
                Work.objects.filter(pk=work.pk).update(total=found.files)
            elif isinstance(found, Problem):
                problems.append(found)
            else:
                if found.shape is not None:
                    shapes[found.shape.id] = found.shape
                if isinstance(found.value, Page):
                    pages.append(found.value)
                else:
                    assets.append(found.value)
                keeping.keep(found.value.content or "", found.content)
                progress.tell(len(pages) + len(assets))
    return Arrived(pages, assets, list(shapes.values()))


def _coming_in(site: Site, pages: list[Page], assets: list[Asset], shapes: list[PageShape]) -> Edit:
    """One edit that adds all; what stood at the same paths goes, pages keeping their identity for menus and rules; and
    shapes that no page has any more."""
    old_pages = {page.path: page for page in site.pages}
    old_assets = {asset.path: asset for asset in site.assets}
    edits: list[Edit] = []
    kept_pages, coming = renewed(pages, site.pages, site.shapes), {page.path for page in pages}
    used = {page.shape for page in (*kept_pages, *(page for page in site.pages if page.path not in coming))}
    known = {shape.id for shape in site.shapes}
    added = tuple(shape.model_dump(mode="json") for shape in shapes if shape.id in used - known)
    if added:
        edits.append(Add(parent="site", slot="shapes", values=added))
    for old, new in ((old_pages, pages), (old_assets, assets)):
        taken = tuple(old[node.path].id for node in new if node.path in old)
        if taken:
            edits.append(Remove(nodes=taken))
    if kept_pages:
        edits.append(
            Add(
                parent="site",
                slot="pages",
                values=tuple(page.model_dump(mode="json", exclude_defaults=True) for page in kept_pages),
            )
        )
    if assets:
        edits.append(Add(parent="site", slot="assets", values=tuple(asset.model_dump(mode="json") for asset in assets)))
    unused = tuple(sorted(known - used))
    if unused:
        edits.append(Remove(nodes=unused))
    return Together(edits=tuple(edits))


def _end(work: Work, state: str, message: str, problems: list[Problem]) -> None:
    end_work(work, state, message, problems)
    work.file.delete(save=False)
