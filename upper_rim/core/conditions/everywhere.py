"""On every page."""

from __future__ import annotations

from collections.abc import Hashable, Iterator
from typing import ClassVar, Literal

from .place import Names, PageFacts, Place


class Everywhere(Place):
    """Every page."""

    RANK: ClassVar[int] = 0
    kind: Literal["everywhere"] = "everywhere"

    @property
    def key(self) -> Hashable:
        return ""

    @classmethod
    def keys(cls, page: PageFacts) -> Iterator[Hashable]:
        yield ""

    def in_words(self, names: Names) -> str:
        return "everywhere"
