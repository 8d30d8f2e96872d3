"""Which faces does a site use, and in which order is each of them asked for a character?"""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import dataclass
from typing import NamedTuple

from ...kinds.items.logo import Logo
from ...languages import language_of
from ...model.fonts import Font, Measures
from ...model.site import Site
from ...model.tree import items_of
from ..resolve import styled_in
from .metrics import Override, overrides, width_at


@dataclass(frozen=True)
class FaceFile:
    """One font file of a face: the characters it serves (CSS Fonts 4, `unicode-range`) and its bytes (WOFF2)."""

    name: str
    weights: str
    unicode_range: str
    is_of_script: bool
    data: bytes


@dataclass(frozen=True)
class Face:
    """A font family with the weights that it really has, from lightest to boldest. `only_script`: it has one script alone,
    and helps faces that lack it. `latin_measures`: of its Latin letters, where it is made for another script."""

    id: str
    family: str
    generic: str
    lightest: int
    boldest: int
    script: str
    only_script: bool
    measures: Measures
    latin_measures: Measures | None
    files: tuple[FaceFile, ...]


IN_SLICES = re.compile(r"-\d+-wght-")
"""What names a file of a face with so many letters that it comes in numbered files: of these only the letters in use are
published."""


class FontSource(NamedTuple):
    """One font file as it is published: the weights it really has, and the characters it serves (CSS Fonts 4,
    `unicode-range`; all where empty). `content`: hash of an uploaded one, whose bytes are read when they are needed."""

    name: str
    data: bytes | None
    content: str | None
    lightest: int
    boldest: int
    unicode_range: str = ""
    italic: bool | None = None
    """None: the font does not say."""
    narrowest: float = 100.0
    widest: float = 100.0


class UsedFace(NamedTuple):
    """A face that is in use, shipped or uploaded."""

    id: str
    family: str
    generic: str
    script: str
    measures: Measures
    latin_measures: Measures | None
    files: tuple[FontSource, ...]


def faces_in_use(site: Site, faces: Mapping[str, Face]) -> list[UsedFace]:
    """The faces that something wears, the site's first; and those for the languages that these cannot write."""
    wanted = [site.face, *(value for value in _declared(site) if value != site.face)]
    languages = {site.language, *(page.language for page in site.pages)}
    wanted += sorted({face for language in languages if (face := language_of(language).face)})
    uploaded = {font.id: font for font in site.fonts}
    used: list[UsedFace] = []
    for face in dict.fromkeys(wanted):
        if face in uploaded:
            used.append(_uploaded(site, uploaded[face]))
        elif face in faces:
            used.append(
                _shipped(site, faces[face], only_its_script=faces[face].script != "latin" and face != wanted[0])
            )
    return used


def _declared(site: Site) -> list[str]:
    titled = site.heading_face and any(isinstance(item, Logo) for item in items_of(site.pieces))
    holders = [
        *(node for piece in site.pieces for node in styled_in(piece)),
        *site.looks,
        *site.roles,
        *(role for piece in site.pieces for role in piece.roles),
    ]
    named = [style.value for holder in holders for style in holder.styles if style.property == "font-family"]
    return [site.heading_face, *named] if titled else named


def family_name(site: Site, family: str) -> str:
    """A name that the page's own `@font-face` rules cannot mean."""
    return f"{site.key} {family}"


def _shipped(site: Site, face: Face, *, only_its_script: bool) -> UsedFace:
    """`only_its_script`: as a help for another face, without letters that the other one has."""
    files = tuple(
        FontSource(file.name, file.data, None, *_range(file.weights), file.unicode_range)
        for file in face.files
        if not only_its_script or file.is_of_script
    )
    latin = None if only_its_script else face.latin_measures
    return UsedFace(face.id, family_name(site, face.family), face.generic, face.script, face.measures, latin, files)


def _range(weights: str) -> tuple[int, int]:
    lightest, *more = (int(weight) for weight in weights.split())
    return lightest, more[0] if more else lightest


def _uploaded(site: Site, font: Font) -> UsedFace:
    family = family_name(site, font.name.replace('"', "").replace("\\", ""))
    files = tuple(
        FontSource(
            f"{font.id}-{file.content[:12]}.woff2",
            None,
            file.content,
            file.lightest,
            file.boldest,
            italic=file.italic,
            narrowest=file.narrowest,
            widest=file.widest,
        )
        for file in font.files
    )
    return UsedFace(font.id, family, font.generic, "latin", font.measures, None, files)


def fallback_name(face: UsedFace, at: int, letters: str = "") -> str:
    return f"{face.family} {letters}{at}"


def families(site: Site, used: list[UsedFace]) -> dict[str, str]:
    """For each face in use the list of families that CSS is told, its fallbacks and the site's other scripts
    included."""
    others = [face for face in used if face.script != "latin"]
    listed = {}
    for face in used:
        chain = [face, *(other for other in others if other is not face)]
        names = [f'"{one.family}"' for one in chain]
        # Another script's fallbacks come first: they are kept to its characters, the face's own are not.
        for one in reversed(chain):
            count = sum(1 for _ in overrides(one.measures, one.generic, site.text_weight, 700, one.script))
            names += [f'"{fallback_name(one, at)}"' for at in range(count)]
        names += [f'"{fallback_name(face, at, "latin ")}"' for at in range(len(latin_overrides(site, face)))]
        listed[face.id] = ",".join([*names, "system-ui", face.generic])
    return listed


def latin_overrides(site: Site, face: UsedFace) -> list[tuple[Override, Override]]:
    """The fallbacks for the Latin letters of a face that is made for another script."""
    if face.latin_measures is None:
        return []
    return list(overrides(face.latin_measures, face.generic, site.text_weight))


def character_em(site: Site, faces: Mapping[str, Face]) -> float:
    """Mean advance of the site's face at its weight, in em."""
    font = next((font for font in site.fonts if font.id == site.face), None)
    face = faces.get(site.face)
    measures = font.measures if font else face.measures if face else None
    return width_at(measures, site.text_weight) if measures else 0.5
