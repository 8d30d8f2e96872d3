"""How wide is each part of a text, and how many lines does it take in a given width?"""

from __future__ import annotations

from bisect import bisect_right
from collections.abc import Callable, Sequence
from itertools import accumulate
from typing import Any, NamedTuple

from ..css.amount import Amount, Relative, Viewport, worked_out
from ..css.linear import SLACK_PX, Length, Linear, cut_to_64ths, in_64ths, slope_of, up_to_64ths, value
from .breaking import first_letter_end, least_opportunities_in_block, opportunities, opportunities_in_block
from .faces import Advances, Faces, advances, first_script, last_script
from .filling import Lines, Parts, filled, lines_of, narrower, wider
from .typesetting import Type, drawn, drawn_px

SOFT_HYPHEN = "\u00ad"
WORD_SEPARATORS = " \u00a0"
"""Characters behind which space between words is added (CSS Text 3, 8.1)."""


class Measurer:
    """Measures texts in a site's faces; each text once."""

    def __init__(self, faces: Faces) -> None:
        self.faces = faces
        self._known: dict[tuple[str, str, int, bool, float, bool, str], Advances] = {}

    def advances(self, text: str, kind: Type, script: str = "") -> Advances:
        """`script`: of what stands before the text in its paragraph."""
        spaced = type(kind.spacing) is Relative or kind.spacing != 0
        key = (text, kind.face, kind.weight, kind.italic, kind.stretch, spaced, script)
        if key not in self._known:
            self._known[key] = advances(
                text, self.faces, kind.face, kind.weight, kind.italic, kind.stretch, spaced, script
            )
        return self._known[key]


class Run(NamedTuple):
    """A stretch of a paragraph that is set alike. `before`, `after`: margins, borders and padding of the inline boxes
    that begin and end with it (CSS 2, 9.4.2; CSS Inline 3, 3)."""

    text: str
    type: Type
    before: tuple[Amount, ...] = ()
    after: tuple[Amount, ...] = ()

    @property
    def edges(self) -> tuple[Amount, ...]:
        return self.before + self.after


_BESIDE_PX = 8.0
_MOST_SIZES = 8


class _Sizes(NamedTuple):
    font: Length
    spacing: Length
    between: Length
    before: Length = 0.0
    after: Length = 0.0


_EM = _Sizes(1.0, 0.0, 0.0)


def _any_moves(sizes: Sequence[_Sizes]) -> bool:
    return any(isinstance(one, Linear) for run in sizes for one in run)


