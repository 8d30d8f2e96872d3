"""What nothing names any more goes, and nothing else: contents, files of editions, uploads."""

from __future__ import annotations

import json
import os
from collections.abc import Iterator
from datetime import timedelta
from pathlib import Path
from typing import Any

import pytest
from django.contrib.auth.models import User
from django.core.files.base import ContentFile
from django.core.files.storage import storages

from upper_rim.core.exchange.bundle import contents_of
from upper_rim.core.exchange.imports.import_pages import digest
from upper_rim.core.model.editing.edits import Add
from upper_rim.core.model.site import Asset
from upper_rim.demo import ostrey, quillwort
from upper_rim.web.jobs import sweeping
from upper_rim.web.jobs.publishing import make_edition, new_edition
from upper_rim.web.sites import contents, store
from upper_rim.web.sites.models import Content, Edition, StoredSite, Work
from upper_rim.web.sites.storage import editions, stored_name
from upper_rim.web.sites.storage import stored as read_again

from .conftest import signed_in


@pytest.fixture
def all_is_old(monkeypatch: pytest.MonkeyPatch) -> Iterator[None]:
    monkeypatch.setattr(sweeping, "YOUNG", timedelta(seconds=-60))
    yield


@pytest.fixture
def in_folders(settings: Any, tmp_path: Path) -> Path:
    """Uploads and editions of this test alone."""
    kept = {**settings.STORAGES}
    for name, sort in (("default", "uploads"), ("editions", "editions")):
        kept[name] = {**kept[name], "OPTIONS": {"location": tmp_path / sort}}
    settings.STORAGES = kept
    return tmp_path


def made(owner: User, demo: Any, slug: str) -> StoredSite:
    site, data = demo
    stored = store.new_site(owner, site.replaced(key=f"q{slug}"), data, slug=slug)
    make_edition(new_edition(stored, owner.pk).pk)
    return StoredSite.objects.get(pk=stored.pk)


def files_of(edition: Edition | None) -> dict[str, str]:
    assert edition is not None
    with editions().open(stored_name(edition.manifest)) as file:
        return dict(json.load(file))


@pytest.mark.usefixtures("all_is_old")
def test_a_deleted_site_takes_along_what_it_alone_had(ada: User, in_folders: Path) -> None:
    (one, _), (other, _) = ostrey(), quillwort()
    stays, goes, same = made(ada, ostrey(), "stays"), made(ada, quillwort(), "goes"), made(ada, quillwort(), "same")
    files, gone = files_of(stays.current_edition), files_of(goes.current_edition)
    alone = store.new_site(ada, other.replaced(pages=(), assets=()), {}, slug="alone")
    own = b"only here"
    contents.keep_contents({digest(own): own})
    asset = Asset(id="as-own", path="/own.txt", content=digest(own), size=len(own))
    store.submit(alone.pk, ada, Add(parent="site", slot="assets", values=(asset.model_dump(mode="json"),)))
    store.undo(alone.pk, ada)
    swept = sweeping.sweep()
    assert swept is not None and swept.contents == 0, "what was undone can be done again"
    for slug in ("goes", "same", "alone"):
        site = StoredSite.objects.get(slug=slug)
        signed_in(ada).post(f"/s/{slug}/delete/", {"name": site.name})
    assert same.slug == "same" and not StoredSite.objects.filter(slug="goes").exists()
    swept = sweeping.sweep()
    assert swept is not None
    kept = set(Content.objects.values_list("hash", flat=True))
    assert contents_of(one) <= kept and not (contents_of(other) - contents_of(one)) & kept and digest(own) not in kept
    assert swept.contents == len(contents_of(other) - contents_of(one)) + 1
    for content in set(files.values()):
        assert editions().exists(stored_name(content))
    page = gone["index.html"]
    assert not any(editions().exists(stored_name(page, form)) for form in ("", "br", "gzip"))
    left = {path.name.split(".")[0] for path in (in_folders / "editions").rglob("*") if path.is_file()}
    assert left == {
        *files.values(),
        *Edition.objects.values_list("manifest", flat=True)[:1],
        *Edition.objects.values_list("making", flat=True)[:1],
    }
    assert sweeping.sweep() == (0, 0, 0)


def test_what_was_kept_lately_stays_whatever_names_it(ada: User, in_folders: Path) -> None:
    goes = made(ada, quillwort(), "goes")
    goes.delete()
    assert sweeping.sweep() == (0, 0, 0)
    Content.objects.update(kept_at="2026-01-01T00:00Z")
    for path in (in_folders / "editions").rglob("*"):
        if path.is_file():
            os.utime(path, (0, 0))
    _, data = quillwort()
    contents.keep_contents(data)
    again = made(ada, quillwort(), "again")
    swept = sweeping.sweep()
    assert swept is not None and swept.contents == 0, "brought once more meanwhile"
    for content in files_of(again.current_edition).values():
        assert editions().exists(stored_name(content))


@pytest.mark.usefixtures("all_is_old")
def test_uploads_and_files_that_were_never_finished_go_and_nothing_while_work_goes_on(
    ada: User, in_folders: Path
) -> None:
    stays = made(ada, ostrey(), "stays")
    begun = in_folders / "editions" / "ab" / f"{'ab' * 32}.br.0123456789ab"
    begun.parent.mkdir(exist_ok=True)
    begun.write_bytes(b"hal")
    work = Work.objects.create(
        site=stays, kind=Work.Kind.BRING_IN, name="a.zip", file=ContentFile(b"zip", name="a.zip")
    )
    lost = storages["default"].save("arrivals/2026/11/lost.zip", ContentFile(b"zip"))
    assert sweeping.sweep() is None and begun.exists(), "it waits for a worker"
    Work.objects.update(state=Work.State.FAILED)
    swept = sweeping.sweep()
    assert swept is not None and (swept.files, swept.uploads) == (1, 1)
    assert not begun.exists() and not storages["default"].exists(lost) and storages["default"].exists(work.file.name)


def test_where_it_is_lost_how_an_edition_was_made_the_next_is_made_whole(ada: User, in_folders: Path) -> None:
    for slug, lost in (("gone", Path.unlink), ("other", lambda path: path.write_text("{}"))):
        stored = made(ada, quillwort(), slug)
        edition = stored.current_edition
        assert edition is not None
        before = files_of(edition)
        lost(in_folders / "editions" / stored_name(edition.making))
        read_again.cache_clear()
        make_edition(new_edition(stored, ada.pk).pk)
        newest = StoredSite.objects.get(pk=stored.pk).current_edition
        assert newest is not None and newest.number == edition.number + 1 and files_of(newest) == before
        stored.delete()
