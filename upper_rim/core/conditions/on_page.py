"""On one page."""

from __future__ import annotations

from collections.abc import Callable, Hashable, Iterator, Mapping
from typing import ClassVar, Literal

from ..values.refs import PageRef
from .place import Kept, Names, PageFacts, Place


class OnPage(Place):
    """One page."""

    RANK: ClassVar[int] = 5
    kind: Literal["page"] = "page"
    page: PageRef

    @property
    def key(self) -> Hashable:
        return self.page

    @classmethod
    def keys(cls, page: PageFacts) -> Iterator[Hashable]:
        yield page.id

    @classmethod
    def look_up(cls, by_key: Mapping[Hashable, Kept]) -> Callable[[PageFacts], tuple[Kept, ...]]:
        return lambda page: (by_key[page.id],) if page.id in by_key else ()

    def in_words(self, names: Names) -> str:
        return f"on {names.path_of(self.page)}"
