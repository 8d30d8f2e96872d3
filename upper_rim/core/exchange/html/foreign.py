"""What does a page fetch from other hosts, and how is it held back until somebody has said yes?

Nothing of the page's bytes is changed: something is put in. An attribute that names what is fetched becomes another one
by letters before its name, a script or a style sheet is of no type that a browser knows, and a style sheet stands in a
template besides. So neither a browser's parser nor the scanner that runs ahead of it fetches anything (seen in Chromium;
HTML Standard, 2.5, 4.2.4, 4.12.1). Addresses are read as browsers read them (URL Standard, 4.4), style sheets by their syntax (CSS Syntax 3).
"""

from __future__ import annotations

import re
from collections.abc import Iterable, Iterator, Mapping
from functools import lru_cache
from html import unescape
from typing import Any, NamedTuple
from urllib.parse import unquote

import tinycss2

from ...kinds.consent import Fetch, FetchKind, How
from ...values.css_text import readable
from .encoding import Encoding, byte_view, decode, sniff, unit_bytes
from .markers import HELD, HELD_CODE, THEN
from .source_tags import Attribute, Token, attributes, tokens

_LINKED = frozenset(
    [
        "stylesheet",
        "icon",
        "apple-touch-icon",
        "apple-touch-icon-precomposed",
        "mask-icon",
        "preload",
        "prefetch",
        "modulepreload",
        "preconnect",
        "dns-prefetch",
        "prerender",
        "manifest",
        "expect",
    ]
)
"""Kinds of links by which something is fetched, or a host is asked for (HTML Standard, 4.6.7)."""
_SOURCES: Mapping[str, frozenset[str]] = {
    name: frozenset(said.split())
    for name, said in {
        "img": "src srcset lowsrc",
        "image": "src srcset href xlink:href",
        "feimage": "href xlink:href",
        "use": "href xlink:href",
        "script": "src href xlink:href",
        "iframe": "src srcdoc",
        "frame": "src",
        "embed": "src",
        "object": "data codebase archive classid",
        "applet": "code codebase archive object",
        "audio": "src",
        "video": "src poster",
        "source": "src srcset",
        "track": "src",
        "input": "src",
        "link": "href imagesrcset",
        "bgsound": "src",
        "lineargradient": "href xlink:href",
        "radialgradient": "href xlink:href",
        "pattern": "href xlink:href",
        "textpath": "href xlink:href",
        "mpath": "href xlink:href",
    }.items()
}
_EVERYWHERE = frozenset({"background", "attributionsrc"})
_STYLED = frozenset(
    {
        "style",
        "filter",
        "mask",
        "clip-path",
        "cursor",
        "fill",
        "stroke",
        "marker",
        "marker-start",
        "marker-mid",
        "marker-end",
    }
)
"""Attributes that hold CSS in any element (CSS Style Attributes; SVG 2, presentation attributes)."""
_LISTS = frozenset({"srcset", "imagesrcset", "archive"})
_KINDS: Mapping[str, FetchKind] = {
    "script": "script", "iframe": "frame", "frame": "frame", "embed": "object", "object": "object", "applet": "object",
    "audio": "media", "video": "media", "source": "media", "track": "media", "bgsound": "media", "link": "link",
}  # fmt: skip
_RUN = frozenset(
    {"", "module", "importmap", "speculationrules"}
    | {
        f"{group}/{name}"
        for group in ("text", "application")
        for name in ("javascript", "ecmascript", "x-javascript", "x-ecmascript")
    }
    | {"text/jscript", "text/livescript", *(f"text/javascript1.{minor}" for minor in range(6))}
)
"""Types of scripts that browsers run or heed (HTML Standard, 4.12.1.1; MIME Sniffing, 4.6)."""
_IGNORED_IN_ADDRESSES = re.compile("[\t\n\r]")
_HOST = re.compile(
    r"(?:(https?|wss?|ftp):[/\\]*|[/\\]{2,})(?=[^/\\])(?:[^/\\?#]*@)?(\[[^\]]*\]|[^/\\?#:@]*)", re.IGNORECASE
)
_ALLOWED_HOST = re.compile(r"[a-z0-9]([a-z0-9-]*[a-z0-9])?(\.[a-z0-9]([a-z0-9-]*[a-z0-9])?)*")
_IN_CODE = re.compile(r"""["'`(=](?:https?:|wss?:)?(?:\\?/){2}((?:[\w-]+\.)+[A-Za-z][\w-]*)""")
_MAY_NAME = re.compile(r"[/\\\\]")
_CANDIDATE = re.compile(r"[^\s,]\S*")
_MOST_NESTED = 3
"""Documents within attributes of documents that are read."""


class _Found(NamedTuple):
    without_script: bool
    kind: FetchKind
    hosts: tuple[str, ...]
    how: How
    at: tuple[int, ...]


