"""Can an uploaded font be used, and what of it is published?

A font is read with fontTools from any of WOFF2, WOFF, TrueType or OpenType; what is kept is WOFF2. It is refused where
it is broken, forbids embedding (OpenType `OS/2.fsType`) or says things of itself that its own tables belie.
"""

from __future__ import annotations

import io
import logging
import re
from functools import lru_cache
from typing import NamedTuple

from fontTools import subset
from fontTools.ttLib import TTFont

from ...languages import language_of
from ...model.fonts import Generic, Measures
from .metrics import measures_of, stretches_of, weights_of

LARGEST_FONT = 4_000_000
_REQUIRED = ("cmap", "head", "hhea", "hmtx", "maxp", "name", "OS/2")
_RESTRICTED, _BITMAP_ONLY = 0x0002, 0x0200

logging.getLogger("fontTools").setLevel(logging.ERROR)


class ReadFont(NamedTuple):
    """What an uploaded file turned out to be. `data`: the font as WOFF2."""

    family: str
    generic: Generic
    lightest: int
    boldest: int
    italic: bool
    measures: Measures
    data: bytes
    narrowest: float
    widest: float


class FontFault(NamedTuple):
    """Why a file cannot be used as a font, as a sentence's end."""

    reason: str


def read_font(data: bytes) -> ReadFont | FontFault:
    """The font in an uploaded file, or what is wrong with it."""
    if len(data) > LARGEST_FONT:
        return FontFault(f"it is larger than {LARGEST_FONT // 1_000_000} MB")
    if data[:4] not in {b"wOF2", b"wOFF", b"\0\1\0\0", b"OTTO", b"true"}:
        return FontFault("it is no font: WOFF2, WOFF, TTF or OTF can be read")
    try:
        font = TTFont(io.BytesIO(data), lazy=False, fontNumber=0)
        return _read(font, data)
    except Exception as error:
        return FontFault(f"it is damaged ({type(error).__name__} while its tables were read)")


def _read(font: TTFont, data: bytes) -> ReadFont | FontFault:
    missing = [tag for tag in _REQUIRED if tag not in font]
    if missing:
        return FontFault(f"it is not whole: the table {missing[0]} is missing")
    if "glyf" not in font and "CFF " not in font and "CFF2" not in font:
        return FontFault("it holds no outlines")
    embedding = font["OS/2"].fsType
    if embedding & _RESTRICTED and not embedding & 0x000C:
        return FontFault("its licence bits forbid embedding (OS/2.fsType); ask its maker for a web licence")
    if embedding & _BITMAP_ONLY:
        return FontFault("its licence bits allow bitmaps only (OS/2.fsType)")
    lie = _lie(font)
    if lie:
        return FontFault(f"it says of itself what is not so: {lie}")
    for tag in font.keys():  # noqa: SIM118 - a TTFont is no mapping; every table is read, so that no fault comes later
        font[tag]
    came_as, font.flavor = font.flavor, None
    measures = measures_of(data if came_as is None else _saved(font))
    font.flavor = "woff2"
    packed = data if came_as == "woff2" else _saved(font)
    lightest, boldest = weights_of(font)
    return ReadFont(
        _family(font),
        _generic(font),
        lightest,
        boldest,
        bool(font["OS/2"].fsSelection & 1),
        measures,
        packed,
        *stretches_of(font),
    )


def _lie(font: TTFont) -> str:
    units = font["head"].unitsPerEm
    if not 16 <= units <= 16384:
        return f"{units} units to the em"
    glyphs, counted = font["maxp"].numGlyphs, len(font.getGlyphOrder())
    if glyphs != counted:
        return f"{glyphs} glyphs, where there are {counted}"
    ascent, descent = font["hhea"].ascent, font["hhea"].descent
    if not 0 < ascent - descent <= 5 * units:
        return "an ascent and descent that no letter has"
    cmap = font.getBestCmap()
    if not cmap:
        return "that it has characters, and none is mapped"
    strangers = set(cmap.values()) - set(font.getGlyphOrder())
    if strangers:
        return f"it maps a character to the glyph {min(strangers)}, which is not there"
    if "fvar" in font:
        for axis in font["fvar"].axes:
            if not axis.minValue <= axis.defaultValue <= axis.maxValue:
                runs = f"runs from {axis.minValue:g} to {axis.maxValue:g} and begins at {axis.defaultValue:g}"
                return f"the axis {axis.axisTag} {runs}"
    weight = font["OS/2"].usWeightClass
    if "fvar" not in font and not 1 <= weight <= 1000:
        return f"a weight of {weight}"
    return ""


_WEIGHT_WORDS = re.compile(
    r"(?:\s+(?:Thin|(?:Extra|Ultra|Semi|Demi)?\s?(?:Light|Bold)|Regular|Medium|Black|Heavy))+$", re.IGNORECASE
)
"""A variable font is often named after the weight that it begins with."""


def _family(font: TTFont) -> str:
    names = font["name"]
    for number in (16, 1):
        name = names.getDebugName(number)
        if name:
            plain = str(name).strip()[:100]
            return _WEIGHT_WORDS.sub("", plain) or plain if "fvar" in font else plain
    return "A font without a name"


def _generic(font: TTFont) -> Generic:
    panose = font["OS/2"].panose
    if font["post"].isFixedPitch if "post" in font else panose.bProportion == 9:
        return "monospace"
    if panose.bFamilyType == 2 and 2 <= panose.bSerifStyle <= 10:
        return "serif"
    return "sans-serif"


def _saved(font: TTFont) -> bytes:
    out = io.BytesIO()
    font.save(out)
    return out.getvalue()


_ALWAYS = ((0x0020, 0x024F), (0x1E00, 0x1EFF), (0x2000, 0x206F), (0x20A0, 0x20BF), (0x2100, 0x215F), (0x2190, 0x21FF))


@lru_cache(maxsize=64)
def subset_font(data: bytes, languages: frozenset[str]) -> bytes:
    """The font with the characters of the scripts in use: Latin, and those that the pages' languages need. WOFF2."""
    ranges = [*_ALWAYS, *(block for language in sorted(languages) for block in language_of(language).letters)]
    wanted = {point for start, end in ranges for point in range(start, end + 1)}
    font = TTFont(io.BytesIO(data), lazy=False)
    if set(font.getBestCmap() or ()) <= wanted:
        return data
    return _with_only(font, wanted)


@lru_cache(maxsize=64)
def cut_font(data: bytes, letters: str) -> bytes:
    """The font with these letters alone, in all the shapes that they take beside each other. WOFF2."""
    return _with_only(TTFont(io.BytesIO(data), lazy=False), set(map(ord, letters)))


def _with_only(font: TTFont, wanted: set[int]) -> bytes:
    options = subset.Options()
    options.flavor = "woff2"
    options.layout_features = ["*"]
    options.name_IDs = ["*"]
    options.notdef_outline = True
    maker = subset.Subsetter(options)
    maker.populate(unicodes=wanted)
    maker.subset(font)
    font.flavor = "woff2"
    return _saved(font)
