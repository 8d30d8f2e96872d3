"""On a path and on all that lies below it."""

from __future__ import annotations

from collections.abc import Callable, Hashable, Iterator, Mapping
from typing import ClassVar, Literal

from ..values.addresses import PagePath
from .place import Kept, Names, PageFacts, Place, Strength


class Below(Place):
    """A path and all that lies below it."""

    RANK: ClassVar[int] = 2
    kind: Literal["below"] = "below"
    path: PagePath

    @property
    def key(self) -> Hashable:
        return self.path.rstrip("/") + "/"

    @classmethod
    def keys(cls, page: PageFacts) -> Iterator[Hashable]:
        return folders(page.path)

    @classmethod
    def look_up(cls, by_key: Mapping[Hashable, Kept]) -> Callable[[PageFacts], tuple[Kept, ...]]:
        """What is kept for a folder is found once for all that lies in it."""
        known: dict[str, tuple[Kept, ...]] = {"": ()}

        def within(folder: str) -> tuple[Kept, ...]:
            if folder not in known:
                found: tuple[Kept, ...] = ()
                for around in folders(folder):
                    found = known[around] = (*found, by_key[around]) if around in by_key else found
            return known[folder]

        def on(page: PageFacts) -> tuple[Kept, ...]:
            path = page.path if page.path.endswith("/") else page.path + "/"
            around = within(path[: path.rfind("/", 0, -1) + 1])
            return (*around, by_key[path]) if path in by_key else around

        return on

    @property
    def strength(self) -> Strength:
        """A longer path is stronger; of two that are equally long the one without a wildcard."""
        return Strength(self.RANK, 2 * self.path.rstrip("/").count("/"))

    def in_words(self, names: Names) -> str:
        return f"on {self.path} and below"


def folders(path: str) -> Iterator[str]:
    """The path of each folder that a page lies in, its own among them, the shortest first."""
    path = path if path.endswith("/") else path + "/"
    at = 0
    while at >= 0:
        yield path[: at + 1]
        at = path.find("/", at + 1)
