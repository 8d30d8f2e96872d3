"""On a path and on all that lies below it."""

from __future__ import annotations

from collections.abc import Hashable, Iterator
from typing import ClassVar, Literal

from ..values.addresses import PagePath
from .place import Names, PageFacts, Place, Strength


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
