"""Which bytes of a page are the old header that is to go?

A CSS selector chooses elements; their places in the source are found by numbering the source's own start tags and
asking a conforming parser which numbers were chosen. Each cut is proven: the page without it must be read as the
same document without that element.
"""

from __future__ import annotations

from collections.abc import Iterator
from itertools import islice
from typing import NamedTuple

from selectolax.lexbor import LexborHTMLParser, LexborNode

from ..model.site import Cut
from .anatomy import read_as_browser, same_document
from .encoding import Encoding, byte_view, decode, insertion, sniff, unit_bytes
from .source_tags import Token, tokens

NUMBER = "data-rim-n"
MOST_TRIALS = 40
"""How many ends of an element are tried before it counts as entangled: bounds the work on hostile pages."""
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
    if not read_as_browser(content, encoding.label).css(selector):
        return Lifting((), ())
    numbered, starts = _numbered(content, encoding)
    document = read_as_browser(numbered, encoding.label)
    found: list[Found] = []
    faults: list[str] = []
    for element in document.css(selector):
        if element.tag in _NEVER:
            faults.append(f"<{element.tag}> is the page itself and cannot be taken out.")
            continue
        number = element.attributes.get(NUMBER)
        if number is None:
            faults.append(f"<{element.tag}> is not written in the page: the browser adds it by itself.")
            continue
        token = starts[int(number)]
        if found and token.start < found[-1].end:
            continue
        end = _proven_end(content, encoding, starts, element, token)
        if end is None:
            faults.append(
                f"<{element.tag}> is entangled with what stands around it; taking it out would change the rest."
            )
            continue
        excerpt = " ".join(element.text(separator=" ").split())[:140]
        found.append(Found(token.start, end, f"<{element.tag}> {excerpt}"))
    return Lifting(tuple(found), tuple(faults))


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
    kept: list[bytes] = []
    at = 0
    for cut in cuts:
        kept.append(content[at : cut.start])
        at = cut.end
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


def _proven_end(
    content: bytes, encoding: Encoding, starts: list[Token], element: LexborNode, token: Token
) -> int | None:
    """Where the element ends in the source: the first candidate whose cut leaves exactly the rest of the document."""
    number = element.attributes[NUMBER]
    numbered, _ = _numbered(content, encoding)
    rest = read_as_browser(numbered, encoding.label)
    chosen = list(rest.css(f'[{NUMBER}="{number}"]'))
    for node in chosen:
        node.decompose()
    expected = _unnumbered(rest.html or "")
    for end in islice(_candidate_ends(content, encoding, starts, element, token), MOST_TRIALS):
        trial = read_as_browser(content[: token.start] + content[end:], encoding.label)
        if same_document(trial.html or "", expected):
            return end
    return None


def _unnumbered(serialised: str) -> str:
    parsed = LexborHTMLParser(serialised)
    for node in parsed.css(f"[{NUMBER}]"):
        del node.attrs[NUMBER]
    return parsed.html or ""


def _candidate_ends(
    content: bytes, encoding: Encoding, starts: list[Token], element: LexborNode, token: Token
) -> Iterator[int]:
    if token.name in _VOID:
        yield token.end
        return
    unit = unit_bytes(encoding)
    view = byte_view(content, encoding)
    depth = 0
    later = [other for other in tokens(view) if other.start * unit >= token.start]
    for other in later:
        if other.name == token.name:
            depth += 1 if other.kind == "start" else -1
            if depth <= 0 and other.kind == "end":
                yield other.end * unit
                break
    inside = {int(node.attributes[NUMBER] or 0) for node in element.css(f"[{NUMBER}]") if NUMBER in node.attributes}
    last_inside = max((starts[number].end for number in inside), default=token.end)
    for other in later:
        if other.start * unit >= last_inside:
            yield other.start * unit
    yield len(content)


def preview(content: bytes, found: Found) -> str:
    """The source of a part, as text, for a look at what would go."""
    return decode(content[found.start : found.end], sniff(content).label)
