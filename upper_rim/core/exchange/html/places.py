"""Which places of a page can a link lead to: elements with an id, headings first of all?"""

from __future__ import annotations

from collections.abc import Iterator
from typing import NamedTuple

from selectolax.lexbor import LexborNode

from .anatomy import read_as_browser

MOST_PLACES = 400
_HEADINGS = {f"h{level}": level for level in range(1, 7)}


class PlaceInPage(NamedTuple):
    """`level`: of the heading that it is, or begins with; None: no heading is there. `words`: what is read there."""

    id: str
    words: str
    level: int | None


def places_in(content: bytes, encoding: str) -> list[PlaceInPage]:
    """In the order of the page. A heading without an id is told with an empty one, unless what it stands first in has
    one: a link cannot lead to it."""
    body = read_as_browser(content, encoding).body
    return list(_places(body))[:MOST_PLACES] if body is not None else []


def ids_in(content: bytes, encoding: str) -> frozenset[str]:
    """All ids and names of anchors to which a fragment can lead (HTML Standard, 7.4.2.3.3)."""
    parsed = read_as_browser(content, encoding)
    found = {node.attributes.get("id") or "" for node in parsed.css("[id]")}
    found |= {node.attributes.get("name") or "" for node in parsed.css("a[name]")}
    return frozenset(found - {""})


def _places(body: LexborNode) -> Iterator[PlaceInPage]:
    headed: set[int] = set()
    for node in body.traverse():
        own = (node.attributes.get("id") or "").strip()
        tag = node.tag or ""
        if not own and tag not in _HEADINGS:
            continue
        if tag in _HEADINGS:
            if node.mem_id not in headed:
                yield PlaceInPage(own, _words(node), _HEADINGS[tag])
            continue
        heading = _first_heading(node)
        if heading is not None and not heading.attributes.get("id") and heading.mem_id not in headed:
            headed.add(heading.mem_id)
            yield PlaceInPage(own, _words(heading), _HEADINGS[heading.tag or ""])
        else:
            yield PlaceInPage(own, _words(node), None)


def _first_heading(node: LexborNode) -> LexborNode | None:
    """The heading that an element begins with."""
    child = node.child
    while child is not None:
        if child.is_element_node:
            return child if child.tag in _HEADINGS else _first_heading(child)
        if child.is_text_node and (child.text_content or "").strip():
            return None
        child = child.next
    return None


def _words(node: LexborNode) -> str:
    return " ".join(node.text(deep=True).split())[:120]
