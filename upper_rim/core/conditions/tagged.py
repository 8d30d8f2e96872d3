"""On the pages that carry a tag."""

from __future__ import annotations

from collections.abc import Hashable, Iterator
from typing import ClassVar, Literal

from ..values.words import Name
from .place import Names, PageFacts, Place


class Tagged(Place):
    """The pages that carry a tag."""

    RANK: ClassVar[int] = 3
    kind: Literal["tag"] = "tag"
    tag: Name

    @property
    def key(self) -> Hashable:
        return self.tag

    @classmethod
    def keys(cls, page: PageFacts) -> Iterator[Hashable]:
        yield from page.tags

    def in_words(self, names: Names) -> str:
        return f"on pages tagged {self.tag}"
