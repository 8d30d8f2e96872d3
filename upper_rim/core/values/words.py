"""What is a text, and a text in several languages?"""

from __future__ import annotations

import re
from collections.abc import Iterable
from typing import Annotated, Any, Protocol

from pydantic import AfterValidator, BeforeValidator, StringConstraints

from ..languages import primary
from .nodes import Value

LanguageTag = Annotated[str, StringConstraints(pattern=r"^[A-Za-z]{2,8}(-[A-Za-z0-9]{1,8})*$")]
"""A BCP 47 language tag, as far as its shape goes (RFC 5646, 2.1)."""

_CONTROLS = re.compile("[\x00-\x08\x0b\x0e-\x1f\x7f-\x9f\ufffe\uffff]")


def without_controls(text: Any) -> Any:
    """A text without the characters that no HTML document may hold (HTML, 13.2.3.5). Half a surrogate pair is no text
    at all: pydantic refuses it."""
    return _CONTROLS.sub("", text) if isinstance(text, str) else text


Text = Annotated[str, BeforeValidator(without_controls)]
Label = Annotated[Text, StringConstraints(strip_whitespace=True, max_length=400)]
Name = Annotated[Text, StringConstraints(strip_whitespace=True, min_length=1, max_length=120)]


def _without_markers(code: str) -> str:
    if re.search(r"<!--\s*/?rim", code):
        raise ValueError("the comments <!--rim:…--> and <!--/rim--> are Upper Rim's own")
    return code


Code = Annotated[Text, StringConstraints(max_length=20_000), AfterValidator(_without_markers)]
"""HTML of the designer's own, put into pages as it stands and never run in the studio."""


class Translation(Value):
    language: LanguageTag
    text: Label


class Words(Value):
    """A text in the site's own language and, where they exist, in others."""

    text: Label = ""
    translations: tuple[Translation, ...] = ()

    def in_language(self, language: str) -> str:
        """The text for `language`: exact tag first, then its primary subtag, then the site's own."""
        return in_language(self, language)


class _InLanguages(Protocol):
    @property
    def text(self) -> str: ...
    @property
    def translations(self) -> Iterable[Any]: ...


def in_language(words: _InLanguages, language: str) -> str:
    """Of a text and its translations the one for `language`: exact tag first, then its primary subtag, then the
    text."""
    if not words.translations:
        return words.text
    for wanted in (language, primary(language)):
        for translation in words.translations:
            if translation.language.lower() == wanted.lower() and translation.text:
                return str(translation.text)
    return words.text
