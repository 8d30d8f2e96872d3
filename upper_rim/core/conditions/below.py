"""On a path and on all that lies below it."""

from __future__ import annotations

from collections.abc import Callable, Hashable, Iterator
from typing import ClassVar, Literal

from ..values.addresses import PagePath
from .place import PageFacts, Place, Strength


class Below(Place):
    """A path and all that lies below it."""

    RANK: ClassVar[int] = 1
    kind: Literal["below"] = "below"
    path: PagePath

    @property
    def key(self) -> Hashable:
        return self.path.rstrip("/") + "/"

    @classmethod
    def keys(cls, page: PageFacts) -> Iterator[Hashable]:
        """The path of each folder that the page lies in, the shortest first."""
        path = page.path if page.path.endswith("/") else page.path + "/"
        at = 0
        while at >= 0:
            yield path[: at + 1]
            at = path.find("/", at + 1)

    @property
    def strength(self) -> Strength:
        """A longer path is stronger."""
        return Strength(self.RANK, self.path.rstrip("/").count("/"))

    def in_words(self, path_of: Callable[[str], str]) -> str:
        return f"on {self.path} and below"
