"""On one page."""

from __future__ import annotations

from collections.abc import Callable, Hashable, Iterator
from typing import ClassVar, Literal

from ..values.refs import PageRef
from .place import PageFacts, Place


class OnPage(Place):
    """One page."""

    RANK: ClassVar[int] = 3
    kind: Literal["page"] = "page"
    page: PageRef

    @property
    def key(self) -> Hashable:
        return self.page

    @classmethod
    def keys(cls, page: PageFacts) -> Iterator[Hashable]:
        yield page.id

    def in_words(self, path_of: Callable[[str], str]) -> str:
        return f"on {path_of(self.page)}"
