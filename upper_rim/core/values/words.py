"""What is a text, and a text in several languages?"""

from __future__ import annotations

import operator
import re
import zlib
from collections.abc import Iterable
from typing import Annotated, Any, Literal, Self

from pydantic import AfterValidator, BeforeValidator, Field, StringConstraints, ValidationInfo, field_validator

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


class Translated(Value):
    """What a text says in another language. `of`: which text it translates, by its digest; the present one where nothing
    is said. `draft`: a machine made it, and nobody has looked at it. What is not so is not written: sites have very many of
    them."""

    language: LanguageTag
    text: str
    of: Annotated[str, StringConstraints(pattern=r"^([0-9a-f]{8})?$")] = ""
    draft: bool = Field(default=False, exclude_if=operator.not_)
    note: Label = Field(default="", exclude_if=operator.not_, description="What its translator has to say of it.")


Standing = Literal["said", "missing", "draft", "older"]
"""How a language stands with a text: it has it; has none; one by a machine; one of what the text was before."""


class Translatable(Value):
    """A text in the site's own language and, where they exist, in others."""

    text: str = ""
    translations: tuple[Translated, ...] = ()
    note: Label = Field(default="", exclude_if=operator.not_, description="For whoever translates it.")

    @field_validator("translations", mode="after")
    @classmethod
    def _in_order(cls, said: tuple[Translated, ...], info: ValidationInfo) -> tuple[Translated, ...]:
        of = digest_of(info.data.get("text", ""))
        stamped = (one if one.of else one.replaced(of=of) for one in said)
        return tuple(sorted(stamped, key=lambda one: one.language))

    def in_language(self, language: str) -> str:
        """The text for `language`: exact tag first, then its primary subtag, then the site's own."""
        found = self.translation(language)
        return found.text if found else self.text

    def translation(self, language: str) -> Translated | None:
        """What is shown in `language`, where that is no text in the site's own."""
        if not self.translations:
            return None
        for wanted in (language.lower(), primary(language)):
            for one in self.translations:
                if one.text and one.language.lower() == wanted:
                    return one
        return None

    def said_in(self, language: str) -> Translated | None:
        """What is said for exactly this language."""
        return next((one for one in self.translations if one.language == language), None)

    def standing(self, language: str) -> Standing:
        """How a language, not the site's own, stands with it."""
        return self.standings((language,))[language]

    def standings(self, languages: Iterable[str]) -> dict[str, Standing]:
        of = digest_of(self.text)
        said = {one.language.lower(): _standing(one, of) for one in reversed(self.translations) if one.text}
        return {
            language: said.get(language.lower()) or said.get(primary(language)) or "missing" for language in languages
        }

    def saying(self, language: str, text: str, *, draft: bool = False, note: str | None = None, of: str = "") -> Self:
        """The same, which says `text` in a language, anew; another one's is taken away where that is empty. Where
        `language` is, it is the site's own: what the others say is then of a text that was. `note`: as it was where None.
        Raises `ValidationError` where that is no text or no language."""
        if not language:
            return self.model_validate({**self.__dict__, "text": text, "note": self.note if note is None else note})
        was = self.said_in(language)
        others = [one.model_dump() for one in self.translations if one is not was]
        kept = (was.note if was else "") if note is None else note
        if text.strip():
            others.append({"language": language, "text": text, "draft": draft, "note": kept, "of": of})
        return self.model_validate({**self.__dict__, "translations": others})


def digest_of(text: str) -> str:
    """By which a text is known again: CRC-32 (ISO 3309) of its UTF-8."""
    return f"{zlib.crc32(text.encode()):08x}"


def _standing(said: Translated, of: str) -> Standing:
    if said.draft:
        return "draft"
    return "said" if said.of == of else "older"


class Translation(Translated):
    text: Label


class Words(Translatable):
    """Words without marks."""

    text: Label = ""
    translations: tuple[Translation, ...] = ()
