"""Where can pieces be put into this page, and what does it say of itself?

The places are found in the source and proven with a conforming parser: the page with something put in there, less
what was put in, must be read as the same document as the page alone.
"""

from __future__ import annotations

import re
from typing import NamedTuple

from selectolax.lexbor import LexborHTMLParser

from ..model.site import Splice
from .encoding import PRESCAN_BYTES, byte_view, decode, insertion, sniff, unit_bytes
from .markers import has_stray_marks, marked
from .source_tags import RAW_TEXT, Token, tokens

HEAD_CONTENT = frozenset(
    {"base", "basefont", "bgsound", "link", "meta", "noframes", "noscript", "script", "style", "template", "title"}
)


class Anatomy(NamedTuple):
    """What a page tells: places for pieces (or None, with the reason in `remark`), title and language."""

    splice: Splice | None
    title: str
    language: str
    remark: str


def anatomy(content: bytes) -> Anatomy:
    """Never fails: a page that pieces cannot be put into is carried as it is, and the remark says why."""
    encoding = sniff(content)
    parsed = read_as_browser(content, encoding.label)
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
    splice = Splice(encoding=encoding.label, head_at=head_at * unit, body_at=body_at * unit)
    if not _proven(content, splice, parsed):
        return Anatomy(None, title, language, "Its markup leaves no place where a piece would stand first in the body.")
    return Anatomy(splice, title, language, "")


def _title(parsed: LexborHTMLParser) -> str:
    found = parsed.css_first("title")
    return " ".join(found.text().split())[:400] if found is not None else ""


def _language(parsed: LexborHTMLParser) -> str:
    root = parsed.root
    declared = (root.attributes.get("lang") or "").strip() if root is not None else ""
    return declared if re.fullmatch(r"[A-Za-z]{2,8}(-[A-Za-z0-9]{1,8})*", declared) else ""


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


PROBE = "<header data-rim-probe></header>"
HEAD_PROBE = '<link rel="x-rim-probe">'
_PROBES = re.compile(r'<!--(?:rim:[a-z]*|/rim)-->|<link rel="x-rim-probe">|<header data-rim-probe=""></header>')
_BETWEEN_TAGS = re.compile(r">[\t\n\f\r ]+(?=<)")


_NOSCRIPT = re.compile(r"(<noscript[^>]*>).*?(</noscript)", re.IGNORECASE | re.DOTALL)


def read_as_browser(content: bytes, label: str) -> LexborHTMLParser:
    """Parsed as a browser that runs scripts does: what is in `noscript` is no markup."""
    text = decode(content, label)
    return LexborHTMLParser(_NOSCRIPT.sub(r"\1\2", text) if "<noscript" in text.lower() else text)


def _proven(content: bytes, splice: Splice, parsed: LexborHTMLParser) -> bool:
    label = splice.encoding
    spliced = (
        content[: splice.head_at]
        + insertion(marked("head", HEAD_PROBE), label)
        + content[splice.head_at : splice.body_at]
        + insertion(marked("probe", PROBE), label)
        + content[splice.body_at :]
    )
    read = read_as_browser(spliced, label)
    body = read.body
    first = body.child if body is not None else None
    while first is not None and (
        first.is_comment_node or (first.is_text_node and not (first.text_content or "").strip())
    ):
        first = first.next
    if first is None or not first.is_element_node or "data-rim-probe" not in first.attributes:
        return False
    return same_document(_PROBES.sub("", read.html or ""), parsed.html or "")


def same_document(one: str, other: str) -> bool:
    """Whether two serialisations differ at most in white space between tags, which an insertion may move into the head."""
    return _BETWEEN_TAGS.sub(">", one) == _BETWEEN_TAGS.sub(">", other)
