"""What does a browser tell of an old part of a page? Its elements and texts in the order of the document, as they stand.

It comes from a page that somebody else wrote: nothing in it is trusted, and all of it is bounded.
"""

from __future__ import annotations

from collections.abc import Iterator
from typing import Annotated

from pydantic import Field, StringConstraints, model_validator

from ...values.nodes import Value

MOST_PARTS, DEEPEST = 1500, 120
_Short = Annotated[str, StringConstraints(max_length=700)]
_Long = Annotated[str, StringConstraints(max_length=2_000)]
_Px = Annotated[float, Field(ge=-100_000, le=1_000_000)]
_Few = Field(max_length=80)


class Part(Value):
    """An element, or a text (`#text`) in one. `parent`: its place in the list, -1 for the first; `rect`: left, top, width
    and height in px from the page's corner, all 0 where it does not show; `styles`: computed values (CSSOM, 7.2), and
    `pointed` those under a pointer. `drawing`: the source of a drawing that stands in the page. `adorned`: something is
    drawn before or behind it that is no element."""

    parent: Annotated[int, Field(ge=-1, lt=MOST_PARTS)]
    tag: Annotated[str, StringConstraints(max_length=60)]
    rect: tuple[_Px, _Px, _Px, _Px]
    text: _Long = ""
    lines: Annotated[int, Field(ge=0, le=1000)] = 0
    attributes: Annotated[dict[_Short, _Long], _Few] = {}
    styles: Annotated[dict[_Short, _Short], _Few] = {}
    pointed: Annotated[dict[_Short, _Short], _Few] = {}
    adorned: bool = False
    drawing: Annotated[str, StringConstraints(max_length=40_000)] = ""

    @property
    def shows(self) -> bool:
        return self.rect[2] > 0 and self.rect[3] > 0

    @property
    def is_text(self) -> bool:
        return self.tag == "#text"

    def px(self, name: str) -> float:
        """A computed length; 0 where it is none."""
        return px_of(self.styles.get(name, ""))


class MeasuredFace(Value):
    """A rule `@font-face` of the page's; `sources`: addresses."""

    family: _Short
    weight: _Short = ""
    style: _Short = ""
    sources: Annotated[tuple[_Long, ...], Field(max_length=6)] = ()


class Band(Value):
    """A ground that is less wide than the window: its colour, and where it lies."""

    colour: _Short
    left: _Px
    width: _Px


class Measured(Value):
    """An old part of a page at a window's `width`, without scroll bar. `ground`: the colour behind it and
    beside, `band`: what lies before that, less wide; `page`: some values of
    the body's; `cut`: there was more than is told."""

    width: Annotated[int, Field(ge=200, le=8_000)]
    parts: Annotated[tuple[Part, ...], Field(min_length=1, max_length=MOST_PARTS)]
    cut: bool = False
    ground: _Short = "rgb(255, 255, 255)"
    band: Band | None = None
    page: Annotated[dict[_Short, _Short], _Few] = {}
    faces: Annotated[tuple[MeasuredFace, ...], Field(max_length=60)] = ()

    @model_validator(mode="after")
    def _is_a_tree(self) -> Measured:
        depths: list[int] = []
        for at, part in enumerate(self.parts):
            if (part.parent < 0) != (at == 0) or part.parent >= at or (at and self.parts[part.parent].is_text):
                raise ValueError("parts do not stand in one that comes before them")
            depths.append(depths[part.parent] + 1 if at else 0)
            if depths[-1] > DEEPEST:
                raise ValueError("parts lie too deep in each other")
        return self

    def within(self, at: int) -> Iterator[int]:
        """What stands in a part, however deep, in order."""
        inside = {at}
        for number in range(at + 1, len(self.parts)):
            if self.parts[number].parent not in inside:
                return
            inside.add(number)
            yield number

    def children(self, at: int) -> list[int]:
        return [number for number in self.within(at) if self.parts[number].parent == at]

    def around(self, at: int) -> Iterator[int]:
        """What a part stands in, from the nearest outwards."""
        while (at := self.parts[at].parent) >= 0:
            yield at

    def text(self, at: int, *, shown: bool = True) -> str:
        """What it says."""
        said = (self.parts[at], *(self.parts[number] for number in self.within(at)))
        return " ".join("".join(one.text for one in said if one.is_text and (one.shows or not shown)).split())


def px_of(length: str) -> float:
    """A length in px as browsers write it; 0 for anything else."""
    if not length.endswith("px"):
        return 0.0
    try:
        found = float(length[:-2])
    except ValueError:
        return 0.0
    return found if abs(found) < 1_000_000 else 0.0
