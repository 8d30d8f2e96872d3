"""Pages of other people's making come in with their shapes, and the studio says what is done about them."""

from __future__ import annotations

import io
import json
import zipfile

import pytest
from django.contrib.auth.models import User
from django.core.files.base import ContentFile

from tests.shaped_sites import SCROLLING, SHAPES, Shaped
from upper_rim.core.output.page.compose import Composer
from upper_rim.shipped import shelf
from upper_rim.web.jobs import tasks
from upper_rim.web.sites import contents, store
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
    assert not off.on and "left as it is" in client.get(address).content.decode()
    assert b"<!--rim:flow-->" not in published(ferries, "/hut/")


def test_pages_that_come_in_again_take_shapes_along_that_nobody_has_any_more(ferries: StoredSite, ada: User) -> None:
    bring_in(ferries, ada, {"hut": SHAPES["row flex"], "bar": SCROLLING["bar"]})
    assert len(store.load(ferries.pk).site.shapes) == 2
    bring_in(ferries, ada, {"hut": SHAPES["reset"], "bar": SCROLLING["bar"]})
    site = store.load(ferries.pk).site
    assert [page.shape for page in site.pages if page.path == "/hut/"] == [None]
    assert [one.id for one in site.shapes] == [page.shape for page in site.pages if page.path == "/bar/"]
    store.undo(ferries.pk, ada)
    assert len(store.load(ferries.pk).site.shapes) == 2


def test_pages_without_a_viewport_meta_are_told_first_and_given_one_in_one_press(
    ferries: StoredSite, ada: User
) -> None:
    bring_in(ferries, ada, {"hut": SHAPES["reset"]})
    client, front = signed_in(ada), next(page for page in store.load(ferries.pk).site.pages if page.path == "/")
    assert front.splice is not None and front.splice.unscaled
    screen = client.get("/s/ostrey/pages/").content.decode()
    assert "1 page has no viewport meta" in screen and "Give it one" in screen
    assert b"width=device-width" not in published(ferries, "/")
    client.post("/s/ostrey/pages/", {"do": "set", "node": "site", "field": "viewport", "value": "true"})
    assert published(ferries, "/").count(b'<meta name="viewport" content="width=device-width, initial-scale=1">') == 1
    assert published(ferries, "/hut/").count(b"width=device-width") == 1
    assert "is given one" in client.get("/s/ostrey/pages/").content.decode()


def published(stored: StoredSite, path: str) -> bytes:
    site = store.load(stored.pk).site
    page = next(page for page in site.pages if page.path == path)
    return Composer(site, shelf()).page(page, contents.read_content(page.content or ""))


def measured(*spans: tuple[int, dict[str, str]], is_plain: bool = True) -> str:
    plain = {"margin-top": "0px", "margin-right": "0px", "margin-bottom": "0px", "margin-left": "0px"}
    told = [
        {
            "from_px": from_px,
            "root": {},
            "body": plain | body,
            "stands_for_it": plain,
            "body_box": (0, 320),
            "box": (0, 320),
            "is_plain": is_plain,
        }
        for from_px, body in spans
    ]
    return json.dumps({"spans": told})


def test_a_page_is_laid_out_as_was_measured_where_the_designer_takes_it(ferries: StoredSite, ada: User) -> None:
    bring_in(ferries, ada, {"hut": SHAPES["reset"], "too": SHAPES["reset"], "bar": SCROLLING["bar"]})
    client, site = signed_in(ada), store.load(ferries.pk).site
    pages = {page.path: page for page in site.pages}
    address = f"/s/ostrey/pages/{pages['/hut/'].id}/"
    said = measured((0, {}), (800, {"max-width": "700px", "margin-left": "auto"}), is_plain=False)
    told = client.post(f"{address}measured/", {"measured": said}).content.decode()
    assert "From 800 px on, margin-left is auto, where 0px was foreseen" in told
    assert "as its CSS tells" in client.post(f"{address}measured/", {"measured": measured((0, {}))}).content.decode()
    asked = {"do": "take-shape", "node": pages["/hut/"].id, "measured": said}
    assert client.post(address, asked).status_code == 200
    site = store.load(ferries.pk).site
    (shape,) = [shape for shape in site.shapes if shape.is_measured]
    assert {page.path for page in site.pages if page.shape == shape.id} == {"/hut/"}
    assert shape.is_boxed and ("max-width", "700px") in shape.box[-1].declared and "800px" in shape.box[-1].within[0]
    assert "as a browser measured it" in client.get(address).content.decode()
    assert client.post(address, asked).status_code == 422
    before = {page.path: page.shape for page in site.pages}
    bring_in(ferries, ada, {"hut": SHAPES["reset"], "too": SHAPES["reset"], "bar": SCROLLING["bar"]})
    assert {page.path: page.shape for page in store.load(ferries.pk).site.pages} == before
    bring_in(ferries, ada, {"hut": SHAPES["row flex"]})
    assert not [shape for shape in store.load(ferries.pk).site.shapes if shape.is_measured]


@pytest.mark.parametrize(
    "said",
    [
        "",
        "[]",
        '{"spans":[]}',
        "[" * 100_000,
        measured((0, {"margin-left": "0}body{display:none"})),
        measured((0, {"x" * 99: "0"})),
        measured(*((at, {}) for at in range(100))),
    ],
)
def test_what_cannot_have_been_measured_is_refused(ferries: StoredSite, ada: User, said: str) -> None:
    client, page = signed_in(ada), store.load(ferries.pk).site.pages[0]
    address, before = f"/s/ostrey/pages/{page.id}/", store.load(ferries.pk)
    assert client.post(f"{address}measured/", {"measured": said}).status_code == 422
    assert client.post(address, {"do": "take-shape", "node": page.id, "measured": said}).status_code == 422
    assert store.load(ferries.pk) == before
