"""Which shape have icons that lead somewhere: plain, filled or outlined; round, soft or square? One choice that stands
for several declarations, each of which can be said by itself, too."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from typing import Any

from pydantic import JsonValue

from ..model.editing.edits import Add, Edit, Remove, Together
from ..values.styling import Declaration, Part
from .built_in import border, corners

_LINE = border("1px", "solid", "currentcolor")
_WAYS = {"filled": {"background-color": "@:accent", "color": "@:on-accent"}, "outlined": _LINE}
_CORNERS = {"round": "50%", "soft": "8px", "square": "0"}
PLAIN = ""
SHAPES: Mapping[str, Mapping[str, str]] = {
    PLAIN: {},
    **{
        f"{way} {corner}": {**said, **corners(radius)}
        for way, said in _WAYS.items()
        for corner, radius in _CORNERS.items()
    },
}
"""What each declares, at rest and at all widths."""
_DECLARED = {name for said in SHAPES.values() for name in said}


def _own(item: Any, part: Part) -> dict[str, Declaration]:
    """What an item says of its shape already, by property."""
    return {
        style.property: style
        for style in item.styles
        if (style.part, style.state, style.band) == (part, "rest", None) and style.property in _DECLARED
    }


def part_of(item: Any) -> Part:
    """Of a list of icons each; else the icon itself."""
    return "content" if "content" in item.roles else "box"


def shape_of(item: Any) -> str | None:
    """The shape whose declarations an item has, and no others that a shape would have; None where it has some of its
    own."""
    said = {name: style.value for name, style in _own(item, part_of(item)).items()}
    return next((shape for shape, declared in SHAPES.items() if declared == said), None)


def shaped(item: Any, shape: str, new_id: Callable[[str], str]) -> Edit:
    """The item in that shape. KeyError where there is no such."""
    declared, part = SHAPES[shape], part_of(item)
    gone = tuple(style.id for style in _own(item, part).values())
    said: tuple[JsonValue, ...] = tuple(
        {"id": new_id("st"), "property": name, "value": value, "part": part} for name, value in declared.items()
    )
    edits: list[Edit] = [Remove(nodes=gone)] if gone else []
    return Together(edits=(*edits, *((Add(parent=item.id, slot="styles", values=said),) if said else ())))
