"""What are the smallest values a site is made of?

Frozen and validated; everything larger is built from these.
"""

from __future__ import annotations

import re
from collections.abc import Iterable
from typing import Annotated, Any, NamedTuple, Protocol, Self
from urllib.parse import unquote

from pydantic import AfterValidator, BaseModel, BeforeValidator, ConfigDict, Field, StringConstraints


class Value(BaseModel):
    """A frozen, validated value. Two values with equal fields are equal."""

    model_config = ConfigDict(frozen=True, extra="forbid", str_max_length=100_000)

    def replaced(self, **fields: Any) -> Self:
        """A copy with some fields replaced by already validated ones."""
        return self.model_copy(update=fields)


class Node(Value):
    """A value with an identity of its own: edits name it by `id`, unique within the site."""

    id: Annotated[str, StringConstraints(pattern=r"^[a-z][a-z0-9-]{1,39}$")]


NodeId = Annotated[str, StringConstraints(pattern=r"^[a-z][a-z0-9-]{1,39}$")]


class RefersTo(NamedTuple):
    """Marks a field that names another node by its id. `slot`: where that stands: one of the site's slots, or one of a
    node's (`entries`, `rows`, `stages`)."""

    slot: str


BandRef = Annotated[NodeId, RefersTo("bands")]
SwatchRef = Annotated[NodeId, RefersTo("swatches")]
LookRef = Annotated[NodeId, RefersTo("looks")]
MenuRef = Annotated[NodeId, RefersTo("menus")]
EntryRef = Annotated[NodeId, RefersTo("entries")]
DrawerRef = Annotated[NodeId, RefersTo("pieces")]
RowRef = Annotated[NodeId, RefersTo("rows")]
StageRef = Annotated[NodeId, RefersTo("stages")]
PartRef = Annotated[NodeId, RefersTo("parts")]
"""A row or an item of the same piece."""
PageRef = Annotated[NodeId, RefersTo("pages")]
LiftRef = Annotated[NodeId, RefersTo("lifts")]

LanguageTag = Annotated[str, StringConstraints(pattern=r"^[A-Za-z]{2,8}(-[A-Za-z0-9]{1,8})*$")]
"""A BCP 47 language tag, as far as its shape goes (RFC 5646, 2.1)."""

_CONTROLS = re.compile("[\x00-\x08\x0b\x0e-\x1f\x7f-\x9f\ufffe\uffff]")


def without_controls(text: Any) -> Any:
    """A text without the characters that no HTML document may hold (HTML, 13.2.3.5). Half a surrogate pair is no text at
    all: pydantic refuses it."""
    return _CONTROLS.sub("", text) if isinstance(text, str) else text


Text = Annotated[str, BeforeValidator(without_controls)]
Label = Annotated[Text, StringConstraints(strip_whitespace=True, max_length=400)]
Name = Annotated[Text, StringConstraints(strip_whitespace=True, min_length=1, max_length=120)]
Hash = Annotated[str, StringConstraints(pattern=r"^[0-9a-f]{64}$")]
"""SHA-256 in lower-case hexadecimal; names a file's content."""


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
    """Of a text and its translations the one for `language`: exact tag first, then its primary subtag, then the text."""
    if not words.translations:
        return words.text
    for wanted in (language, language.split("-")[0]):
        for translation in words.translations:
            if translation.language.lower() == wanted.lower() and translation.text:
                return str(translation.text)
    return words.text


_PATH = re.compile(r"^/(?:[^\s?#\\\x00-\x1f]+)?$")


_PLAIN_PATH = re.compile(r"^/(?:[A-Za-z0-9_~-][A-Za-z0-9_~.-]*/)*$")


def _check_path(path: str) -> str:
    if _PLAIN_PATH.match(path):
        return path
    segments = path.split("/")[1:]
    meant = unquote(path)
    climbs = any(segment in {".", ".."} for segment in meant.split("/"))
    if not _PATH.match(path) or "//" in meant or climbs or any(ord(char) < 32 or char == "\\" for char in meant):
        raise ValueError("a path begins with /, and has no spaces, empty or dotted segments, ? or #")
    last = segments[-1] if segments else ""
    if last and "." not in last:
        return path + "/"
    return path


PagePath = Annotated[str, StringConstraints(max_length=1000), AfterValidator(_check_path)]
"""A page's address within its site: `/`, `/fares/` or `/old/list.html`. `/fares` is read as `/fares/`."""

_SCHEMES = ("http://", "https://", "mailto:", "tel:")


def _check_address(address: str) -> str:
    lowered = address.lower()
    if any(ord(char) <= 32 for char in address):
        raise ValueError("an address has no spaces in it")
    if lowered.startswith(_SCHEMES) and len(address) > len(lowered.split(":")[0]) + 3:
        return address
    if address.startswith(("#", "/")) and not address.startswith("//") and "\\" not in address:
        return address
    raise ValueError("an address begins with https://, http://, mailto:, tel:, / or #")


Address = Annotated[str, StringConstraints(strip_whitespace=True, max_length=2000), AfterValidator(_check_address)]
"""Somewhere a link may lead: a web, mail or telephone address, a path on this site, a place on the page."""

Pixels = Annotated[int, Field(ge=0, le=10_000)]
