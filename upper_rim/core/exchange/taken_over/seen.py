"""What is there to be seen in an old part of a page? Its parts as things that pieces have: logo, menu, text, button, search,
profiles; where each stands and what it says.

How they are found is in `reading`, how they share the room in `dividing`, what they become in `making`.
"""

from __future__ import annotations

import re
from collections.abc import Iterable
from dataclasses import dataclass, field
from typing import Literal, NamedTuple
from urllib.parse import SplitResult, urlsplit

from .measured import Part

Kind = Literal["logo", "picture", "menu", "list", "text", "rich", "button", "search", "social", "copyright"]


class Rect(NamedTuple):
    left: float
    top: float
    right: float
    bottom: float

    @property
    def width(self) -> float:
        return self.right - self.left

    @property
    def height(self) -> float:
        return self.bottom - self.top

    @property
    def middle(self) -> float:
        return (self.top + self.bottom) / 2

    @property
    def centre(self) -> float:
        return (self.left + self.right) / 2

    def holds(self, other: Rect, slack: float = 1.0) -> bool:
        across = self.left - slack <= other.left and other.right <= self.right + slack
        return across and self.top - slack <= other.top and other.bottom <= self.bottom + slack


def rect_of(part: Part) -> Rect:
    left, top, width, height = part.rect
    return Rect(left, top, left + width, top + height)


def around_all(rects: Iterable[Rect]) -> Rect:
    lefts, tops, rights, bottoms = zip(*rects, strict=True)
    return Rect(min(lefts), min(tops), max(rights), max(bottoms))


@dataclass(frozen=True)
class Link:
    """A link of a menu: `at`, its element; `text`, where its words stand; `below`, what opens or stands under it;
    `mark`, a word beside it in a ground of its own, and its element."""

    words: str
    href: str
    at: int
    text: Rect
    box: Rect
    is_current: bool = False
    new_window: bool = False
    below: tuple[Link, ...] = ()
    mark: str = ""
    mark_at: int | None = None


@dataclass(frozen=True)
class Seen:
    """`at`: the element that its look is read from; `box`: where it stands; `anchors`: what of it has to stand where it
    stood, in order; `links`: of a menu, a list or profiles. `href`: where it leads. `source`: address of its picture;
    `drawing`: the drawing itself. `html`: of a text with marks, `link_at` its first link. `title`: over a list. `has_box`: a
    text in a ground or an edge of its own."""

    kind: Kind
    at: int
    box: Rect
    anchors: tuple[Rect, ...]
    words: str = ""
    href: str = ""
    links: tuple[Link, ...] = ()
    in_row: bool = True
    source: str = ""
    drawing: str = ""
    html: str = ""
    lines: int = 1
    title: Seen | None = None
    new_window: bool = False
    is_bare_link: bool = False
    link_at: int | None = None
    has_box: bool = False

    @property
    def parts(self) -> tuple[int, ...]:
        """The elements that it is made of."""
        own = tuple(link.at for link in self.links) or (self.at,)
        return (*self.title.parts, *own) if self.title else own

    @property
    def is_tall(self) -> bool:
        """It has lines of its own."""
        return self.kind == "list" or self.lines > 1 or (self.kind == "menu" and not self.in_row)


@dataclass
class Read:
    """All that is seen, in the order in which it is read, and in sentences what could not be read."""

    seen: list[Seen] = field(default_factory=list)
    unread: list[str] = field(default_factory=list)


def split_address(address: str) -> SplitResult:
    """Its parts; all of them empty for what is no address (RFC 3986)."""
    try:
        return urlsplit(address)
    except ValueError:
        return urlsplit("")


def is_button(part: Part) -> bool:
    """A link with room around its words, in a ground or an edge of its own."""
    has_room = part.px("padding-left") >= 6 and part.px("padding-right") >= 6
    edges = sum(part.px(f"border-{side}-width") > 0 for side in ("top", "right", "bottom", "left"))
    has_image = "gradient" in part.styles.get("background-image", "")
    return has_room and (is_painted(part.styles.get("background-color", "")) or edges == 4 or has_image)


def is_painted(colour: str) -> bool:
    return bool(colour) and colour != "transparent" and not re.fullmatch(r"rgba\(.*, 0\)", colour)


def content_box(part: Part) -> Rect:
    """Within its padding and borders."""
    box = rect_of(part)

    def edge(side: str) -> float:
        return part.px(f"padding-{side}") + part.px(f"border-{side}-width")

    return Rect(box.left + edge("left"), box.top + edge("top"), box.right - edge("right"), box.bottom - edge("bottom"))
