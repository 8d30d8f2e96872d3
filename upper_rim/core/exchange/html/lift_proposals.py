"""What on pages of others may be an old header, menu, footer or bar? Proposals for lifting, the commonest first.

Landmarks outside of the content (ARIA Authoring Practices, landmark regions; HTML, 4.3) and whatever is named like one. A
selector names an id or a class where the page does, so that it finds the same on other pages.
"""

from __future__ import annotations

import re
from collections.abc import Iterable
from typing import NamedTuple

from selectolax.lexbor import LexborNode

from .anatomy import DEEPEST, read_as_browser
from .encoding import decode, sniff
from .source_tags import nests_deeper

MOST = 8
"""So many proposals are made."""


class Proposal(NamedTuple):
    """`what` it seems to be, on how many `pages`, and its beginning in words."""

    selector: str
    what: str
    pages: int
    excerpt: str


_BY_TAG = {"header": "Header", "nav": "Menu", "footer": "Footer", "aside": "Sidebar"}
_BY_ROLE = {"banner": "Header", "navigation": "Menu", "contentinfo": "Footer", "complementary": "Sidebar"}
_BY_NAME = (
    (re.compile(r"cookie|consent|gdpr", re.I), "Consent bar"),
    (re.compile(r"(^|[-_])(head(er)?|masthead|topbar|banner)([-_]|$)", re.I), "Header"),
    (re.compile(r"(^|[-_])(nav(bar|igation)?|menu)([-_]|$)", re.I), "Menu"),
    (re.compile(r"(^|[-_])(foot(er)?|colophon)([-_]|$)", re.I), "Footer"),
    (re.compile(r"(^|[-_])side(bar|nav)?([-_]|$)", re.I), "Sidebar"),
)
_CONTENT = frozenset({"main", "article"})
_NAMED_LIKE_ONE = frozenset({"div", "section", "ul", "table"})
_PLAIN_NAME = re.compile(r"[A-Za-z][\w-]*")


def proposals(pages: Iterable[bytes], lifted: Iterable[str] = ()) -> list[Proposal]:
    """Of the contents of some pages; without what is `lifted` already, named by its selector."""
    found: dict[str, Proposal] = {}
    for content in pages:
        here: dict[str, Proposal] = {}
        encoding = sniff(content)
        if nests_deeper(decode(content, encoding.label), DEEPEST):
            continue
        body = read_as_browser(content, encoding.label).body
        if body is not None:
            _look_through(body, here)
        for selector, one in here.items():
            before = found.get(selector)
            found[selector] = one if before is None else before._replace(pages=before.pages + 1)
    gone = set(lifted)
    listed = (one for one in found.values() if one.selector not in gone)
    return sorted(listed, key=lambda one: (-one.pages, one.selector))[:MOST]


def _look_through(around: LexborNode, here: dict[str, Proposal]) -> None:
    """What lies in a proposal goes with it; what lies in the content is content."""
    waiting = [around]
    while waiting:
        for part in waiting.pop().iter():
            if part.tag in _CONTENT:
                continue
            what = _what(part)
            selector = _selector(part) if what else ""
            if what and selector:
                words = " ".join(part.text(separator=" ").split())[:80]
                here.setdefault(selector, Proposal(selector, what, 1, words))
            else:
                waiting.append(part)


def _what(part: LexborNode) -> str:
    attributes = part.attributes
    by_role = _BY_ROLE.get(attributes.get("role") or "")
    if by_role or part.tag in _BY_TAG:
        return by_role or _BY_TAG[str(part.tag)]
    if part.tag not in _NAMED_LIKE_ONE:
        return ""
    names = [attributes.get("id") or "", *(attributes.get("class") or "").split()]
    return next((what for pattern, what in _BY_NAME for name in names if pattern.search(name)), "")


def _selector(part: LexborNode) -> str:
    """By its id, else by its first class; else by its tag where that says what it is."""
    own = part.attributes.get("id") or ""
    if _PLAIN_NAME.fullmatch(own):
        return f"#{own}"
    name = next((one for one in (part.attributes.get("class") or "").split() if _PLAIN_NAME.fullmatch(one)), "")
    if name:
        return f"{part.tag}.{name}"
    return str(part.tag) if part.tag in _BY_TAG else ""
