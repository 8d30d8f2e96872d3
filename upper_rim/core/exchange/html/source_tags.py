"""Where in the source of an HTML page are its tags?

The tokenizer of the HTML Standard (13.2.5), as far as places are concerned: tags, comments, and the elements whose
content is not markup. What the tags *mean* is left to a conforming parser.
"""

from __future__ import annotations

import re
from collections import Counter
from collections.abc import Iterator
from typing import Literal, NamedTuple

from .cursor import Cursor

RAW_TEXT = frozenset({"script", "style", "textarea", "title", "xmp", "iframe", "noembed", "noframes", "noscript"})
"""Elements whose content is text up to their end tag, in a browser that runs scripts."""

_OPENING = re.compile(r"<(?:(!--)|(!doctype)|([!?])|(/?)([a-zA-Z][^\s/>]*)|(/))", re.IGNORECASE)
_BEFORE_ATTRIBUTE = re.compile(r"[\s/]*+")
_ATTRIBUTE_NAME = re.compile(r"[^\s/>][^\s/>=]*+\s*+")
_BEFORE_VALUE = re.compile(r"=\s*+")
_BARE_VALUE = re.compile(r"[^\s>]*+")
_NESTED_SCRIPT = re.compile(r"<script(?=[\s/>])", re.IGNORECASE)
_COMMENT_END = re.compile(r"--!?>")


class Token(NamedTuple):
    """A piece of markup from `start` up to `end`; `name` is lower case, and empty for comments and doctypes."""

    kind: Literal["start", "end", "comment", "doctype"]
    name: str
    start: int
    end: int


def tokens(source: str | Cursor[str]) -> Iterator[Token]:
    """All tags, comments and doctypes in order. Unfinished markup at the end gives no token."""
    cursor = source if isinstance(source, Cursor) else Cursor(source)
    at = 0
    while True:
        opening = cursor.search(_OPENING, at)
        if opening is None:
            return
        start = opening.start()
        if opening[1]:
            end = _comment_end(cursor, opening.end())
            kind: Literal["comment", "doctype"] = "comment"
        elif opening[5]:
            closed = _tag_end(cursor, opening.end())
            if closed is None:
                return
            name = opening[5].lower()
            yield Token("end" if opening[4] else "start", name, start, closed)
            at = closed
            if not opening[4] and name in RAW_TEXT:
                at = _raw_text_end(cursor, closed, name)
            elif not opening[4] and name == "plaintext":
                return
            continue
        else:
            end = cursor.find(">", opening.end()) + 1
            kind = "doctype" if opening[2] else "comment"
        if end <= 0:
            return
        yield Token(kind, "", start, end)
        at = end


def _comment_end(cursor: Cursor[str], at: int) -> int:
    for abrupt in (">", "->"):
        if cursor.text.startswith(abrupt, at):
            return at + len(abrupt)
    found = cursor.search(_COMMENT_END, at)
    return found.end() if found else 0


class Attribute(NamedTuple):
    """In the source of a tag: its name in lower case, where that stands, and its value with what is escaped in it."""

    name: str
    at: int
    value: str


def attributes(source: str | Cursor[str], token: Token) -> Iterator[Attribute]:
    """Of a start tag, in order, doubles too."""
    cursor = source if isinstance(source, Cursor) else Cursor(source)
    for name, value_at, end, is_quoted in _attributes(cursor, token.start + 1 + len(token.name)):
        if name is None:
            return
        value = cursor.text[value_at : end - is_quoted]
        yield Attribute(name[0].rstrip().lower(), name.start(), value)


def _tag_end(cursor: Cursor[str], at: int) -> int | None:
    """Behind the `>` of a tag whose name ends at `at`; None where it is not finished."""
    for name, _, end, _ in _attributes(cursor, at):
        if name is None:
            return end
    return None


