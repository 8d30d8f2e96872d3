"""What does a page's own content say of itself: title, description, headings, landmarks, ids, links?"""

from __future__ import annotations

import posixpath
from collections import Counter
from collections.abc import Iterable, Iterator, Sequence, Set
from itertools import islice
from typing import NamedTuple
from urllib.parse import urlsplit

from selectolax.lexbor import LexborHTMLParser, LexborNode

from .anatomy import read_as_browser
from .encoding import decode
from .named_files import names_of_files

MOST_HEADINGS, MOST_LINKS, MOST_IDS, MOST_MARKS, MOST_FILES, LONGEST = 500, 5_000, 20, 2_000, 5_000, 200


class PageOutline(NamedTuple):
    """`headings`: their levels, in order; `mains`: how many `main` landmarks show; `twice`: ids that several elements have;
    `links`: paths of the site that it leads to, from its root; `nameless`: where the first link or button leads that says
    nothing; `ordered`: how many elements ask for a place of their own in the order of the focus (`tabindex` above 0);
    `banners`, `closings`: how many elements are the page's banner, or its footer; `marks`: classes and ids, as selectors name
    them; `unseen_picture`, `nameless_frame`, `nameless_field`: the first picture without an alternative, frame and field that
    nobody hears the name of; `cannot_grow`: its viewport meta forbids to enlarge it; `files`: names of files in its text.
    `wants`: paths of the site's files that it is shown or works with; `unsourced`: the first such element that names none;
    `dead_link`: the first link without an address; `says_letters`: how its letters are written is declared, or they are plain
    ones; `runs`: the direction that it says; `empty_heading`: the first heading that says nothing."""

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
    closings: int = 0
    unseen_picture: str = ""
    nameless_frame: str = ""
    nameless_field: str = ""
    cannot_grow: bool = False
    files: tuple[str, ...] = ()
    wants: tuple[str, ...] = ()
    unsourced: str = ""
    dead_link: str = ""
    says_language: bool = True
    says_letters: bool = True
    runs: str = ""
    empty_heading: str = ""


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
    labels = _labelled_ids(parsed)
    ids = Counter(node.attributes.get("id") or "" for node in parsed.css("[id]"))
    return PageOutline(
        " ".join(title.text().split())[:LONGEST] if title is not None else "",
        any((node.attributes.get("content") or "").strip() for node in parsed.css("meta[name=description i]")),
        any("icon" in (node.attributes.get("rel") or "").lower().split() for node in parsed.css("link[rel][href]")),
        tuple(
            int((node.tag or "h0")[1]) for node in parsed.css("h1, h2, h3, h4, h5, h6")[:MOST_HEADINGS] if _says(node)
        ),
        sum("hidden" not in node.attributes for node in parsed.css("main, [role=main]")),
        tuple(one[:LONGEST] for one, count in ids.items() if one and count > 1)[:MOST_IDS],
        tuple(dict.fromkeys(filter(None, (_path(node, path) for node in _links(parsed)))))[:MOST_LINKS],
        next((_leads(node) for node in parsed.css("a[href], button") if _is_nameless(node)), ""),
        sum(
            (node.attributes.get("tabindex") or "").strip().lstrip("+0").isdecimal()
            for node in parsed.css("[tabindex]")
        ),
        sum(_is_of_page(node, "banner") for node in parsed.css("header, [role=banner]")),
        tuple(dict.fromkeys(_marks(parsed)))[:MOST_MARKS],
        sum(_is_of_page(node, "contentinfo") for node in parsed.css("footer, [role=contentinfo]")),
        _first(node.attributes.get("src") for node in parsed.css("img:not([alt])") if not _is_named(node)),
        _first(node.attributes.get("src") for node in parsed.css("iframe") if not _is_named(node)),
        _first(node.attributes.get("name") for node in parsed.css(_FIELDS) if not _is_labelled(node, labels)),
        any(_forbids_growing(node.attributes.get("content") or "") for node in parsed.css("meta[name=viewport i]")),
        tuple(dict.fromkeys(islice(names_of_files(decode(content, encoding)), MOST_FILES))),
        tuple(dict.fromkeys(_wanted(parsed, path)))[:MOST_LINKS],
        _first(node.tag for node in parsed.css(_UNSOURCED) if not node.attributes.keys() & _SOURCES_BESIDE),
        _first(" ".join(node.text(deep=True).split()) for node in parsed.css("a:not([href])") if _is_dead(node)),
        parsed.css_first("html[lang]") is not None,
        content.isascii() or declares_letters(content, parsed),
        next((said for node in parsed.css("html[dir], body[dir]") if (said := node.attributes["dir"])), "")
        .strip()
        .lower(),
        _first(node.tag for node in parsed.css("h1, h2, h3, h4, h5, h6") if not _says(node) and not _is_named(node)),
    )


_UNSOURCED = "img:not([src]), script[src=''], link[rel]:not([href]), link[href]:not([rel])"
_SOURCES_BESIDE = frozenset({"srcset", "data-src", "data-srcset", "itemprop", "property"})
"""Attributes by which something has a source all the same, or is there for machines."""
_WANTING = {
    "img[src], script[src], source[src], video[src], audio[src], track[src], embed[src], input[type=image i][src]": "src",
    "video[poster]": "poster",
    "object[data]": "data",
}


