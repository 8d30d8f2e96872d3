"""The flags of some countries, drawn. A language is no country: they are for those who have a reason to want them."""

from __future__ import annotations

import tomllib
from collections.abc import Mapping, Sequence
from functools import lru_cache
from importlib.resources import files
from typing import Any

HIGH = 60
"""Units of a drawing from its upper to its lower edge."""


@lru_cache(maxsize=1)
def _known() -> Mapping[str, Any]:
    return tomllib.loads((files(__package__) / "flags.toml").read_text(encoding="utf-8"))


def countries() -> Sequence[str]:
    """Those that there are flags of (ISO 3166-1, in small letters)."""
    return list(_known())


def flag(country: str) -> bytes:
    """As SVG. Raises KeyError where there is none."""
    said = _known()[country]
    wide, colours = round(HIGH * said["wide"]), said["colours"]
    draw = {"rows": _rows, "columns": _columns, "cross": _cross, "disc": _disc}[said["lies"]]
    shapes = draw(wide, colours)
    size = f'width="{wide}" height="{HIGH}" viewBox="0 0 {wide} {HIGH}"'
    return f'<svg xmlns="http://www.w3.org/2000/svg" {size}>{shapes}</svg>\n'.encode()


def _rectangle(x: float, y: float, width: float, height: float, colour: str) -> str:
    return f'<rect x="{x:g}" y="{y:g}" width="{width:g}" height="{height:g}" fill="{colour}"/>'


def _rows(wide: int, colours: Sequence[str]) -> str:
    each = HIGH / len(colours)
    return "".join(_rectangle(0, at * each, wide, each, colour) for at, colour in enumerate(colours))


def _columns(wide: int, colours: Sequence[str]) -> str:
    each = wide / len(colours)
    return "".join(_rectangle(at * each, 0, each, HIGH, colour) for at, colour in enumerate(colours))


def _cross(wide: int, colours: Sequence[str]) -> str:
    """Its upright stands nearer to the mast; a second colour lies within it."""
    ground, *arms = colours
    middle, made = HIGH * 0.58, [_rectangle(0, 0, wide, HIGH, ground)]
    for at, colour in enumerate(arms):
        thick = HIGH * (0.22 if len(arms) > 1 else 0.18) / (at + 1)
        made.append(_rectangle(middle - thick / 2, 0, thick, HIGH, colour))
        made.append(_rectangle(0, (HIGH - thick) / 2, wide, thick, colour))
    return "".join(made)


def _disc(wide: int, colours: Sequence[str]) -> str:
    ground, disc = colours
    circle = f'<circle cx="{wide / 2:g}" cy="{HIGH / 2:g}" r="{HIGH * 0.3:g}" fill="{disc}"/>'
    return _rectangle(0, 0, wide, HIGH, ground) + circle
