"""What do items show of the files that a site carries along: pictures, in which sizes, and the posts of feeds?"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from functools import partial

from ..exchange.imports.feed import FeedFault, read_feed
from ..kinds.context import Post
from ..kinds.items.picture import PictureItem
from ..model.site import Site
from ..model.tree import items_of
from ..style.paint.pictures import Picture, read_picture
from .naming import PARTS_PATH
from .picture_sizes import resized, width_of, widths
from .site_icon import IconFiles, icon_files

PICTURE_NAME = 12
"""So many digits of a picture's hash begin the names of its smaller sizes."""


@dataclass(frozen=True)
class FileReaders:
    """How files that strangers made are read. A server does it where that harms nobody."""

    picture: Callable[[bytes], Picture | None] = read_picture
    posts: Callable[[bytes], tuple[Post, ...] | FeedFault] = read_feed
    width_of: Callable[[bytes], int | None] = width_of
    resized: Callable[[bytes, int], bytes] = resized
    icon: Callable[[bytes], IconFiles | None] = icon_files


class ShownFiles:
    """`read` gives the bytes of a content by its hash; without it nothing is shown of any file."""

    def __init__(self, site: Site, read: Callable[[str], bytes] | None, readers: FileReaders) -> None:
        self._site = site
        self._read = read
        self._readers = readers
        self._pictures: dict[str, Picture | None] = {}

    def _file(self, path: str | None) -> tuple[str, bytes] | None:
        """Hash and bytes."""
        asset = next((asset for asset in self._site.assets if asset.path == path), None)
        return (asset.content, self._read(asset.content)) if asset is not None and self._read is not None else None

    def data(self, path: str | None) -> bytes | None:
        found = self._file(path)
        return found[1] if found else None

    def picture(self, path: str) -> Picture | None:
        """Looked at once: every page may show it."""
        if path not in self._pictures:
            found = self._file(path)
            self._pictures[path] = self._readers.picture(found[1]) if found else None
        return self._pictures[path]

    def posts(self, feed: str | None, below: str, language: str) -> Sequence[Post]:
        """Those of a feed, or the site's dated pages below a path in that language, the newest first."""
        if feed is not None:
            found = self._file(feed)
            posts = self._readers.posts(found[1]) if found else ()
            return () if isinstance(posts, FeedFault) else posts
        dated = [page for page in self._site.pages if page.dated and page.language == language]
        listed = [page for page in dated if page.path.startswith(below)]
        newest = sorted(listed, key=lambda page: page.dated or "", reverse=True)
        return [Post(page.title or page.path, page.path, page.dated or "") for page in newest]

    def sizes(self, picture: str, width_px: int) -> Sequence[tuple[str, int]]:
        """Where the smaller sizes of a picture are published, and how wide they are."""
        return [(path, width) for path, width, _ in self._smaller(picture, width_px)]

    def smaller_pictures(self) -> Iterator[tuple[str, Callable[[], bytes]]]:
        """The same for all items, each path once, with what makes the bytes."""
        items = (item for item in items_of(self._site.pieces) if isinstance(item, PictureItem))
        made = {
            path: partial(self._readers.resized, data, width)
            for item in items
            for path, width, data in self._smaller(item.picture, item.width_px)
        }
        yield from made.items()

    def _smaller(self, picture: str | None, width_px: int) -> Iterator[tuple[str, int, bytes]]:
        found = self._file(picture)
        if found is not None:
            content, data = found
            for width in widths(self._readers.width_of(data), width_px):
                yield f"{PARTS_PATH}{content[:PICTURE_NAME]}-{width}.webp", width, data
