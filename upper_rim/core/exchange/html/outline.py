"""What does a page's own content say of itself: title, description, headings, landmarks, ids, links?"""

from __future__ import annotations

import posixpath
from collections import Counter, defaultdict
from collections.abc import Iterable, Iterator, Sequence
from itertools import chain, islice
from operator import itemgetter
from typing import NamedTuple
from urllib.parse import urlsplit

from selectolax.lexbor import LexborHTMLParser, LexborNode

from .anatomy import DEEPEST, read_as_browser
from .encoding import decode
from .heard import above_it, is_labelled, is_named, is_nameless, labelled_ids, says_something
from .named_files import names_of_files
from .source_tags import nests_deeper

MOST_HEADINGS, MOST_LINKS, MOST_IDS, MOST_MARKS, MOST_FILES, LONGEST = 500, 5_000, 20, 2_000, 5_000, 200
MOST_ASKED = 2_000
"""Elements of a sort that are looked at."""


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


def outline_of(content: bytes, encoding: str, path: str) -> PageOutline | None:
    """`path`: the page's own, from which relative links lead. None where its elements lie so deep in each other that no
    browser shows them as they are meant."""
    text = decode(content, encoding)
    if nests_deeper(text, DEEPEST):
        return None
    parsed = read_as_browser(content, encoding)
    tagged = _Tagged(parsed)
    title = parsed.css_first("head > title")
    labels = labelled_ids(tagged["label"])
    ids = Counter(node.attributes.get("id") or "" for node in parsed.css("[id]"))
    headings = tagged.all("h1", "h2", "h3", "h4", "h5", "h6")[:MOST_HEADINGS]
    silent = [not says_something(node) for node in headings]
    metas = [
        ((node.attributes.get("name") or "").lower(), (node.attributes.get("content") or "").strip())
        for node in tagged["meta"]
    ]
    is_based = any("href" in node.attributes for node in tagged["base"])
    leading = [node for node in tagged["a"] if "href" in node.attributes]
    return PageOutline(
        title=" ".join(title.text().split())[:LONGEST] if title is not None else "",
        is_described=any(name == "description" and said for name, said in metas),
        has_icon=any("icon" in _kinds(node) and "href" in node.attributes for node in tagged["link"]),
        headings=tuple(
            int((node.tag or "h0")[1]) for node, says_nothing in zip(headings, silent, strict=True) if not says_nothing
        ),
        mains=sum("hidden" not in node.attributes for node in tagged.of_role("main", "main")),
        twice=tuple(one[:LONGEST] for one, count in ids.items() if one and count > 1)[:MOST_IDS],
        # None where another base is said: nobody knows then where they lead within the site.
        links=() if is_based else _paths((node.attributes.get("href") for node in leading), path)[:MOST_LINKS],
        nameless=next((_leads(node) for node in tagged.all("a", "button")[:MOST_LINKS] if _is_nameless(node)), ""),
        ordered=sum(
            (node.attributes.get("tabindex") or "").strip().lstrip("+0").isdecimal()
            for node in parsed.css("[tabindex]")
        ),
        banners=sum(_is_of_page(node, "banner") for node in tagged.of_role("header", "banner")[:MOST_ASKED]),
        marks=tuple(dict.fromkeys(_marks(parsed)))[:MOST_MARKS],
        closings=sum(_is_of_page(node, "contentinfo") for node in tagged.of_role("footer", "contentinfo")[:MOST_ASKED]),
        unseen_picture=_first(
            node.attributes.get("src") for node in tagged["img"] if "alt" not in node.attributes and not is_named(node)
        ),
        nameless_frame=_first(node.attributes.get("src") for node in tagged["iframe"] if not is_named(node)),
        nameless_field=_first(
            node.attributes.get("name")
            for node in tagged.all("input", "select", "textarea")[:MOST_ASKED]
            if not is_labelled(node, labels)
        ),
        cannot_grow=any(name == "viewport" and _forbids_growing(said) for name, said in metas),
        files=tuple(dict.fromkeys(islice(names_of_files(text), MOST_FILES))),
        wants=() if is_based else _paths(_wanted(tagged), path)[:MOST_LINKS],
        unsourced=_first(node.tag for node in _unsourced(tagged) if not node.attributes.keys() & _SOURCES_BESIDE),
        dead_link=_first(
            " ".join(node.text(deep=True).split())
            for node in [node for node in tagged["a"] if "href" not in node.attributes][:MOST_ASKED]
            if _is_dead(node)
        ),
        says_language=any("lang" in node.attributes for node in tagged["html"]),
        says_letters=content.isascii() or declares_letters(content, parsed),
        runs=next((said for node in tagged.all("html", "body") if (said := node.attributes.get("dir"))), "")
        .strip()
        .lower(),
        empty_heading=_first(
            node.tag for node, says_nothing in zip(headings, silent, strict=True) if says_nothing and not is_named(node)
        ),
    )


