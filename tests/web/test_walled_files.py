"""Files that a site carries along: read behind the wall, and found to be what they are found to be elsewhere."""

from __future__ import annotations

import io

import pytest
from PIL import Image

from upper_rim.core.exchange.imports.feed import FeedFault
from upper_rim.shipped import shelf
from upper_rim.web import wall
from upper_rim.web.sites.walled import walled_shelf


def test_files_of_a_site_are_read_behind_it_as_they_are_read_elsewhere() -> None:
    out = io.BytesIO()
    Image.effect_noise((900, 600), 40).convert("RGB").save(out, "JPEG")
    readers, here, picture = walled_shelf().readers, shelf().readers, out.getvalue()
    for data in (
        picture,
        picture[:2_000],
        b"<svg xmlns='http://www.w3.org/2000/svg' width='9' height='4'/>",
        b"",
        b"x",
    ):
        walled, plain = readers.picture(data), here.picture(data)
        assert (walled is None) == (plain is None)
        if walled and plain:
            places = [0.0, 0.3, 0.99]
            assert (walled.width, walled.height) == (plain.width, plain.height)
            assert walled.at(places, places) == plain.at(places, places)
        assert readers.width_of(data) == here.width_of(data)
        assert readers.icon(data) == here.icon(data)
    assert readers.width_of(picture) == 900 and readers.width_of(picture[:2_000]) == 900
    assert readers.resized(picture, 300) == here.resized(picture, 300) != picture
    assert readers.resized(picture[:2_000], 300) == picture[:2_000], "no more than its size can be read"
    feed = b"<rss version='2.0'><channel><item><title>A</title><link>https://a.example/</link></item></channel></rss>"
    assert readers.posts(feed) == here.posts(feed) and len(readers.posts(feed)) == 1
    assert isinstance(readers.posts(b"<a>" * 9), FeedFault)


def test_what_ends_its_reader_is_no_picture_and_nobody_else_notices(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(wall, "FILE", wall.FILE._replace(memory_bytes=1_000))
    monkeypatch.setattr(wall.read, "__kwdefaults__", {**(wall.read.__kwdefaults__ or {}), "limits": wall.FILE})
    out = io.BytesIO()
    Image.new("RGB", (3_000, 2_000)).save(out, "PNG")
    assert walled_shelf().readers.picture(out.getvalue()) is None
