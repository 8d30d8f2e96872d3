"""Are the pictures that pieces show as large as they are shown, and no heavier than they need be? What do pieces add to a
page?"""

from __future__ import annotations

from collections.abc import Iterator, Mapping

from ....kinds.items.picture import PictureItem
from ....model.site import Page, Site
from ....model.tree import walk
from ....reach.coverage import Coverage
from ....style.paint.pictures import Pictures
from ...finding import Finding, SeenAt

HEAVY_BYTES = 600_000
"""Of one picture: at 1.6 Mbit/s, which is a slow phone's, three seconds."""
HEAVY_PAGE_BYTES = 1_500_000
"""Of all pictures that the pieces of one page show, and of the fonts that they are set in."""


def in_files(site: Site, pictures: Pictures, coverage: Coverage) -> Iterator[Finding]:
    sizes = {asset.path: asset.size for asset in site.assets}
    shown: dict[str, dict[str, str]] = {}
    told: set[str] = set()
    for piece in site.pieces:
        if not piece.on:
            continue
        shown[piece.id] = {}
        for node in walk(piece):
            path = getattr(node, "picture", None)
            if not isinstance(path, str) or path not in sizes:
                continue
            if sizes[path] > HEAVY_BYTES and path not in told:
                told.add(path)
                yield Finding(
                    "heavy picture", node.id, about={"path": path, "kilobytes": sizes[path] / 1000, "field": "picture"}
                )
            shown[piece.id].setdefault(path, node.id)
            if isinstance(node, PictureItem):
                yield from _small(node, path, pictures)
    everything = {path for paths in shown.values() for path in paths}
    if sum(sizes[path] for path in everything) + _fonts(site) > HEAVY_PAGE_BYTES:
        yield from _heaviest(site, coverage, shown, sizes)


def _heaviest(
    site: Site, coverage: Coverage, shown: Mapping[str, Mapping[str, str]], sizes: Mapping[str, int]
) -> Iterator[Finding]:
    """The page to which its pieces add the most."""
    worst: tuple[int, Page, dict[str, str]] | None = None
    for page, _ in coverage.kinds_of_pages():
        there = {path: node for piece in coverage.pieces_on(page) for path, node in shown.get(piece, {}).items()}
        whole = _fonts(site) + sum(sizes[path] for path in there)
        if there and (worst is None or whole > worst[0]):
            worst = whole, page, there
    if worst is not None and worst[0] > HEAVY_PAGE_BYTES:
        whole, page, there = worst
        heaviest = max(there, key=lambda path: sizes[path])
        about: dict[str, float | str] = {"kilobytes": whole / 1000, "path": page.path, "first": heaviest}
        yield Finding("heavy pieces", there[heaviest], about=about, place=SeenAt(page=page.id))


def _fonts(site: Site) -> int:
    """Of each family that texts and headings are set in, its largest file: about what a page fetches of it."""
    families = {site.face, site.heading_face}
    return sum(max((file.size for file in font.files), default=0) for font in site.fonts if font.id in families)


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