class Paragraph:
    """A text of one or more runs, measured. `is_anonymous`: no element is around it alone (CSS Flexbox 1, 4)."""

    def __init__(self, runs: Sequence[Run], language: str, measurer: Measurer, *, is_anonymous: bool = False) -> None:
        self.runs = runs
        self.text = "".join(run.text for run in runs)
        self.missing = ""
        self._measurer = measurer
        self._measured: list[tuple[Run, Advances]] = []
        # What has no script at the beginning goes with the first that follows.
        script = first_script(self.text) if len(runs) > 1 else ""
        for run in runs:
            found = measurer.advances(run.text, run.type, script)
            script = last_script(run.text, script) if len(runs) > 1 else ""
            self.missing += found.missing
            self._measured.append((run, found))
        self.fonts = tuple(font for _, found in self._measured for font in found.fonts)
        breaks = opportunities if is_anonymous else opportunities_in_block
        least = opportunities if is_anonymous else least_opportunities_in_block
        self._breaks = breaks(self.text, language) if self.text else ()
        self._least_breaks = least(self.text, language) if self.text else ()
        self._item_ends = self._ends_of_items(is_anonymous=is_anonymous)
        sizes = {id(run.type.size): run.type.size for run in runs}
        moving = [
            run
            for run in runs
            if any(
                type(one) is Relative for one in (run.type.size, run.type.spacing, run.type.between_words, *run.edges)
            )
        ]
        self.is_fixed = not moving
        self._alike = len(sizes) == 1 and all(
            run.type.spacing == run.type.between_words == 0.0 and not run.edges for run in runs
        )
        self._parts: Parts | None = None
        self._by_sizes: dict[tuple[Any, ...], Parts] = {}

    def _ends_of_items(self, *, is_anonymous: bool) -> tuple[int, ...]:
        """Where texts end that browsers measure by themselves: an element's, a script's, the first letter."""
        found = set() if is_anonymous else {first_letter_end(self.text)}
        start = 0
        for run, among in self._measured:
            found.update(start + end for end in among.ends)
            start += len(run.text)
        return tuple(sorted(found))

    def parts(self, viewport: Viewport, room: Length) -> Parts:
        """In px where nothing depends on the viewport, in em where all of it does alike; else in px, for this width.
        `room`: what percentages are of (CSS Box Model 3, 4); nothing while intrinsic sizes are asked for."""
        if self._parts is not None:
            return self._parts
        if self.is_fixed or self._alike:
            unit = None if self.is_fixed else self.runs[0].type.size
            sizes = self._sizes(viewport, 0.0) if self.is_fixed else [_EM] * len(self.runs)
            self._parts = self._worked_out(sizes, unit=unit)
            return self._parts
        sizes = self._sizes(viewport, room)
        if isinstance(viewport.width, Linear) and _any_moves(sizes):
            viewport.width.span.bends = True
        return self._at_sizes(sizes)

    def _sizes(self, viewport: Viewport, room: Length) -> list[_Sizes]:
        """Of each run in px: its font, what is added behind each letter, between words, and at its ends."""

        def made(run: Run) -> _Sizes:
            kind = run.type
            font, spacing, between = (
                worked_out(one, viewport, 0.0) for one in (kind.size, kind.spacing, kind.between_words)
            )
            before, after = (
                sum((cut_to_64ths(worked_out(one, viewport, room)) for one in edges), 0.0)
                for edges in (run.before, run.after)
            )
            return _Sizes(font, spacing, between, before, after)

        return [made(run) for run in self.runs]

    def _at_sizes(self, sizes: Sequence[_Sizes], size_of: Callable[[float], float] = drawn_px) -> Parts:
        """The last ones are kept: they are asked for often, and many do not move at all where they could."""
        plain = [_Sizes(*map(value, one)) for one in sizes]
        key = (size_of, *plain)
        if key not in self._by_sizes:
            if len(self._by_sizes) >= _MOST_SIZES:
                self._by_sizes.clear()
            self._by_sizes[key] = self._worked_out(plain, size_of=size_of)
        return self._by_sizes[key]

    def _unit(self, parts: Parts, viewport: Viewport) -> Length:
        return 1.0 if parts.unit is None else drawn(worked_out(parts.unit, viewport, 0.0))

    def _worked_out(
        self, sizes: Sequence[_Sizes], *, unit: Amount | None = None, size_of: Callable[[float], float] = drawn_px
    ) -> Parts:
        """`unit`: see `Parts`; `sizes` are then in em."""
        size_of = size_of if unit is None else float
        bare = self._advances(sizes, size_of)
        rounded = self._rounded_up(bare) if size_of is drawn_px else []
        widths = list(bare)
        for _, last, more in rounded:
            widths[last - 1] += more
        edges = self._edges(sizes)
        ends, seen, within_word = [], [], []
        start, total, widest, whole = 0, 0.0, 0.0, 0.0
        for end in self._breaks:
            stop = self._without_spaces(start, end)
            before = total
            visible = total + sum(edges[at] for at in edges if start <= at < end) + sum(widths[start:stop])
            total = visible + sum(widths[stop:end])
            whole = visible
            divides = end < len(self.text) and stop == end and not self.text[end - 1].isspace()
            is_hyphen = self.text[end - 1] == SOFT_HYPHEN
            if divides or is_hyphen:
                # Where a line ends within a word, its last letter has no neighbour to be kerned with: lines are so, but
                # not the least width (measured: `tests/browser/test_fit.py`).
                visible += self._at_line_end(end, widths, sizes, size_of)
            ends.append(total)
            seen.append(visible)
            within_word.append(divides)
            widest = max(widest, visible - before)
            start = end
        longest, start = 0.0, 0
        for end in self._least_breaks:
            stop = self._without_spaces(start, end)
            alone = sum(edges[at] for at in edges if start <= at < end) + sum(bare[start:stop])
            alone += sum(more for at, last, more in rounded if start <= at and last <= stop)
            if self.text[end - 1] == SOFT_HYPHEN:
                alone += self._at_line_end(end, widths, sizes, size_of)
            longest, start = max(longest, alone), end
        least_seen = tuple(reversed(tuple(accumulate(reversed(seen), min))))
        return Parts(tuple(ends), tuple(seen), least_seen, tuple(within_word), longest, widest, whole, unit)

    def _without_spaces(self, start: int, end: int) -> int:
        """Where what is seen of a part ends."""
        while end > start and self.text[end - 1] in " \u1680\u3000":
            end -= 1
        return end

    def _advances(self, sizes: Sequence[_Sizes], size_of: Callable[[float], float]) -> list[float]:
        """How far each character moves the pen, with what is added behind it."""
        widths: list[float] = []
        for (run, found), (font, spacing, between, *_) in zip(self._measured, sizes, strict=True):
            size, spacing, between = size_of(value(font)), value(spacing), value(between)
            for char, em, starts in zip(run.text, found.em, found.starts, strict=True):
                widths.append(em * size + (spacing if starts else 0.0) + (between if char in WORD_SEPARATORS else 0.0))
        return widths

    def _edges(self, sizes: Sequence[_Sizes]) -> dict[int, float]:
        """What the edges of inline boxes take, by the character that they stand at."""
        found: dict[int, float] = {}
        start = 0
        for run, one in zip(self.runs, sizes, strict=True):
            end = start + len(run.text)
            for at, edge in ((start, value(one.before)), (end - 1, value(one.after))):
                if edge:
                    found[at] = found.get(at, 0.0) + edge
            start = end
        return found

    def _rounded_up(self, widths: Sequence[float]) -> list[tuple[int, int, float]]:
        """Each text that browsers measure by itself, from and up to, and what it takes more to be whole 64ths of a
        px."""
        found, start = [], 0
        for end in self._item_ends:
            if end > start:
                width = sum(widths[start:end])
                found.append((start, end, up_to_64ths(width) - width))
            start = end
        return found

    def _at_line_end(
        self, end: int, widths: Sequence[float], sizes: Sequence[_Sizes], size_of: Callable[[float], float]
    ) -> float:
        """By how much what stands before `end` is wider where a line ends there."""
        start = 0
        for (run, among), (font, spacing, *_) in zip(self._measured, sizes, strict=True):
            last = end - 1 - start
            if last < len(run.text):
                first = last
                while first and not among.clusters[first]:
                    first -= 1
                size = size_of(value(font))
                alone = self._measurer.advances(run.text[first : last + 1], run.type)
                wider = sum(alone.em) * size + sum(alone.starts) * value(spacing) - sum(widths[start + first : end])
                return wider + self._hyphen_em(run.type) * size if run.text[last] == SOFT_HYPHEN else wider
            start += len(run.text)
        return 0.0

    def _hyphen_em(self, kind: Type) -> float:
        """Of what a soft hyphen becomes at a line's end: U+2010 where the first font has it (CSS Text 4, 6.3)."""
        primary = self._measurer.faces.primary(kind.face, kind.weight, kind.italic, kind.stretch)
        hyphen = "\u2010" if primary is not None and 0x2010 in primary.data.characters else "-"
        return sum(self._measurer.advances(hyphen, kind).em)

    def widths(self, viewport: Viewport) -> tuple[Length, Length]:
        """Min-content and max-content, in px."""
        if not self.text:
            return 0.0, 0.0
        parts = self.parts(viewport, 0.0)
        moves = self._parts is None and isinstance(viewport.width, Linear) and _any_moves(self._sizes(viewport, 0.0))
        if moves and isinstance(viewport.width, Linear):
            # Sizes that move each in its own way: as steep as between this width and one beside it, steps left out.
            span, at = viewport.width.span, viewport.width.at
            here, beside = (
                self._at_sizes(self._sizes(Viewport(width, viewport.height), 0.0), float)
                for width in (at, at + _BESIDE_PX)
            )
            return (
                Linear(parts.longest, (beside.longest - here.longest) / _BESIDE_PX, span),
                Linear(parts.whole, (beside.whole - here.whole) / _BESIDE_PX, span),
            )
        unit = self._unit(parts, viewport)
        # A text asks for the next 64th, so three of them may need more than their letters do.
        return in_64ths(parts.longest * unit), in_64ths(parts.whole * unit)

    def lines(self, width: Length, viewport: Viewport) -> Lines:
        """How many lines it takes. Where the width moves, its span ends where that number would change."""
        if not self.text:
            return Lines(0, False)
        parts = self.parts(viewport, width)
        unit = self._unit(parts, viewport)
        room = (value(width) + SLACK_PX) / (value(unit) or 1.0)
        found = filled(parts, room)
        widens = slope_of(width) - slope_of(unit) * room
        if widens:
            threshold = (wider if widens > 0 else narrower)(parts, room, found)
            if threshold is not None:
                # Asked for its sake: the comparison shortens the span.
                _ = width - unit * threshold >= -SLACK_PX
        return found

    def line_starts(self, width: Length, viewport: Viewport) -> list[tuple[int, int]]:
        """First and last part of each line."""
        parts = self.parts(viewport, width)
        unit = self._unit(parts, viewport)
        if isinstance(width, Linear):
            width.span.bends = True
        return list(lines_of(parts, (value(width) + SLACK_PX) / (value(unit) or 1.0)))

    def line_widths(self, width: float, viewport: Viewport) -> list[float]:
        """How far each line reaches in a room, in px, at one width of the viewport."""
        parts = self.parts(viewport, width)
        unit = value(self._unit(parts, viewport))
        lines = lines_of(parts, (width + SLACK_PX) / (unit or 1.0))
        starts = [0.0, *(parts.ends[last] for _, last in lines)]
        return [(parts.seen[last] - start) * unit for (_, last), start in zip(lines, starts, strict=False)]

    def part_of(self, index: int) -> int:
        """Which part a character stands in."""
        return bisect_right(self._breaks, index)
