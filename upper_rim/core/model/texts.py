"""What does a site say itself, besides its pages: every text of its pieces, menus and questions, and where it is said?"""

from __future__ import annotations

from collections.abc import Iterator
from functools import cache, lru_cache
from typing import NamedTuple

from ..kinds.consent import Category
from ..kinds.entries import Entry
from ..kinds.items.base import BaseItem
from ..kinds.phrases import SaidPhrase, own_words, phrase_id, sayable, whole_words
from ..kinds.pieces.base import Piece
from ..values.nodes import Node, Value
from ..values.words import Translatable, Words
from .editing.edits import Add, Edit, Remove, Set, Together
from .memo import Memo
from .site import Site
from .tree import ROOT, SLOTS

_APART = frozenset({"pages", "assets", "phrases"})
"""Slots of the site that need not be gone through, or are seen together with what ships."""


_ONLY = frozenset({"words", "rich", "label"})
"""What most things say, without a name of its own."""


class SaidText(NamedTuple):
    """`path`: the nodes in which it is said, the outermost first; empty where that is the site itself."""

    path: tuple[Node, ...]
    field: str
    words: Translatable

    @property
    def node(self) -> str:
        return self.path[-1].id if self.path else ROOT

    @property
    def key(self) -> str:
        """Names it among all of the site's."""
        return f"{self.node}.{self.field}"

    @property
    def within(self) -> str:
        """Names what it is part of; empty where that is the site itself."""
        if isinstance(self.path[0] if self.path else None, SaidPhrase):
            return PHRASES
        return self.path[0].id if self.path else ""

    @property
    def group(self) -> str:
        """What it is part of: a piece, a menu."""
        outermost = self.path[0] if self.path else None
        if isinstance(outermost, SaidPhrase):
            return "Built-in words"
        return str(getattr(outermost, "name", "")) or "The site"

    @property
    def place(self) -> str:
        """Where in that: the entries in which it is said, else the kind of thing that says it; and as what, where a thing
        says several."""
        entries = [one.label.text or "…" for one in self.path if isinstance(one, Entry)]
        above = entries if self.field != "label" else entries[:-1]
        named = [one.NAME for one in self.path if isinstance(one, BaseItem)] or [
            one.id for one in self.path[:1] if isinstance(one, Category)
        ]
        named += [one.phrase.replace("_", " ") for one in self.path if isinstance(one, SaidPhrase)]
        as_what = "" if self.field in _ONLY else self.field.replace("_", " ")
        return ", ".join(part for part in (" › ".join(above), *named[-1:], as_what) if part)

    @property
    def is_shown(self) -> bool:
        """Whether it is of something that is switched on; which phrases show is not asked."""
        outermost = self.path[0] if self.path else None
        return not isinstance(outermost, Piece) or outermost.on


PHRASES = "phrases"


def said_phrase(site: Site, name: str) -> SaidPhrase:
    """A phrase with what ships where the site says nothing of its own."""
    kept = next((one for one in site.phrases if one.phrase == name), None)
    if kept is None:
        return _as_shipped(name, site.language, site.other_languages)
    return kept.replaced(words=whole_words(kept, site.language, site.other_languages))


@lru_cache(maxsize=1024)
def _as_shipped(name: str, language: str, others: tuple[str, ...]) -> SaidPhrase:
    kept = SaidPhrase(id=phrase_id(name))
    return kept.replaced(words=whole_words(kept, language, others))


def says(site: Site, text: SaidText, words: Translatable) -> Edit:
    """The edit by which a text becomes another. Raises `ValidationError` where a phrase cannot be said so."""
    value = words.model_dump(mode="json")
    phrase = text.path[0] if text.path else None
    if not isinstance(phrase, SaidPhrase):
        return Set(node=text.node, field=text.field, value=value)
    assert isinstance(words, Words)
    own = own_words(phrase.phrase, words, site.language)
    said = SaidPhrase.model_validate({"id": phrase.id, "words": own.model_dump(mode="json")}).model_dump(mode="json")
    is_kept = any(one.id == phrase.id for one in site.phrases)
    if not own.text and not own.translations and not own.note:
        return Remove(nodes=(phrase.id,)) if is_kept else Together(edits=())
    if is_kept:
        return Set(node=phrase.id, field="words", value=said["words"])
    return Add(parent=ROOT, slot=PHRASES, values=(said,))


def texts_of(site: Site) -> tuple[SaidText, ...]:
    """Those that say something in the site's own language, pieces before menus before what is left, phrases last."""
    return _texts.of(site, lambda site: tuple(_found(site)))


_texts: Memo[Site, tuple[SaidText, ...]] = Memo(8)


def _found(site: Site) -> Iterator[SaidText]:
    slots = [slot for slot in SLOTS[Site] if slot not in _APART]
    slots.sort(key=lambda slot: ("pieces", "menus", slot).index(slot))
    for slot in slots:
        for node in getattr(site, slot):
            yield from _below_top.of(node, lambda node: tuple(_below(node, ())))
    yield from _of(site, ())
    for name in sayable() if site.pieces else ():
        phrase = said_phrase(site, name)
        yield SaidText((phrase,), "words", phrase.words)


_below_top: Memo[Node, tuple[SaidText, ...]] = Memo(1024)
"""An edit changes one of them, seldom more."""


def _below(node: Node, above: tuple[Node, ...]) -> Iterator[SaidText]:
    path = (*above, node)
    yield from _of(node, path)
    for slot in SLOTS.get(type(node), ()):
        for child in getattr(node, slot):
            yield from _below(child, path)


def _of(value: Value, path: tuple[Node, ...]) -> Iterator[SaidText]:
    for field in _text_fields(type(value)):
        words = getattr(value, field)
        if words.text.strip():
            yield SaidText(path, field, words)


@cache
def _text_fields(kind: type[Value]) -> tuple[str, ...]:
    return tuple(
        name
        for name, field in kind.model_fields.items()
        if isinstance(field.annotation, type) and issubclass(field.annotation, Translatable)
    )
