"""Which font file draws a character, and how wide does HarfBuzz set a text with it?

The files are the ones that are served. A stretch of text is set in the families in the order in which CSS is told them;
in each, in the files whose `unicode-range` has any of its characters, the one declared last first (CSS Fonts 4, 11.5
and 5.3). Clusters for which a file has no glyphs go on to the next. HarfBuzz itself decides what a glyph can stand in
for: spaces that a font lacks, composed and decomposed letters, characters that show nothing.
"""

from __future__ import annotations

import io
import re
import unicodedata
from collections.abc import Callable, Iterator
from functools import cached_property, lru_cache
from typing import NamedTuple

import uharfbuzz
from fontTools.ttLib import TTFont
from fontTools.unicodedata import script as script_of
from fontTools.unicodedata import script_extension, script_horizontal_direction
from icu4py.breakers import BaseBreaker, CharacterBreaker

from ...style.type.faces import FontSource, UsedFace
from ...style.type.unicode_range import code_points

SCALE = 64
"""Advances are worked out in so many parts of a font unit, so that variations are not rounded."""


class FontData:
    """A font file, read: what HarfBuzz needs, its characters, its vertical measures in em, and how wide its letters
    are on the average, and all of them at most. `unicode_range`: as CSS has it; characters beyond it are not there."""

    def __init__(self, data: bytes, unicode_range: str) -> None:
        self.served = code_points(unicode_range) if unicode_range else None
        self._data = data
        self._fonts: dict[tuple[int, float], uharfbuzz.Font] = {}

    @cached_property
    def _font(self) -> TTFont:
        """Read when it is first asked for: a face may come in a hundred files, of which a text needs two."""
        font = TTFont(io.BytesIO(self._data), lazy=False)
        font.flavor = None
        if self.served is not None:
            for table in font["cmap"].tables:
                if hasattr(table, "cmap"):
                    table.cmap = {point: glyph for point, glyph in table.cmap.items() if point in self.served}
        return font

    @cached_property
    def _face(self) -> uharfbuzz.Face:
        out = io.BytesIO()
        self._font.save(out)
        return uharfbuzz.Face(out.getvalue())

    @cached_property
    def upem(self) -> int:
        return int(self._font["head"].unitsPerEm)

    @cached_property
    def characters(self) -> frozenset[int]:
        return frozenset(self._font.getBestCmap() or ())

    @cached_property
    def axes(self) -> frozenset[str]:
        return frozenset(axis.axisTag for axis in self._font["fvar"].axes) if "fvar" in self._font else frozenset()

    @cached_property
    def _vertical(self) -> tuple[float, float, float]:
        hhea, os2 = self._font["hhea"], self._font["OS/2"]
        if os2.fsSelection & (1 << 7):
            measures = (os2.sTypoAscender, -os2.sTypoDescender, os2.sTypoLineGap)
        else:
            measures = (hhea.ascent, -hhea.descent, hhea.lineGap)
        ascent, descent, gap = (value / self.upem for value in measures)
        return ascent, descent, gap

    @property
    def ascent(self) -> float:
        return self._vertical[0]

    @property
    def descent(self) -> float:
        return self._vertical[1]

    @property
    def line_gap(self) -> float:
        return self._vertical[2]

    @cached_property
    def average(self) -> float:
        return float(self._font["OS/2"].xAvgCharWidth / self.upem)

    @cached_property
    def widest(self) -> float:
        head = self._font["head"]
        return float((head.xMax - head.xMin) / self.upem)

    def read(self) -> None:
        """Ahead of what asks for it."""
        _ = (self._face, self.characters, self.axes, self._vertical)

    def at(self, weight: int, stretch: float) -> uharfbuzz.Font:
        if (weight, stretch) not in self._fonts:
            font = uharfbuzz.Font(self._face)
            font.scale = (self.upem * SCALE, self.upem * SCALE)
            font.set_variations({tag: to for tag, to in {"wght": weight, "wdth": stretch}.items() if tag in self.axes})
            self._fonts[weight, stretch] = font
        return self._fonts[weight, stretch]

    def serves(self, text: str) -> bool:
        """Whether a browser would ask it for any character of the text."""
        return self.served is None or any(ord(char) in self.served for char in text)


@lru_cache(maxsize=512)
def font_data(data: bytes, unicode_range: str) -> FontData:
    return FontData(data, unicode_range)


