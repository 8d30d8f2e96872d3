"""What takes the place of an old part of a page? From what the browser measured to the edit that makes it. The one place to
ask."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from urllib.parse import unquote, urlsplit

from ...fit.rows.fitter import Fitter
from ...model.arrangements.arranging import NewId
from ...model.editing.refusal import Refusal
from ...model.editing.rules import Rules
from ...model.fonts import Font
from ...model.site import Asset, Site
from ...style.type.fonts import FontFault, read_font
from ..imports.import_font import family_of
from ..imports.import_pages import digest
from ..imports.import_picture import Brought as BroughtPicture
from ..imports.import_picture import clean_svg
from .items_like import Brought
from .making import Asked, made_like
from .matching import Matched as Taken
from .matching import matched
from .measured import Measured

__all__ = ["Asked", "Brought", "Taken", "drawings_in", "family_read", "font_files", "take_over"]
MOST_FONT_FILES = 8
"""Of one family."""
DRAWINGS_PATH = "/drawings/"


def take_over(
    site: Site,
    measured: Measured,
    asked: Asked,
    new_id: NewId,
    fitter: Fitter,
    rules: Rules | None,
    brought: Brought,
) -> Taken | Refusal:
    """Raises ValueError, with the reason in words, where there is nothing to begin with."""
    made = made_like(site, measured, asked, new_id, fitter.faces, fitter.brands, brought)
    top = measured.parts[0].rect[1]
    stands_higher = top if asked.slot == "footer" or top > _NEAR_TOP_PX else 0.0
    return matched(site, made, fitter, rules, asked.language, new_id, stands_higher)


_NEAR_TOP_PX = 40
"""What began further down had something above it that stays where it is."""


def drawings_in(measured: Measured) -> Mapping[str, tuple[Asset, bytes]]:
    """Drawings that stand in the page, cleaned, as files of the site, by their source. They are foreign."""
    found: dict[str, tuple[Asset, bytes]] = {}
    for part in measured.parts:
        if not part.drawing or part.drawing in found:
            continue
        cleaned = clean_svg(part.drawing.encode())
        if isinstance(cleaned, BroughtPicture):
            content = digest(cleaned.data)
            asset = Asset(
                id=f"as-{content[:16]}",
                path=f"{DRAWINGS_PATH}{content[:12]}.svg",
                content=content,
                size=len(cleaned.data),
            )
            found[part.drawing] = (asset, cleaned.data)
    return found


def font_files(site: Site, measured: Measured, origin: str) -> dict[str, list[Asset]]:
    """The files of the families that the part asks for first, where they are the site's own; by family in lower case."""
    used = {_first_family(part.styles.get("font-family", "")) for part in measured.parts}
    by_path = {asset.path: asset for asset in site.assets}
    found: dict[str, list[Asset]] = {}
    for face in measured.faces:
        family = face.family.strip("\"' ").lower()
        paths = (unquote(urlsplit(one).path) for one in face.sources if one.startswith(f"{origin}/"))
        asset = next((by_path[path] for path in paths if path in by_path), None)
        if asset is not None and family in used and asset not in (files := found.setdefault(family, [])):
            found[family] = [*files, asset][:MOST_FONT_FILES]
    return found


def _first_family(families: str) -> str:
    return families.split(",")[0].strip().strip("\"'").lower()


def family_read(family: str, font_id: str, files: Sequence[bytes]) -> tuple[Font, list[bytes]] | None:
    """A family of what could be read, and the contents to be kept; None where nothing could. They are foreign."""
    read = [found for data in files if not isinstance(found := read_font(data), FontFault)]
    return (family_of(font_id, family.title(), read), [one.data for one in read]) if read else None
