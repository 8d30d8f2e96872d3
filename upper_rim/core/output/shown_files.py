"""What do items show of the files that a site carries along: pictures, in which sizes, and the posts of feeds?"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from functools import partial

from ..exchange.feed import FeedFault, Post, read_feed
from ..model.items import PictureItem, Posts
from ..model.site import Site
from ..model.tree import items_of
from ..style.pictures import Picture, read_picture
from .naming import PARTS
from .picture_sizes import resized, widths


class ShownFiles:
    """`read` gives the bytes of a content by its hash; without it nothing is shown of any file."""

    def __init__(self, site: Site, read: Callable[[str], bytes] | None) -> None:
        self._site = site
        self._read = read

    def _file(self, path: str | None) -> tuple[str, bytes] | None:
        """Hash and bytes."""
        asset = next((asset for asset in self._site.assets if asset.path == path), None)
        return (asset.content, self._read(asset.content)) if asset is not None and self._read is not None else None

    def data(self, path: str | None) -> bytes | None:
        found = self._file(path)
        return found[1] if found else None

    def picture(self, path: str) -> Picture | None:
        found = self._file(path)
        return read_picture(found[1]) if found else None

    def posts(self, item: Posts, language: str) -> Sequence[Post]:
        """Those of its feed, or the site's dated pages in that language, the newest first."""
        if item.feed is not None:
            found = self._file(item.feed)
            posts = read_feed(found[1]) if found else ()
            return () if isinstance(posts, FeedFault) else posts
        dated = [page for page in self._site.pages if page.dated and page.language == language]
        below = [page for page in dated if page.path.startswith(item.below)]
        newest = sorted(below, key=lambda page: page.dated or "", reverse=True)
        return [Post(page.title or page.path, page.path, page.dated or "") for page in newest]

    def sizes(self, item: PictureItem) -> Sequence[tuple[str, int]]:
        """Where the smaller sizes of a picture are published, and how wide they are."""
        return [(path, width) for path, width, _ in self._smaller(item)]

    def smaller_pictures(self) -> Iterator[tuple[str, Callable[[], bytes]]]:
        """The same for all items, each path once, with what makes the bytes."""
        items = (item for item in items_of(self._site.pieces) if isinstance(item, PictureItem))
        made = {path: partial(resized, data, width) for item in items for path, width, data in self._smaller(item)}
        yield from made.items()

    def _smaller(self, item: PictureItem) -> Iterator[tuple[str, int, bytes]]:
        found = self._file(item.picture)
        if found is not None:
            content, data = found
            for width in widths(data, item.width_px):
                yield f"{PARTS}{content[:12]}-{width}.webp", width, data
