"""Are the pictures that pieces show as large as they are shown, and no heavier than they need be?"""

from __future__ import annotations

from collections.abc import Iterator

from ...kinds.items.picture import PictureItem
from ...model.site import Site
from ...model.tree import walk
from ...style.paint.pictures import Pictures
from ..finding import Finding

HEAVY_BYTES = 600_000
"""Of one picture: at 1.6 Mbit/s, which is a slow phone's, three seconds."""
HEAVY_PAGE_BYTES = 1_500_000
"""Of all pictures that the pieces of the site show."""


def in_files(site: Site, pictures: Pictures) -> Iterator[Finding]:
    sizes = {asset.path: asset.size for asset in site.assets}
    shown: dict[str, str] = {}
    for piece in site.pieces:
        if not piece.on:
            continue
        for node in walk(piece):
            path = getattr(node, "picture", None)
            if not isinstance(path, str) or path not in sizes:
                continue
            if sizes[path] > HEAVY_BYTES and path not in shown:
                yield Finding(
                    "heavy picture", node.id, about={"path": path, "kilobytes": sizes[path] / 1000, "field": "picture"}
                )
            shown.setdefault(path, node.id)
            if isinstance(node, PictureItem):
                yield from _small(node, path, pictures)
    whole = sum(sizes[path] for path in shown)
    if whole > HEAVY_PAGE_BYTES:
        heaviest = max(shown, key=lambda path: sizes[path])
        about: dict[str, float | str] = {"kilobytes": whole / 1000, "path": heaviest, "count": len(shown)}
        yield Finding("heavy pieces", shown[heaviest], about=about)


def _small(item: PictureItem, path: str, pictures: Pictures) -> Iterator[Finding]:
    """A picture that has to be made larger looks blurred. Drawings have no size of their own."""
    if path.lower().endswith(".svg"):
        return
    picture = pictures(path)
    if picture is not None and 0 < picture.width < item.width_px:
        about: dict[str, float | str] = {
            "path": path,
            "px": picture.width,
            "asked_px": item.width_px,
            "field": "picture",
        }
        yield Finding("small picture", item.id, about=about)
