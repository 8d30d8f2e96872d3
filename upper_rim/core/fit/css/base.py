"""What do the style sheets that ship say of an element, by where it stands? So no number of theirs is written twice.

An element is named by the way to it, from within its item: `nav.rim-menu > ul.rim-list > li > a > small.rim-mark`.
"""

from __future__ import annotations

import re
from collections.abc import Iterable, Mapping
from functools import cached_property
from operator import attrgetter
from threading import RLock
from typing import Any
from xml.etree.ElementTree import Element

import cssselect2
import tinycss2
from cachetools import LRUCache, cachedmethod

from ...kinds.rule import Rule
from ...style.lengths import NoLength
from ..text.typesetting import Type
from .amount import Amount, Relative, amount
from .boxes import SIDES, SIZES, Sides

MOST_WAYS = 8_192
"""Ways to elements that are remembered: a text with marks may have any."""
OWN = "rim-own"
"""In ways and in rules, the class of an item itself."""
_AROUND = "html[data-rim-on] > body > header.rim > div.rim-row > div.rim-cells > div.rim-cell"
_COMPOUND = re.compile(r"([a-z0-9]+)((?:\.[\w-]+)*)((?:\[[\w-]+(?:=[\w-]+)?\])*)")
_CLASS = re.compile(r"\.([a-zA-Z][\w-]*)")
_EDGES = re.compile(r":(?:first|last)-child")
_BRACKETS = re.compile(r"\[([^\]]+)\]")
_OF_BOXES = (
    "align-", "aspect-ratio", "block-", "border", "break-", "column-", "display", "flex", "font", "gap", "grid-template", "inline-", "inset",
    "justify-", "margin", "max-", "min-", "overflow", "padding", "position", "row-gap", "white-space",
)  # fmt: skip
_BESIDE_NOTCHES = re.compile(r"max\(([^,]+),env\([^)]*\)\)")
"""On a screen without any, it is the first length."""
_Matched = tuple[tuple[int, ...], int, int, Rule]
"""Specificity, sheet, place in it, and the rule: in the order of the cascade."""


class BaseSheets:
    """`piece_rules`, `item_rules`, `menu_rules`: see `output.shelf.Shelf`."""

    def __init__(
        self,
        piece_rules: Iterable[Rule] = (),
        item_rules: Mapping[str, Iterable[Rule]] = {},
        menu_rules: Mapping[str, Iterable[Rule]] = {},
    ) -> None:
        every = [*piece_rules, *(rule for rules in item_rules.values() for rule in rules)]
        self._rules = {"": every, **{way: list(map(_scoped, rules)) for way, rules in menu_rules.items()}}
        self._matchers: dict[str, Any] = {}
        self._known: LRUCache[Any, Any] = LRUCache(MOST_WAYS)
        self._weights: LRUCache[Any, Any] = LRUCache(MOST_WAYS)
        self._lock = RLock()
        self.classes = classes_in(rule for rules in self._rules.values() for rule in rules)
        """All that the sheets name: of others only those that an item names itself are in ways to its elements."""

    def of(self, path: str, ways: str = "", own: Iterable[Rule] = ()) -> BaseStyle:
        """`ways`: in which the menu is shown that the element belongs to, as keys of the rules for menus; `own`: what
        its item says besides, after all that ships."""
        matched, found = self._shipped(path, ways)
        last = len(self._rules)
        said = [
            (weight, last, at, rule) for at, rule in enumerate(own) if (weight := self._weight(rule.selector, path))
        ]
        return BaseStyle(_cascaded([*matched, *said])) if said else found

    @cachedmethod(attrgetter("_known"), lock=attrgetter("_lock"))
    def _shipped(self, path: str, ways: str) -> tuple[list[_Matched], BaseStyle]:
        """What the sheets say of the element at a path's end: rule by rule, and in the end."""
        element = _last(f"{_AROUND} > {path}")
        matched = [
            (specificity, at, order, rule)
            for at, way in enumerate(("", *ways.split()))
            for specificity, order, _, rule in self._matcher(way).match(element)
        ]
        return matched, BaseStyle(_cascaded(matched))

    @cachedmethod(attrgetter("_weights"), lock=attrgetter("_lock"))
    def _weight(self, selector: str, path: str) -> tuple[int, ...] | None:
        """The specificity with which a selector holds for the element at a path's end; None where it does not."""
        matcher = cssselect2.Matcher()
        for one in _selectors(selector):
            matcher.add_selector(one, None)
        return max((weight for weight, *_ in matcher.match(_last(f"{_AROUND} > {path}"))), default=None)

    def _matcher(self, way: str) -> Any:
        """Of the rules that say something of a box."""
        if way not in self._matchers:
            made = cssselect2.Matcher()
            for rule in self._rules.get(way, ()):
                if not rule.within and is_of_boxes(rule):
                    for selector in _selectors(rule.selector):
                        made.add_selector(selector, rule)
            self._matchers[way] = made
        return self._matchers[way]


