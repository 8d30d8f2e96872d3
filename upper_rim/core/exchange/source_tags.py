"""Where in the source of an HTML page are its tags?

The tokenizer of the HTML Standard (13.2.5), as far as places are concerned: tags, comments, and the elements whose
content is not markup. What the tags *mean* is left to a conforming parser.
"""

from __future__ import annotations

import re
from collections.abc import Iterator
from typing import Literal, NamedTuple

RAW_TEXT = frozenset({"script", "style", "textarea", "title", "xmp", "iframe", "noembed", "noframes", "noscript"})
"""Elements whose content is text up to their end tag, in a browser that runs scripts."""

_OPENING = re.compile(r"<(?:(!--)|(!doctype)|([!?])|(/?)([a-zA-Z][^\s/>]*)|(/))", re.IGNORECASE)
_ATTRIBUTE = re.compile(r"""[\s/]*(?:>|([^\s/>][^\s/>=]*)(?:\s*=\s*("[^"]*"|'[^']*'|[^\s>]*))?)""")
_COMMENT_END = re.compile(r"--!?>")


class Token(NamedTuple):
    """A piece of markup from `start` up to `end`; `name` is lower case, and empty for comments and doctypes."""

    kind: Literal["start", "end", "comment", "doctype"]
    name: str
    start: int
    end: int


def tokens(source: str) -> Iterator[Token]:
    """All tags, comments and doctypes in order. Unfinished markup at the end gives no token."""
    at = 0
    while True:
        opening = _OPENING.search(source, at)
        if opening is None:
            return
        start = opening.start()
        if opening[1]:
            end = _comment_end(source, opening.end())
            kind: Literal["comment", "doctype"] = "comment"
        elif opening[5]:
            closed = _tag_end(source, opening.end())
            if closed is None:
                return
            name = opening[5].lower()
            yield Token("end" if opening[4] else "start", name, start, closed)
            at = closed
            if not opening[4] and name in RAW_TEXT:
                at = _raw_text_end(source, closed, name)
            elif not opening[4] and name == "plaintext":
                return
            continue
        else:
            end = source.find(">", opening.end()) + 1
            kind = "doctype" if opening[2] else "comment"
        if end <= 0:
            return
        yield Token(kind, "", start, end)
        at = end


def _comment_end(source: str, at: int) -> int:
    for abrupt in (">", "->"):
        if source.startswith(abrupt, at):
            return at + len(abrupt)
    found = _COMMENT_END.search(source, at)
    return found.end() if found else 0


def _tag_end(source: str, at: int) -> int | None:
    while True:
        part = _ATTRIBUTE.match(source, at)
        if part is None:
            return None
        at = part.end()
        if part[1] is None:
            return at


_RAW_END: dict[str, re.Pattern[str]] = {name: re.compile(rf"</{name}(?=[\s/>])", re.IGNORECASE) for name in RAW_TEXT}


def _raw_text_end(source: str, at: int, name: str) -> int:
    """The place of the end tag of an element whose content is text (13.2.5.2 to 13.2.5.20)."""
    if name != "script":
        found = _RAW_END[name].search(source, at)
        return found.start() if found else len(source)
    escaped = source.find("<!--", at)
    found = _RAW_END["script"].search(source, at)
    if found is None:
        return len(source)
    if escaped < 0 or escaped > found.start():
        return found.start()
    return _escaped_script_end(source, escaped, found.start())


def _escaped_script_end(source: str, escaped: int, plain_end: int) -> int:
    """Within `<!-- … -->` in a script, `<script … </script>` is text (script data double escaped states)."""
    closed = source.find("-->", escaped + 2)
    nested = re.compile(r"<script(?=[\s/>])", re.IGNORECASE).search(source, escaped)
    if nested is None or (0 <= closed < nested.start()) or nested.start() > plain_end:
        return plain_end
    inner = _RAW_END["script"].search(source, nested.end())
    if inner is None:
        return len(source)
    outer = _RAW_END["script"].search(source, inner.end())
    return outer.start() if outer else len(source)
