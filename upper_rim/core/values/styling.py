"""How is something styled? Declarations: a property's value in one state and one width band.

They stand on whatever can be styled (pieces, rows, cells, items), in looks, and in defaults by role. Which of them
counts is decided in `core.style.resolve`.
"""

from __future__ import annotations

import re
from typing import Annotated, Literal, Self

from pydantic import Field, StringConstraints, field_validator, model_validator

from .colours import Colour, SwatchRole
from .nodes import Node, Value
from .properties import PROPERTIES, NotAValue, check_value
from .refs import BandRef, LookRef, SwatchRef
from .words import Name

State = Literal["rest", "current", "hover", "focus", "pressed", "placeholder", "invalid", "disabled"]
Part = Literal[
    "box", "title", "content", "lower", "apart", "heading", "second-line", "badge", "panel", "opened", "veil", "close", "link", "list", "bullet", "heading-2", "heading-3",
    "label", "field", "button", "icon", "arrow", "entry", "caption", "hint",
]  # fmt: skip
"""What of a node is styled by itself: its box, and what stands in it or is opened by it."""
LOOK_PARTS: tuple[Part, ...] = ("box", "title", "content")
"""The parts that a look has; all others are a node's own."""

Role = Literal[
    "page", "piece", "float", "row", "column-rule", "cell", "block", "divider", "upright", "menu", "text", "title", "entry", "opener", "button", "second", "icon", "link",
    "heading-1", "heading-2", "heading-3", "list", "mark", "field", "ring",
    "list-title", "second-line", "badge", "panel", "drawer", "veil", "close", "label", "caption", "hint",
]  # fmt: skip

_PRESSED: tuple[State, ...] = ("rest", "hover", "focus", "pressed")
_CURRENT: tuple[State, ...] = ("rest", "current", "hover", "focus", "pressed")
STATES_OF: dict[str, tuple[State, ...]] = {
    **dict.fromkeys(("page", "piece", "float", "row", "column-rule", "cell", "block", "divider", "upright", "menu", "heading-1", "heading-2", "heading-3", "list", "mark"), ("rest",)),
    **dict.fromkeys(("list-title", "second-line", "badge", "panel", "drawer", "veil", "label", "caption", "hint"), ("rest",)),
    "text": ("rest", "hover", "pressed"),
    "title": _CURRENT,
    "entry": _CURRENT,
    "opener": _PRESSED,
    "button": _CURRENT,
    "second": _CURRENT,
    "icon": _CURRENT,
    "close": _PRESSED,
    "link": _CURRENT,
    "field": ("rest", "hover", "focus", "placeholder", "invalid", "disabled"),
    "ring": ("focus",),
}  # fmt: skip
"""The states that each role has, from weak to strong: of two that hold at once, the later counts."""

_GROUND_AND_EDGE = tuple(
    name
    for name, listed in PROPERTIES.items()
    if listed.group in {"Background", "Border", "Corners", "Shadow", "Padding"}
)
LIMITED: dict[str, tuple[str, ...]] = {
    "ring": tuple(name for name, listed in PROPERTIES.items() if listed.group == "Ring"),
    "column-rule": tuple(name for name in PROPERTIES if name.startswith("border-inline-start-")),
    "panel": _GROUND_AND_EDGE,
    "drawer": _GROUND_AND_EDGE,
    "veil": ("background-color", "background-image", "background-size", "background-repeat", "background-position"),
    "mark": ("font-family", "font-weight", "font-style", "font-stretch", "color"),
}
"""The properties of roles that do not have all. What is opened has none of text: entries in it stand in a row, too, and
are styled by themselves. A marker has those of fonts and colour (CSS Lists 3, 3.1), but
for the size, which would move the line that it stands at."""

STATES: tuple[State, ...] = ("rest", "current", "hover", "focus", "pressed", "placeholder", "invalid", "disabled")


class Declaration(Node):
    """One property's value. `band`: only in that width band; None: at all widths."""

    property: str
    value: Annotated[str, StringConstraints(max_length=600)]
    part: Part = "box"
    state: State = "rest"
    band: BandRef | None = None

    @model_validator(mode="after")
    def _fits(self) -> Self:
        try:
            kept = check_value(self.property, self.value)
        except NotAValue as fault:
            raise ValueError(str(fault)) from None
        if kept != self.value:
            object.__setattr__(self, "value", kept)
        return self


class Styled(Node):
    """What can carry declarations of its own and wear looks; of two looks worn, the later counts more."""

    styles: tuple[Declaration, ...] = ()
    wears: tuple[LookRef, ...] = ()
    classes: Annotated[str, StringConstraints(strip_whitespace=True, max_length=200)] = Field(
        default="", description="Class names for the designer's own CSS, between spaces."
    )

    @field_validator("classes")
    @classmethod
    def _class_names(cls, classes: str) -> str:
        for name in classes.split():
            if not re.fullmatch(r"-?[A-Za-z_][A-Za-z0-9_-]*", name):
                raise ValueError(f"“{name}” is no class name: letters, digits, - and _, not beginning with a digit")
        return " ".join(classes.split())


class Look(Node):
    """A named set of declarations in three layers (box, title, content) that many can wear."""

    name: Name
    styles: tuple[Declaration, ...] = ()

    @field_validator("styles")
    @classmethod
    def _in_its_layers(cls, styles: tuple[Declaration, ...]) -> tuple[Declaration, ...]:
        for style in styles:
            if style.part not in LOOK_PARTS:
                raise ValueError(f"a look has no {style.part}: box, title, content")
        return styles


class RoleDefault(Node):
    """How everything in a role looks where nothing says otherwise: in the whole site, or within one piece."""

    role: Role
    styles: tuple[Declaration, ...] = ()

    @field_validator("role")
    @classmethod
    def _stands_by_itself(cls, role: Role) -> Role:
        if role in {"panel", "drawer", "veil"}:
            raise ValueError(f"a {role} is styled at the menu that opens it")
        return role


class Tied(Value):
    """A tint or shade: the parent's colour with another lightness (OKLCH, in hundredths, added; chroma times a
    share)."""

    parent: SwatchRef
    lightness: Annotated[int, Field(ge=-100, le=100)] = 0
    chroma: Annotated[float, Field(ge=0, le=3)] = 1.0


class Swatch(Node):
    """A colour with a name. It is referred to by id; changing it changes every use."""

    name: Name
    colour: Colour = Field(default="#808080", description="Its own colour; not used where it is tied to another.")
    role: SwatchRole | None = None
    tied: Tied | None = None
