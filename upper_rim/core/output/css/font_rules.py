"""What CSS brings a site's fonts without anything moving when they arrive?"""

from __future__ import annotations

from collections.abc import Iterator

from ...model.site import Site
from ...style.faces import FontSource, UsedFace, fallback_name, latin_overrides
from ...style.metrics import Override, overrides

ARABIC_RANGE = "U+0600-06FF,U+0750-077F,U+08A0-08FF,U+FB50-FDFF,U+FE70-FEFC"


def font_face_rules(site: Site, used: list[UsedFace], font_url: str) -> Iterator[str]:
    """The faces, and the fallbacks that stand in for them."""
    for face in used:
        for file in face.files:
            yield _face_rule(face, file, font_url)
        for at, pair in enumerate(overrides(face.measures, face.generic, site.text_weight, 700, face.script)):
            for override in pair:
                yield _override_rule(fallback_name(face, at), override, ARABIC_RANGE if face.script == "arabic" else "")
        for at, pair in enumerate(latin_overrides(site, face)):
            for override in pair:
                yield _override_rule(fallback_name(face, at, "latin "), override, "")


def _face_rule(face: UsedFace, file: FontSource, font_url: str) -> str:
    weights = f"{file.lightest}" if file.lightest == file.boldest else f"{file.lightest} {file.boldest}"
    style = "" if file.italic is None else f"font-style:{'italic' if file.italic else 'normal'};"
    if file.narrowest < file.widest:
        style += f"font-stretch:{file.narrowest:g}% {file.widest:g}%;"
    only = f";unicode-range:{file.unicode_range}" if file.unicode_range else ""
    return (
        f'@font-face{{font-family:"{face.family}";src:url("{font_url}{file.name}") format("woff2");'
        f"font-weight:{weights};{style}font-display:swap{only}}}"
    )


def _override_rule(family: str, override: Override, unicode_range: str) -> str:
    local = ",".join(f'local("{name}")' for name in override.local)
    only = f";unicode-range:{unicode_range}" if unicode_range else ""
    return (
        f'@font-face{{font-family:"{family}";src:{local};font-weight:{override.lightest} {override.boldest};'
        f"size-adjust:{override.size_adjust:g}%;ascent-override:{override.ascent:g}%;"
        f"descent-override:{override.descent:g}%;line-gap-override:{override.line_gap:g}%{only}}}"
    )
