"""Which characters does a font file serve? `unicode-range` (CSS Fonts 4, 4.5)."""

from __future__ import annotations

import re
from collections.abc import Iterable
from functools import lru_cache

from fontTools.unicodedata import script as script_of

_PART = re.compile(r"[Uu]\+(?:([0-9A-Fa-f]+)(?:-([0-9A-Fa-f]+))?|([0-9A-Fa-f]*\?+))")
_COMMON = frozenset({"Zyyy", "Zinh", "Zzzz"})


@lru_cache(maxsize=1024)
def code_points(unicode_range: str) -> frozenset[int]:
    """All that it names; parts that cannot be read name nothing."""
    points: set[int] = set()
    for part in unicode_range.split(","):
        found = _PART.fullmatch(part.strip())
        if found:
            first, last = (found[3].replace("?", digit) if found[3] else "" for digit in "0F")
            points.update(range(int(first or found[1], 16), int(last or found[2] or found[1], 16) + 1))
    return frozenset(points)


@lru_cache(maxsize=1024)
def scripts_served(unicode_range: str) -> frozenset[str]:
    """The scripts of its characters (ISO 15924), without what several share."""
    return scripts_in(map(chr, code_points(unicode_range)))


def scripts_in(characters: Iterable[str]) -> frozenset[str]:
    return frozenset(map(script_of, characters)) - _COMMON
