"""On every page."""

from __future__ import annotations

from collections.abc import Callable, Hashable, Iterator, Mapping
from typing import ClassVar, Literal

from .place import Kept, Names, PageFacts, Place


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

    @classmethod
    def look_up(cls, by_key: Mapping[Hashable, Kept]) -> Callable[[PageFacts], tuple[Kept, ...]]:
        found = tuple(by_key.values())
        return lambda page: found

    def in_words(self, names: Names) -> str:
        return "everywhere"
