"""Where on the site: what every condition about pages can be asked."""

from __future__ import annotations

from collections.abc import Callable, Hashable, Iterator, Mapping
from typing import ClassVar, NamedTuple, Protocol, TypeVar

from ..values.nodes import Value

Kept = TypeVar("Kept")


class PageFacts(Protocol):
    """What a condition may know of a page."""

    @property
    def id(self) -> str: ...
    @property
    def path(self) -> str: ...
    @property
    def language(self) -> str: ...
    @property
    def tags(self) -> tuple[str, ...]: ...
    @property
    def dated(self) -> str | None: ...
    @property
    def has_form(self) -> bool: ...


class Names(NamedTuple):
    """What is called how, where a condition is put into words: a page's path by its id, a language by its tag."""

    path_of: Callable[[str], str]
    language_of: Callable[[str], str]


class Strength(NamedTuple):
    """How exact a condition is; compared from left to right, the greater wins."""

    rank: int
    depth: int = 0


class Place(Value):
    """A page fulfils it where `key` is among the page's `keys`: so that thousands of conditions cost a page a few
    look-ups.

    `RANK`: of its kind, among the others.
    """

    RANK: ClassVar[int]

    @property
    def key(self) -> Hashable:
        raise NotImplementedError

    @classmethod
    def keys(cls, page: PageFacts) -> Iterator[Hashable]:
        raise NotImplementedError

    @classmethod
    def look_up(cls, by_key: Mapping[Hashable, Kept]) -> Callable[[PageFacts], tuple[Kept, ...]]:
        """Finds what is kept under a page's keys; made once for many pages."""
        return lambda page: tuple(by_key[key] for key in cls.keys(page) if key in by_key)

    @property
    def strength(self) -> Strength:
        return Strength(self.RANK)

    def covers(self, page: PageFacts) -> bool:
        return self.key in self.keys(page)

    def in_words(self, names: Names) -> str:
        """As it is read on screen."""
        raise NotImplementedError