class _Tagged:
    """A page's elements by their tags, each in the order of the page: it is walked once."""

    def __init__(self, parsed: LexborHTMLParser) -> None:
        self._by_tag: dict[str | None, list[tuple[int, LexborNode]]] = defaultdict(list)
        for at, node in enumerate(parsed.css("*")):
            self._by_tag[node.tag].append((at, node))
        self._with_role = parsed.css("[role]")

    def __getitem__(self, tag: str) -> list[LexborNode]:
        return [node for _, node in self._by_tag.get(tag, ())]

    def all(self, *tags: str) -> list[LexborNode]:
        return [node for _, node in sorted(chain(*(self._by_tag.get(tag, ()) for tag in tags)), key=itemgetter(0))]

    def of_role(self, tag: str, role: str) -> list[LexborNode]:
        """Elements that have the role by themselves, and others that say so."""
        return [*self[tag], *(one for one in self._with_role if one.tag != tag and one.attributes.get("role") == role)]


def _is_nameless(node: LexborNode) -> bool:
    return (node.tag == "button" or "href" in node.attributes) and is_nameless(node)


def _kinds(link: LexborNode) -> list[str]:
    return (link.attributes.get("rel") or "").lower().split()


def _paths(addresses: Iterable[str | None], path: str) -> tuple[str, ...]:
    """Where they lead within the site, each once."""
    return tuple(dict.fromkeys(there for one in dict.fromkeys(addresses) if (there := _within(one, path))))


def _unsourced(tagged: _Tagged) -> Iterator[LexborNode]:
    yield from (node for node in tagged["img"] if "src" not in node.attributes)
    yield from (node for node in tagged["script"] if node.attributes.get("src", "said") == "")
    yield from (node for node in tagged["link"] if ("rel" in node.attributes) != ("href" in node.attributes))


_SOURCES_BESIDE = frozenset({"srcset", "data-src", "data-srcset", "itemprop", "property"})
"""Attributes by which something has a source all the same, or is there for machines."""
_SHOWN = ("img", "script", "source", "video", "audio", "track", "embed")
_LINKED = frozenset({"stylesheet", "icon", "manifest"})


def _wanted(tagged: _Tagged) -> Iterator[str | None]:
    """Addresses of what pages are shown with."""
    yield from (node.attributes.get("src") for tag in _SHOWN for node in tagged[tag])
    for node in tagged["input"]:
        if (node.attributes.get("type") or "").lower() == "image":
            yield node.attributes.get("src")
    yield from (node.attributes.get("poster") for node in tagged["video"])
    yield from (node.attributes.get("data") for node in tagged["object"])
    yield from (node.attributes.get("href") for node in tagged["link"] if not _LINKED.isdisjoint(_kinds(node)))


def _is_dead(node: LexborNode) -> bool:
    """It says something, is no place to jump to, and nothing else makes it a link."""
    others = {"id", "name", "onclick", "role", "tabindex", "aria-current", "aria-disabled"}
    return not node.attributes.keys() & others and says_something(node)


def declares_letters(content: bytes, parsed: LexborHTMLParser) -> bool:
    """HTML, 4.2.5.4: by a byte order mark, or by a meta element."""
    if content.startswith((b"\xef\xbb\xbf", b"\xff\xfe", b"\xfe\xff")):
        return True
    return parsed.css_first("meta[charset], meta[http-equiv=content-type i][content*=charset i]") is not None


_LEAST_GROWTH = 2.0
"""WCAG 2.2, 1.4.4: text can be enlarged to twice its size."""


def _first(said: Iterable[str | None]) -> str:
    """What the first is called by; "one" where it says nothing; empty where there is none."""
    return next(((one or "").strip()[:LONGEST] or "one" for one in said), "")


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
        said = node.attributes
        yield from (f".{name}" for name in (said.get("class") or "").split())
        if said.get("id"):
            yield f"#{said['id']}"


def _leads(node: LexborNode) -> str:
    return ((node.attributes.get("href") or "").strip() or "a button")[:LONGEST]


def _is_of_page(node: LexborNode, role: str) -> bool:
    """A `header` or a `footer` is the page's where it stands in no part of that (HTML AAM 1.0)."""
    if node.attributes.get("role"):
        return node.attributes["role"] == role
    return all(above.tag not in {"article", "aside", "main", "nav", "section"} for above in above_it(node))


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
