"""What does a site keep of fonts that were read?"""

from __future__ import annotations

from collections.abc import Sequence

from ...model.fonts import Font, FontFile
from ...style.type.fonts import ReadFont
from .import_pages import digest


def kept_file(found: ReadFont) -> FontFile:
    """Its file as it is kept: the contents by their hash."""
    return FontFile(
        content=digest(found.data),
        size=len(found.data),
        lightest=found.lightest,
        boldest=found.boldest,
        italic=found.italic,
        narrowest=found.narrowest,
        widest=found.widest,
    )


def family_of(font_id: str, name: str, found: Sequence[ReadFont]) -> Font:
    """One family of several files, of each weight and slant the first. The measures are those of the first file."""
    files: dict[tuple[int, int, bool], FontFile] = {}
    for one in found:
        files.setdefault((one.lightest, one.boldest, one.italic), kept_file(one))
    first = found[0]
    return Font(id=font_id, name=name, generic=first.generic, files=tuple(files.values()), measures=first.measures)
