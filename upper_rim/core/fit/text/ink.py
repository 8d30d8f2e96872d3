"""How much of a text is ink? The area of its glyphs' outlines, which says how dark it looks from afar."""

from __future__ import annotations

import itertools
from collections.abc import Sequence
from functools import lru_cache
from itertools import groupby
from typing import Any

import uharfbuzz

from .faces import SCALE, UNKNOWN_EM, ChosenFace

INK_OF_UNKNOWN = 0.1
"""Assumed of a character that no face of the site's draws, in em²."""


def ink_em2(text: str, fonts: Sequence[ChosenFace | None]) -> float:
    """The whole text's, in em² of its own size. `fonts`: what draws each character, None for none of the site's."""
    return sum(
        _ink("".join(char for char, _ in alike), font)
        for font, alike in groupby(zip(text, fonts, strict=False), key=lambda one: one[1])
    )


@lru_cache(maxsize=4096)
def _ink(text: str, font: ChosenFace | None) -> float:
    """Of a stretch that one font draws, in em²."""
    if font is None:
        return INK_OF_UNKNOWN * UNKNOWN_EM * sum(not char.isspace() for char in text)
    buffer = uharfbuzz.Buffer()
    buffer.add_str(text)
    buffer.guess_segment_properties()
    uharfbuzz.shape(font.data.at(font.weight, font.stretch), buffer)
    return sum(_ink_of_glyph(info.codepoint, font) for info in buffer.glyph_infos)


@lru_cache(maxsize=8192)
def _ink_of_glyph(glyph: int, font: ChosenFace) -> float:
    outline = _Outline()
    font.data.at(font.weight, font.stretch).draw_glyph(glyph, _PEN, outline)
    area = outline.filled() if outline.contours > MOST_PLAIN else abs(outline.doubled) / 2
    return area / (font.data.upem * SCALE) ** 2


MOST_PLAIN, SCANS = 4, 64
"""Glyphs of more contours than the first says are made of strokes that lie over each other: these are looked at along so many
lines."""


class _Outline:
    """Twice the area within contours as they are drawn, counted by their turning (Green's theorem); curves by
    chords."""

    def __init__(self) -> None:
        self.doubled = 0.0
        self.contours = 0
        self.first = self.at = (0.0, 0.0)
        self._edges: list[tuple[float, float, float, float]] = []

    def move(self, x: float, y: float) -> None:
        self.contours += 1
        self.first = self.at = (x, y)

    def line(self, x: float, y: float) -> None:
        self.doubled += self.at[0] * y - x * self.at[1]
        self._edges.append((*self.at, x, y))
        self.at = (x, y)

    def filled(self) -> float:
        """The area that is painted where contours lie over each other (the nonzero rule), along lines."""
        heights = [y for edge in self._edges for y in edge[1::2]]
        low, step = min(heights), (max(heights) - min(heights)) / SCANS
        area = 0.0
        for scan in range(SCANS):
            at = low + (scan + 0.5) * step
            met = sorted(
                (x0 + (x1 - x0) * (at - y0) / (y1 - y0), 1 if y1 > y0 else -1)
                for x0, y0, x1, y1 in self._edges
                if (y0 <= at) != (y1 <= at)
            )
            winding = 0
            for (x, turn), (other, _) in itertools.pairwise(met):
                winding += turn
                area += (other - x) * step if winding else 0.0
        return area

    def curve(self, *points: float) -> None:
        """A Bézier curve with one control point or two, in so many chords."""
        places = [self.at, *zip(points[::2], points[1::2], strict=True)]
        for step in range(1, _CHORDS + 1):
            self.line(*_between(places, step / _CHORDS))

    def close(self) -> None:
        self.line(*self.first)


_CHORDS = 6


def _between(places: list[tuple[float, float]], share: float) -> tuple[float, float]:
    """De Casteljau's way."""
    while len(places) > 1:
        places = [
            (one[0] + (other[0] - one[0]) * share, one[1] + (other[1] - one[1]) * share)
            for one, other in itertools.pairwise(places)
        ]
    return places[0]


def _pen() -> Any:
    pen = uharfbuzz.DrawFuncs()
    pen.set_move_to_func(lambda x, y, outline: outline.move(x, y))
    pen.set_line_to_func(lambda x, y, outline: outline.line(x, y))
    pen.set_quadratic_to_func(lambda *told: told[-1].curve(*told[:-1]))
    pen.set_cubic_to_func(lambda *told: told[-1].curve(*told[:-1]))
    pen.set_close_path_func(lambda outline: outline.close())
    return pen


_PEN = _pen()