def _attributes(cursor: Cursor[str], at: int) -> Iterator[tuple[re.Match[str] | None, int, int, bool]]:
    """The name of each attribute, where its value begins, where all of it ends, and whether the value is quoted; last,
    without a name, the end of the tag. Nothing more where it is not finished."""
    source = cursor.text
    while True:
        before = cursor.match(_BEFORE_ATTRIBUTE, at)
        assert before is not None
        at = before.end()
        if source.startswith(">", at):
            yield None, at, at + 1, False
            return
        name = cursor.match(_ATTRIBUTE_NAME, at)
        if name is None:
            return
        value = cursor.match(_BEFORE_VALUE, name.end())
        if value is None:
            at = name.end()
            yield name, at, at, False
            continue
        begins, quote = value.end(), source[value.end() : value.end() + 1]
        if quote and quote in "\"'":
            begins += 1
            at = cursor.find(quote, begins) + 1
            if not at:
                return
        else:
            bare = cursor.match(_BARE_VALUE, begins)
            assert bare is not None
            at = bare.end()
        yield name, begins, at, bool(quote and quote in "\"'")


_RAW_END: dict[str, re.Pattern[str]] = {name: re.compile(rf"</{name}(?=[\s/>])", re.IGNORECASE) for name in RAW_TEXT}


def _raw_text_end(cursor: Cursor[str], at: int, name: str) -> int:
    """The place of the end tag of an element whose content is text (13.2.5.2 to 13.2.5.20)."""
    found = cursor.search(_RAW_END[name], at)
    if found is None:
        return len(cursor.text)
    if name != "script":
        return found.start()
    escaped = cursor.find("<!--", at, found.start())
    return found.start() if escaped < 0 else _escaped_script_end(cursor, escaped, found)


def _escaped_script_end(cursor: Cursor[str], escaped: int, plain: re.Match[str]) -> int:
    """Within `<!-- … -->` in a script, `<script … </script>` is text (script data double escaped states)."""
    nested = cursor.search(_NESTED_SCRIPT, escaped, plain.start())
    if nested is None or cursor.find("-->", escaped + 2, nested.start()) >= 0:
        return plain.start()
    outer = cursor.search(_RAW_END["script"], plain.end())
    return outer.start() if outer else len(cursor.text)


_CLOSES_ITSELF = frozenset(
    [
        "area",
        "base",
        "br",
        "col",
        "embed",
        "hr",
        "img",
        "input",
        "link",
        "meta",
        "param",
        "source",
        "track",
        "wbr",
        "a",
        "button",
        "body",
        "caption",
        "colgroup",
        "dd",
        "dt",
        "head",
        "html",
        "li",
        "nobr",
        "option",
        "optgroup",
        "p",
        "rb",
        "rp",
        "rt",
        "tbody",
        "td",
        "tfoot",
        "th",
        "thead",
        "tr",
        "h1",
        "h2",
        "h3",
        "h4",
        "h5",
        "h6",
    ]
)
"""Elements without content, and those that the next of their kind closes (HTML, 13.1.2.4): they do not lie in each
other."""
_BOUNDARIES = frozenset(
    [
        "table",
        "object",
        "template",
        "marquee",
        "applet",
        "foreignobject",
        "desc",
        "mi",
        "mo",
        "mn",
        "ms",
        "mtext",
        "annotation-xml",
    ]
)
"""An end tag closes nothing beyond them (HTML, 13.2.4.2: has an element in scope)."""


def nests_deeper(source: str | Cursor[str], levels: int) -> bool:
    """Whether elements lie in each other by more than so many levels: more than browsers keep, and than a parser's time
    bears, which grows with the depth."""
    text = source.text if isinstance(source, Cursor) else source
    if text.count("<") - text.count("</") - text.count("<!") <= levels:
        return False
    open_tags: list[str] = []
    counted: Counter[str] = Counter()
    for token in tokens(source):
        name = token.name
        if not name or name in _CLOSES_ITSELF:
            continue
        if token.kind == "start":
            open_tags.append(name)
            counted[name] += 1
            if len(open_tags) > levels:
                return True
        while token.kind == "end" and counted[name] and (open_tags[-1] == name or open_tags[-1] not in _BOUNDARIES):
            counted[closed := open_tags.pop()] -= 1
            if closed == name:
                break
    return False
