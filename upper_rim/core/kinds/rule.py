"""A rule of CSS as data: which elements, what is declared for them, in which media."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from itertools import groupby
from typing import NamedTuple


class Rule(NamedTuple):
    """`declarations`: property and value. `media`: a media query, or empty for all."""

    selector: str
    declarations: Mapping[str, str]
    media: str = ""


def css(rules: Iterable[Rule]) -> str:
    """The rules as text, in their order; those of one media query that follow each other stand in one block."""
    text = ""
    for media, together in groupby(rules, key=lambda rule: rule.media):
        block = "".join(f"{rule.selector}{{{_declared(rule.declarations)}}}" for rule in together)
        text += f"@media {media}{{{block}}}" if media else block
    return text


def _declared(declarations: Mapping[str, str]) -> str:
    return ";".join(f"{name}:{value}" for name, value in declarations.items())
