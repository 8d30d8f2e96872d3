"""Which sizes, line heights and spaces follow from a base size, a ratio and a measure?

*Sizes* grow by the ratio, step by step, from the size of running text. *Line height* grows with the number of
characters on a line, for the eye has to find the next line's beginning over a longer way: 1.06 for a word by itself,
1.5 at 66 characters, never more than 1.63. A heading, set larger in the same column, has fewer characters on its line
and so comes closer by itself. *Spaces* are shares of one line of running text, so that what is stacked keeps its
rhythm.
"""

from __future__ import annotations

from typing import NamedTuple

from ...model.site import Site

SCALE_STEPS: dict[str, int] = {"small": -1, "text": 0, "heading-3": 1, "heading-2": 2, "heading-1": 3, "display": 4}
SPACES: dict[str, float] = {
    "hair": 0.125,
    "quarter": 0.25,
    "half": 0.5,
    "line": 1.0,
    "line and a half": 1.5,
    "double": 2.0,
    "triple": 3.0,
}


class ScaleStep(NamedTuple):
    """One size of the scale in px, the unitless line height set at it, and the characters on a line of the column."""

    name: str
    size_px: float
    line_height: float
    characters: float


class Spreads(NamedTuple):
    """Widths in px: the text column, the content that holds it, and the whole with its gutters."""

    column_px: float
    content_px: int
    whole_px: int


def role_line_height(characters: float) -> float:
    """Unitless, from the number of characters on a line."""
    return round(1.06 + 0.44 * min(max(characters, 0) / 66, 1.3), 3)


def steps(site: Site, character_em: float) -> list[ScaleStep]:
    """The scale, small to large. `character_em`: mean advance of the face's running text, in em."""
    column = column_px(site, character_em)
    listed = []
    for name, at in SCALE_STEPS.items():
        size = round(site.text_px * site.ratio**at, 2)
        characters = column / (size * character_em)
        listed.append(ScaleStep(name, size, role_line_height(characters), round(characters, 1)))
    return listed


def column_px(site: Site, character_em: float) -> float:
    """Width of the text column: the wished measure, or the content where that is narrower."""
    return min(site.measure * character_em * site.text_px, float(site.content_px))


def spreads(site: Site, character_em: float) -> Spreads:
    return Spreads(round(column_px(site, character_em), 1), site.content_px, site.content_px + 2 * site.gutter_px)


def content_of_whole(whole_px: int, gutter_px: int) -> int:
    """The content's width where the whole is given."""
    return whole_px - 2 * gutter_px


def spaces(site: Site, character_em: float) -> dict[str, float]:
    """Spaces by name, in px: shares of a line of running text."""
    line = site.text_px * next(step for step in steps(site, character_em) if step.name == "text").line_height
    return {name: round(line * share, 2) for name, share in SPACES.items()}


def sidebar_needs_px(site: Site, character_em: float, width_px: int | None = None) -> int:
    """The viewport width below which a sidebar leaves the text less than its least measure, gutters and gap counted.
    `width_px`: of the sidebar's content; the site's where None."""
    least = site.least_measure * character_em * site.text_px
    gap = 2 * site.gutter_px
    return -int(-(least + (width_px or site.sidebar_px) + gap + 2 * site.gutter_px) // 1)
