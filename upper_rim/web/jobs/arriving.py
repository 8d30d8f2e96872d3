"""How do an archive's pages become part of a site, in the background?

All that could be read comes in as one edit, so that one undo takes it out again.
"""

from __future__ import annotations

import shutil
import tempfile
from collections.abc import Iterator

from ...core.exchange.bundle import BrokenBundle, Bundle, contents_of
from ...core.exchange.imports.import_pages import (
    ArchiveEntry,
    BrokenArchive,
    Incoming,
    Problem,
    digest,
    files_of_zip,
    read_files,
    read_sitemap,
)
from ...core.model.editing.edits import Add, Edit, Remove, Together
from ...core.model.editing.refusal import Refusal
from ...core.model.navigation.renewed import renewed
from ...core.model.site import Asset, Page, Site
from ..sites import contents, store
from ..sites.models import Work
from .progress import Progress, end_work

CONTENTS_AT_ONCE = 200


def take_in(work_id: int) -> None:
    """Reads what arrived and adds it to the site. Pages at a path that is taken replace the page there."""
    work = Work.objects.select_related("author").get(pk=work_id)
    if work.state in {Work.State.DONE, Work.State.FAILED}:
        return
    Work.objects.filter(pk=work_id).update(state=Work.State.WORKING)
    problems: list[Problem] = []
    site, base = store.load(work.site_id)
    try:
        pages, assets = _read_bundle(work) if work.details.get("bundle") else _read(work, site, problems)
    except (BrokenArchive, BrokenBundle) as broken:
        _end(work, Work.State.FAILED, str(broken), problems)
        return
    if not pages and not assets:
        _end(work, Work.State.FAILED, "Nothing in it could be read as a page.", problems)
        return
    answer = store.submit(
        work.site_id, work.author, _coming_in(site, pages, assets), base, lambda *_: f"Imported {work.name}."
    )
    if isinstance(answer, store.Loaded):
        replaced = len({page.path for page in site.pages} & {page.path for page in pages})
        words = f"{len(pages)} pages and {len(assets)} other files came in." + (
            f" {replaced} of the pages replaced one at the same path." if replaced else ""
        )
        _end(work, Work.State.DONE, words, problems)
    else:
        reason = (
            answer.words if isinstance(answer, Refusal) else "somebody changed the same pages meanwhile; send it again"
        )
        _end(work, Work.State.FAILED, f"It could not be added: {reason}.", problems)


def _read(work: Work, site: Site, problems: list[Problem]) -> tuple[list[Page], list[Asset]]:
    with work.file.open("rb") as file:
        if work.name.lower().endswith(".xml"):
            paths, faults = read_sitemap(file.read(50_000_000))
            problems += faults
            known = {page.path for page in site.pages}
            return [
                Page(id=store.new_id("pg"), path=path, language=site.language) for path in paths if path not in known
            ], []
        if work.name.lower().endswith((".html", ".htm")):
            entries: Iterator[ArchiveEntry] = iter([ArchiveEntry(work.name, file.read)])
        else:
            entries = files_of_zip(file, problems)
        listed = list(entries)
        Work.objects.filter(pk=work.pk).update(total=len(listed))
        return _kept(work, read_files(listed, store.new_id, site.language, site.lifts, problems))


def _read_bundle(work: Work) -> tuple[list[Page], list[Asset]]:
    """The pages and files of a bundle whose other parts the site has already. All contents are what their names say."""
    with work.file.open("rb") as upload, tempfile.TemporaryFile() as file:
        shutil.copyfileobj(upload, file)
        bundle = Bundle(file)
        named = sorted(contents_of(bundle.site))
        Work.objects.filter(pk=work.pk).update(total=len(named))
        progress = Progress(Work, work.pk)
        for at in range(0, len(named), CONTENTS_AT_ONCE):
            contents.keep_contents({name: bundle.read_checked(name) for name in named[at : at + CONTENTS_AT_ONCE]})
            progress.tell(at)
        return list(bundle.site.pages), list(bundle.site.assets)


def _kept(work: Work, coming: Iterator[Incoming]) -> tuple[list[Page], list[Asset]]:
    pages: list[Page] = []
    assets: list[Asset] = []
    waiting: dict[str, bytes] = {}
    progress = Progress(Work, work.pk)
    for at, incoming in enumerate(coming, 1):
        if isinstance(incoming.value, Page):
            pages.append(incoming.value)
        else:
            assets.append(incoming.value)
        waiting[digest(incoming.content)] = incoming.content
        if len(waiting) >= CONTENTS_AT_ONCE:
            contents.keep_contents(waiting)
            waiting.clear()
        progress.tell(at)
    contents.keep_contents(waiting)
    return pages, assets


def _coming_in(site: Site, pages: list[Page], assets: list[Asset]) -> Edit:
    """One edit that adds all; what stood at the same paths goes, pages keeping their identity for menus and rules."""
    old_pages = {page.path: page for page in site.pages}
    old_assets = {asset.path: asset for asset in site.assets}
    edits: list[Edit] = []
    for old, new in ((old_pages, pages), (old_assets, assets)):
        taken = tuple(old[node.path].id for node in new if node.path in old)
        if taken:
            edits.append(Remove(nodes=taken))
    kept_pages = renewed(pages, site.pages)
    if kept_pages:
        edits.append(
            Add(parent="site", slot="pages", values=tuple(page.model_dump(mode="json") for page in kept_pages))
        )
    if assets:
        edits.append(Add(parent="site", slot="assets", values=tuple(asset.model_dump(mode="json") for asset in assets)))
    return Together(edits=tuple(edits))


def _end(work: Work, state: str, message: str, problems: list[Problem]) -> None:
    end_work(work, state, message, problems)
    work.file.delete(save=False)
