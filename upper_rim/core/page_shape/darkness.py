"""Is a page dark, always or where its visitors ask for it? By what is painted behind all of it.

Its root's ground, or its body's, which is painted over the whole window where the root has none (CSS Backgrounds 3, 2.11.2);
else the ground that browsers give to a colour scheme (CSS Color Adjustment 1, 2.2; Media Queries 5, 11.5).
"""

from __future__ import annotations

import re
from collections.abc import Iterable, Mapping
from typing import Literal

import tinycss2
from tinycss2.color4 import parse_color

from .cascade import Declared, Reached

Darkness = Literal["", "always", "asked"]
"""Light; dark for everybody; dark for those whose system asks for it."""

_ASKED = re.compile(r"prefers-color-scheme\s*+:\s*+dark", re.IGNORECASE)
_VARIABLE = re.compile(r"var\(\s*+(--[\w-]++)\s*+(?:,[^()]*+)?\)")
_DARK = 0.18
"""Relative luminance (WCAG 2.2) below which white text is easier to read than black."""
_FOLLOWED = 4
"""So many variables lead to each other."""


def darkness(found: Reached) -> Darkness:
    """Conditions other than what visitors ask for are taken as not holding."""
    if _is_dark(found, is_asked=False):
        return "always"
    return "asked" if _is_dark(found, is_asked=True) else ""


def _is_dark(found: Reached, *, is_asked: bool) -> bool:
    def holds(one: Declared) -> bool:
        return all(is_asked and _ASKED.search(each) for each in one.within)

    root, body = ([one for one in said if holds(one)] for said in (found.root, found.body))
    variables = {one.name: one.value for one in (*root, *body) if one.name.startswith("--")}
    for said in (root, body):
        colour = _ground(said, variables)
        if colour is not None:
            return colour < _DARK
    schemes = [one.value.lower().split() for one in root if one.name == "color-scheme"]
    last = schemes[-1] if schemes else []
    return "dark" in last and ("light" not in last or is_asked)


def _ground(said: Iterable[Declared], variables: Mapping[str, str]) -> float | None:
    """Relative luminance of the last colour that is painted; None where none is."""
    found: float | None = None
    for one in said:
        if one.name in {"background", "background-color"}:
            found = _luminance(_resolved(one.value, variables))
    return found


def _resolved(value: str, variables: Mapping[str, str]) -> str:
    for _ in range(_FOLLOWED):
        if "var(" not in value or len(value) > 2000:
            break
        value = _VARIABLE.sub(lambda one: variables.get(one[1], ""), value)
    return value


def _luminance(value: str) -> float | None:
    for token in tinycss2.parse_component_value_list(value):
        colour = parse_color(token)
        if colour is None or colour == "currentcolor":
            continue
        try:
            red, green, blue = (_linear(min(1.0, max(0.0, one))) for one in colour.to("srgb").coordinates)
        except (AttributeError, TypeError, ValueError):
            continue
        return None if colour.alpha < 0.5 else 0.2126 * red + 0.7152 * green + 0.0722 * blue
    return None


def _linear(channel: float) -> float:
    return channel / 12.92 if channel <= 0.04045 else float(((channel + 0.055) / 1.055) ** 2.4)
