"""What is a colour, as a designer writes it? CSS Color 4, or a reference to one of the site's swatches."""

from __future__ import annotations

import re
from typing import Annotated, Literal

from pydantic import AfterValidator, StringConstraints
from tinycss2.color4 import parse_color

_NOT_IN_COLOURS = re.compile(r"[{};<>\\]|/\*")
"""What could reach out of a declaration: a comment's beginning swallows the rest of a sheet, and is no part of a
colour."""

REFERENCE = re.compile(r"@(:?[a-z][a-z0-9-]*)(?:/(\d{1,3})%)?")
"""A swatch by id, or by role behind a colon; with an opacity in percent, or none."""

SwatchRole = Literal["ground", "ink", "accent", "on-accent", "line", "link", "fault"]
ROLE_COLOURS: dict[str, str] = {
    "ground": "#ffffff",
    "ink": "#1d2326",
    "accent": "#1f5c57",
    "on-accent": "#ffffff",
    "line": "#8a9290",
    "link": "#1f5c57",
    "fault": "#9d2d22",
}
"""What a role's colour is where no swatch has that role."""


def check_plain_colour(colour: str) -> str:
    """A colour in itself: it depends on no other."""
    read = None if _NOT_IN_COLOURS.search(colour) else parse_color(colour)
    if read is None or read == "currentcolor":
        raise ValueError("not a colour: write it as CSS does, such as #1f5c57, rgb(31 92 87) or teal")
    return colour


_BARE_HEX = re.compile(r"(?:[0-9a-fA-F]{3,4}|[0-9a-fA-F]{6}|[0-9a-fA-F]{8})")


def signed(text: str) -> str:
    """A colour as it may be typed: hexadecimal digits without their sign get it."""
    text = text.strip()
    return f"#{text}" if _BARE_HEX.fullmatch(text) and parse_color(text) is None else text


def check_colour(colour: str) -> None:
    """A colour as a property's value: also a swatch, or the text's own colour."""
    reference = REFERENCE.fullmatch(colour)
    if reference is not None:
        if reference[1].startswith(":") and reference[1][1:] not in ROLE_COLOURS:
            raise ValueError(f"there is no role “{reference[1][1:]}”")
        if reference[2] is not None and int(reference[2]) > 100:
            raise ValueError("an opacity is 100 % at most")
        return
    if colour.lower() != "currentcolor":
        check_plain_colour(colour)


Colour = Annotated[
    str,
    StringConstraints(strip_whitespace=True, max_length=120),
    AfterValidator(signed),
    AfterValidator(check_plain_colour),
]
"""A colour as CSS Color 4 writes it."""
