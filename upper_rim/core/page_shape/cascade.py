"""Which rules of a page's own CSS reach its body, and in which order?

Read as browsers do (CSS Syntax 3; CSS Cascade 5, 6): by importance, layer, specificity, order. What a selector asks for that
only a browser knows (what lies under the pointer) holds for none.
"""

from __future__ import annotations

import re
from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from typing import Any, NamedTuple
from urllib.parse import urljoin
from xml.etree import ElementTree

import cssselect2
import tinycss2
from tinycss2.serializer import serialize_string_value

from ..values.css_text import readable

MOST_CSS = 3_000_000
"""Characters of CSS that are read for one page."""
LONGEST_CSS = 2000
"""Characters of a selector, a condition or a value: what is longer is left out."""
DEEPEST_IMPORT, MOST_PLACED = 4, 200
_UNLAYERED = 1 << 20


class Sheet(NamedTuple):
    """A style sheet: its text, its address within the site, and for which media it is linked (Media Queries 4)."""

    css: str
    address: str
    media: str = ""


class Declared(NamedTuple):
    """One declaration. `place`: what comes later in the cascade has a greater one."""

    place: tuple[int, tuple[int, ...], tuple[int, ...], int]
    within: tuple[str, ...]
    name: str
    value: str


class OfChild(NamedTuple):
    """A rule for what stands right in the body."""

    within: tuple[str, ...]
    body: str
    below: str
    declared: tuple[tuple[str, str], ...]


class OfElement(NamedTuple):
    """A rule for elements of the page: what it says of their places and heights."""

    within: tuple[str, ...]
    selector: str
    declared: tuple[tuple[str, str], ...]


class Reached(NamedTuple):
    """What a page's CSS says of its root, of its body, of what stands right in that, and of what is pinned or as high as
    the window anywhere."""

    root: tuple[Declared, ...]
    body: tuple[Declared, ...]
    children: tuple[OfChild, ...]
    placed: tuple[OfElement, ...]


class Attributes(NamedTuple):
    """Of a page's root and body. `is_quirky`: browsers read it in quirks mode (HTML, 13.2.6.4.1)."""

    root: Mapping[str, str]
    body: Mapping[str, str]
    is_quirky: bool = False


Imported = Callable[[str], str | None]
"""The text of a style sheet at an address within the site; None where there is none."""


def reached(attributes: Attributes, sheets: Iterable[Sheet], imported: Imported) -> Reached | None:
    """None where there is more CSS than is read."""
    reading = _Reading(attributes, imported)
    for sheet in sheets:
        reading.read(sheet)
        if reading.left < 0:
            return None
    reading.inline(attributes)
    root, body = (sorted(found, key=lambda one: one.place) for found in (reading.of_root, reading.of_body))
    return Reached(tuple(root), tuple(body), tuple(reading.children), tuple(reading.placed))


