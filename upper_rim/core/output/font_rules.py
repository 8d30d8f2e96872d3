"""Which fonts does a site publish, and what CSS brings them without anything moving when they arrive?"""

from __future__ import annotations

from collections.abc import Iterator
from typing import NamedTuple

from ..model.fonts import Font, Measures
from ..model.site import Site
from ..style.metrics import Override, overrides
from ..style.resolve import Styling
from .shelf import Face, Shelf

ARABIC_FACE = "noto-sans-arabic"
ARABIC_RANGE = "U+0600-06FF,U+0750-077F,U+08A0-08FF,U+FB50-FDFF,U+FE70-FEFC"
ARABIC_LANGUAGES = frozenset({"ar", "fa", "ur", "ps", "ug"})


class FontSource(NamedTuple):
    """One font file as it is published. `content`: hash of an uploaded one, whose bytes are read when they are needed."""

    name: str
    data: bytes | None
    content: str | None


class UsedFace(NamedTuple):
    """A face that is in use, shipped or uploaded."""

    id: str
    family: str
    generic: str
    script: str
    measures: Measures
    latin_measures: Measures | None
    rules: tuple[str, ...]
    files: tuple[FontSource, ...]


def faces_in_use(site: Site, shelf: Shelf, styling: Styling) -> list[UsedFace]:
    """The faces that something wears, the site's first; and one for the languages that these cannot write."""
    wanted = [site.face, *(value for value in _declared(site, styling) if value != site.face)]
    languages = {page.language.split("-")[0] for page in site.pages} | {site.language.split("-")[0]}
    if languages & ARABIC_LANGUAGES:
        wanted.append(ARABIC_FACE)
    uploaded = {font.id: font for font in site.fonts}
    used: list[UsedFace] = []
    for face in dict.fromkeys(wanted):
        if face in uploaded:
            used.append(_uploaded(site, uploaded[face]))
        elif face in shelf.faces:
            used.append(_shipped(site, shelf.faces[face], only_its_script=face == ARABIC_FACE != wanted[0]))
    return used


def _declared(site: Site, styling: Styling) -> list[str]:
    if site.heading_face and any(element.role == "title" for element in styling.elements.values()):
        named = [site.heading_face]
    else:
        named = []
    holders = [
        *styling.holders.values(),
        *site.looks,
        *site.roles,
        *(role for piece in site.pieces for role in piece.roles),
    ]
    return named + [style.value for holder in holders for style in holder.styles if style.property == "font-family"]


def family_name(site: Site, family: str) -> str:
    """A name that the page's own `@font-face` rules cannot mean."""
    return f"{site.key} {family}"


def _shipped(site: Site, face: Face, *, only_its_script: bool) -> UsedFace:
    """`only_its_script`: as a help for another face, without letters that the other one has."""
    its_files = [file for file in face.files if not only_its_script or f"-{face.script}-" in file.name]
    family = family_name(site, face.family)
    rules = tuple(
        f'@font-face{{font-family:"{family}";src:url("{{}}{file.name}") format("woff2");'
        f"font-weight:{file.weights};font-display:swap;unicode-range:{file.unicode_range}}}"
        for file in its_files
    )
    files = tuple(FontSource(file.name, file.data, None) for file in its_files)
    latin = None if only_its_script else face.latin_measures
    return UsedFace(face.id, family, face.generic, face.script, face.measures, latin, rules, files)


def _uploaded(site: Site, font: Font) -> UsedFace:
    family = family_name(site, font.name.replace('"', "").replace("\\", ""))
    files, rules = [], []
    for file in font.files:
        name = f"{font.id}-{file.content[:12]}.woff2"
        weights = f"{file.lightest}" if file.lightest == file.boldest else f"{file.lightest} {file.boldest}"
        style = "italic" if file.italic else "normal"
        files.append(FontSource(name, None, file.content))
        rules.append(
            f'@font-face{{font-family:"{family}";src:url("{{}}{name}") format("woff2");'
            f"font-weight:{weights};font-style:{style};font-display:swap}}"
        )
    return UsedFace(font.id, family, font.generic, "latin", font.measures, None, tuple(rules), tuple(files))


def font_face_rules(site: Site, used: list[UsedFace], font_url: str) -> Iterator[str]:
    """The faces, and the fallbacks that stand in for them."""
    for face in used:
        for rule in face.rules:
            yield rule.replace("{}", font_url, 1)
        for at, pair in enumerate(overrides(face.measures, face.generic, site.text_weight, 700, face.script)):
            for override in pair:
                yield _override_rule(
                    _fallback_name(face, at), override, ARABIC_RANGE if face.script == "arabic" else ""
                )
        for at, pair in enumerate(_latin_overrides(site, face)):
            for override in pair:
                yield _override_rule(_fallback_name(face, at, "latin "), override, "")


def _override_rule(family: str, override: Override, unicode_range: str) -> str:
    local = ",".join(f'local("{name}")' for name in override.local)
    only = f";unicode-range:{unicode_range}" if unicode_range else ""
    return (
        f'@font-face{{font-family:"{family}";src:{local};font-weight:{override.lightest} {override.boldest};'
        f"size-adjust:{override.size_adjust:g}%;ascent-override:{override.ascent:g}%;"
        f"descent-override:{override.descent:g}%;line-gap-override:{override.line_gap:g}%{only}}}"
    )


def _latin_overrides(site: Site, face: UsedFace) -> list[tuple[Override, Override]]:
    """The fallbacks for the Latin letters of a face that is made for another script."""
    if face.latin_measures is None:
        return []
    return list(overrides(face.latin_measures, face.generic, site.text_weight))


def _fallback_name(face: UsedFace, at: int, letters: str = "") -> str:
    return f"{face.family} {letters}{at}"


def families(site: Site, used: list[UsedFace]) -> dict[str, str]:
    """For each face in use the list of families that CSS is told, its fallbacks and the site's other scripts included."""
    others = [face for face in used if face.script != "latin"]
    listed = {}
    for face in used:
        chain = [face, *(other for other in others if other is not face)]
        names = [f'"{one.family}"' for one in chain]
        # Another script's fallbacks come first: they are kept to its characters, the face's own are not.
        for one in reversed(chain):
            count = sum(1 for _ in overrides(one.measures, one.generic, site.text_weight, 700, one.script))
            names += [f'"{_fallback_name(one, at)}"' for at in range(count)]
        names += [f'"{_fallback_name(face, at, "latin ")}"' for at in range(len(_latin_overrides(site, face)))]
        listed[face.id] = ",".join([*names, "system-ui", face.generic])
    return listed
