"""Which font file draws a character, and how wide does HarfBuzz set a text with it?

The files are the ones that are served. A character is asked of the families in the order in which CSS is told them; in
each, of the files whose `unicode-range` has it, the one declared last (CSS Fonts 4, 11.5 and 5.3).
"""

from __future__ import annotations

import io
import re
from collections.abc import Callable
from functools import lru_cache
from typing import NamedTuple

import uharfbuzz
from fontTools.ttLib import TTFont
from fontTools.unicodedata import script as script_of
from fontTools.unicodedata import script_horizontal_direction

from ..style.faces import FontSource, UsedFace

SCALE = 64
"""Advances are worked out in so many parts of a font unit, so that variations are not rounded."""


class FontData:
    """A font file, read: what HarfBuzz needs, its characters, and its vertical measures in em."""

    def __init__(self, data: bytes) -> None:
        font = TTFont(io.BytesIO(data), lazy=False)
        font.flavor = None
        out = io.BytesIO()
        font.save(out)
        self._face = uharfbuzz.Face(out.getvalue())
        self.upem = self._face.upem
        self.characters = frozenset(font.getBestCmap() or ())
        self.axes = frozenset(axis.axisTag for axis in font["fvar"].axes) if "fvar" in font else frozenset()
        hhea, os2 = font["hhea"], font["OS/2"]
        typographic = bool(os2.fsSelection & (1 << 7))
        self.ascent, self.descent, self.line_gap = (
            value / self.upem
            for value in (
                (os2.sTypoAscender, -os2.sTypoDescender, os2.sTypoLineGap)
                if typographic
                else (hhea.ascent, -hhea.descent, hhea.lineGap)
            )
        )
        self._fonts: dict[tuple[int, float], uharfbuzz.Font] = {}

    def at(self, weight: int, stretch: float) -> uharfbuzz.Font:
        if (weight, stretch) not in self._fonts:
            font = uharfbuzz.Font(self._face)
            font.scale = (self.upem * SCALE, self.upem * SCALE)
            font.set_variations({tag: to for tag, to in {"wght": weight, "wdth": stretch}.items() if tag in self.axes})
            self._fonts[weight, stretch] = font
        return self._fonts[weight, stretch]


@lru_cache(maxsize=64)
def font_data(data: bytes) -> FontData:
    return FontData(data)


class Served(NamedTuple):
    """A file of a family, and the characters it is asked for."""

    source: FontSource
    data: FontData
    characters: frozenset[int]


class Family(NamedTuple):
    id: str
    files: tuple[Served, ...]


class Chosen(NamedTuple):
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
        self._found: dict[tuple[str, int, bool, float, int], Chosen | None] = {}

    def _files(self, face: UsedFace) -> list[Served]:
        served = []
        for source in face.files:
            data = source.data if source.data is not None else self._read(source.content or "") if self._read else b""
            if data:
                font = font_data(data)
                served.append(Served(source, font, font.characters & _characters(source.unicode_range, font)))
        return served

    def primary(self, face: str, weight: int, italic: bool, stretch: float) -> Chosen | None:
        """The font that gives a line its ascent and descent: the first available one (CSS Fonts 4, 5.2: the first
        family that serves U+0020)."""
        return self.font(face, weight, italic, stretch, " ")

    def font(self, face: str, weight: int, italic: bool, stretch: float, char: str) -> Chosen | None:
        """None: no face of the site's draws this character; some font of the visitor's system does."""
        key = (face, weight, italic, stretch, ord(char))
        if key not in self._found:
            self._found[key] = self._search(*key)
        return self._found[key]

    def _search(self, face: str, weight: int, italic: bool, stretch: float, point: int) -> Chosen | None:
        for family in self._chains.get(face, ()):
            matching = _matching(family.files, weight, italic)
            for served in reversed(matching):
                if point in served.characters:
                    source = served.source
                    return Chosen(
                        served.data,
                        min(max(weight, source.lightest), source.boldest),
                        min(max(stretch, source.narrowest), source.widest),
                    )
        return None


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


def _characters(unicode_range: str, font: FontData) -> frozenset[int]:
    if not unicode_range:
        return font.characters
    return _ranged(unicode_range)