class Served(NamedTuple):
    """A file of a family."""

    source: FontSource
    data: FontData


class Family(NamedTuple):
    id: str
    files: tuple[Served, ...]


class ChosenFace(NamedTuple):
    """A font file at a weight and a width of letters (in percent) that it has."""

    data: FontData
    weight: int
    stretch: float


class Faces:
    """The faces of a site, as they are served. `read` gives an uploaded font's bytes by its hash."""

    def __init__(self, used: list[UsedFace], read: Callable[[str], bytes] | None) -> None:
        self._read = read
        families = {face.id: Family(face.id, tuple(self._files(face))) for face in used}
        others = [face.id for face in used if face.script != "latin"]
        self._chains = {face: [families[face], *(families[one] for one in others if one != face)] for face in families}
        self._fonts: dict[tuple[str, int, bool, float], tuple[ChosenFace, ...]] = {}

    def _files(self, face: UsedFace) -> list[Served]:
        served = []
        for source in face.files:
            data = source.data if source.data is not None else self._read(source.content or "") if self._read else b""
            if data:
                served.append(Served(source, font_data(data, source.unicode_range)))
        return served

    def primary(self, face: str, weight: int, italic: bool, stretch: float) -> ChosenFace | None:
        """The font that gives a line its ascent and descent: the first available one (CSS Fonts 4, 5.2: the first
        family that serves U+0020)."""
        return next((font for font in self.fonts(face, weight, italic, stretch) if 0x20 in font.data.characters), None)

    def fonts(self, face: str, weight: int, italic: bool, stretch: float) -> tuple[ChosenFace, ...]:
        """What a text is set in, one after the other; what none of them has, some font of the visitor's system
        draws."""
        key = (face, weight, italic, stretch)
        if key not in self._fonts:
            self._fonts[key] = tuple(
                ChosenFace(
                    served.data,
                    min(max(weight, served.source.lightest), served.source.boldest),
                    min(max(stretch, served.source.narrowest), served.source.widest),
                )
                for family in self._chains.get(face, ())
                for served in reversed(_matching(family.files, weight, italic))
            )
        return self._fonts[key]


def _matching(files: tuple[Served, ...], weight: int, italic: bool) -> list[Served]:
    """Those of a family that are nearest in style, then in weight (CSS Fonts 4, 5.2)."""
    slanted = [served for served in files if bool(served.source.italic) == italic] or list(files)

    def distance(served: Served) -> tuple[int, int]:
        lightest, boldest = served.source.lightest, served.source.boldest
        if lightest <= weight <= boldest:
            return (0, 0)
        above, below = lightest - weight, weight - boldest
        if 400 <= weight <= 500:
            first = (0, above) if above > 0 and lightest <= 500 else (1, below) if below > 0 else (2, above)
        elif weight < 400:
            first = (0, below) if below > 0 else (1, above)
        else:
            first = (0, above) if above > 0 else (1, below)
        return (1 + first[0], first[1])

    if not slanted:
        return []
    nearest = min(distance(served) for served in slanted)
    return [served for served in slanted if distance(served) == nearest]


class Advances(NamedTuple):
    """How far each character of a text moves the pen, in em; 0 for those that are part of the one before. `starts`: 1
    where letter spacing is added (after each cluster), if there is any. `clusters`: whether it begins one. `fonts`: what
    draws each; None: no font of the site's. `missing`: what none of them has; its advances are estimates. `ends`: where
    stretches of one script and direction end."""

    em: tuple[float, ...]
    starts: tuple[int, ...]
    clusters: tuple[bool, ...]
    fonts: tuple[ChosenFace | None, ...]
    missing: str
    ends: tuple[int, ...]


