"""Pages of other people's making come in with their shapes, and the studio says what is done about them."""

from __future__ import annotations

import io
import zipfile

from django.contrib.auth.models import User
from django.core.files.base import ContentFile

from tests.shaped_sites import SCROLLING, SHAPES, Shaped
from upper_rim.web.jobs import tasks
from upper_rim.web.sites import store
from upper_rim.web.sites.models import StoredSite, Work

from .conftest import signed_in


def bring_in(site: StoredSite, author: User, shaped: dict[str, Shaped]) -> None:
    packed = io.BytesIO()
    with zipfile.ZipFile(packed, "w") as archive:
        for folder, one in shaped.items():
            for name, data in one.files().items():
                archive.writestr(f"all/{folder}/{name}", data)
        archive.writestr("all/index.html", "<!doctype html><style>body{margin:0}</style><p>Front")
    work = Work.objects.create(site=site, author=author, kind="bring in", name="of-others.zip")
    work.file.save("of-others.zip", ContentFile(packed.getvalue()))
    tasks.take_in(work.pk)
    work.refresh_from_db()
    assert work.state == Work.State.DONE, work.message


def test_a_page_says_how_it_is_laid_out_and_can_be_left_as_it_is(ferries: StoredSite, ada: User) -> None:
    bring_in(ferries, ada, {"hut": SHAPES["row flex"], "too": SHAPES["row flex"], "bar": SCROLLING["bar"]})
    client, site = signed_in(ada), store.load(ferries.pk).site
    pages = {page.path: page for page in site.pages}
    assert pages["/"].shape is None and pages["/hut/"].shape == pages["/too/"].shape != pages["/bar/"].shape
    address = f"/s/ostrey/pages/{pages['/hut/'].id}/"
    told = client.get(address).content.decode()
    assert "a box of its own" in told and "display: flex" in told and "on 2 pages" in told
    assert "keep their distance" in client.get(f"/s/ostrey/pages/{pages['/bar/'].id}/").content.decode()
    client.post(address, {"do": "set", "node": pages["/hut/"].shape, "field": "on"})
    off = next(one for one in store.load(ferries.pk).site.shapes if one.id == pages["/hut/"].shape)
    assert not off.on


def test_pages_that_come_in_again_take_shapes_along_that_nobody_has_any_more(ferries: StoredSite, ada: User) -> None:
    bring_in(ferries, ada, {"hut": SHAPES["row flex"], "bar": SCROLLING["bar"]})
    assert len(store.load(ferries.pk).site.shapes) == 2
    bring_in(ferries, ada, {"hut": SHAPES["reset"], "bar": SCROLLING["bar"]})
    site = store.load(ferries.pk).site
    assert [page.shape for page in site.pages if page.path == "/hut/"] == [None]
    assert [one.id for one in site.shapes] == [page.shape for page in site.pages if page.path == "/bar/"]
    store.undo(ferries.pk, ada)
    assert len(store.load(ferries.pk).site.shapes) == 2
