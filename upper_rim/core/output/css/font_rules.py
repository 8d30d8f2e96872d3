"""What CSS brings a site's fonts without anything moving when they arrive?"""

from __future__ import annotations

from collections.abc import Iterator

from ...kinds.rule import Rule
from ...model.site import Site
from ...style.type.faces import FontSource, UsedFace, fallback_name, latin_overrides
from ...style.type.metrics import Override, overrides

_RANGES = {
    "arabic": "U+0600-06FF,U+0750-077F,U+08A0-08FF,U+FB50-FDFF,U+FE70-FEFC",
    "greek": "U+0370-03FF,U+1F00-1FFF",
    "cyrillic": "U+0400-052F,U+1C80-1C8F,U+2DE0-2DFF,U+A640-A69F",
    "hebrew": "U+0590-05FF,U+FB1D-FB4F",
}
"""What stands in for a face of one script leaves the others' characters alone."""


def font_face_rules(site: Site, used: list[UsedFace], font_url: str) -> Iterator[Rule]:
    """The faces, and the fallbacks that stand in for them."""
    for face in used:
        for file in face.files:
            yield _face_rule(face, file, font_url)
        for at, pair in enumerate(overrides(face.measures, face.generic, site.text_weight, 700, face.script)):
            for override in pair:
                yield _override_rule(fallback_name(face, at), override, _RANGES.get(face.script, ""))
        for at, pair in enumerate(latin_overrides(site, face)):
            for override in pair:
                yield _override_rule(fallback_name(face, at, "latin "), override, "")


def _face_rule(face: UsedFace, file: FontSource, font_url: str) -> Rule:
    declared = {
        "font-family": f'"{face.family}"',
        "src": f'url("{font_url}{file.name}") format("woff2")',
        "font-weight": f"{file.lightest}" if file.lightest == file.boldest else f"{file.lightest} {file.boldest}",
    }
    if file.italic is not None:
        declared["font-style"] = "italic" if file.italic else "normal"
    if file.narrowest < file.widest:
        declared["font-stretch"] = f"{file.narrowest:g}% {file.widest:g}%"
    return Rule("@font-face", {**declared, "font-display": "swap", **_only(file.unicode_range)})


def _override_rule(family: str, override: Override, unicode_range: str) -> Rule:
    declared = {
        "font-family": f'"{family}"',
        "src": ",".join(f'local("{name}")' for name in override.local),
        "font-weight": f"{override.lightest} {override.boldest}",
        "size-adjust": f"{override.size_adjust:g}%",
        "ascent-override": f"{override.ascent:g}%",
        "descent-override": f"{override.descent:g}%",
        "line-gap-override": f"{override.line_gap:g}%",
    }
    return Rule("@font-face", {**declared, **_only(unicode_range)})


def _only(unicode_range: str) -> dict[str, str]:
    return {"unicode-range": unicode_range} if unicode_range else {}
