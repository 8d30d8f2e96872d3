"""The outline of a piece on the workbench: what stands in it, at rest and in each of its stages."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any, NamedTuple
from urllib.parse import urlencode

from ....core.kinds.moving import ByElement, ByPage, ByPixels, ByViewport, Stage
from ....core.kinds.pieces.base import Piece, ReachRule
from ....core.kinds.rows import Cell, Row
from ....core.model.names import node_name, shared_row
from ....core.model.site import Page, Site
from ....core.model.stages import stages_of
from ..preview.found import Mark
from .for_whom import audience_words


class OutlineLine(NamedTuple):
    """A line of the outline. `cell`, `after`: where what is inserted behind it would come; the cell is empty where
    nothing can."""

    id: str
    name: str
    kind: str
    note: str
    href: str
    shares: str = ""
    mark: Mark | None = None
    cell: str = ""
    after: int = 0

    @property
    def level(self) -> int:
        """Below the piece, which stands at the first."""
        return {"stage": 2, "row": 2, "cell": 3}.get(self.kind, 4)


def outline_of(piece: Piece, site: Site, page: Page | None, marks: Mapping[str, Mark]) -> list[OutlineLine]:
    address = "?" + urlencode({"page": page.path if page else ""}) + "&select="

    def line(node: Any, kind: str, hidden_in: tuple[str, ...] = ()) -> OutlineLine:
        whom = audience_words(node)
        said = [f"for {whom}"] if whom else []
        note = ", ".join([*said, f"not at {_band_names(site, hidden_in)}"] if hidden_in else said)
        return OutlineLine(node.id, node_name(node, site), kind, note, address + node.id, "", marks.get(node.id))

    lines: list[OutlineLine] = []
    stages = stages_of(piece)
    for stage in (None, *stages):
        if stage is not None:
            note = stage_words(stage)
            lines.append(OutlineLine(stage.id, stage.name, "stage", note, address + stage.id))
        for row in (row for row in piece.rows if row.stage == (stage.id if stage else None)):
            if row.shares is not None:
                shared, other = shared_row(site, row.shares)
                own = line(row, "row")._replace(name=shared.name, note=f"of {other.name}", shares=shared.id)
                lines.append(own._replace(mark=marks.get(shared.id)))
                continue
            lines.append(line(row, "row", row.hidden_in))
            for cell in row.cells:
                lines.append(line(cell, "cell")._replace(cell=cell.id))
                items = (line(item, "item", item.hidden_in) for item in cell.items)
                lines += [one._replace(cell=cell.id, after=at + 1) for at, one in enumerate(items)]
    return lines


def _band_names(site: Site, bands: tuple[str, ...]) -> str:
    return ", ".join(band.name for band in site.bands if band.id in bands)


def kind_of(node: Any) -> str:
    match node:
        case Piece():
            return "piece"
        case Row():
            return "row"
        case Cell():
            return "cell"
        case ReachRule():
            return "rule"
        case Stage():
            return "stage"
        case _:
            return "item"


def stage_words(stage: Stage) -> str:
    match stage.after:
        case ByPixels(px=px):
            return f"after {px} px"
        case ByViewport(percent=percent):
            return f"after {percent} % of the window"
        case ByPage(percent=percent):
            return f"after {percent} % of the page"
        case ByElement(selector=selector):
            return f"when {selector} passes"
