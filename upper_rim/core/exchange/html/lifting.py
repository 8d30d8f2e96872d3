"""Which bytes of a page are the old header that is to go?

A CSS selector chooses elements; their places in the source are found by numbering the source's own start tags and
asking a conforming parser which numbers were chosen. Each cut is proven: the page without it must be read as the
same document without that element.
"""

from __future__ import annotations

import re
from collections.abc import Iterable, Iterator
from itertools import islice
from typing import NamedTuple

from selectolax.lexbor import LexborHTMLParser, LexborNode

from ...model.site import Cut
from .anatomy import DEEPEST, read_as_browser, same_document
from .encoding import Encoding, byte_view, decode, insertion, sniff, unit_bytes
from .source_tags import Token, nests_deeper, tokens

NUMBER = "data-rim-n"
MOST_TRIALS = 40
"""How many ends of an element are tried before it counts as entangled: bounds the work on hostile pages."""
MOST_FOUND = 200
"""Parts of one page that one selector can take out: each is proven with a look at the whole page."""
_VOID = frozenset(
    {"area", "base", "br", "col", "embed", "hr", "img", "input", "link", "meta", "param", "source", "track", "wbr"}
)
_NEVER = frozenset({"html", "head", "body"})


class Found(NamedTuple):
    """A part of a page that a selector chose: its bytes, and its beginning in words for a preview."""

    start: int
    end: int
    excerpt: str


class Lifting(NamedTuple):
    """What can be cut, and in sentences what cannot be and why."""

    found: tuple[Found, ...]
    faults: tuple[str, ...]


def selector_fault(selector: str) -> str | None:
    """Why a selector cannot be used, or None."""
    if any(char in selector for char in "{}\x00"):
        return "a selector has no braces in it"
    try:
        LexborHTMLParser("<p>").css(selector)
    except Exception as error:
        return f"this is not a selector that CSS knows ({error})"
    return None


def find_in_page(content: bytes, selector: str) -> Lifting:
    """All that `selector` matches in a page, outermost only, each with its bytes."""
    encoding = sniff(content)
    if nests_deeper(decode(content, encoding.label), DEEPEST):
        return Lifting((), ("Its elements lie too deep in each other for anything to be taken out.",))
    if not read_as_browser(content, encoding.label).css(selector):
        return Lifting((), ())
    numbered, starts = _numbered(content, encoding)
    page = _Numbered(content, encoding, numbered, starts)
    found: dict[int, Found] = {}
    within: set[int] = set()
    faults: list[str] = []
    for element in read_as_browser(numbered, encoding.label).css(selector):
        number = _number(element)
        if element.tag in _NEVER:
            faults.append(f"<{element.tag}> is the page itself and cannot be taken out.")
        elif number is None:
            faults.append(f"<{element.tag}> is not written in the page: the browser adds it by itself.")
        elif number not in within and len(found) == MOST_FOUND:
            faults.append(f"It matches more than {MOST_FOUND} parts of this page; the others stay.")
            break
        elif number not in within:
            end = _proven_end(page, found, element, number)
            if end is None:
                faults.append(
                    f"<{element.tag}> is entangled with what stands around it; taking it out would change the rest."
                )
                continue
            excerpt = " ".join(element.text(separator=" ").split())[:140]
            found[number] = Found(starts[number].start, end, f"<{element.tag}> {excerpt}")
            within |= {inner for node in element.css(f"[{NUMBER}]") if (inner := _number(node)) is not None}
    return Lifting(tuple(sorted(found.values())), tuple(faults))


LONGEST_PREVIEW = 600


class Looked(NamedTuple):
    """What can be cut of a page, and the beginning of each part's source."""

    lifting: Lifting
    sources: tuple[str, ...]


def look_through(pages: Iterable[bytes], selector: str) -> list[Looked]:
    """For a look at what would go, page by page."""
    looked = []
    for content in pages:
        lifting = find_in_page(content, selector)
        label = sniff(content).label
        sources = (decode(content[one.start : one.end], label)[:LONGEST_PREVIEW] for one in lifting.found)
        looked.append(Looked(lifting, tuple(sources)))
    return looked


class Lifted(NamedTuple):
    """What one more lift finds in a page, and all cuts that the page then has."""

    lifting: Lifting
    cuts: tuple[Cut, ...]