UNKNOWN_EM, WIDE_EM = 0.55, 1.0
"""Assumed advance of a character that no face of the site's draws; and of one that is wide (UAX #11), as in Chinese."""
_CURSIVE = frozenset({"Adlm", "Arab", "Mand", "Mong", "Nkoo", "Phag", "Rohg", "Syrc"})
"""Scripts whose letters are joined: browsers space their words only (CSS Text 4, 9.2.3)."""
_NO_LIGATURES = {"liga": False, "clig": False}
_SEPARATORS = "\u2028\u2029"
"""Set as a space (measured, as below)."""
_LIKE = {
    "\u2010": "-",
    "\u2011": "-",
    "\u2012": "–",
    "\u2015": "—",
    "\u2024": ".",
    "\u2025": ":",
    "\u2027": "·",
    "\u2044": "/",
}
"""What stands in for a character where its advance is estimated."""
_UNSPACED = re.compile("[\x00-\x1f\x7f-\x9f\xad\u200b-\u200f\u202a-\u202e\u2060\ufeff\ufffc]")
"""What takes no room of its own gets no letter spacing, either (measured: `tests/browser/test_fit.py`)."""


def advances(
    text: str, faces: Faces, face: str, weight: int, italic: bool, stretch: float, spaced: bool, script: str = ""
) -> Advances:
    """`spaced`: with letter spacing there are no optional ligatures (CSS Text 3, 8.2). `script`: of what stands before
    the text, with which its first stops and spaces go."""
    em = [0.0] * len(text)
    starts = [0] * len(text)
    clusters = [False] * len(text)
    drawn: list[ChosenFace | None] = [None] * len(text)
    points = [0x20 if char in _SEPARATORS else ord(char) for char in text]
    missing = ""
    features = _NO_LIGATURES if spaced else None
    fonts = faces.fonts(face, weight, italic, stretch)
    runs = tuple(_runs(text, script))
    for run in runs:
        spaced_here = _spaced_in(text, run) if spaced else None
        waiting = [(run.start, run.end)]
        for font in fonts:
            lacking: list[tuple[int, int]] = []
            for start, end in waiting:
                if not font.data.serves(text[start:end]):
                    lacking.append((start, end))
                    continue
                for first, last, advance in _shaped(points, start, end, run, font, features):
                    if advance is None:
                        if lacking and lacking[-1][1] == first:
                            lacking[-1] = (lacking[-1][0], last)
                        else:
                            lacking.append((first, last))
                        continue
                    em[first], clusters[first] = advance, True
                    drawn[first:last] = [font] * (last - first)
                    starts[first] = int(spaced_here is not None and spaced_here[first - run.start])
            waiting = lacking
            if not waiting:
                break
        for start, end in waiting:
            missing += text[start:end]
            for first, last in graphemes(text[start:end]):
                at = start + first
                em[at], clusters[at], starts[at] = (
                    _estimated_em(text[at : start + last], faces, fonts, features),
                    True,
                    1,
                )
    ends = tuple(run.end for run in runs)
    return Advances(tuple(em), tuple(starts), tuple(clusters), tuple(drawn), missing, ends)


_CLOSES = {")": "(", "]": "[", "}": "{"}
MOST_OPENED = 32
"""Brackets that browsers keep in mind."""


def _spaced_in(text: str, run: _Run) -> list[bool]:
    """Whether letter spacing is added behind each character of a run. One that only some scripts share (UAX #24, 5.2)
    goes with what follows it where that is one of them, else it is one of theirs by itself; stops and signs go with what
    stands before them, a bracket that closes with the one that it closes."""
    found: list[bool] = []
    opened: list[tuple[str, bool]] = []
    goes_along = run.script not in _CURSIVE
    following: list[str] = []
    for at in range(run.start, run.end):
        char, scripts = text[at], script_extension(text[at])
        if not scripts & _NEUTRAL:
            goes_along = run.script not in _CURSIVE
            if run.script not in scripts:
                following = following or _following(text)
                goes_along = following[at] not in _CURSIVE if following[at] in scripts else not scripts & _CURSIVE
        elif char in _CLOSES.values():
            opened = [*opened[-MOST_OPENED + 1 :], (char, goes_along)]
        elif char in _CLOSES and any(bracket == _CLOSES[char] for bracket, _ in opened):
            bracket = ""
            while bracket != _CLOSES[char]:
                bracket, goes_along = opened.pop()
        found.append(char == " " or (goes_along and not _UNSPACED.match(char)))
    return found


def _following(text: str) -> list[str]:
    """For each character, the script of the first one behind it that has one of its own."""
    found, known = [""] * len(text), ""
    for at in range(len(text) - 1, -1, -1):
        found[at] = known
        script = script_of(text[at])
        known = known if script in _NEUTRAL else script
    return found