def foreign_in(content: bytes, encoding: Encoding | None = None) -> tuple[Fetch, ...]:
    """All that a page fetches from other hosts without anybody doing anything, in the order of the page, what is alike
    together. What has no script sees, too: nobody can ask them."""
    read = encoding or sniff(content)
    view, unit = byte_view(content, read), unit_bytes(read)
    if not _MAY_FETCH.search(view):
        return ()
    alike: dict[tuple[bool, FetchKind, tuple[str, ...], How], list[tuple[int, ...]]] = {}
    for found in _Reader(view, read.label).all():
        alike.setdefault(found[:-1], []).append(tuple(place * unit for place in found.at))
    return tuple(
        Fetch.model_construct(without_script=without, kind=kind, hosts=hosts, how=how, at=tuple(places))
        for (without, kind, hosts, how), places in alike.items()
    )


_MAY_FETCH = re.compile(r"[/\\]|&#|&(?:sol|bsol|colon)", re.IGNORECASE)


@lru_cache(maxsize=256)
def foreign_in_code(code: str) -> tuple[Fetch, ...]:
    """The same of HTML by itself, a snippet's say."""
    return foreign_in(code.encode(), Encoding("utf-8", 0))


def hosts_in(code: str) -> frozenset[str]:
    return frozenset(host for fetch in foreign_in_code(code) for host in fetch.hosts)


class _Reader:
    """Of one document, or of a part of it that is none of its markup."""

    def __init__(
        self, view: str, label: str, first: int = 0, base: str = "", depth: int = 0, *, unscripted: bool = False
    ) -> None:
        """`first`: where it begins in what its places are told of; `unscripted`: only who runs no scripts has it."""
        self.view, self.label, self.first, self.base, self.depth = view, label, first, base, depth
        self.unscripted = unscripted

    def all(self) -> Iterator[_Found]:
        found = list(tokens(self.view))
        self.base = self.base or self._base(found)
        for at, token in enumerate(found):
            if token.kind != "start":
                continue
            ends = next((one for one in found[at + 1 : at + 2] if one.kind == "end" and one.name == token.name), None)
            said = list(attributes(self.view, token))
            if token.name in {"script", "style"}:
                yield from self._code(token, said, ends)
            elif token.name == "noscript":
                within = self.view[token.end : ends.start if ends else len(self.view)]
                begins = self.first + token.end
                yield from _Reader(within, self.label, begins, self.base, self.depth, unscripted=True).all()
            else:
                yield from self._tag(token, said)

    def _base(self, found: Iterable[Token]) -> str:
        """The host that addresses without one are of, where that is another one (HTML Standard, 4.2.3)."""
        for token in found:
            if token.kind == "start" and token.name == "base":
                href = next((one for one in attributes(self.view, token) if one.name == "href"), None)
                if href is not None:
                    return host_of(self._value(href)) or ""
        return ""

    def _value(self, said: Attribute) -> str:
        """As the browser reads it."""
        return unescape(self._decoded(said.value))

    def _decoded(self, text: str) -> str:
        """Of the view. In UTF-16 that has all that is ASCII as it is, and nothing else matters to a host that is named."""
        if text.isascii() or self.label.startswith("utf-16"):
            return text
        return decode(text.encode("latin-1", "replace"), self.label)

    def _host(self, address: str) -> str:
        """Of what an address leads to: another host's, or that which addresses are based on."""
        address = _IGNORED_IN_ADDRESSES.sub("", address).strip(_BLANKS)
        host = host_of(address)
        if host is None and self.base and address and not re.match(r"[a-z][a-z0-9+.-]*:", address, re.IGNORECASE):
            return self.base
        return host or ""

    def _tag(self, token: Token, said: list[Attribute]) -> Iterator[_Found]:
        if token.name == "link" and not self._links(said):
            return
        hosts, names = self._fetched(token.name, said)
        if hosts:
            kind: FetchKind = (
                "style"
                if token.name == "link" and "stylesheet" in self._links(said)
                else _KINDS.get(token.name, "picture")
            )
            yield self._found(kind, hosts, "attributes", self._places(said, names))

    def _links(self, said: list[Attribute]) -> set[str]:
        rel = next((self._value(one) for one in said if one.name == "rel"), "")
        return set(rel.lower().split()) & _LINKED

    def _places(self, said: list[Attribute], names: set[str]) -> list[int]:
        """All attributes of these names: without the first, the next would count."""
        return [one.at for one in said if one.name in names]

    def _found(self, kind: FetchKind, hosts: set[str], how: How, at: Iterable[int]) -> _Found:
        return _Found(self.unscripted, kind, tuple(sorted(hosts)), how, tuple(place + self.first for place in at))

    def _fetched(self, name: str, said: list[Attribute]) -> tuple[set[str], set[str]]:
        """Hosts that a tag names where it fetches from them, and the names of the attributes that do."""
        listed = _SOURCES.get(name, frozenset())
        hosts: set[str] = set()
        names: set[str] = set()
        for one in said:
            if one.name not in listed and one.name not in _EVERYWHERE and one.name not in _STYLED:
                continue
            there = self._hosts_of(one)
            if there:
                hosts |= there
                names.add(one.name)
        return hosts, names

    def _hosts_of(self, said: Attribute) -> set[str]:
        value = self._value(said)
        if said.name in _STYLED:
            return self._in_css(value)
        if said.name == "srcdoc":
            return self._in_document(value)
        candidates = _CANDIDATE.findall(value) if said.name in _LISTS else [value]
        return {host for one in candidates if (host := self._host(one))}

    def _in_document(self, html: str) -> set[str]:
        if self.depth >= _MOST_NESTED:
            return {host for one in _IN_CODE.findall(html) if (host := host_of(f"//{one}"))}
        # Its bytes are those of a document of its own.
        view = html.encode().decode("latin-1")
        return {host for found in _Reader(view, "utf-8", 0, self.base, self.depth + 1).all() for host in found.hosts}

    def _in_css(self, css: str) -> set[str]:
        """In addresses and texts: not every text is an address, but one that names a host may be."""
        if not self.base and not _MAY_NAME.search(css):
            return set()
        return {
            host
            for one in _addresses(tinycss2.parse_component_value_list(readable(css)))
            if (host := self._css_host(one))
        }

    def _css_host(self, address: tuple[str, bool]) -> str:
        text, is_url = address
        return self._host(text) if is_url else host_of(text) or ""

    def _code(self, token: Token, said: list[Attribute], ends: Token | None) -> Iterator[_Found]:
        """A script or a style sheet: by what it names as its source, else by what stands in it."""
        behind_name = token.start + 1 + len(token.name)
        text = self._decoded(self.view[token.end : ends.start if ends else len(self.view)])
        if token.name == "style":
            hosts = self._in_css(text)
            types = self._places(said, {"type"})
            if hosts and ends:
                yield self._found("style", hosts, "style", [token.start, behind_name, *types, ends.end])
            elif hosts:
                yield self._found("style", hosts, "code", [behind_name, *types])
            return
        kind: FetchKind = "script"
        hosts, names = self._fetched("script", said)
        if not names:
            type_ = next((self._value(one) for one in said if one.name == "type"), "").strip().lower().partition(";")[0]
            kind = "code"
            hosts = (
                {host for one in _IN_CODE.findall(text) if (host := host_of(f"//{one}"))} if type_ in _RUN else set()
            )
        if hosts:
            yield self._found(kind, hosts, "code", [behind_name, *self._places(said, names | {"type"})])


