"""How is a number that was worked out for each width and language written in CSS?"""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from typing import TypeVar

from ...fit.rows.sweep import FROM_PX, TO_PX
from ...movement.over_widths import WidthLine

_Of = TypeVar("_Of")


def length_css(line: WidthLine, from_px: int, to_px: int) -> str:
    """As a length: one number, or along the viewport's width."""
    if line.is_level or to_px <= from_px:
        return f"{round(line.first, 2):g}px"
    slope = (line.last - line.first) / (to_px - from_px)
    return f"calc({round(line.first - slope * from_px, 3):g}px + {round(slope * 100, 4):g}vw)"


def lang_selector(language: str) -> str:
    """Behind a selector: where the language is that one; in all, where none is named."""
    return f":lang({language})" if language else ""


def usual_first(by_language: Mapping[str, Sequence[_Of]]) -> Iterator[tuple[str, Sequence[_Of]]]:
    """What most languages have, for all of them; then those that have something else."""
    counted: list[tuple[Sequence[_Of], list[str]]] = []
    for language, spans in by_language.items():
        for known, languages in counted:
            if known == spans:
                languages.append(language)
                break
        else:
            counted.append((spans, [language]))
    counted.sort(key=lambda one: -len(one[1]))
    for at, (spans, languages) in enumerate(counted):
        for language in languages if at else [""]:
            yield language, spans


def widths_query(from_px: int, to_px: int) -> str:
    """A media query for these widths, both included; below and above all that fit looks at, its edges count."""
    parts = [f"(width >= {from_px}px)"] if from_px > FROM_PX else []
    parts += [f"(width < {to_px + 1}px)"] if to_px < TO_PX else []
    return " and ".join(parts)


def media(*queries: str) -> tuple[str, ...]:
    """The conditions of rules that hold where all of these media queries match; an empty one matches everything."""
    whole = " and ".join(query for query in queries if query)
    return (f"@media {whole}",) if whole else ()
