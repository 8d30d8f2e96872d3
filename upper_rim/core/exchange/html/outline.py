"""What does a page's own content say of itself: title, description, headings, landmarks, ids, links?"""

from __future__ import annotations

import posixpath
from collections import Counter
from collections.abc import Iterator, Sequence
from typing import NamedTuple
from urllib.parse import urlsplit

from selectolax.lexbor import LexborHTMLParser, LexborNode

from .anatomy import read_as_browser

MOST_HEADINGS, MOST_LINKS, MOST_IDS, MOST_MARKS, LONGEST = 500, 5_000, 20, 2_000, 200


class PageOutline(NamedTuple):
    """`headings`: their levels, in order; `mains`: how many `main` landmarks show; `twice`: ids that several elements have;
    `links`: paths of the site that it leads to, from its root; `nameless`: where the first link or button leads that says
    nothing; `ordered`: how many elements ask for a place of their own in the order of the focus (`tabindex` above 0);
    `banners`: how many elements are the page's banner; `marks`: classes and ids, as selectors name them."""

    title: str
    is_described: bool
    has_icon: bool
    headings: tuple[int, ...]
    mains: int
    twice: tuple[str, ...]
    links: tuple[str, ...]
    nameless: str = ""
    ordered: int = 0
    banners: int = 0
    marks: tuple[str, ...] = ()


class Outlined(NamedTuple):
    """A page's own content, as it is published; its encoding's label; its path."""

    content: bytes
    encoding: str
    path: str


def outlines_of(pages: Sequence[Outlined]) -> list[PageOutline | None]:
    return [outline_of(*page) for page in pages]


def outline_of(content: bytes, encoding: str, path: str) -> PageOutline:
    """`path`: the page's own, from which relative links lead."""
    parsed = read_as_browser(content, encoding)
    title = parsed.css_first("head > title")
    ids = Counter(node.attributes.get("id") or "" for node in parsed.css("[id]"))
    return PageOutline(
        " ".join(title.text().split())[:LONGEST] if title is not None else "",
        any((node.attributes.get("content") or "").strip() for node in parsed.css("meta[name=description i]")),
        any("icon" in (node.attributes.get("rel") or "").lower().split() for node in parsed.css("link[rel][href]")),
        tuple(int((node.tag or "h0")[1]) for node in parsed.css("h1, h2, h3, h4, h5, h6")[:MOST_HEADINGS]),
        sum("hidden" not in node.attributes for node in parsed.css("main, [role=main]")),
        tuple(one[:LONGEST] for one, count in ids.items() if one and count > 1)[:MOST_IDS],
        tuple(dict.fromkeys(filter(None, (_path(node, path) for node in _links(parsed)))))[:MOST_LINKS],
        next((_leads(node) for node in parsed.css("a[href], button") if _is_nameless(node)), ""),
        sum(
            (node.attributes.get("tabindex") or "").strip().lstrip("+0").isdecimal()
            for node in parsed.css("[tabindex]")
        ),
        sum(_is_banner(node) for node in parsed.css("header, [role=banner]")),
        tuple(dict.fromkeys(_marks(parsed)))[:MOST_MARKS],
    )


def _marks(parsed: LexborHTMLParser) -> Iterator[str]:
    for node in parsed.css("[class], [id]"):
        yield from (f".{name}" for name in (node.attributes.get("class") or "").split())
        if node.attributes.get("id"):
            yield f"#{node.attributes['id']}"


def _is_nameless(node: LexborNode) -> bool:
    """No text, no label, no picture with words (Accessible Name and Description Computation 1.1)."""
    said = node.attributes
    if any((said.get(name) or "").strip() for name in ("aria-label", "aria-labelledby", "title")):
        return False
    if said.get("aria-hidden") == "true" or "hidden" in said or node.text(deep=True).strip():
        return False
    within = node.css("img[alt], [aria-label], svg title, input[value]")
    return not any(
        (one.attributes.get("alt") or one.attributes.get("aria-label") or one.text()).strip() for one in within
    )


def _leads(node: LexborNode) -> str:
    return ((node.attributes.get("href") or "").strip() or "a button")[:LONGEST]


def _is_banner(node: LexborNode) -> bool:
    """A `header` is one where it stands in no part of the page's (HTML AAM 1.0)."""
    if node.attributes.get("role") == "banner":
        return True
    if node.attributes.get("role"):
        return False
    above = node.parent
    while above is not None:
        if above.tag in {"article", "aside", "main", "nav", "section"}:
            return False
        above = above.parent
    return True


def _links(parsed: LexborHTMLParser) -> list[LexborNode]:
    """None where another base is said: nobody knows then where they lead within the site."""
    return [] if parsed.css_first("base[href]") is not None else parsed.css("a[href]")


def _path(link: LexborNode, path: str) -> str:
    """Empty where it leads elsewhere, or to a place in the page itself."""
    try:
        parts = urlsplit((link.attributes.get("href") or "").strip())
    except ValueError:
        return ""
    if parts.scheme or parts.netloc or not parts.path:
        return ""
    whole = posixpath.normpath(posixpath.join(posixpath.dirname(path), parts.path))
    return f"/{whole.lstrip('/')}" + ("/" if parts.path.endswith("/") and whole != "/" else "")
