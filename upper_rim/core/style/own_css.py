"""What is wrong with the CSS that a designer types, and what of it is published?

It is read as browsers do (CSS Syntax 3): what is not understood is left out, the rest counts. It stands in a layer
before all others, each declaration important, so that it has the last word over pieces and pages. Relative addresses in
it count from the site's root, wherever the sheet itself is published.
"""

from __future__ import annotations

import re
from collections.abc import Iterator
from typing import Any, NamedTuple

import tinycss2
from tinycss2.serializer import serialize_string_value

from ..values.css_text import readable

_VERBATIM = frozenset(
    {"font-face", "keyframes", "-webkit-keyframes", "property", "counter-style", "font-feature-values"}
)
_NESTED = frozenset({"media", "supports", "container", "layer", "scope", "starting-style"})
_REFUSED = {
    "import": "another sheet cannot be brought in from here; paste its rules, or use a snippet for the head",
    "charset": "the sheet is UTF-8 already",
    "namespace": "namespaces count for a whole sheet, and this is only a part of one",
}


class CssFault(NamedTuple):
    line: int
    column: int
    reason: str


def css_faults(text: str) -> list[CssFault]:
    """What is not understood or not allowed, in the order of lines."""
    return sorted(set(_faults(tinycss2.parse_stylesheet(readable(text), skip_comments=True, skip_whitespace=True))))


def _faults(nodes: list[Any]) -> Iterator[CssFault]:
    for node in nodes:
        if node.type == "error":
            yield _fault(node)
        elif node.type == "declaration":
            if not [
                part for part in node.value if part.type not in {"whitespace", "comment"}
            ] and not node.name.startswith("--"):
                yield CssFault(node.source_line, node.source_column, f"“{node.name}” has no value")
            yield from _broken_tokens(node.value)
        elif node.type == "at-rule":
            keyword = node.lower_at_keyword
            if keyword in _REFUSED:
                yield CssFault(node.source_line, node.source_column, f"@{keyword}: {_REFUSED[keyword]}")
            elif keyword not in _VERBATIM | _NESTED:
                yield CssFault(node.source_line, node.source_column, f"there is no rule @{keyword} to be used here")
            elif node.content is None and keyword != "layer":
                yield CssFault(node.source_line, node.source_column, f"@{keyword} needs a block in braces")
            elif node.content is not None and keyword in _NESTED:
                yield from _faults(
                    tinycss2.parse_blocks_contents(node.content, skip_comments=True, skip_whitespace=True)
                )
        elif node.type == "qualified-rule":
            if not [part for part in node.prelude if part.type not in {"whitespace", "comment"}]:
                yield CssFault(node.source_line, node.source_column, "a block in braces needs a selector before it")
            yield from _broken_tokens(node.prelude)
            yield from _faults(tinycss2.parse_blocks_contents(node.content, skip_comments=True, skip_whitespace=True))


def _broken_tokens(tokens: list[Any]) -> Iterator[CssFault]:
    for token in tokens:
        if token.type == "error":
            yield _fault(token)
        yield from _broken_tokens(getattr(token, "arguments", None) or getattr(token, "content", None) or [])


_REASONS = {
    "bad-string": "a text in quotes is not closed on its line",
    "bad-url": "an address in url(…) is not closed, or holds what it cannot",
    "eof-in-string": "a text in quotes is not closed",
    "eof-in-url": "an address in url(…) is not closed",
    ")": "a ) that closes nothing",
    "]": "a ] that closes nothing",
    "}": "a } that closes nothing",
}


def _fault(node: Any) -> CssFault:
    reason = _REASONS.get(node.kind) or (node.message[:1].lower() + node.message[1:]).rstrip(".")
    if node.kind == "invalid" and "EOF" in node.message:
        reason = "something is not finished here: a block in braces, or a ; after a declaration"
    return CssFault(node.source_line, node.source_column, reason)


def own_css(text: str) -> str:
    """The rules that are understood, each declaration important."""
    if not text.strip():
        return ""
    return "".join(_kept(tinycss2.parse_stylesheet(readable(text), skip_comments=True, skip_whitespace=True)))


def _kept(nodes: list[Any]) -> Iterator[str]:
    for node in nodes:
        if node.type == "declaration":
            value = _written(node.value).strip()
            if (value or node.name.startswith("--")) and not any(_broken_tokens(node.value)):
                yield f"{node.name}:{value}!important;"
        elif node.type == "at-rule":
            keyword = node.lower_at_keyword
            prelude = _written(node.prelude).strip()
            if node.content is None:
                continue
            if keyword in _VERBATIM:
                yield f"@{keyword} {prelude}{{{_written(node.content)}}}"
            elif keyword in _NESTED:
                inner = tinycss2.parse_blocks_contents(node.content, skip_comments=True, skip_whitespace=True)
                yield f"@{keyword} {prelude}{{{''.join(_kept(inner))}}}"
        elif node.type == "qualified-rule":
            inner = tinycss2.parse_blocks_contents(node.content, skip_comments=True, skip_whitespace=True)
            selector = _written(node.prelude).strip()
            if selector and not any(_broken_tokens(node.prelude)):
                yield f"{selector}{{{''.join(_kept(inner))}}}"


def _written(tokens: list[Any]) -> str:
    """The tokens as text, addresses in them counted from the site's root."""
    _root_addresses(tokens)
    return str(tinycss2.serialize(tokens))


def _root_addresses(tokens: list[Any]) -> None:
    for token in tokens:
        if token.type == "url":
            token.representation = f'url("{serialize_string_value(from_root(token.value))}")'
        elif token.type == "function" and token.lower_name == "url":
            for argument in token.arguments:
                if argument.type == "string":
                    argument.representation = f'"{serialize_string_value(from_root(argument.value))}"'
        else:
            _root_addresses(getattr(token, "arguments", None) or getattr(token, "content", None) or [])


def from_root(address: str) -> str:
    """A relative address as one from the site's root; others as they are."""
    return address if re.match(r"[a-z][a-z0-9+.-]*:|[/#?]|$", address, re.IGNORECASE) else "/" + address
