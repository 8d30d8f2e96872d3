"""What does a site say itself, besides its pages: every text of its pieces, menus and questions, and where it is said?"""

from __future__ import annotations

from collections.abc import Iterator
from functools import cache
from typing import NamedTuple

from ..kinds.consent import Category
from ..kinds.entries import Entry
from ..kinds.items.base import BaseItem
from ..kinds.pieces.base import Piece
from ..values.nodes import Node, Value
from ..values.words import Translatable
from .memo import Memo
from .site import Site
from .tree import ROOT, SLOTS

_WITHOUT_TEXTS = frozenset({"pages", "assets"})
"""Slots of the site that need not be gone through."""


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
    def group(self) -> str:
        """What it is part of: a piece, a menu."""
        outermost = self.path[0] if self.path else None
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
        as_what = "" if self.field in _ONLY else self.field.replace("_", " ")
        return ", ".join(part for part in (" › ".join(above), *named[-1:], as_what) if part)

    @property
    def is_shown(self) -> bool:
        """Whether it is of something that is switched on."""
        outermost = self.path[0] if self.path else None
        return not isinstance(outermost, Piece) or outermost.on


def texts_of(site: Site) -> tuple[SaidText, ...]:
    """Those that say something in the site's own language, pieces before menus before what is left."""
    return _texts.of(site, lambda site: tuple(_found(site)))


_texts: Memo[Site, tuple[SaidText, ...]] = Memo(8)


def _found(site: Site) -> Iterator[SaidText]:
    slots = [slot for slot in SLOTS[Site] if slot not in _WITHOUT_TEXTS]
    slots.sort(key=lambda slot: ("pieces", "menus", slot).index(slot))
    for slot in slots:
        for node in getattr(site, slot):
            yield from _below(node, ())
    yield from _of(site, ())


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
