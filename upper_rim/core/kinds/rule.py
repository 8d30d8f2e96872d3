"""A rule of CSS as data: which elements, what is declared for them, within which at-rules."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from itertools import takewhile
from typing import NamedTuple


class Rule(NamedTuple):
    """`declarations`: property and value. `within`: the conditions that it stands in, from outside, as they are written:
    `@media (width < 600px)`."""

    selector: str
    declarations: Mapping[str, str]
    within: tuple[str, ...] = ()


def css(rules: Iterable[Rule]) -> str:
    """The rules as text, in their order. What follows each other within the same conditions stands in one block."""
    text: list[str] = []
    around: tuple[str, ...] = ()
    for rule in rules:
        shared = sum(1 for _ in takewhile(lambda pair: pair[0] == pair[1], zip(around, rule.within, strict=False)))
        text.append("}" * (len(around) - shared))
        text += [f"{condition}{{" for condition in rule.within[shared:]]
        text.append(f"{rule.selector}{{{_declared(rule.declarations)}}}")
        around = rule.within
    return "".join(text) + "}" * len(around)


def any_of(selectors: Sequence[str]) -> str:
    """A selector of all that any of these selects (Selectors 4, 4.2)."""
    return selectors[0] if len(selectors) == 1 else f":is({','.join(selectors)})"


def _declared(declarations: Mapping[str, str]) -> str:
    return ";".join(f"{name}:{value}" for name, value in declarations.items())