class _Reading:
    def __init__(self, attributes: Attributes, imported: Imported) -> None:
        self._root, self._body = _elements(attributes)
        self._names = _names(attributes)
        self._imported = imported
        self._order = 0
        self._layers: dict[str, dict[str, int]] = {}
        self.left = MOST_CSS
        self.of_root: list[Declared] = []
        self.of_body: list[Declared] = []
        self.children: list[OfChild] = []
        self.placed: list[OfElement] = []

    def read(self, sheet: Sheet, layer: str = "", within: tuple[str, ...] = (), deep: int = 0) -> None:
        self.left -= len(sheet.css)
        if self.left < 0:
            return
        around = (*within, f"@media {sheet.media}") if sheet.media.strip().lower() not in {"", "all"} else within
        nodes = tinycss2.parse_stylesheet(readable(sheet.css), skip_comments=True, skip_whitespace=True)
        self._rules(nodes, sheet.address, around, layer, deep)

    def inline(self, attributes: Attributes) -> None:
        """What stands in `style` attributes outweighs all selectors."""
        for found, said in ((self.of_root, attributes.root), (self.of_body, attributes.body)):
            declarations = tinycss2.parse_blocks_contents(readable(said.get("style", "")), skip_comments=True)
            found += self._declared(declarations, (), "", (1 << 20,), "/")

    def _rules(self, nodes: Iterable[Any], address: str, within: tuple[str, ...], layer: str, deep: int) -> None:
        for node in nodes:
            if node.type == "qualified-rule":
                self._rule(node, address, within, layer)
            elif node.type == "at-rule":
                self._at_rule(node, address, within, layer, deep)

    def _at_rule(self, node: Any, address: str, within: tuple[str, ...], layer: str, deep: int) -> None:
        if not _is_sound(node.prelude):
            return
        prelude = tinycss2.serialize(node.prelude).strip()
        keyword = node.lower_at_keyword
        if keyword == "import" and node.content is None:
            self._import(node.prelude, address, within, layer, deep)
        elif keyword == "layer":
            names = [f"{layer}.{name.strip() or self._unnamed()}".strip(".") for name in prelude.split(",")]
            for name in names:
                self._rank(name)
            if node.content is not None:
                self._rules(_inner(node), address, within, names[0], deep)
        elif keyword in {"media", "supports"} and node.content is not None:
            self._rules(_inner(node), address, (*within, f"@{keyword} {prelude}"), layer, deep)

    def _import(self, prelude: Sequence[Any], address: str, within: tuple[str, ...], layer: str, deep: int) -> None:
        """CSS Cascade 5, 2: what stands behind the address is a layer, what has to be supported, and for which media."""
        parts = [part for part in prelude if part.type not in {"whitespace", "comment"}]
        if not parts or deep == DEEPEST_IMPORT:
            return
        there = _address_in(parts[0])
        text = self._imported(joined(address, there)) if there else None
        media: list[Any] = []
        for part in parts[1:]:
            if part.type == "ident" and part.lower_value == "layer":
                layer = f"{layer}.{self._unnamed()}".strip(".")
            elif part.type == "function" and part.lower_name == "layer":
                layer = f"{layer}.{tinycss2.serialize(part.arguments).strip()}".strip(".")
            elif part.type == "function" and part.lower_name == "supports":
                within = (*within, f"@supports ({tinycss2.serialize(part.arguments).strip()})")
            else:
                media.append(part)
        self._rank(layer)
        if text is not None:
            said = " ".join(tinycss2.serialize([part]) for part in media).replace(" ,", ",")
            self.read(Sheet(text, joined(address, there), said), layer, within, deep + 1)

    def _rule(self, node: Any, address: str, within: tuple[str, ...], layer: str) -> None:
        if not _is_sound(node.prelude):
            return
        contents: list[Any] | None = None
        is_placed = _is_placed(node.content) and len(self.placed) < MOST_PLACED
        for tokens in _apart(node.prelude):
            text = tinycss2.serialize(tokens).strip()
            if len(text) > LONGEST_CSS:
                continue
            is_near, holds_child = self._may_match(text), ">" in text
            if is_placed and not is_near and "::" not in text:
                contents = contents or _contents(node)
                self._place(text, contents, within)
            if not is_near and not holds_child:
                continue
            contents = contents or _contents(node)
            if is_near:
                for selector in _compiled(tokens):
                    weight = tuple(selector.specificity)
                    if selector.test(self._body):
                        self.of_body += self._of_rule(contents, within, layer, weight, address)
                    if selector.test(self._root):
                        self.of_root += self._of_rule(contents, within, layer, weight, address)
            if holds_child:
                self._child(tokens, contents, within)

    def _of_rule(
        self, contents: Iterable[Any], within: tuple[str, ...], layer: str, weight: tuple[int, ...], address: str
    ) -> Iterator[Declared]:
        """What is declared in a rule, and in conditions within it (CSS Nesting 1, 3)."""
        contents = list(contents)
        yield from self._declared(contents, within, layer, weight, address)
        for node in contents:
            if node.type == "at-rule" and node.lower_at_keyword in {"media", "supports"} and node.content is not None:
                condition = f"@{node.lower_at_keyword} {tinycss2.serialize(node.prelude).strip()}"
                inner = tinycss2.parse_blocks_contents(node.content, skip_comments=True, skip_whitespace=True)
                yield from self._declared(inner, (*within, condition), layer, weight, address)

    def _declared(
        self, nodes: Iterable[Any], within: tuple[str, ...], layer: str, weight: tuple[int, ...], address: str
    ) -> Iterator[Declared]:
        rank = self._rank(layer)
        for node in nodes:
            if node.type != "declaration" or not _is_sound(node.value):
                continue
            self._order += 1
            # Importance turns the order of layers round (CSS Cascade 5, 6.4.4).
            value = _value(node.value, address)
            if len(value) > LONGEST_CSS:
                continue
            order = tuple(-one for one in rank) if node.important else rank
            place = (int(node.important), order, weight, self._order)
            yield Declared(place, within, node.lower_name, value)

    def _rank(self, layer: str) -> tuple[int, ...]:
        """Where it comes among the layers, level by level; what is in none at a level comes after those (CSS Cascade 5,
        6.4.3). The first time that a layer is named is its place."""
        rank: list[int] = []
        above = ""
        for name in layer.split(".") if layer else ():
            known = self._layers.setdefault(above, {})
            rank.append(known.setdefault(name, len(known)))
            above = f"{above}.{name}"
        return (*rank, _UNLAYERED)

    def _unnamed(self) -> str:
        """For a layer without a name: no other one's."""
        self._order += 1
        return f"-{self._order}"

    def _child(self, tokens: Sequence[Any], contents: Iterable[Any], within: tuple[str, ...]) -> None:
        for at in [at for at, one in enumerate(tokens) if one == ">"]:
            if any(one.test(self._body) for one in _compiled(tokens[:at])):
                end = {True: " !important", False: ""}
                declared = tuple(
                    (node.lower_name, tinycss2.serialize(node.value).strip() + end[node.important])
                    for node in contents
                    if node.type == "declaration" and _is_sound(node.value)
                )
                before, behind = (tinycss2.serialize(part).strip() for part in (tokens[:at], tokens[at + 1 :]))
                if declared:
                    self.children.append(OfChild(within, before, behind, declared))
                return

    def _place(self, selector: str, contents: Iterable[Any], within: tuple[str, ...]) -> None:
        declared = tuple(
            (node.lower_name, tinycss2.serialize(node.value).strip())
            for node in contents
            if node.type == "declaration" and node.lower_name in OF_PLACES and _is_sound(node.value)
        )
        if declared and all(len(value) <= LONGEST_CSS for _, value in declared):
            self.placed.append(OfElement(within, selector, declared))

    def _may_match(self, selector: str) -> bool:
        """Whether it is worth a closer look: most selectors of a sheet are of what neither root nor body is."""
        if "(" in selector:
            return "::" not in selector
        last = re.split(r"[\s>+~]+", _OF_ATTRIBUTES.sub("", selector))[-1]
        named = _NAMES.findall(_PSEUDO.sub("", last))
        return all(name.lower() in self._names for name in named) and "::" not in last