def classes_in(rules: Iterable[Rule]) -> frozenset[str]:
    return frozenset(name for rule in rules for name in _CLASS.findall(rule.selector))


def _cascaded(matched: Iterable[_Matched]) -> dict[str, str]:
    declared: dict[str, str] = {}
    for _, _, _, rule in sorted(matched, key=lambda one: one[:3]):
        declared.update(rule.declarations)
    return declared


def is_of_boxes(rule: Rule) -> bool:
    return any(name.startswith(_OF_BOXES) for name in rule.declarations)


def _scoped(rule: Rule) -> Rule:
    """A rule for a menu, as it is published; see `output.css.drawer_rules`."""
    selector = rule.selector
    return rule._replace(selector=selector.replace("&", ".rim-menu") if "&" in selector else f".rim-menu {selector}")


def _selectors(text: str) -> Iterable[Any]:
    """Those of a list that can hold for an element at rest; what needs a browser to be known holds for none."""
    parts: list[list[Any]] = [[]]
    for node in tinycss2.parse_component_value_list(text):
        if node == ",":
            parts.append([])
        else:
            parts[-1].append(node)
    for part in parts:
        try:
            yield from (one for one in cssselect2.compile_selector_list(part) if one.pseudo_element is None)
        except cssselect2.SelectorError:
            continue


def _last(path: str) -> Any:
    """The element at a path's end. Neither it nor one around it is the first or the last of its parent, but where a
    step says so: `p:first-child`."""
    root = last = _element(path.partition(" > ")[0])
    way = []
    for step in path.split(" > ")[1:]:
        inner = _element(step)
        before, after = ([] if edge in step else [Element("i")] for edge in (":first-child", ":last-child"))
        last.extend([*before, inner, *after])
        way.append(len(before))
        last = inner
    found = cssselect2.ElementWrapper.from_html_root(root)
    for at in way:
        found = list(found.iter_children())[at]
    return found


def _element(step: str) -> Element:
    found = _COMPOUND.fullmatch(_EDGES.sub("", step))
    if found is None:
        raise ValueError(f"no way to an element: {step}")
    attributes = {name: value for name, _, value in (one.partition("=") for one in _BRACKETS.findall(found[3]))}
    return Element(found[1], {"class": found[2].replace(".", " ").strip(), **attributes})


