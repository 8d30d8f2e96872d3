"""On one page."""

from __future__ import annotations

from collections.abc import Hashable, Iterator
from typing import ClassVar, Literal

from ..values.refs import PageRef
from .place import Names, PageFacts, Place


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

    def in_words(self, names: Names) -> str:
        return f"on {names.path_of(self.page)}"