def _wanted(parsed: LexborHTMLParser, path: str) -> Iterator[str]:
    """What pages are shown with; where another base is said, nobody knows."""
    if parsed.css_first("base[href]") is not None:
        return
    for selector, name in _WANTING.items():
        yield from (there for node in parsed.css(selector) if (there := _within(node.attributes.get(name), path)))
    for node in parsed.css("link[rel~=stylesheet i][href], link[rel~=icon i][href], link[rel~=manifest i][href]"):
        there = _within(node.attributes.get("href"), path)
        if there:
            yield there


def _is_dead(node: LexborNode) -> bool:
    """It says something, is no place to jump to, and nothing else makes it a link."""
    others = {"id", "name", "onclick", "role", "tabindex", "aria-current", "aria-disabled"}
    return not node.attributes.keys() & others and _says(node)


def _says(node: LexborNode) -> bool:
    """A text, or a picture's."""
    return bool(node.text(deep=True).strip()) or any(
        (one.attributes.get("alt") or one.attributes.get("aria-label") or "").strip()
        for one in node.css("[alt], [aria-label]")
    )


def declares_letters(content: bytes, parsed: LexborHTMLParser) -> bool:
    """HTML, 4.2.5.4: by a byte order mark, or by a meta element."""
    if content.startswith((b"\xef\xbb\xbf", b"\xff\xfe", b"\xfe\xff")):
        return True
    return parsed.css_first("meta[charset], meta[http-equiv=content-type i][content*=charset i]") is not None


_FIELDS = "input, select, textarea"
_UNASKED = frozenset({"hidden", "submit", "button", "reset", "image"})
_LEAST_GROWTH = 2.0
"""WCAG 2.2, 1.4.4: text can be enlarged to twice its size."""


def _first(said: Iterable[str | None]) -> str:
    """What the first is called by; "one" where it says nothing; empty where there is none."""
    return next(((one or "").strip()[:LONGEST] or "one" for one in said), "")


def _is_named(node: LexborNode) -> bool:
    """By an attribute of its own, or hidden from all who would hear its name."""
    said = node.attributes
    if said.get("aria-hidden") == "true" or "hidden" in said or said.get("role") in {"none", "presentation"}:
        return True
    return any((said.get(name) or "").strip() for name in ("aria-label", "aria-labelledby", "title"))


def _is_labelled(node: LexborNode, labels: Set[str]) -> bool:
    """`labels`: the ids for which a label says something (HTML AAM 1.0, 4.1)."""
    said = node.attributes
    if (
        _is_named(node)
        or (said.get("type") or "").strip().lower() in _UNASKED
        or (said.get("placeholder") or "").strip()
    ):
        return True
    return (said.get("id") or "") in labels or any(
        above.tag == "label" and above.text(deep=True).strip() for above in _above(node)
    )


def _labelled_ids(parsed: LexborHTMLParser) -> frozenset[str]:
    labels = parsed.css("label[for]")
    return frozenset(label.attributes["for"] or "" for label in labels if label.text(deep=True).strip())


def _above(node: LexborNode) -> Iterator[LexborNode]:
    above = node.parent
    while above is not None:
        yield above
        above = above.parent


def _forbids_growing(said: str) -> bool:
    """CSS Viewport 1, 5: `user-scalable=no`, or a greatest scale that is less than twice."""
    pairs = (pair.partition("=") for pair in said.lower().replace(";", ",").split(","))
    told = {name.strip(): value.strip() for name, _, value in pairs}
    try:
        most = float(told.get("maximum-scale", _LEAST_GROWTH))
    except ValueError:
        most = _LEAST_GROWTH
    return told.get("user-scalable") in {"no", "0"} or 0 <= most < _LEAST_GROWTH


def _marks(parsed: LexborHTMLParser) -> Iterator[str]:
    for node in parsed.css("[class], [id]"):
        yield from (f".{name}" for name in (node.attributes.get("class") or "").split())
        if node.attributes.get("id"):
            yield f"#{node.attributes['id']}"


def _is_nameless(node: LexborNode) -> bool:
    """No text, no label, no picture with words (Accessible Name and Description Computation 1.1)."""
    if _is_named(node) or node.text(deep=True).strip():
        return False
    within = node.css("img[alt], [aria-label], svg title, input[value]")
    return not any(
        (one.attributes.get("alt") or one.attributes.get("aria-label") or one.text()).strip() for one in within
    )


def _leads(node: LexborNode) -> str:
    return ((node.attributes.get("href") or "").strip() or "a button")[:LONGEST]


def _is_of_page(node: LexborNode, role: str) -> bool:
    """A `header` or a `footer` is the page's where it stands in no part of that (HTML AAM 1.0)."""
    if node.attributes.get("role"):
        return node.attributes["role"] == role
    return all(above.tag not in {"article", "aside", "main", "nav", "section"} for above in _above(node))


def _links(parsed: LexborHTMLParser) -> list[LexborNode]:
    """None where another base is said: nobody knows then where they lead within the site."""
    return [] if parsed.css_first("base[href]") is not None else parsed.css("a[href]")


def _path(link: LexborNode, path: str) -> str:
    return _within(link.attributes.get("href"), path)


def _within(address: str | None, path: str) -> str:
    """Where an address leads within the site; empty where it leads elsewhere, or to a place in the page itself."""
    try:
        parts = urlsplit((address or "").strip())
    except ValueError:
        return ""
    if parts.scheme or parts.netloc or not parts.path:
        return ""
    whole = posixpath.normpath(posixpath.join(posixpath.dirname(path), parts.path))
    return f"/{whole.lstrip('/')}" + ("/" if parts.path.endswith("/") and whole != "/" else "")
