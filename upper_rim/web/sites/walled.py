"""What a site's own files are is read behind the wall, here and in the background: they came as somebody sent them."""

from __future__ import annotations

from dataclasses import replace
from functools import cache, lru_cache

from ...core.exchange.imports.feed import FeedFault, read_feed
from ...core.kinds.context import Post
from ...core.output.picture_sizes import resized, width_of
from ...core.output.shelf import Shelf
from ...core.output.shown_files import FileReaders
from ...core.output.site_icon import IconFiles, icon_files
from ...core.style.paint.pictures import Picture, sample
from ...shipped import shelf
from .. import wall


@cache
def walled_shelf() -> Shelf:
    """What ships, with readers whose end harms nobody."""
    return replace(shelf(), readers=FileReaders(read_picture, _posts, _width_of, _resized, _icon))


@lru_cache(maxsize=256)
def read_picture(data: bytes) -> Picture | None:
    sampled = wall.read_or(None, sample, data)
    return Picture(sampled) if sampled else None


@lru_cache(maxsize=64)
def _posts(data: bytes) -> tuple[Post, ...] | FeedFault:
    return wall.read_or(FeedFault("it cannot be read"), read_feed, data)


@lru_cache(maxsize=256)
def _width_of(data: bytes) -> int | None:
    return wall.read_or(None, width_of, data)


@lru_cache(maxsize=32)
def _icon(data: bytes) -> IconFiles | None:
    return wall.read_or(None, icon_files, data)


def _resized(data: bytes, width_px: int) -> bytes:
    return wall.read_or(data, resized, data, width_px)
