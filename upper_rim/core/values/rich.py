"""What of a text with marks is kept? A small set of elements and no attributes but a link's address.

Cleaning is part of the value: there is no way for anything else to get into a site, whether it was typed, pasted,
imported or read from a bundle.
"""

from __future__ import annotations

import re
from html import unescape
from typing import Annotated

import nh3
from pydantic import AfterValidator, StringConstraints

from .words import Text, Translatable, Translated

MARKS = frozenset({"p", "br", "strong", "em", "a", "ul", "ol", "li", "h2", "h3", "blockquote", "s", "sub", "sup"})
_RENAMED = (
    ("<b>", "<strong>"),
    ("</b>", "</strong>"),
    ("<i>", "<em>"),
    ("</i>", "</em>"),
    ("<del>", "<s>"),
    ("</del>", "</s>"),
)
_DROPPED_WHOLE = {"script", "style", "template", "noscript", "iframe", "object", "svg", "math", "title", "textarea"}
SCHEMES = {"http", "https", "mailto", "tel"}


_MARK = re.compile(r"<[^<>]*>")


def without_marks(html: str) -> str:
    """What a text says, its words parted by single spaces."""
    return " ".join(unescape(_MARK.sub(" ", html)).split())


def clean(html: str) -> str:
    """The same text with nothing but `MARKS`; relative addresses of links stay."""
    kept = _cleaned(html)
    level = _levelled(kept)
    if level != kept:
        kept = _cleaned(level)
    for marked, meant in _RENAMED:
        kept = kept.replace(marked, meant)
    return kept.strip()


def _cleaned(html: str) -> str:
    return nh3.clean(
        html,
        tags=set(MARKS | {"b", "i", "del"}),
        clean_content_tags=_DROPPED_WHOLE,
        attributes={"a": {"href"}},
        url_schemes=SCHEMES,
        link_rel=None,
        strip_comments=True,
    )


MOST_DEEP = 24
"""Marks within each other; what stands deeper loses its own: whatever goes through a text goes down so far."""
_TAG = re.compile(r'<(/?)(?!br\b)[a-z0-9]+(?: [a-z-]+="[^"]*")*>')


def _levelled(html: str) -> str:
    """`html`: well-formed, as the cleaner writes it."""
    depth = 0

    def tag(found: re.Match[str]) -> str:
        nonlocal depth
        depth += 0 if found[1] else 1
        kept = found[0] if depth <= MOST_DEEP else ""
        depth -= 1 if found[1] else 0
        return kept

    return _TAG.sub(tag, html)


RichHtml = Annotated[Text, StringConstraints(max_length=20_000), AfterValidator(clean)]


class RichTranslation(Translated):
    text: RichHtml


class RichWords(Translatable):
    """Words with marks."""

    text: RichHtml = ""
    translations: tuple[RichTranslation, ...] = ()
