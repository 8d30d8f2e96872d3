"""How is a number that was worked out for each width and language written in CSS?"""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from itertools import pairwise
from math import inf
from typing import TypeVar

from ...fit.rows.fitter import VIEWPORT_HEIGHT_PX
from ...fit.rows.sweep import FROM_PX, TO_PX
from ...movement.over_widths import WidthLine

LEAST_RISE = 1e-4
"""Of px for each px of the viewport's height: on a window 1,000 px higher, a tenth."""

_Of = TypeVar("_Of")


def length_css(line: WidthLine, from_px: int, to_px: int) -> str:
    """As a length: one number, along the viewport's width, or along its height, too."""
    slope = 0.0 if line.is_level or to_px <= from_px else (line.last - line.first) / (to_px - from_px)
    px, terms = line.first - slope * from_px, [f"{round(slope * 100, 4):g}vw"] if slope else []
    for low, high, rise in _rises(line.by_height):
        px -= rise * min(max(VIEWPORT_HEIGHT_PX, low), high)
        within = _within(low, high)
        terms.append(f"{round(rise, 4):g}*{within}" if within != "100vh" else f"{round(rise * 100, 4):g}vh")
    if not terms:
        return f"{round(px, 2):g}px"
    return f"calc({' + '.join([f'{round(px, 3):g}px', *terms])})"


def _rises(by_height: Sequence[tuple[float, float]]) -> list[tuple[float, float, float]]:
    """Viewport heights, and by how much a number grows for each px of them; the first and the last go on."""
    found: list[tuple[float, float, float]] = []
    for at, ((low, before), (high, after)) in enumerate(pairwise(by_height)):
        rise = (after - before) / (high - low)
        low, high = (low if at else 0.0), (high if at < len(by_height) - 2 else inf)
        if found and found[-1][1] == low and abs(found[-1][2] - rise) < LEAST_RISE:
            low = found.pop()[0]
        if abs(rise) >= LEAST_RISE:
            found.append((low, high, rise))
    return found


def _within(low: float, high: float) -> str:
    """The viewport's height, between two."""
    least, most = f"{round(low, 2):g}px", f"{round(high, 2):g}px"
    if high == inf:
        return f"max({least},100vh)" if low else "100vh"
    return f"clamp({least},100vh,{most})" if low else f"min(100vh,{most})"


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
