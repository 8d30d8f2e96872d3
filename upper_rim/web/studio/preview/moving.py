"""What is seen of movement on the workbench: the scroll ruler, what limits a stage, and what is found fault with."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from functools import cached_property
from math import inf
from typing import Any, NamedTuple

from django.http import HttpRequest

from ....core.findings.checks.laid_out.movement import in_movement
from ....core.findings.finding import Finding
from ....core.findings.severity import Severity, severity_of
from ....core.findings.words import finding_words
from ....core.fit.css.amount import Viewport
from ....core.fit.rows.fitter import Fitter
from ....core.kinds.moving import ByPixels, Stage
from ....core.kinds.pieces.base import Piece
from ....core.model.editing.edits import Set, edit_adapter
from ....core.model.names import node_name
from ....core.model.site import Page, Site
from ....core.model.stages import names_in, stages_of
from ....core.model.tree import find
from ....core.movement.heights import heights
from ....core.movement.limits import Limit, Offer, limits
from ....core.movement.scene import Body, Scene, Scenes, Shape
from ....core.output.fitting import estimated_shape
from ...sites import contents
from ..cycle.regions import SHAPE
from ..forms.numbers import whole_number

USUAL_HIGH = 640


@dataclass(frozen=True)
class Looked:
    """A page as it is looked through: the scenes of its site, the viewport, and what its content is like. `measured`:
    by the stage; otherwise its height is an estimate."""

    scenes: Scenes
    page: Page
    viewport_px: tuple[int, int]
    shape: Shape
    measured: bool

    @cached_property
    def scene(self) -> Scene:
        return self.scenes.of(self.page, self.viewport_px, self.shape)

    @cached_property
    def _found(self) -> list[Finding]:
        return in_movement(self.scenes, self.page, self.viewport_px, self.shape)

    def found(self, piece: Piece) -> list[Finding]:
        """What is doubtful about a piece on the page."""
        return [one for one in self._found if piece.id in {one.node, one.other}]


def looked_through(request: HttpRequest, fitter: Fitter, site: Site, page: Page, width: int) -> Looked:
    whole, high = _told(request)
    scenes = fitter.kept("scenes", (site,), lambda: Scenes(fitter.as_published(), site))
    viewport = (width, high or USUAL_HIGH)
    if whole is not None:
        return Looked(scenes, page, viewport, scenes.shape_of(page, viewport, float(whole)), True)
    return Looked(scenes, page, viewport, estimated_shape(page, contents.read_content, width), False)


def _told(request: HttpRequest) -> tuple[int | None, int | None]:
    said = request.headers.get(SHAPE, "")
    whole, _, high = said.partition(" ")
    wide, tall = whole_number(whole), whole_number(high)
    return (min(wide, 1_000_000) if wide else None), (min(max(tall, 200), 4000) if tall else None)


class BandMovement(NamedTuple):
    """A part of the scroll ruler, from and to in %."""

    name: str
    at: float
    tall: float
    stage: str


class Grip(NamedTuple):
    """Where a stage begins: `at` in %, `px` of the page, `after_px` as it is set, `from_px` the position that it counts
    from. `fixed`: it is not set in px, and cannot be dragged."""

    stage: str
    name: str
    at: float
    px: int
    after_px: int
    from_px: int
    fixed: bool


class RulerMark(NamedTuple):
    at: float
    said: str
    severity: Severity


def scroll_ruler(looked: Looked | None, piece: Piece) -> dict[str, Any]:
    """What the template draws at the workbench's east."""
    if looked is None:
        return {"to": 1000, "scrolls": 0, "bands": [], "grips": [], "marks": [], "ticks": [], "beyond": 0.0}
    laid = looked.scene
    body = laid.body(piece.id)
    starts = [after for after in body.after_px if after < 1e6] if body else []
    to = max(400.0, laid.scrolls_px, *(start * 1.08 for start in starts)) if starts else max(400.0, laid.scrolls_px)
    step = next(step for step in (50, 100, 200, 500, 1000, 2000, 5000, 10_000, 50_000, 500_000) if to / step <= 12)

    def at(px: float) -> float:
        return round(100 * min(max(px, 0.0), to) / to, 3)

    return {
        "to": int(to),
        "scrolls": int(laid.scrolls_px),
        "high": looked.viewport_px[1],
        "measured": looked.measured,
        "beyond": at(laid.scrolls_px),
        "bands": list(_bands(body, piece, at, to)) if body else [],
        "grips": list(_grips(laid, body, piece, at)) if body else [],
        "marks": [
            RulerMark(at(one.place.scroll_px), movement_words(one, looked.scenes.site), severity_of(one.kind))
            for one in looked.found(piece)
        ],
        "ticks": [(px, at(px)) for px in range(0, int(to) + 1, step)],
    }