class BaseStyle:
    """What is declared for an element, as a browser would have it were there no styles of the site's."""

    def __init__(self, declared: Mapping[str, str]) -> None:
        self.declared = declared
        self._gaps: dict[float, dict[str, Any]] = {}
        self._sizes: dict[tuple[float, float | None], dict[str, Any]] = {}

    def px(self, name: str) -> float:
        """A length that is relative to nothing. KeyError where it is not declared."""
        found = self._length(name, 0.0)
        assert not isinstance(found, Relative)
        return found

    def px_in(self, name: str) -> float:
        """The one length in px within what is declared. KeyError, ValueError where there is not one."""
        (px,) = re.findall(r"([\d.]+)px", self._longhands[name])
        return float(px)

    def gaps(self, em: Amount = 16.0) -> dict[str, Any]:
        """`row_gap` and `column_gap` of a flex or a grid box. Not to be changed by whoever asks."""
        found = self._gaps.get(em) if isinstance(em, float) else None
        if found is None:
            found = {
                field: self._length(name, em)
                for field, name in (("row_gap", "row-gap"), ("column_gap", "column-gap"))
                if name in self._longhands
            }
            if isinstance(em, float):
                self._gaps[em] = found
        return found

    def sizes(self, em: Amount = 16.0, unsaid: Amount | None = None) -> dict[str, Any]:
        """Sizes, edges and flexibility by the fields of `boxes.Box`; what is `auto` is left out. `em`: the element's
        font size; `unsaid`: stands for an edge that nothing is declared for, beside one for which something is. Not to
        be changed by whoever asks."""
        fixed = (em, unsaid) if isinstance(em, float) and not isinstance(unsaid, Relative) else None
        if fixed in self._sizes:
            return self._sizes[fixed]
        made: dict[str, Any] = {}
        for field, name in (*SIZES.items(), ("basis", "flex-basis")):
            try:
                if name in self._longhands:
                    made[field] = self._length(name, em)
            except NoLength:
                continue
        for edge, end in (("padding", ""), ("margin", ""), ("border", "-width")):
            names = [f"{edge}-{side}{end}" for side in SIDES]
            if any(name in self._longhands for name in names):
                made[edge] = Sides(*(self._edge(name, em, unsaid) for name in names))
        for field, name in (("grow", "flex-grow"), ("shrink", "flex-shrink")):
            if name in self._longhands:
                made[field] = float(self._longhands[name])
        if fixed is not None:
            # Only once it is whole: other threads ask, too.
            self._sizes[fixed] = made
        return made

    def type(self, around: Type) -> Type:
        """How its text is set, in an element whose text is set as `around`."""
        size, weight = self._longhands.get("font-size"), self._longhands.get("font-weight")
        made = around if size is None else around.at_size(amount(size, around.size))
        made = made if weight is None else made._replace(weight=int(weight))
        return made._replace(italic=True) if self._longhands.get("font-style") == "italic" else made

    @property
    def breaks(self) -> bool:
        """Whether its text may stand on several lines."""
        return self._longhands.get("white-space") != "nowrap"

    def _length(self, name: str, em: Amount) -> Amount:
        return amount(_BESIDE_NOTCHES.sub(r"\1", self._longhands[name]), em)

    def _edge(self, name: str, em: Amount, unsaid: Amount | None) -> Amount | None:
        if name not in self._longhands:
            return unsaid
        return None if self._longhands[name] == "auto" else self._length(name, em)

    @cached_property
    def _longhands(self) -> dict[str, str]:
        made: dict[str, str] = {}
        for name, value in self.declared.items():
            made.update(_longhands_of(name, value))
        return made


def _longhands_of(name: str, value: str) -> dict[str, str]:
    """What a declaration says, property by property; as read from left to right."""
    parts = value.split()
    edge, _, side = name.partition("-")
    if edge in {"padding", "margin"} and side in {"", "block", "inline"}:
        values = _spread(parts, 4 if not side else 2)
        sides = SIDES if not side else (f"{side}-start", f"{side}-end")
        return {f"{edge}-{one}": text for one, text in zip(sides, values, strict=True)}
    if edge == "border" and side in {"", *SIDES} and not name.endswith(("image", "radius")):
        return {f"border-{one}-width": parts[0] for one in (SIDES if not side else (side,))}
    if name == "gap":
        row, column = _spread(parts, 2)
        return {"row-gap": row, "column-gap": column}
    if name == "flex":
        grow, shrink, basis = ("0", "0", "auto") if value == "none" else parts
        return {"flex-grow": grow, "flex-shrink": shrink, "flex-basis": basis}
    return {name: value}


def _spread(parts: list[str], number: int) -> list[str]:
    """Values of a shorthand for so many sides (CSS Box 4): physical ones as in a text from left to right."""
    if number == 2:
        return [parts[0], parts[-1]]
    top, right, bottom, left = (parts * 4)[:4] if len(parts) in {1, 2, 4} else [*parts, parts[1]]
    return [top, right, bottom, left]