def lifted(pages: Iterable[tuple[bytes, dict[str, str]]], selector: str) -> list[Lifted]:
    """Of pages, each with the selectors of all its lifts."""
    return [
        Lifted(lifting, cuts(content, selectors) if lifting.found else ())
        for content, selectors in pages
        for lifting in [find_in_page(content, selector)]
    ]


def cuts(content: bytes, selectors: dict[str, str]) -> tuple[Cut, ...]:
    """The cuts for several lifts, by lift id; in order, none within another."""
    every = [
        Cut(start=part.start, end=part.end, lift=lift)
        for lift, selector in selectors.items()
        for part in find_in_page(content, selector).found
    ]
    apart: list[Cut] = []
    for cut in sorted(every, key=lambda cut: (cut.start, -cut.end)):
        if not apart or cut.start >= apart[-1].end:
            apart.append(cut)
    return tuple(apart)


def without_cuts(content: bytes, cuts: tuple[Cut, ...]) -> bytes:
    """A page's content less what is lifted out of it."""
    return _without(content, [(cut.start, cut.end) for cut in cuts])


def _without(content: bytes, parts: Iterable[tuple[int, int]]) -> bytes:
    kept: list[bytes] = []
    at = 0
    for start, end in parts:
        kept.append(content[at:start])
        at = end
    kept.append(content[at:])
    return b"".join(kept)


def _numbered(content: bytes, encoding: Encoding) -> tuple[bytes, list[Token]]:
    """The page with a number on each start tag, and those tags with their places in bytes."""
    unit = unit_bytes(encoding)
    parts: list[bytes] = []
    starts: list[Token] = []
    at = 0
    for token in tokens(byte_view(content, encoding)):
        if token.kind != "start":
            continue
        name_end = (token.start + 1 + len(token.name)) * unit
        parts += [content[at:name_end], insertion(f' {NUMBER}="{len(starts)}"', encoding.label)]
        at = name_end
        starts.append(token._replace(start=token.start * unit, end=token.end * unit))
    parts.append(content[at:])
    return b"".join(parts), starts


class _Numbered(NamedTuple):
    """A page, and the same with its start tags numbered."""

    content: bytes
    encoding: Encoding
    numbered: bytes
    starts: list[Token]


def _number(element: LexborNode) -> int | None:
    number = element.attributes.get(NUMBER)
    return int(number) if number is not None else None


def _proven_end(page: _Numbered, found: dict[int, Found], element: LexborNode, number: int) -> int | None:
    """Where the element ends in the source: the first candidate whose cut, beside those found before, leaves exactly
    the rest of the document."""
    token = page.starts[number]
    before = sorted((part.start, part.end) for part in found.values())
    if any(start < token.end and token.start < end for start, end in before):
        return None
    rest = read_as_browser(page.numbered, page.encoding.label)
    for gone in (*found, number):
        for node in rest.css(f'[{NUMBER}="{gone}"]'):
            node.decompose()
    expected = _unnumbered(rest.html or "")
    for end in islice(_candidate_ends(page, element, token), MOST_TRIALS):
        if any(start < end and token.start < until for start, until in before):
            return None
        trial = _without(page.content, sorted([*before, (token.start, end)]))
        if same_document(read_as_browser(trial, page.encoding.label).html or "", expected):
            return end
    return None


_NUMBERS = re.compile(rf' {NUMBER}="\d+"')


def _unnumbered(serialised: str) -> str:
    return _NUMBERS.sub("", serialised)


def _candidate_ends(page: _Numbered, element: LexborNode, token: Token) -> Iterator[int]:
    if token.name in _VOID:
        yield token.end
        return
    unit = unit_bytes(page.encoding)
    view = byte_view(page.content, page.encoding)
    depth = 0
    later = [other for other in tokens(view) if other.start * unit >= token.start]
    for other in later:
        if other.name == token.name:
            depth += 1 if other.kind == "start" else -1
            if depth <= 0 and other.kind == "end":
                yield other.end * unit
                break
    inside = {inner for node in element.css(f"[{NUMBER}]") if (inner := _number(node)) is not None}
    last_inside = max((page.starts[number].end for number in inside), default=token.end)
    for other in later:
        if other.start * unit >= last_inside:
            yield other.start * unit
    yield len(page.content)