@lru_cache(maxsize=256)
def _ranged(unicode_range: str) -> frozenset[int]:
    points: set[int] = set()
    for part in unicode_range.split(","):
        found = re.fullmatch(r"[Uu]\+([0-9A-Fa-f]+)(?:-([0-9A-Fa-f]+))?", part.strip())
        if found:
            start = int(found[1], 16)
            points.update(range(start, int(found[2] or found[1], 16) + 1))
    return frozenset(points)


class Advances(NamedTuple):
    """How far each character of a text moves the pen, in em; 0 for those that are part of the one before. `starts`: 1
    where letter spacing is added (after each cluster). `fonts`: what draws each; None: no font of the site's."""

    em: tuple[float, ...]
    starts: tuple[int, ...]
    fonts: tuple[Chosen | None, ...]
    missing: str


UNKNOWN_EM = 0.55
"""Assumed advance of a character that no face of the site's draws."""
_CURSIVE = frozenset({"Adlm", "Arab", "Mand", "Mong", "Nkoo", "Phag", "Rohg", "Syrc"})
"""Scripts whose letters are joined: browsers space their words only (CSS Text 4, 9.2.3)."""
_NO_LIGATURES = {"liga": False, "clig": False}


def advances(
    text: str, faces: Faces, face: str, weight: int, italic: bool, stretch: float, spaced: bool, script: str = ""
) -> Advances:
    """`spaced`: with letter spacing there are no optional ligatures (CSS Text 3, 8.2). `script`: of what stands before the
    text, with which its first stops and spaces go."""
    em = [0.0] * len(text)
    starts = [0] * len(text)
    fonts: list[Chosen | None] = []
    missing = ""
    features = _NO_LIGATURES if spaced else None
    for run in _runs(text, faces, face, weight, italic, stretch, script):
        fonts += [run.font] * (run.end - run.start)
        if run.font is None:
            for at in range(run.start, run.end):
                em[at], starts[at] = UNKNOWN_EM, 1
            missing += text[run.start : run.end].strip()
            continue
        buffer = uharfbuzz.Buffer()
        buffer.add_codepoints([ord(char) for char in text[run.start : run.end]])
        buffer.direction = run.direction
        buffer.script = run.script
        uharfbuzz.shape(run.font.data.at(run.font.weight, run.font.stretch), buffer, features)
        unit = run.font.data.upem * SCALE
        for info, position in zip(buffer.glyph_infos, buffer.glyph_positions, strict=True):
            em[run.start + info.cluster] += position.x_advance / unit
            spaced_out = run.script not in _CURSIVE or text[run.start + info.cluster] == " "
            starts[run.start + info.cluster] = 1 if spaced_out else 0
    return Advances(tuple(em), tuple(starts), tuple(fonts), missing)


class _Run(NamedTuple):
    start: int
    end: int
    font: Chosen | None
    script: str
    direction: str


_NEUTRAL = frozenset({"Zyyy", "Zinh"})


def last_script(text: str, before: str = "") -> str:
    """The script that what follows a text goes with, where it has none of its own."""
    return next((script for char in reversed(text) if (script := script_of(char)) not in _NEUTRAL), before)


def _runs(text: str, faces: Faces, face: str, weight: int, italic: bool, stretch: float, script: str) -> list[_Run]:
    """Stretches of one font, script and direction. What has no script of its own goes with what stands before it."""
    scripts = [script_of(char) for char in text]
    known = script or next((script for script in scripts if script not in _NEUTRAL), "Latn")
    runs: list[_Run] = []
    for at, char in enumerate(text):
        if scripts[at] not in _NEUTRAL:
            known = scripts[at]
        direction = "ltr" if char.isdecimal() else script_horizontal_direction(known, "LTR").lower()
        font = runs[-1].font if runs and scripts[at] == "Zinh" else faces.font(face, weight, italic, stretch, char)
        last = runs[-1] if runs else None
        if last is not None and (last.font, last.script, last.direction) == (font, known, direction):
            runs[-1] = last._replace(end=at + 1)
        else:
            runs.append(_Run(at, at + 1, font, known, direction))
    return runs
