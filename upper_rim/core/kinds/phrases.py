"""What the pieces say of themselves, and a site may say otherwise: the way past the menus, the button that shuts something.

What ships (`core.languages`) is said where a site says nothing, and only what differs from it is kept.
"""

from __future__ import annotations

import re
from collections.abc import Iterable
from functools import cache
from typing import Self

from pydantic import model_validator

from ..languages import PHRASES_OF, language_of, phrase
from ..values.nodes import Node
from ..values.words import Words, digest_of

_SAID_ELSEWHERE = frozenset(
    {
        *("answer_choice", "answer_long", "answer_needed", "answer_shape", "go_back", "too_much_sent"),
        *("gate_changed", "gate_unsafe", "gate_unscripted", "suggest", "trap"),
    }
)
"""By a server, where there is none, in another language than the page's, or to nobody. What categories of consent are
called is a text of theirs."""
_HOLE = re.compile(r"\{\d\}")
_ID = "ph-"


@cache
def sayable() -> tuple[str, ...]:
    """Names of the phrases that a site may say otherwise."""
    known = language_of(PHRASES_OF).phrases
    return tuple(name for name in known if name not in _SAID_ELSEWHERE and not name.startswith("category_"))


def phrase_id(name: str) -> str:
    return _ID + name.replace("_", "-")


class SaidPhrase(Node):
    """`words` are empty where they are what ships."""

    words: Words = Words()

    @property
    def phrase(self) -> str:
        return self.id.removeprefix(_ID).replace("-", "_")

    @model_validator(mode="after")
    def _keeps_what_is_put_in(self) -> Self:
        if self.phrase not in sayable() or self.id != phrase_id(self.phrase):
            raise ValueError("there is no such phrase")
        holes = set(_HOLE.findall(language_of(PHRASES_OF).phrases[self.phrase]))
        for text in (self.words.text, *(one.text for one in self.words.translations)):
            if text and set(_HOLE.findall(text)) != holes:
                raise ValueError(f"it has to keep {' and '.join(sorted(holes))}" if holes else "nothing is put into it")
        return self

    def said_in(self, language: str, *, own: bool) -> str:
        """Empty where what ships is said. `own`: it is the site's own language."""
        if own:
            return self.words.text
        found = self.words.translation(language)
        return found.text if found else ""


def is_shipped(name: str, language: str) -> bool:
    """Whether the language has it; else it is said in English."""
    return name in language_of(language).phrases


def whole_words(said: SaidPhrase, language: str, others: Iterable[str]) -> Words:
    """With what ships, where a site in `language` and `others` says nothing of its own."""
    shipped = phrase(said.phrase, language)
    made = [
        {"language": tag, "text": phrase(said.phrase, tag), "of": digest_of(shipped)}
        for tag in others
        if said.words.translation(tag) is None and is_shipped(said.phrase, tag)
    ]
    translations = [*(one.model_dump() for one in said.words.translations), *made]
    text = said.words.text or shipped
    return Words.model_validate({"text": text, "translations": translations, "note": said.words.note})


def own_words(name: str, words: Words, language: str) -> Words:
    """What of them a site says itself."""
    own = [
        one
        for one in words.translations
        if one.draft or one.note or not is_shipped(name, one.language) or one.text != phrase(name, one.language)
    ]
    return words.replaced(text="" if words.text == phrase(name, language) else words.text, translations=tuple(own))
