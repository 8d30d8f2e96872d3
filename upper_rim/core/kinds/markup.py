"""What is something made of, before it is text? A small tree of elements, and the one place that writes it as HTML."""

from __future__ import annotations

import re
from collections.abc import Callable, Iterable, Mapping
from functools import lru_cache
from html import escape
from typing import NamedTuple


class Raw(NamedTuple):
    """Text that is HTML already: cleaned, or written by this project. Nothing in it is escaped again."""

    html: str


def slot(kind: str, node: str) -> str:
    """Stands as a name among an element's attributes where a page may have one of its own: `c`, for the link of the
    entry with that id; `f`, for the button of its branch."""
    return f"\x00{kind}{node}\x00"


SLOT = re.compile("\x00([cf])([a-z0-9-]+)\x00")
"""A slot as it is written: its kind and its node."""

Attributes = Mapping[str, str | bool | None]
"""By name, in the order in which they are written: a value, `True` for a name alone, nothing for `None` and `False`."""


class Element(NamedTuple):
    tag: str
    attributes: Attributes
    children: tuple[Markup, ...] = ()


Markup = Element | Raw | str
"""An element, what is written already, or plain text."""

_VOID = frozenset({"br", "img", "input", "meta"})
"""Elements that have no content and no end tag (HTML Standard, 13.1.2)."""
_SHAPES = frozenset({"circle", "line", "path", "rect"})
"""Elements of SVG: without children, their start tag closes itself."""


def element(tag: str, attributes: Attributes, *children: Markup | None) -> Element:
    """Children that are None are left out."""
    return Element(tag, attributes, tuple([child for child in children if child is not None]))


def html(markup: Iterable[Markup]) -> str:
    parts: list[str] = []
    _write(markup, parts.append)
    return "".join(parts)


def _write(markup: Iterable[Markup], put: Callable[[str], None]) -> None:
    for node in markup:
        if isinstance(node, str):
            put(_escaped(node))
        elif isinstance(node, Raw):
            put(node.html)
        else:
            put(f"<{node.tag}")
            for name, value in node.attributes.items():
                if name[0] == "\x00":
                    put(name)
                elif value is True:
                    put(f" {name}")
                elif value is not None and value is not False:
                    put(f' {name}="{_escaped(value)}"')
            if node.tag in _SHAPES and not node.children:
                put("/>")
            elif node.tag in _VOID:
                put(">")
            else:
                put(">")
                _write(node.children, put)
                put(f"</{node.tag}>")


_escaped = lru_cache(maxsize=4096)(escape)
"""Most of what is written is written often."""


_CONTROLS = frozenset({"button", "input", "select", "textarea"})
_FOCUSABLE = re.compile(r"<(?:a[^>]* href=|button|input|select|textarea)")


def takes_focus(markup: Iterable[Markup]) -> bool:
    """Whether anything in it can have the focus by itself: a link, a button, a field."""
    return any(
        bool(_FOCUSABLE.search(node.html))
        if isinstance(node, Raw)
        else not isinstance(node, str)
        and (node.tag in _CONTROLS or (node.tag == "a" and "href" in node.attributes) or takes_focus(node.children))
        for node in markup
    )


def with_attributes(node: Element, attributes: Attributes) -> Element:
    """The same element with more attributes, before its own."""
    return node._replace(attributes={**attributes, **node.attributes})
