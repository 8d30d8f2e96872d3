"""For those who ask for a language."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence
from typing import Annotated, ClassVar, Literal, Self

from pydantic import Field, JsonValue

from ...values.words import LanguageTag
from ..visitor import Looking
from .condition import Around, Case, Knows, Spoken, VisitorCondition


class AsksFor(VisitorCondition):
    """Of the site's languages they want one of these most."""

    KNOWN_BY: ClassVar[Knows] = "the browser"
    kind: Literal["asks-for"] = "asks-for"
    languages: Annotated[tuple[LanguageTag, ...], Field(min_length=1, max_length=20)]

    def holds(self, looking: Looking) -> bool:
        found = looked_up(looking.card.languages, looking.languages)
        return found is not None and any(_is_kind_of(found, one) for one in self.languages)

    @classmethod
    def cases(cls, wanted: Sequence[Self], unwanted: Sequence[Self], around: Around) -> Iterator[Case]:
        yield from ({"languages": (one,)} for one in (*around.languages, "und"))

    def told(self, zone: str) -> list[JsonValue]:
        return [[one.lower() for one in self.languages]]

    def in_words(self, spoken: Spoken = str) -> str:
        return f"those who read {' or '.join(spoken(one) for one in self.languages)}"


def looked_up(wanted: Iterable[str], there: Iterable[str]) -> str | None:
    """The best of the languages that there are, in lower case (RFC 4647, 3.4, lookup); None where none is wanted."""
    known = {tag.lower() for tag in there}
    for tag in wanted:
        subtags = tag.lower().split("-")
        while subtags:
            if "-".join(subtags) in known:
                return "-".join(subtags)
            subtags.pop()
            if subtags and len(subtags[-1]) == 1:
                subtags.pop()
    return None


def _is_kind_of(found: str, tag: str) -> bool:
    return found == tag.lower() or found.startswith(f"{tag.lower()}-")
