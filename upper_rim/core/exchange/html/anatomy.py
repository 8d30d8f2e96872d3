"""Where can pieces be put into this page, and what does it say of itself?

The places are found in the source and proven with a conforming parser: the page with something put in there, less
what was put in, must be read as the same document as the page alone.
"""

from __future__ import annotations

import re
from collections.abc import Iterable
from typing import NamedTuple

from selectolax.lexbor import LexborHTMLParser, LexborNode

from ...model.site import Alternate, Splice
from .cursor import Cursor
from .encoding import PRESCAN_BYTES, Encoding, byte_view, decode, insertion, sniff, unit_bytes
from .foreign import foreign_in
from .markers import has_stray_marks, marked
from .source_tags import RAW_TEXT, Token, nests_deeper, tokens
from .styling import BEGINNING, Styling, styling

HEAD_CONTENT = frozenset(
    {"base", "basefont", "bgsound", "link", "meta", "noframes", "noscript", "script", "style", "template", "title"}
)


class Anatomy(NamedTuple):
    """What a page tells: places for pieces (or None, with the reason in `remark`), title, language, and the day that it
    is of (ISO 8601), empty where it says none; by which styles it looks as it does. `sample`: some of its words, where it
    does not say its language."""

    splice: Splice | None
    title: str
    language: str
    remark: str
    dated: str = ""
    styling: Styling | None = None
    sample: str = ""


DEEPEST = 1_000
"""Levels of elements in each other that are read; browsers keep about half of that."""


def anatomy(content: bytes) -> Anatomy:
    """Never fails: a page that pieces cannot be put into is carried as it is, and the remark says why."""
    encoding = sniff(content)
    text = decode(content, encoding.label)
    if nests_deeper(text, DEEPEST):
        remark = f"Its elements lie more than {DEEPEST:,} deep in each other; no browser shows that as it is meant."
        return Anatomy(None, "", "", remark)
    parsed = read_as_browser(content, encoding.label)
    found = _anatomy(content, encoding, parsed)
    sample = "" if found.language else _sample(parsed)
    return found._replace(dated=_dated(parsed), styling=styling(parsed, text[:BEGINNING]), sample=sample)


