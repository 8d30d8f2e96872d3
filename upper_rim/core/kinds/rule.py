"""A rule of CSS as data: which elements, what is declared for them, within which at-rules."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from itertools import groupby
from typing import NamedTuple


class Rule(NamedTuple):
    """`declarations`: property and value. `within`: the conditions that it stands in, from outside, as they are written:
    `@media (width < 600px)`."""

    selector: str
    declarations: Mapping[str, str]
    within: tuple[str, ...] = ()


def css(rules: Iterable[Rule]) -> str:
    """The rules as text, in their order; those within the same conditions that follow each other stand in one block."""
    text = ""
    for within, together in groupby(rules, key=lambda rule: rule.within):
        block = "".join(f"{rule.selector}{{{_declared(rule.declarations)}}}" for rule in together)
        text += "".join(f"{condition}{{" for condition in within) + block + "}" * len(within)
    return text


def _declared(declarations: Mapping[str, str]) -> str:
    return ";".join(f"{name}:{value}" for name, value in declarations.items())
