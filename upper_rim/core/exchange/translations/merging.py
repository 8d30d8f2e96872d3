"""Which edit do texts mean that come back from a translator, and what of them cannot be taken?

What a file says is matched by the text's key, and held against the text as it is now: a translation of what the text was
when the file was written is taken, and is older from the first.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Set
from typing import Literal, NamedTuple

from pydantic import ValidationError

from ...languages.scripts import is_written_in
from ...model.editing.apply import reason_of
from ...model.editing.edits import Edit, Together
from ...model.site import Site
from ...model.texts import says, texts_of
from ...values.rich import without_marks
from ...values.words import Translatable, digest_of

LARGEST_FILE = 10_000_000


class UnreadableFile(ValueError):
    """Nothing of it can be taken, and why, as a sentence."""


class Brought(NamedTuple):
    """A text as a file has it. `source`: what is translated, `text`: the translation; None where the file has none.
    `language`: in which it says that it is. `draft`, `of`: as in `Translated`; None where the file says nothing of them.
    `notes`: for whoever translates, and theirs. `place`: how the file names the text."""

    key: str
    place: str
    language: str
    source: str | None
    text: str | None
    draft: bool | None = None
    of: str | None = None
    notes: tuple[str | None, str | None] = (None, None)
    marks: str = ""


RemarkKind = Literal[
    "not there",
    "twice",
    "not said",
    "not in it",
    "another's",
    "older",
    "another language",
    "another script",
    "not allowed",
    "marks",
]
_WORDS: dict[RemarkKind, str] = {
    "not there": "there is no such text here; left out",
    "twice": "it is in the file twice; the first one was taken",
    "not said": "it has no translation in the file",
    "not in it": "the file does not have it",
    "another's": "the file has it beside “{about}”, which is another text; left out",
    "older": "taken, but it translates “{about}”, which the text was before",
    "another language": "it says that it is in {about}; left out",
    "another script": "it is not in the letters of its language; taken",
    "not allowed": "it cannot be taken: {about}",
    "marks": "taken, but its marks are not those of the text: {about}",
}


class Remark(NamedTuple):
    """`place`: how the file names the text, or its key; `language`: for which it is."""

    kind: RemarkKind
    language: str
    place: str
    about: str = ""

    @property
    def words(self) -> str:
        return _WORDS[self.kind].format(about=self.about[:80])


class Merged(NamedTuple):
    """`edit`: None where nothing is new. `taken`: how many translations are new."""

    edit: Edit | None
    taken: int
    remarks: tuple[Remark, ...]


def merged(site: Site, brought: Mapping[str, Iterable[Brought]]) -> Merged:
    """`brought`: by the language for which it is."""
    known = {text.key: text for text in texts_of(site)}
    words = {key: text.words for key, text in known.items()}
    remarks: list[Remark] = []
    for language, listed in brought.items():
        said, seen = list(listed), set[str]()
        own = {one.key: _alike(one.source) for one in said if one.source is not None}
        strangers = {text for key, one in known.items() if own.get(key) != (text := _alike(one.words.text))}
        for one in said:
            if one.key not in known or one.key in seen:
                remarks.append(Remark("twice" if one.key in seen else "not there", language, one.place))
                continue
            seen.add(one.key)
            new, remark = _with(words[one.key], one, language, strangers)
            try:
                if new is not words[one.key]:
                    says(site, known[one.key], new)
                words[one.key] = new
            except ValidationError as error:
                remark = Remark("not allowed", language, one.place, reason_of(error))
            remarks += [remark] if remark else []
        remarks += [Remark("not in it", language, key) for key in known if key not in seen]
    changed = [key for key, text in known.items() if words[key] != text.words]
    edits = (says(site, known[key], words[key]) for key in changed)
    taken = sum(len(set(words[key].translations) - set(known[key].words.translations)) for key in changed)
    return Merged(Together(edits=tuple(edits)) if changed else None, taken, tuple(remarks))


def _with(words: Translatable, one: Brought, language: str, strangers: Set[str]) -> tuple[Translatable, Remark | None]:
    """The text with what is brought, or as it is where that cannot be. `strangers`: the site's texts that stand beside none
    of their own in the file."""
    theirs = one.source or ""
    is_other = one.source is not None and _alike(theirs) != _alike(words.text)
    if one.language != language:
        return words, Remark("another language", language, one.place, one.language)
    if is_other and _alike(theirs) in strangers:
        return words, Remark("another's", language, one.place, without_marks(theirs))
    for_translators, by_translator = one.notes
    text, draft = (one.text or "").strip(), bool(one.draft)
    of = one.of or digest_of(theirs if is_other else words.text)
    try:
        if for_translators is not None and for_translators != words.note:
            words = words.saying("", words.text, note=for_translators)
        if not text:
            return words, Remark("not said", language, one.place)
        was = words.said_in(language)
        if was is not None and was.text == text:
            note = was.note if by_translator is None else by_translator
            says_nothing_of_it = one.draft is None and one.of is None and not is_other
            if was.note == note and (says_nothing_of_it or (was.draft, was.of) == (draft, of)):
                return words, None
        said = words.saying(language, text, draft=draft, note=by_translator, of=of)
    except ValidationError as error:
        return words, Remark("not allowed", language, one.place, reason_of(error))
    if is_other:
        return said, Remark("older", language, one.place, without_marks(theirs))
    if one.marks:
        return said, Remark("marks", language, one.place, one.marks)
    if text != words.text and not is_written_in(without_marks(text), language):
        return said, Remark("another script", language, one.place)
    return said, None


def _alike(text: str) -> str:
    return " ".join(text.split())
