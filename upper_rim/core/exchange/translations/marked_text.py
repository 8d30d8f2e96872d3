"""A text with marks as inline codes of XLIFF, and back (XLIFF 2.1, 4.7): each tag is an `originalData` entry, a pair of tags
a `pc`, a tag by itself a `ph`. What is the same mark in a text and in its translation has the same id."""

from __future__ import annotations

import re
from collections import Counter
from collections.abc import Iterable, Iterator
from html import unescape
from typing import NamedTuple
from xml.etree import ElementTree
from xml.sax.saxutils import escape, quoteattr

XLIFF = "{urn:oasis:names:tc:xliff:document:2.0}"
_TOKEN = re.compile(r'<(/?)([a-z0-9]+)((?: [a-z-]+="[^"]*")*)>|[^<]+')
_VOID = "br"
_KINDS = {"a": "link", "strong": "fmt", "em": "fmt", "s": "fmt", "sub": "fmt", "sup": "fmt"}
_DEEPEST = 60


class Coder:
    """Of one unit. `data`: tags by the id of their entry."""

    def __init__(self) -> None:
        self.data: dict[str, str] = {}
        self._ids: dict[tuple[str, int], int] = {}

    def written(self, html: str) -> str:
        """The content of a `source` or `target`; the source's first. `html`: well-formed, as it is kept."""
        seen = Counter[str]()
        made: list[str] = []
        open_tags: list[str] = []
        for found in _TOKEN.finditer(html):
            token, closes, name = found[0], found[1], found[2]
            if name is None:
                made.append(escape(unescape(token)))
            elif closes:
                made.append("</pc>")
                open_tags.pop()
            else:
                seen[token] += 1
                code = self._ids.setdefault((token, seen[token]), len(self._ids) + 1)
                opened = self._entry(token)
                if name == _VOID:
                    made.append(f'<ph id="{code}" dataRef="{opened}" type="fmt" subType="xlf:lb"/>')
                else:
                    kind, closed = _KINDS.get(name, "other"), self._entry(f"</{name}>")
                    made.append(f'<pc id="{code}" dataRefStart="{opened}" dataRefEnd="{closed}" type="{kind}">')
                    open_tags.append(name)
        return "".join(made)

    def original_data(self) -> Iterator[str]:
        for name, tag in self.data.items():
            yield f"<data id={quoteattr(name)}>{escape(tag)}</data>"

    def _entry(self, tag: str) -> str:
        name = next((name for name, known in self.data.items() if known == tag), None)
        if name is None:
            name = f"d{len(self.data) + 1}"
            self.data[name] = tag
        return name


class Decoded(NamedTuple):
    """`codes`: ids of the marks in it. `unknown`: elements that mean nothing here, of which the text stayed."""

    html: str
    codes: Counter[str]
    unknown: tuple[str, ...]


def joined(parts: Iterable[Decoded]) -> Decoded:
    """As one text."""
    listed = tuple(parts)
    return Decoded(
        "".join(one.html for one in listed),
        sum((one.codes for one in listed), Counter[str]()),
        tuple(name for one in listed for name in one.unknown),
    )


def decoded(element: ElementTree.Element, data: dict[str, str]) -> Decoded:
    """What a `source` or `target` says."""
    codes, unknown = Counter[str](), list[str]()

    def said(element: ElementTree.Element, depth: int) -> Iterator[str]:
        yield _text(element.text)
        for child in element:
            name = child.tag.removeprefix(XLIFF) if isinstance(child.tag, str) else ""
            if name in {"pc", "ph"}:
                codes[child.get("id", "")] += 1
            if depth > _DEEPEST:
                unknown.append(name)
            elif name == "ph":
                yield data.get(child.get("dataRef", ""), "")
            elif name == "pc":
                yield data.get(child.get("dataRefStart", ""), "")
                yield from said(child, depth + 1)
                yield data.get(child.get("dataRefEnd", ""), "")
            elif name:
                if name != "mrk":
                    unknown.append(name)
                yield from said(child, depth + 1)
            yield _text(child.tail)

    return Decoded("".join(said(element, 0)), codes, tuple(unknown))


def _text(text: str | None) -> str:
    return (text or "").replace("&", "&amp;").replace("<", "&lt;").replace(">", "&gt;").replace("\xa0", "&nbsp;")