_BLANKS = "".join(map(chr, range(0x21)))


def host_of(address: str) -> str | None:
    """The host that an address names, in lower case and ASCII; None where it names none. Empty: there is none of a name
    that may be fetched from."""
    found = _HOST.match(_IGNORED_IN_ADDRESSES.sub("", address).strip(_BLANKS))
    if found is None:
        return None
    host = unquote(found[2]).rstrip(".")
    try:
        host = host.encode("idna").decode().lower().rstrip(".")
    except UnicodeError:
        return ""
    return host if len(host) <= 253 and _ALLOWED_HOST.fullmatch(host) else ""


def _addresses(values: Iterable[Any]) -> Iterator[tuple[str, bool]]:
    """What a style sheet names: the text, and whether it is an address for sure. A namespace's is none (CSS Namespaces 3)."""
    is_namespace = False
    for value in values:
        if value.type == "at-keyword":
            is_namespace = value.lower_value == "namespace"
        elif value.type == "literal" and value.value == ";":
            is_namespace = False
        elif value.type in {"url", "string"} and not is_namespace:
            yield value.value, value.type == "url"
        elif value.type == "function" and not is_namespace:
            is_url = value.lower_name in {"url", "src"}
            yield from ((text, is_url or sure) for text, sure in _addresses(value.arguments))
        elif value.type in {"{} block", "() block", "[] block"}:
            yield from _addresses(value.content)


def waiting(how: How, at: Iterable[tuple[int, ...]], categories: str) -> Iterator[tuple[int, str]]:
    """What is put where, so that what is fetched at these places (`Fetch.how`, `Fetch.at`) waits for a yes to these categories
    (ids, between spaces)."""
    waits = f'data-rim-waits="{categories}"'
    for places in at:
        if how == "attributes":
            yield places[0], f"{waits} {HELD} {THEN}"
            yield from ((place, THEN) for place in places[1:])
        elif how == "code":
            yield places[0], f" {waits} {HELD_CODE}"
            yield from ((place, THEN) for place in places[1:])
        else:
            yield from _styled(places, waits)


def _styled(places: tuple[int, ...], waits: str) -> Iterator[tuple[int, str]]:
    """Of a style element: before it, behind its name, before the name of each type that it says, behind its end."""
    first, name, *types, behind = places
    yield first, f"<template {waits} {HELD}>"
    yield name, f" {HELD_CODE}"
    yield from ((at, THEN) for at in types)
    yield behind, f"</template {HELD}>"