def _stages(piece: Piece) -> dict[str, Stage]:
    return {stage.id: stage for stage in stages_of(piece)}


def _bands(body: Body, piece: Piece, at: Any, to: float) -> Iterator[BandMovement]:
    stages = _stages(piece)
    ladder: list[tuple[float, str]] = []
    for standing, after in reversed(list(zip(body.standings[1:], body.after_px, strict=True))):
        if after <= to and (not ladder or after < ladder[0][0]):
            ladder.insert(0, (after, standing.stage or ""))
    names = [(0.0, _at_first(body), ""), *((after, stages[stage].name, stage) for after, stage in ladder)]
    if body.until_px is not None:
        until = max(0.0, min(body.until_px, to))
        names = [(0.0, "Hidden", ""), (until, names[0][1], ""), *(one for one in names[1:] if one[0] > until)]
    if body.yields_px is not None and body.yields_px < to:
        yields = max(0.0, body.yields_px)
        names = [*(one for one in names if one[0] < yields), (yields, "Gives way to the footer", "")]
    for (start, name, stage), (end, *_) in zip(names, [*names[1:], (to, "", "")], strict=True):
        if end > start:
            yield BandMovement(name, at(start), round(at(end) - at(start), 3), stage)


def _at_first(body: Body) -> str:
    """What it does while no stage of it holds."""
    if body.up_px is not None:
        return "Shows when one scrolls up"
    if body.place == "pinned" and body.after_px:
        return "At rest"
    stays = body.place in {"pinned", "low", "fixed"} or (body.place == "beside" and body.end_px < inf)
    return "Stays" if stays else "Scrolls away"


def _grips(laid: Scene, body: Body, piece: Piece, at: Any) -> Iterator[Grip]:
    stages = _stages(piece)
    from_px = max(0.0, body.top_px - body.pin_px)
    for standing, after in zip(body.standings[1:], body.after_px, strict=True):
        stage = stages[standing.stage or ""]
        if after < 1e6:
            is_px = isinstance(stage.after, ByPixels)
            own = stage.after.px if isinstance(stage.after, ByPixels) else int(after - from_px)
            yield Grip(stage.id, stage.name, at(after), round(after), own, round(from_px), not is_px)


def movement_words(finding: Finding, site: Site) -> str:
    names = names_in(site)
    return finding_words(finding, lambda node: names.get(node) or item_name(node, site))


def item_name(node_id: str, site: Site) -> str:
    spot = find(site, node_id)
    return node_name(spot.node, site) if spot else node_id


class Told(NamedTuple):
    """A row in a stage: how high it is and why. `offers`: what would make it as low as was wished, each in words and as
    an edit."""

    row: str
    said: str
    is_limited: bool
    offers: tuple[tuple[str, str], ...]


def limits_told(fitter: Fitter, site: Site, piece: Piece, stage: Stage, language: str, width: int) -> list[Told]:
    high = heights(fitter.as_published(), fitter.resolved(site), piece, language, Viewport(float(width), 800.0))
    rows = {row.id: row.name for row in site.rows_in(piece)}
    return [_told_limit(site, rows[one.row.row], one) for one in (limits(site, piece, stage.id, high) if high else ())]


def _told_limit(site: Site, name: str, limit: Limit) -> Told:
    row = limit.row
    names = " and ".join(item_name(thing.node, site) for thing in limit.tallest) or "nothing"
    inner = limit.tallest[0].height_px if limit.tallest else 0.0
    said = f"{name}: {row.drawn_px:g} px. {names}: {inner:g} px, padding and lines {sum(row.slim_px):g} px"
    if limit.next is not None:
        said += f"; next {item_name(limit.next.node, site)}, {limit.next.height_px:g} px"
    said += f": {row.wished_px:g} px were wished." if row.limit else "."
    offers = tuple((_offer_words(offer, names), edit_adapter.dump_json(offer.edit).decode()) for offer in limit.offers)
    return Told(row.row, said, bool(row.limit), offers)


def _offer_words(offer: Offer, names: str) -> str:
    match offer.kind:
        case "padding":
            assert isinstance(offer.edit, Set)
            return f"Padding of {offer.edit.value} px: {offer.height_px:g} px"
        case "without":
            return f"Without {names}: {offer.height_px:g} px"
        case "as it is":
            return f"Leave it at {offer.height_px:g} px"
