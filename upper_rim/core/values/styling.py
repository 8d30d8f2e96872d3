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
from .properties import NotAValue, check_value
from .refs import BandRef, LookRef, SwatchRef
from .words import Name

State = Literal["rest", "current", "hover", "focus", "pressed", "placeholder", "invalid", "disabled"]
Part = Literal["box", "title", "content"]
PARTS: tuple[Part, ...] = ("box", "title", "content")

Role = Literal[
    "page", "piece", "float", "row", "column-rule", "cell", "block", "divider", "upright", "menu", "text", "title", "entry", "opener", "button", "second", "icon", "link",
    "heading-1", "heading-2", "heading-3", "list", "mark", "field", "ring",
]  # fmt: skip

_PRESSED: tuple[State, ...] = ("rest", "hover", "focus", "pressed")
_CURRENT: tuple[State, ...] = ("rest", "current", "hover", "focus", "pressed")
STATES_OF: dict[str, tuple[State, ...]] = {
    **dict.fromkeys(("page", "piece", "float", "row", "column-rule", "cell", "block", "divider", "upright", "menu", "heading-1", "heading-2", "heading-3", "list", "mark"), ("rest",)),
    "text": ("rest", "hover", "pressed"),
    "title": _CURRENT,
    "entry": _CURRENT,
    "opener": _PRESSED,
    "button": _CURRENT,
    "second": _CURRENT,
    "icon": _CURRENT,
    "link": _CURRENT,
    "field": ("rest", "hover", "focus", "placeholder", "invalid", "disabled"),
    "ring": ("focus",),
}  # fmt: skip
"""The states that each role has, from weak to strong: of two that hold at once, the later counts."""

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


class RoleDefault(Node):
    """How everything in a role looks where nothing says otherwise: in the whole site, or within one piece."""

    role: Role
    styles: tuple[Declaration, ...] = ()


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