_OF_ATTRIBUTES = re.compile(r"""\[(?:[^\]"']++|"[^"]*+"|'[^']*+')*+\]""")
_PSEUDO = re.compile(r"::?[\w-]+")
_NAMES = re.compile(r"[.#]?-?[_a-zA-Z\x80-\U0010ffff][\w\x80-\U0010ffff-]*")
OF_PLACES = frozenset(
    {
        "position",
        "top",
        "bottom",
        "inset",
        "inset-block",
        "inset-block-start",
        "inset-block-end",
        "overflow",
        "overflow-y",
    }
    | {f"{most}{name}" for most in ("", "min-", "max-") for name in ("height", "block-size")}
)
_PINNED = frozenset({"fixed", "sticky", "-webkit-sticky", "absolute"})
_OF_WINDOW = frozenset({"vh", "dvh", "svh", "lvh"})


def _is_placed(content: Iterable[Any]) -> bool:
    """Whether something in a rule is pinned, or measured by the window's height."""
    return any(
        (token.type == "ident" and token.lower_value in _PINNED)
        or (token.type == "dimension" and token.lower_unit in _OF_WINDOW)
        or (token.type == "function" and _is_placed(token.arguments))
        for token in content
    )


def _is_sound(tokens: Iterable[Any]) -> bool:
    """Whether nothing in it is broken (CSS Syntax 3, 4): what is would not end where it seems to."""
    for token in tokens:
        within = getattr(token, "arguments", None) or getattr(token, "content", None)
        if token.type in {"error", "{} block"} or (isinstance(within, list) and not _is_sound(within)):
            return False
    return True


