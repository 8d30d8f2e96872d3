"""Which rules of the designer's own CSS reach nothing?"""

from __future__ import annotations

import re
from collections.abc import Iterator, Set
from typing import Any

import tinycss2

from ....model.site import Site
from ....model.tree import ROOT, walk
from ....style.selectors import selectors_in
from ...finding import Finding

_MARK = re.compile(r"[.#](-?[A-Za-z_\u0080-\uffff][\w\u0080-\uffff-]*)")
_QUOTED = re.compile(r"\[[^\]]*\]|\([^)]*\)")
"""What stands in brackets may name what is not to be there."""


def in_own_css(site: Site, marks: Set[str]) -> Iterator[Finding]:
    """`marks`: classes (`.a`) and ids (`#a`) in the pages' own contents. Of a selector all that it names has to be there;
    names of ours are, but those of nodes that are gone."""
    if not site.css.strip():
        return
    known, nodes = set(marks), set()
    for holder in (*site.pieces, *site.menus):
        for node in (holder, *walk(holder)):
            nodes.add(node.id)
            known.update(f".{name}" for name in str(getattr(node, "classes", "")).split())
    for line, selector in _selectors(tinycss2.parse_stylesheet(site.css, skip_comments=True, skip_whitespace=True)):
        listed = selectors_in(selector)
        if listed and all(_reaches_nothing(one, known, nodes, site.key) for one in listed):
            yield Finding("reaches nothing", ROOT, f"css-{line}", {"first": selector.strip()[:120], "line": line})


def _selectors(nodes: list[Any]) -> Iterator[tuple[int, str]]:
    for node in nodes:
        if node.type == "qualified-rule":
            yield node.source_line, tinycss2.serialize(node.prelude).strip()
        elif (
            node.type == "at-rule"
            and node.content
            and node.lower_at_keyword in {"media", "supports", "layer", "container"}
        ):
            yield from _selectors(tinycss2.parse_rule_list(node.content, skip_comments=True, skip_whitespace=True))


def _reaches_nothing(selector: str, known: Set[str], nodes: Set[str], key: str) -> bool:
    plain = _QUOTED.sub("", selector)
    return any(
        mark[0] not in known and not _is_ours(mark[1], nodes, key)
        for mark in ((found[0], found[1]) for found in _MARK.finditer(plain))
    )


_OF_A_NODE = re.compile(r"(?:pc|rw|cl|it|en)-\w+")


def _is_ours(name: str, nodes: Set[str], key: str) -> bool:
    """A part's name, or one that begins with the id of a node that there is."""
    if not name.startswith(f"{key}-"):
        return name.startswith((key, "rim"))
    own = name.removeprefix(f"{key}-")
    return not _OF_A_NODE.match(own) or any(own == node or own.startswith(f"{node}-") for node in nodes)
