"""What is an element of an item's markup where it stands? Which part of the item, what it is called, what is painted."""

from __future__ import annotations

from collections.abc import Iterator
from typing import NamedTuple

from ...kinds.items.base import BaseItem, ShowsMenu
from ...kinds.markup import Element
from ...style.resolve import SOME_OF
from ...values.styling import Part
from ..css.base import BaseStyle

PART_OF_CLASS: dict[str, Part] = {
    "anchor": "link", "field": "field", "button": "button", "link": "icon", "bullets": "list", "heading-2": "heading-2",
    "heading-3": "heading-3", "list-title": "heading", "more": "second-line", "mark": "badge",
    "label": "label", "close": "close", "menu-button": "title", "arrow": "arrow",
}  # fmt: skip
"""Parts of an item by a class of theirs: as `output.css.part_selectors.PART_SELECTORS` has them."""
_NAME_OF_CLASS = {
    "icon": "icon", "list": "list", "anchor": "link", "field": "field", "asking": "asking", "line": "field-line",
    "label": "label", "list-title": "title", "button": "send", "sub-button": "branch", "menu-button": "opener",
    "mark": "mark", "sub": "sub",
}  # fmt: skip
_NAME_OF_TAG = {"li": "line", "time": "date", "img": "picture", "small": "flowing", "p": "lines", "blockquote": "lines"}


class Placed(NamedTuple):
    """An element where it stands: the way to it, and what the sheets say of it there."""

    element: Element
    path: str
    classes: frozenset[str]
    base: BaseStyle
    in_list: bool
    in_sub: bool
    in_apart: bool
    is_root: bool

    @property
    def display(self) -> str:
        return self.base.declared.get("display", "inline")

    @property
    def is_entry(self) -> bool:
        return self.in_list and (self.element.tag == "a" or "head" in self.classes)

    @property
    def entry_part(self) -> Part | None:
        """Which of a menu's entries it is, or stands in, where these are styled by themselves."""
        return "lower" if self.in_sub else "apart" if self.in_apart else None

    @property
    def is_out(self) -> bool:
        """Whether it takes no room where it stands."""
        said = self.base.declared
        return (
            self.display == "none"
            or said.get("position") in {"absolute", "fixed"}
            or self.element.tag == "script"
            or self.element.attributes.get("type") == "hidden"
        )

    def part_of(self, item: BaseItem) -> Part | None:
        """None where the sheets alone say how it is."""
        if self.is_root:
            return "box"
        named = [PART_OF_CLASS[name] for name in self.classes if name in PART_OF_CLASS]
        named.sort(key=lambda part: part not in SOME_OF)
        if self.is_entry:
            named = [self.entry_part or "content", "content", "entry"]
        return next((part for part in named if part in item.roles), None)

    def around_part(self, item: BaseItem, part: Part | None) -> Part | None:
        """In which part it stands, where that is not the one that its own is resolved in."""
        return self.entry_part if part and item.WITHIN.get(part) == "content" else None

    @property
    def part_name(self) -> str:
        """What it is called where a box is told."""
        if self.is_root:
            return ""
        if self.is_entry:
            return "profile" if "link" in self.classes else "entry"
        named = next((_NAME_OF_CLASS[name] for name in self.classes if name in _NAME_OF_CLASS), None)
        return named if named is not None else _NAME_OF_TAG.get(self.element.tag, "")


class Paints(NamedTuple):
    """What is painted at an element's box: the part of its item that is styled there, `within` another one than usual; a
    picture's path and how it fits (CSS `object-fit`), an icon's name, what a field says while it is empty. `behind`: a picture out of the flow, and where along its inline axis that begins and how wide it is, as shares."""

    item: str
    part: Part | None = None
    picture: str = ""
    fits: str = "fill"
    icon: str = ""
    placeholder: str = ""
    within: Part | None = None
    behind: tuple[str, float, float] | None = None


def parts_of_entry(item: ShowsMenu, *, apart: bool) -> Iterator[tuple[Part, Part | None]]:
    """What is styled of an entry of the first level, each with the part in which it stands, as `around_part` has it."""
    around: Part | None = "apart" if apart and "apart" in item.roles else None
    yield around or "content", None
    for part in _IN_AN_ENTRY:
        if part in item.roles:
            yield part, around


_IN_AN_ENTRY: tuple[Part, ...] = ("second-line", "badge")


def edges(element: Element, around: Placed) -> str:
    """Whether it is the first and the last in a text with marks: elsewhere no sheet asks."""
    if "rich" not in around.classes:
        return ""
    beside = [child for child in around.element.children if isinstance(child, Element)]
    return (":first-child" if element is beside[0] else "") + (":last-child" if element is beside[-1] else "")