def _anatomy(content: bytes, encoding: Encoding, parsed: LexborHTMLParser) -> Anatomy:
    title, language = _title(parsed), _language(parsed)
    if has_stray_marks(content, encoding):
        return Anatomy(
            None, title, language, "It holds half a mark of an earlier publication; nothing can be put in safely."
        )
    if parsed.css_first("frameset") is not None and parsed.css_first("body") is None:
        return Anatomy(None, title, language, "It is a frameset: it has no body for a piece to stand in.")
    unit = unit_bytes(encoding)
    view = byte_view(content, encoding)
    head_at, body_at = _places(view, encoding.bom_bytes // unit)
    declared = _declaration_end(view)
    if declared <= body_at:
        head_at = max(head_at, declared)
    splice = Splice(
        encoding=encoding.label,
        head_at=head_at * unit,
        body_at=body_at * unit,
        has_form=_has_form(parsed),
        fetches=foreign_in(content, encoding),
        alternates=_alternates(parsed),
        turned=_is_turned(parsed),
        unscaled=not any(
            (meta.attributes.get("name") or "").strip().lower() == "viewport"
            and (meta.attributes.get("content") or "").strip()
            for meta in parsed.css("meta[name]")
        ),
    )
    if not _proven(content, splice, parsed):
        return Anatomy(None, title, language, "Its markup leaves no place where a piece would stand first in the body.")
    return Anatomy(_with_end(content, splice, view, unit, parsed), title, language, "")


def places_hold(content: bytes, splice: Splice) -> bool:
    """Whether places that a bundle says belong to this content: the page with something put in at each, less what was put
    in, is the page alone. They may be fewer than could be found."""
    encoding = sniff(content)
    ends = _end_places(content, byte_view(content, encoding), unit_bytes(encoding))
    end = len(content) if splice.end_at is None else splice.end_at
    if splice.encoding != encoding.label or not splice.head_at <= splice.body_at <= end or end not in ends:
        return False
    parsed = read_as_browser(content, splice.encoding)
    if not _proven(content, splice, parsed):
        return False
    if splice.end_at is None:
        return not (splice.close or splice.wraps)
    if splice.wraps:
        return _wraps(content, splice, parsed)
    read = _read_with(content, splice, (splice.end_at, splice.close + END_PROBE))
    return _ends(read, parsed)


def _title(parsed: LexborHTMLParser) -> str:
    found = parsed.css_first("title")
    return " ".join(found.text().split())[:400] if found is not None else ""


def _has_form(parsed: LexborHTMLParser) -> bool:
    """One that is there to be filled in: not a search, nor what belongs to an old header, footer or menu."""
    around = {form.mem_id for form in parsed.css(_AROUND)}
    return any(form.mem_id not in around for form in parsed.css("form"))


_AROUND = ", ".join(
    [*(f"{one} form" for one in ("header", "footer", "nav", "search", "[role=search]")), "form[role=search]"]
)


def _alternates(parsed: LexborHTMLParser) -> tuple[Alternate, ...]:
    found: dict[str, Alternate] = {}
    for link in parsed.css("link[hreflang][href]"):
        language, address = ((link.attributes.get(name) or "").strip() for name in ("hreflang", "href"))
        is_one = "alternate" in (link.attributes.get("rel") or "").lower().split()
        if is_one and _TAG.fullmatch(language) and 0 < len(address) <= LONGEST_ADDRESS and len(found) < MOST_ALTERNATES:
            found.setdefault(language, Alternate(language=language, address=address))
    return tuple(found.values())


LONGEST_ADDRESS, MOST_ALTERNATES = 2000, 200


def _is_turned(parsed: LexborHTMLParser) -> bool:
    """Its whole is turned in a `style`, and neither its root nor its body says `dir` (HTML, 15.3.6: CSS may be missing)."""
    roots = [one for one in (parsed.root, parsed.body) if one is not None]
    if any(one.attributes.get("dir") for one in roots):
        return False
    styles = (one.attributes.get("style") or "" for one in roots)
    return any(map(_TURNS.search, styles)) or any(_TURNS_ALL.search(one.text()) for one in parsed.css("style"))


_TURNS = re.compile(r"(?<![-\w])direction\s*:\s*rtl", re.IGNORECASE)
_TURNS_ALL = re.compile(
    r"(?:^|[},;\s])(?:html|body|:root)\s*(?:,[^{}]{0,200})?\{[^{}]{0,5000}?(?<![-\w])direction\s*:\s*rtl", re.IGNORECASE
)


_DAY = re.compile(r"\s*(\d{4}-[01]\d-[0-3]\d)")


def _dated(parsed: LexborHTMLParser) -> str:
    """In its head, or in its first `time` element."""
    for meta in parsed.css("meta[content]"):
        named = {(meta.attributes.get(name) or "").lower() for name in ("name", "property")}
        day = _DAY.match(meta.attributes.get("content") or "")
        if day and named & {"date", "article:published_time"}:
            return day[1]
    for time in parsed.css("time[datetime]"):
        day = _DAY.match(time.attributes.get("datetime") or "")
        if day:
            return day[1]
    return ""


def _language(parsed: LexborHTMLParser) -> str:
    root = parsed.root
    declared = (root.attributes.get("lang") or "").strip() if root is not None else ""
    return declared if _TAG.fullmatch(declared) else ""


SAMPLE = 2_000
_SAID = "h1, h2, h3, p, li, dt, dd, td, blockquote, figcaption"


def _sample(parsed: LexborHTMLParser) -> str:
    """The first words of its content that stand in sentences or lists: no code, no menus where it has a `main`."""
    within = parsed.css_first("main, article, [role=main]") or parsed.body
    words: list[str] = []
    left = SAMPLE
    for said in within.css(_SAID) if within is not None else ():
        words.append(" ".join(said.text(deep=True, separator=" ").split())[:left])
        left -= len(words[-1])
        if left <= 0:
            break
    return " ".join(words)


_TAG = re.compile(r"[A-Za-z]{2,8}(-[A-Za-z0-9]{1,8})*")


def _places(view: str, first: int) -> tuple[int, int]:
    """Places in the source, in units: at the start of the head's content, and at the start of the body's."""
    head_at: int | None = None
    last_end = first
    depth_in_template = 0
    in_raw_text = False
    for token in tokens(view):
        if in_raw_text:
            in_raw_text, last_end = False, token.end
            continue
        if depth_in_template:
            if token.name == "template":
                depth_in_template += 1 if token.kind == "start" else -1
            last_end = token.end
            continue
        loose_text = _loose_text(view, last_end, token.start)
        if loose_text is not None:
            return (loose_text if head_at is None else head_at), loose_text
        last_end = token.end
        if token.kind in {"comment", "doctype"}:
            continue
        if token.name in {"html", "head"} and token.kind == "start":
            if token.name == "head" and head_at is None:
                head_at = token.end
            continue
        if token.name == "body" and token.kind == "start":
            return (token.start if head_at is None else head_at), token.end
        if token.name == "template":
            depth_in_template = 1 if token.kind == "start" else 0
        elif _begins_body(token):
            return (token.start if head_at is None else head_at), token.start
        in_raw_text = token.kind == "start" and token.name in RAW_TEXT
        if head_at is None and token.kind == "start":
            head_at = token.start
    loose_text = _loose_text(view, last_end, len(view))
    end = len(view) if loose_text is None else loose_text
    return (end if head_at is None else head_at), end


_DECLARATION = re.compile(r"<meta[^>]*\bcharset\b[^>]*>", re.IGNORECASE)


def _declaration_end(view: str) -> int:
    """The end of the tag that declares the encoding: it must stay within the bytes that browsers scan for it."""
    declared = _DECLARATION.search(view, 0, PRESCAN_BYTES)
    return declared.end() if declared else 0


def _begins_body(token: Token) -> bool:
    if token.kind == "end":
        return token.name in {"br", "body", "html"}
    return token.name not in HEAD_CONTENT


_NOT_SPACE = re.compile(r"[^\t\n\f\r ]")


def _loose_text(view: str, start: int, end: int) -> int | None:
    """The first character between two tokens that is text of the body; None for white space."""
    found = _NOT_SPACE.search(view, start, end)
    return found.start() if found else None


END_PROBE = "<footer data-rim-probe>x</footer>"
WRAP_PROBE = ("<div data-rim-probe><div>", "</div><aside data-rim-probe>x</aside></div>")
_WRAP_END = '</div><aside data-rim-probe="">x</aside></div><footer data-rim-probe="">x</footer>'
_END_PROBE = re.compile(r'(</div>)?<footer data-rim-probe="">x</footer>')
_OPEN_AT_END = re.compile(r"[a-z][a-z0-9]*")
MOST_LEFT_OPEN = 60


def _with_end(content: bytes, splice: Splice, view: str, unit: int, parsed: LexborHTMLParser) -> Splice:
    """The splice with the place behind the body's content: before the last `</body>`, else after the last byte; with
    what must be closed there first, and whether all between can be put into one element."""
    for end in _end_places(content, view, unit):
        if end < splice.body_at:
            continue
        close = ""
        for _ in range(2):
            ended = splice.replaced(end_at=end, close=close)
            read = _read_with(content, ended, (end, close + END_PROBE))
            found = read.css_first("footer[data-rim-probe]")
            if found is None:
                break
            left_open = _open_around(found)
            if left_open is None or (close and left_open):
                break
            if not left_open and _ends(read, parsed):
                return ended.replaced(wraps=_wraps(content, ended, parsed))
            close = "".join(f"</{name}>" for name in left_open)
    return splice


def _end_places(content: bytes, view: str, unit: int) -> Iterable[int]:
    last = view.lower().rfind("</body")
    return dict.fromkeys((last * unit if last >= 0 else len(content), len(content)))


def _ends(read: LexborHTMLParser, parsed: LexborHTMLParser) -> bool:
    """Whether what was put in at the end stands in the body itself, and changes nothing."""
    found = read.css_first("footer[data-rim-probe]")
    is_in_body = found is not None and _open_around(found) == []
    return is_in_body and same_document(_END_PROBE.sub(r"\1", read.html or ""), parsed.html or "")


def _open_around(probe: LexborNode) -> list[str] | None:
    """Names of the elements that are still open where the probe landed, innermost first; None outside the body.
    Formatting elements are opened again within it (HTML Standard, 13.2.4.3)."""
    names: list[str] = []
    within = probe.child
    while within is not None and within.is_element_node:
        names.insert(0, within.tag or "")
        within = within.child
    above = probe.parent
    while above is not None and above.tag != "body":
        if len(names) == MOST_LEFT_OPEN or not _OPEN_AT_END.fullmatch(above.tag or ""):
            return None
        names.append(above.tag or "")
        above = above.parent
    return None if above is None else names


def _wraps(content: bytes, splice: Splice, parsed: LexborHTMLParser) -> bool:
    """Whether the content can be put into an element within another one, beside a sidebar."""
    assert splice.end_at is not None
    opening, closing = WRAP_PROBE
    read = _read_with(content, splice, (splice.body_at, opening), (splice.end_at, splice.close + closing + END_PROBE))
    beside = read.css_first("body > div[data-rim-probe] > div:first-child + aside[data-rim-probe]")
    if beside is None or beside.next is not None or beside.parent is None:
        return False
    after = beside.parent.next
    if after is None or after.tag != "footer":
        return False
    inside = (read.html or "").replace('<div data-rim-probe=""><div>', "", 1)
    return same_document(inside.replace(_WRAP_END, "", 1), parsed.html or "")


def _read_with(content: bytes, splice: Splice, *insertions: tuple[int, str]) -> LexborHTMLParser:
    """The page as a browser reads it with texts put in."""
    parts: list[bytes] = []
    at = 0
    for place, text in insertions:
        parts += (content[at:place], insertion(text, splice.encoding))
        at = place
    return read_as_browser(b"".join((*parts, content[at:])), splice.encoding)


PROBE = "<header data-rim-probe></header>"
HEAD_PROBE = '<link rel="x-rim-probe">'
_PROBES = re.compile(r'<!--(?:rim:[a-z]*|/rim)-->|<link rel="x-rim-probe">|<header data-rim-probe=""></header>')
_BETWEEN_TAGS = re.compile(r">[\t\n\f\r ]+(?=<)")


def read_as_browser(content: bytes, label: str) -> LexborHTMLParser:
    """Parsed as a browser that runs scripts does: what is in `noscript` is no markup."""
    return LexborHTMLParser(without_noscripts(Cursor(decode(content, label))))


_NOSCRIPT_OPENS = re.compile("<noscript", re.IGNORECASE)
_NOSCRIPT_CLOSES = re.compile("</noscript", re.IGNORECASE)


def without_noscripts(cursor: Cursor[str]) -> str:
    """A page's source with what stands in `noscript` left out."""
    kept: list[str] = []
    at = 0
    while (found := cursor.search(_NOSCRIPT_OPENS, at)) is not None:
        opened = cursor.find(">", found.end())
        closes = cursor.search(_NOSCRIPT_CLOSES, opened) if opened >= 0 else None
        if closes is None:
            break
        kept.append(cursor.text[at : opened + 1])
        at = closes.start()
    return "".join((*kept, cursor.text[at:])) if at else cursor.text


def _proven(content: bytes, splice: Splice, parsed: LexborHTMLParser) -> bool:
    read = _read_with(
        content, splice, (splice.head_at, marked("head", HEAD_PROBE)), (splice.body_at, marked("probe", PROBE))
    )
    body = read.body
    first = body.child if body is not None else None
    while first is not None and (
        first.is_comment_node or (first.is_text_node and not (first.text_content or "").strip())
    ):
        first = first.next
    if first is None or not first.is_element_node or "data-rim-probe" not in first.attributes:
        return False
    if read.css_first("head > link[rel=x-rim-probe]") is None:
        return False
    return same_document(_PROBES.sub("", read.html or ""), parsed.html or "")


def same_document(one: str, other: str) -> bool:
    """Whether two serialisations differ at most in white space between tags, which an insertion may move into the
    head."""
    return _BETWEEN_TAGS.sub(">", one) == _BETWEEN_TAGS.sub(">", other)
