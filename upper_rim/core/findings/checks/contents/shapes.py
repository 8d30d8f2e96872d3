"""On which pages can pieces not do what they are made for?"""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from ....model.site import Page, Site
from ....model.tree import ROOT
from ...finding import Finding, FindingKind, SeenAt


def in_shapes(site: Site) -> Iterator[Finding]:
    """Those that phones make small, that take no pieces, or that are left as they are though pieces do not hold there."""
    unscaled = [page for page in site.pages if page.splice is not None and page.splice.unscaled]
    if unscaled and not site.viewport:
        yield _told("no viewport", unscaled)
    closed = [page for page in site.pages if page.content is not None and page.splice is None]
    if closed:
        yield _told("takes no pieces", closed)
    unsaid = [page for page in site.pages if page.likely]
    if unsaid:
        yield _told("no language", unsaid)
    left = {shape.id for shape in site.shapes if not shape.on and (shape.is_shell or shape.clips or shape.at_edges)}
    by_shape: dict[str, list[Page]] = {}
    for page in site.pages:
        if page.shape in left and page.shape is not None:
            by_shape.setdefault(page.shape, []).append(page)
    for shape, pages in by_shape.items():
        yield _told("left as it is", pages)._replace(other=shape)


def _told(kind: FindingKind, pages: Sequence[Page]) -> Finding:
    about: dict[str, float | str] = {"count": len(pages), "path": pages[0].path, "first": pages[0].remark}
    return Finding(kind, ROOT, about=about, place=SeenAt(page=pages[0].id))
