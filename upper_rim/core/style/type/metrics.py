"""How wide and tall is a font's text, and which fallback stands in for it so that nothing moves when it arrives?

A fallback is a font that the visitor's system has, scaled until its running text is as wide as the face's, with the
face's ascent, descent and line gap put over its own (CSS Fonts 5, 4.9 and 4.10).
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from io import BytesIO
from typing import NamedTuple

import uharfbuzz
from fontTools.ttLib import TTFont

from ...model.fonts import Measures

SAMPLES: dict[str, str] = {
    "latin": "The winter boats leave the quay at seven and come back before the lamps are lit. Bring a coat, a book and something warm for the crossing; tickets, timetable and harbour news are on the board.",
    "greek": "Τα χειμωνιάτικα πλοία φεύγουν από την αποβάθρα στις επτά και γυρίζουν πριν ανάψουν τα φώτα. Φέρτε παλτό, ένα βιβλίο και κάτι ζεστό",
    "cyrillic": "Зимние суда уходят от причала в семь и возвращаются, пока не зажгли фонари. Возьмите пальто, книгу и что-нибудь тёплое для переправы",
    "hebrew": "סירות החורף עוזבות את הרציף בשבע וחוזרות לפני שהמנורות נדלקות. הביאו מעיל, ספר ומשהו חם להפלגה",
    "devanagari": "सर्दियों की नावें सात बजे घाट से चलती हैं और दीये जलने से पहले लौट आती हैं। एक कोट, एक किताब और कुछ गरम साथ लाएँ",
    "thai": "เรือฤดูหนาวออกจากท่าเวลาเจ็ดโมงและกลับมาก่อนจุดตะเกียง นำเสื้อคลุม หนังสือ และของอุ่นสำหรับการเดินทาง",
    "japanese": "の",
    "korean": "이",
    "chinese": "的",
    "arabic": "تغادر قوارب الشتاء الرصيف في السابعة وتعود قبل أن تضاء المصابيح. أحضر معك معطفا وكتابا وشيئا دافئا للعبور",
}
MEASURED_WEIGHTS = (300, 400, 450, 500, 600, 700, 800)


class Fallback(NamedTuple):
    """Fonts of equal metrics that systems have, and their mean advances in em, plain and bold, by script."""

    plain: tuple[str, ...]
    bold: tuple[str, ...]
    advances: Mapping[str, tuple[float, float]]


FALLBACKS: dict[str, tuple[Fallback, ...]] = {
    "sans-serif": (
        Fallback(("Arial", "Liberation Sans", "Helvetica", "Arimo"), ("Arial Bold", "Liberation Sans Bold", "Helvetica Bold", "Arimo Bold"), {"latin": (0.4482, 0.481), "greek": (0.4716, 0.5091), "cyrillic": (0.5124, 0.5501), "hebrew": (0.4829, 0.518)}),
        Fallback(("Roboto",), ("Roboto Bold",), {"latin": (0.4463, 0.4523), "greek": (0.4857, 0.4941), "cyrillic": (0.5101, 0.5144)}),
        Fallback(("DejaVu Sans",), ("DejaVu Sans Bold",), {"latin": (0.5118, 0.5773), "greek": (0.5365, 0.6), "cyrillic": (0.5745, 0.6298), "hebrew": (0.4865, 0.53), "arabic": (0.4413, 0.5271)}),
    ),
    "serif": (
        Fallback(("Times New Roman", "Liberation Serif", "Tinos"), ("Times New Roman Bold", "Liberation Serif Bold", "Tinos Bold"), {"latin": (0.4028, 0.43), "greek": (0.4346, 0.4584), "cyrillic": (0.4666, 0.4971), "hebrew": (0.4382, 0.4397)}),
        Fallback(("Noto Serif",), ("Noto Serif Bold",), {"latin": (0.4808, 0.5107), "greek": (0.4936, 0.5239), "cyrillic": (0.5524, 0.5715)}),
        Fallback(("DejaVu Serif",), ("DejaVu Serif Bold",), {"latin": (0.5171, 0.5702), "greek": (0.5465, 0.6266), "cyrillic": (0.57, 0.6371), "arabic": (0.5517, 0.5569)}),
    ),
    "monospace": (
        Fallback(("Courier New", "Liberation Mono", "Cousine"), ("Courier New Bold", "Liberation Mono Bold", "Cousine Bold"), {"latin": (0.6001, 0.6001), "greek": (0.6001, 0.6001), "cyrillic": (0.6001, 0.6001), "hebrew": (0.6001, 0.6001)}),
        Fallback(("Roboto Mono",), ("Roboto Mono Bold",), {"latin": (0.6001, 0.6001), "greek": (0.6001, 0.6001), "cyrillic": (0.6001, 0.6001)}),
        Fallback(("DejaVu Sans Mono",), ("DejaVu Sans Mono Bold",), {"latin": (0.6021, 0.6021), "greek": (0.6021, 0.6021), "cyrillic": (0.6021, 0.6021), "arabic": (0.6021, 0.6021)}),
    ),
}  # fmt: skip
"""By generic family, in the order in which they are looked for. Measured on fonts of equal metrics."""

BOLD_FROM = 600
"""From this weight on, the bold fallback stands in."""


class Override(NamedTuple):
    """One `@font-face` of a fallback: whose place it takes at which weights, and its descriptors, in percent."""

    local: tuple[str, ...]
    lightest: int
    boldest: int
    size_adjust: float
    ascent: float
    descent: float
    line_gap: float


def overrides(
    measures: Measures, generic: str, weight: int, bold: int = 700, script: str = "latin"
) -> Iterator[tuple[Override, Override]]:
    """For each fallback that stands in for a face: its plain and its bold form. `weight`: that of running text."""
    for fallback in FALLBACKS[generic]:
        advances = fallback.advances.get(script)
        if advances is not None:
            yield (
                _override(measures, fallback.plain, 1, BOLD_FROM - 1, width_at(measures, weight) / advances[0]),
                _override(measures, fallback.bold, BOLD_FROM, 1000, width_at(measures, bold) / advances[1]),
            )


def _override(measures: Measures, local: tuple[str, ...], lightest: int, boldest: int, scaled: float) -> Override:
    return Override(
        local,
        lightest,
        boldest,
        round(100 * scaled, 2),
        round(100 * measures.ascent / scaled, 2),
        round(100 * measures.descent / scaled, 2),
        round(100 * measures.line_gap / scaled, 2),
    )


def measures_of(data: bytes, script: str = "latin") -> Measures:
    """Measures of a font file (SFNT, no WOFF2), at each weight that it has."""
    table = TTFont(BytesIO(data), lazy=True)
    units = table["head"].unitsPerEm
    hhea, os2 = table["hhea"], table["OS/2"]
    typographic = bool(os2.fsSelection & (1 << 7))
    ascent, descent, gap = (
        (os2.sTypoAscender, -os2.sTypoDescender, os2.sTypoLineGap)
        if typographic
        else (hhea.ascent, -hhea.descent, hhea.lineGap)
    )
    lightest, boldest = weights_of(table)
    weights = [weight for weight in MEASURED_WEIGHTS if lightest <= weight <= boldest] or [lightest]
    return Measures(
        ascent=round(ascent / units, 4),
        descent=round(descent / units, 4),
        line_gap=round(max(0, gap) / units, 4),
        widths=tuple((weight, mean_advance(data, weight, script)) for weight in weights),
    )


def weights_of(font: TTFont) -> tuple[int, int]:
    """The weights that a font really has: the range of its `wght` axis, or the one that OS/2 names."""
    if "fvar" in font:
        for axis in font["fvar"].axes:
            if axis.axisTag == "wght":
                return round(axis.minValue), round(axis.maxValue)
    weight = min(1000, max(1, int(font["OS/2"].usWeightClass)))
    return weight, weight


def stretches_of(font: TTFont) -> tuple[float, float]:
    """The widths of letters that a font really has, in percent: the range of its `wdth` axis."""
    axis = next((axis for axis in font["fvar"].axes if axis.axisTag == "wdth"), None) if "fvar" in font else None
    return (max(50.0, axis.minValue), min(200.0, axis.maxValue)) if axis else (100.0, 100.0)


def mean_advance(data: bytes, weight: int, script: str = "latin") -> float:
    """Mean advance of a character of running text, in em."""
    face = uharfbuzz.Face(data)
    font = uharfbuzz.Font(face)
    font.set_variations({"wght": weight})
    buffer = uharfbuzz.Buffer()
    buffer.add_str(SAMPLES[script])
    buffer.guess_segment_properties()
    uharfbuzz.shape(font, buffer)
    advance = sum(position.x_advance for position in buffer.glyph_positions)
    return round(float(advance / face.upem / len(SAMPLES[script])), 4)


def width_at(measures: Measures, weight: int) -> float:
    """Mean advance at a weight, between the measured ones by proportion."""
    before = measures.widths[0]
    for after in measures.widths:
        if after[0] >= weight:
            share = (weight - before[0]) / (after[0] - before[0]) if after[0] > before[0] else 0.0
            return before[1] + (after[1] - before[1]) * max(0.0, share)
        before = after
    return before[1]
