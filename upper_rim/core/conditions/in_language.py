"""On the pages in a language."""

from __future__ import annotations

from collections.abc import Callable, Hashable, Iterator, Mapping
from typing import ClassVar, Literal

from ..values.words import LanguageTag
from .place import Kept, Names, PageFacts, Place, Strength


class InLanguage(Place):
    """The pages in a language, and in what is a kind of it: `de` means `de-AT`, too (RFC 4647, 3.3.1)."""

    RANK: ClassVar[int] = 1
    kind: Literal["language"] = "language"
    language: LanguageTag

    @property
    def key(self) -> Hashable:
        return self.language.lower()

    @classmethod
    def keys(cls, page: PageFacts) -> Iterator[Hashable]:
        subtags = page.language.lower().split("-")
        for length in range(1, len(subtags) + 1):
            yield "-".join(subtags[:length])

    @classmethod
    def look_up(cls, by_key: Mapping[Hashable, Kept]) -> Callable[[PageFacts], tuple[Kept, ...]]:
        """Found once for each language."""
        known: dict[str, tuple[Kept, ...]] = {}

        def found(page: PageFacts) -> tuple[Kept, ...]:
            if page.language not in known:
                known[page.language] = tuple(by_key[key] for key in cls.keys(page) if key in by_key)
            return known[page.language]

        return found

    @property
    def strength(self) -> Strength:
        return Strength(self.RANK, self.language.count("-"))

    def in_words(self, names: Names) -> str:
        return f"on pages in {names.language_of(self.language)}"
