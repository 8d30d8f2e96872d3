"""What ships with the application and goes into published sites: faces, icons, the script, the base CSS.

The core reads no files: the shell loads a shelf (`upper_rim.shipped`) and passes it in.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from ..model.fonts import Measures
from ..model.site import Site
from ..style.metrics import width_at
from .brands import Brands


@dataclass(frozen=True)
class FaceFile:
    """One font file of a face: the characters it serves (CSS Fonts 4, `unicode-range`) and its bytes (WOFF2)."""

    name: str
    weights: str
    unicode_range: str
    data: bytes


@dataclass(frozen=True)
class Face:
    """A font family with the weights that it really has, from lightest to boldest. `latin_measures`: of its Latin
    letters, where it is made for another script."""

    id: str
    family: str
    generic: str
    lightest: int
    boldest: int
    script: str
    measures: Measures
    latin_measures: Measures | None
    files: tuple[FaceFile, ...]


@dataclass(frozen=True)
class Shelf:
    """`scripts`: `rim` for what most pieces share, the others by kind of item; `item_css` likewise, `hint` besides."""

    faces: Mapping[str, Face]
    icons: Mapping[str, str]
    brands: Brands
    scripts: Mapping[str, bytes]
    notice_script: str
    pieces_css: str
    drawer_css: str
    item_css: Mapping[str, str]


def character_em(site: Site, shelf: Shelf) -> float:
    """Mean advance of the site's face at its weight, in em."""
    font = next((font for font in site.fonts if font.id == site.face), None)
    face = shelf.faces.get(site.face)
    measures = font.measures if font else face.measures if face else None
    return width_at(measures, site.text_weight) if measures else 0.5