def _shaped(
    points: list[int], start: int, end: int, run: _Run, font: ChosenFace, features: dict[str, bool] | None
) -> list[tuple[int, int, float | None]]:
    """Clusters in the order in which they are read: from, up to, and the advance in em; None where the font lacks
    it."""
    buffer = uharfbuzz.Buffer()
    buffer.add_codepoints(points, start, end - start)
    buffer.direction = run.direction[:3]
    buffer.script = run.script
    uharfbuzz.shape(font.data.at(font.weight, font.stretch), buffer, features)
    unit = font.data.upem * SCALE
    found: dict[int, float | None] = {}
    for info, position in zip(buffer.glyph_infos, buffer.glyph_positions, strict=True):
        before = found.get(info.cluster, 0.0)
        found[info.cluster] = None if before is None or info.codepoint == 0 else before + position.x_advance / unit
    firsts = sorted(found)
    return [(first, last, found[first]) for first, last in zip(firsts, [*firsts[1:], end], strict=True)]


def _estimated_em(cluster: str, faces: Faces, fonts: tuple[ChosenFace, ...], features: dict[str, bool] | None) -> float:
    """The advance of a cluster that no font has whole: that of its letter alone, where one has that; marks take no
    room."""
    base = _LIKE.get(cluster[0], cluster[0])
    if unicodedata.category(base) in {"Mn", "Me", "Cf", "Cc"}:
        return 0.0
    if base != cluster[0] or (len(cluster) > 1 and unicodedata.category(cluster[1]) in {"Mn", "Me"}):
        run = next(_runs(base, ""))
        for font in fonts:
            if ord(base) in font.data.characters:
                return sum(advance or 0.0 for _, _, advance in _shaped([ord(base)], 0, 1, run, font, features))
    return WIDE_EM if unicodedata.east_asian_width(base) in {"W", "F"} else UNKNOWN_EM


def utf16_offsets(text: str) -> list[int] | None:
    """For each UTF-16 code unit of a text, the index of the character that begins there; None: they are the same."""
    if text.isascii() or max(text) <= "\uffff":
        return None
    offsets: list[int] = []
    for at, char in enumerate(text):
        offsets += [at, at] if char > "\uffff" else [at]
    return [*offsets, len(text)]


def segments(breaker: BaseBreaker, text: str) -> list[tuple[int, int]]:
    """What an ICU breaker parts a text into, from and up to, in characters: ICU counts UTF-16 code units."""
    offsets = utf16_offsets(text)
    found = [(int(start), int(end)) for start, end in breaker.segments()]
    return found if offsets is None else [(offsets[start], offsets[end]) for start, end in found]


def graphemes(text: str) -> list[tuple[int, int]]:
    """Extended grapheme clusters (UAX #29), from and up to."""
    return segments(CharacterBreaker(text, "und"), text)


class _Run(NamedTuple):
    start: int
    end: int
    script: str
    direction: str


_PARTING = frozenset("\u061c\u200f\u202a\u202b\u202c\u202d\u202e\u2066\u2067\u2068\u2069")
"""What parts a text in two that are shaped each by itself: it may turn the direction."""
_NEUTRAL = frozenset({"Zyyy", "Zinh"})


def last_script(text: str, before: str = "") -> str:
    """The script that what follows a text goes with, where it has none of its own."""
    return next((script for char in reversed(text) if (script := script_of(char)) not in _NEUTRAL), before)


def first_script(text: str) -> str:
    return next((script for char in text if (script := script_of(char)) not in _NEUTRAL), "")


def _runs(text: str, script: str) -> Iterator[_Run]:
    """Stretches of one script and direction. What has no script of its own goes with what stands before it."""
    scripts = [script_of(char) for char in text]
    known = script or next((script for script in scripts if script not in _NEUTRAL), "Latn")
    start, run_of = 0, ("", "")
    for at, char in enumerate(text):
        if scripts[at] not in _NEUTRAL:
            known = scripts[at]
        if scripts[at] == "Zinh" and at:
            continue
        direction = "ltr" if char.isdecimal() else script_horizontal_direction(known, "LTR").lower()
        if char in _PARTING:
            direction = f"{direction} {at}"
        if at and (known, direction) != run_of:
            yield _Run(start, at, *run_of)
            start = at
        run_of = (known, direction)
    if text:
        yield _Run(start, len(text), *run_of)
