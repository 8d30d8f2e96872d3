"""What do the resolved styles of an element say of its size, its edges and its text?"""

from __future__ import annotations

import re
from collections.abc import Iterable
from typing import Any, NamedTuple

from ...style.lengths import NoLength, computed_line_height
from ...style.resolve import StyledElement, Styling
from ...values.styling import Declaration
from ..css.amount import Amount, Relative, amount, times
from ..css.boxes import NONE, SIDES, SIZES, Sides
from ..css.linear import whole
from ..text.typesetting import Type

LAID_OUT = frozenset(
    (
        *SIZES.values(),
        *(f"{edge}-{side}" for edge in ("padding", "margin") for side in SIDES),
        *(f"border-{side}-{what}" for side in SIDES for what in ("style", "width")),
        *("font-size", "line-height", "letter-spacing", "word-spacing"),
        *("font-family", "font-weight", "font-style", "font-stretch", "text-transform"),
    )
)
"""The properties that boxes are made from, all at rest: what is said of others moves nothing."""


def laid_out(styles: Iterable[Declaration]) -> tuple[Declaration, ...]:
    """Those of the declarations that boxes are made from."""
    return tuple(style for style in styles if style.property in LAID_OUT and style.state == "rest")


class BoxStyle(NamedTuple):
    """Sizes by the fields of `boxes.Box`, and how text in it is set."""

    sizes: dict[str, Any]
    type: Type

    def over(self, **base: Any) -> dict[str, Any]:
        """For a box: what is built in for its role, over it what the base CSS says, over that what a style says."""
        made: dict[str, Any] = {"border": self.sizes["border"]}
        for name in SIZES:
            said = self.sizes[name]
            made[name] = said.amount if said.by_a_style or name not in base else base[name]
        for edge in ("padding", "margin"):
            under = base.get(edge, _UNSAID)
            made[edge] = Sides(
                *(
                    said.amount if said.by_a_style or side is None else side
                    for said, side in zip(self.sizes[edge], under, strict=True)
                )
            )
            if made[edge] == NONE:
                made[edge] = NONE
        made.update({name: amount for name, amount in base.items() if name not in made})
        return made


_UNSAID = Sides(None, None, None, None)


class _Said(NamedTuple):
    """`by_a_style`: by any layer but what is built in. An amount of None is `auto`, or `none`."""

    amount: Amount | None
    by_a_style: bool


def box_style(styling: Styling, element: StyledElement, band: str | None) -> BoxStyle:
    def said(name: str) -> str:
        return styling.resolve(element, name, "rest", band).value

    def told(name: str) -> _Said:
        found = styling.resolve(element, name, "rest", band)
        return _Said(length(found.value, name), found.source.layer not in {"built-in", "initial"})

    size = _size(styling, element, band)

    def length(text: str, name: str) -> Amount | None:
        try:
            return amount(text, size, is_size=not name.startswith("margin"))
        except NoLength:
            return None

    sizes: dict[str, Any] = {field: told(name) for field, name in SIZES.items()}
    for edge in ("padding", "margin"):
        sizes[edge] = tuple(told(f"{edge}-{side}") for side in SIDES)
    lines = [
        "0" if said(f"border-{side}-style") == "none" else _LINE_WORDS.get(width, width)
        for side in SIDES
        for width in (said(f"border-{side}-width"),)
    ]
    sizes["border"] = Sides(*(_snapped(length(line, "border")) for line in lines))
    return BoxStyle(sizes, _type(styling, element, band, size))


_PERCENT = re.compile(r"([+-]?(?:\d+\.?\d*|\.\d+))%")
_LINE_WORDS = {"thin": "1px", "medium": "3px", "thick": "5px"}


def _snapped(width: Amount | None) -> Amount:
    """A line's width in device pixels: rounded down, but never to nothing (CSS Backgrounds 3, 3.3)."""
    if type(width) is Relative:
        inner = width
        return Relative(lambda viewport, of: whole(inner.work(viewport, of)), inner.has_percent, inner.has_viewport)
    return whole(width or 0.0)


def _size(styling: Styling, element: StyledElement, band: str | None) -> Amount:
    return amount(styling.font_size(element, band), 16.0, is_size=True)


def _type(styling: Styling, element: StyledElement, band: str | None, size: Amount) -> Type:
    def said(name: str) -> str:
        return styling.resolve(element, name, "rest", band).value

    height = computed_line_height(said("line-height"))
    line_height: Amount | None
    leading = None
    if height == "normal":
        line_height = None
    elif re.fullmatch(r"[+-]?(\d+\.?\d*|\.\d+)", height):
        leading = float(height)
        line_height = times(size, leading)
    else:
        in_em = _PERCENT.sub(lambda found: f"{float(found[1]) / 100:g}em", height)
        line_height = amount(in_em, size, is_size=True)
    spacing, between = said("letter-spacing"), said("word-spacing")
    return Type(
        face=said("font-family"),
        weight=int(said("font-weight")),
        italic=said("font-style") == "italic",
        size=size,
        spacing=0.0 if spacing == "normal" else amount(spacing, size),
        line_height=line_height,
        leading=leading,
        transform=said("text-transform"),
        between_words=0.0 if between == "normal" else amount(between, size),
        stretch=float(said("font-stretch").rstrip("%")),
    )
