"""What on pages of others may be an old header, menu, footer or bar? Proposals for lifting, the commonest first.

Landmarks outside of the content (ARIA Authoring Practices, landmark regions; HTML, 4.3), whatever is named like one, and
what says the same on most pages. A selector names an id or a class where the page does, so that it finds the same on other
pages.
"""

from __future__ import annotations

import re
from collections.abc import Iterable, Iterator
from typing import NamedTuple

from selectolax.lexbor import LexborNode

from .anatomy import DEEPEST, read_as_browser
from .encoding import decode, sniff
from .source_tags import nests_deeper

MOST = 8
"""So many proposals are made."""
MOST_SHARE = 0.6
"""Of the pages, on which something has to say the same."""
MOST_LOOKED_AT, DEEPEST_ALIKE = 60, 3
"""Parts of a page whose own parts are looked at, and how deep below the body."""


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
    alike: dict[tuple[str, str], _Alike] = {}
    count = 0
    for content in pages:
        count += 1
        here: dict[str, Proposal] = {}
        encoding = sniff(content)
        if nests_deeper(decode(content, encoding.label), DEEPEST):
            continue
        body = read_as_browser(content, encoding.label).body
        if body is not None:
            _look_through(body, here)
            _note_alike(body, alike)
        for selector, one in here.items():
            before = found.get(selector)
            found[selector] = one if before is None else before._replace(pages=before.pages + 1)
    for proposal in _on_most(alike, count):
        found.setdefault(proposal.selector, proposal)
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


class _Alike(NamedTuple):
    """What says the same on some `pages`; `share` of a page's text that comes before it; `around`: what says the same and
    holds it."""

    pages: int
    share: float
    around: tuple[tuple[str, str], ...]


def _note_alike(body: LexborNode, alike: dict[tuple[str, str], _Alike]) -> None:
    """Parts near the body, by what finds them and what they say, each once a page."""
    whole = _words(body)
    here: set[tuple[str, str]] = set()
    waiting: list[tuple[LexborNode, tuple[tuple[str, str], ...]]] = [(body, ())]
    for _ in range(MOST_LOOKED_AT):
        if not waiting:
            return
        holder, around = waiting.pop(0)
        for part in holder.iter():
            if part.tag in _CONTENT or part.tag in {"script", "style", "template", "noscript"}:
                continue
            words, selector = _words(part), _selector(part)
            own = (selector, words)
            if selector and words and own not in here:
                here.add(own)
                before = alike.get(own, _Alike(0, whole.find(words) / len(whole), around))
                alike[own] = before._replace(pages=before.pages + 1)
            if len(around) < DEEPEST_ALIKE:
                waiting.append((part, (*around, own)))


def _words(part: LexborNode) -> str:
    return " ".join(part.text(separator=" ").split())


def _on_most(alike: dict[tuple[str, str], _Alike], count: int) -> Iterator[Proposal]:
    """The outermost of them."""
    most = {key for key, one in alike.items() if one.pages >= max(2, MOST_SHARE * count)}
    for selector, words in sorted(most):
        found = alike[selector, words]
        if most.isdisjoint(found.around):
            what = "Header" if found.share < 0.5 else "Footer"
            yield Proposal(selector, what, found.pages, words[:80])


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