def _contents(node: Any) -> list[Any]:
    return list(tinycss2.parse_blocks_contents(node.content, skip_comments=True, skip_whitespace=True))


def _inner(node: Any) -> list[Any]:
    return list(tinycss2.parse_rule_list(node.content, skip_comments=True, skip_whitespace=True))


def _elements(attributes: Attributes) -> tuple[Any, Any]:
    """A document of which only root and body are known."""
    root = ElementTree.Element("html", dict(attributes.root))
    ElementTree.SubElement(root, "head")
    ElementTree.SubElement(root, "body", dict(attributes.body))
    wrapped = cssselect2.ElementWrapper.from_html_root(root)
    return wrapped, list(wrapped.iter_children())[-1]


def _names(attributes: Attributes) -> frozenset[str]:
    """All that a simple selector of root or body can name, in small letters."""
    names = {"html", "body"}
    for said in (attributes.root, attributes.body):
        names |= {f".{name}" for name in said.get("class", "").lower().split()}
        names |= {f"#{said['id'].lower()}"} if said.get("id") else set()
    return frozenset(names)


def _apart(prelude: Sequence[Any]) -> Iterator[list[Any]]:
    """The selectors of a list: one that is not understood takes the others along in a browser, not here."""
    part: list[Any] = []
    for node in prelude:
        if node == ",":
            yield part
            part = []
        else:
            part.append(node)
    yield part


def _compiled(tokens: Sequence[Any]) -> list[Any]:
    try:
        return [one for one in cssselect2.compile_selector_list(list(tokens)) if one.pseudo_element is None]
    except (cssselect2.SelectorError, RecursionError, NotImplementedError):
        return []


def _address_in(node: Any) -> str:
    """Of a string or a `url()` (CSS Values 4, 4.5)."""
    if node.type in {"string", "url"}:
        return str(node.value)
    if node.type == "function" and node.lower_name == "url":
        strings = [part for part in node.arguments if part.type == "string"]
        return str(strings[0].value) if strings else ""
    return ""


def joined(address: str, there: str) -> str:
    """An address as it is meant at another one; as it is written, where it can be none."""
    try:
        return urljoin(address, there)
    except ValueError:
        return there


def _value(tokens: Sequence[Any], address: str) -> str:
    """As text, with addresses that count from the site's root."""
    if not any(token.type == "url" or (token.type == "function" and token.lower_name == "url") for token in tokens):
        return str(tinycss2.serialize(tokens)).strip()
    parts = []
    for token in tokens:
        there = _address_in(token) if token.type != "string" else ""
        whole = joined(address, there) if there and not there.startswith(("data:", "#")) else there
        parts.append(f'url("{serialize_string_value(whole)}")' if there else tinycss2.serialize([token]))
    return "".join(parts).strip()
