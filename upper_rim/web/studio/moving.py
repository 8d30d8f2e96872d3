"""What is seen of movement on the workbench: the scroll ruler, what limits a stage, and what is found fault with."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any, NamedTuple

from django.http import HttpRequest

from ...core.exchange.encoding import decode
from ...core.fit.amount import Viewport
from ...core.fit.fitter import Fitter
from ...core.model.apply import apply
from ...core.model.edits import Add, Edit, Refusal, Set, edit_adapter, parts_of_edit
from ...core.model.movement import ByPixels, Stage
from ...core.model.site import Header, Page, Piece, Row, Site
from ...core.model.tree import find
from ...core.movement.content import estimated_content_px
from ...core.movement.doubts import Doubt, doubts
from ...core.movement.flicker import TooEarly, too_early
from ...core.movement.heights import SlimRow, heights
from ...core.movement.scene import Body, Scene, Scenes, Shape
from ..sites import store
from .asked_numbers import whole_number

SHAPE = "X-Rim-Shape"
"""With it a screen says how high the stage's window is, and how high the page in it."""
USUAL_HIGH = 640


class Looked(NamedTuple):
    """A page as it is looked through: the scenes of its site, the viewport, and what its content is like. `measured`: by
    the stage; otherwise its height is an estimate."""

    scenes: Scenes
    page: Page
    viewport_px: tuple[int, int]
    shape: Shape
    measured: bool

    @property
    def scene(self) -> Scene:
        return self.scenes.of(self.page, self.viewport_px, self.shape)


def looked_through(request: HttpRequest, fitter: Fitter, site: Site, page: Page, width: int) -> Looked:
    whole, high = _told(request)
    scenes = Scenes(fitter.as_published(), site)
    viewport = (width, high or USUAL_HIGH)
    if whole is not None:
        return Looked(scenes, page, viewport, scenes.shape_of(page, viewport, float(whole)), True)
    return Looked(scenes, page, viewport, Shape(estimate(page, width)), False)


def _told(request: HttpRequest) -> tuple[int | None, int | None]:
    said = request.headers.get(SHAPE, "")
    whole, _, high = said.partition(" ")
    wide, tall = whole_number(whole), whole_number(high)
    return (min(wide, 1_000_000) if wide else None), (min(max(tall, 200), 4000) if tall else None)


def estimate(page: Page, width: int) -> float:
    if page.content is None or page.splice is None:
        return 0.0
    content = store.read_content(page.content)
    end = page.splice.end_at if page.splice.end_at is not None else len(content)
    return estimated_content_px(decode(content[page.splice.body_at : end], page.encoding), float(width))


class Band(NamedTuple):
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


class Mark(NamedTuple):
    at: float
    said: str


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
        "marks": [Mark(at(doubt.scroll_px), doubt_words(doubt, looked.scenes.site)) for doubt in found(looked, piece)],
        "ticks": [(px, at(px)) for px in range(0, int(to) + 1, step)],
    }


def _stages(piece: Piece) -> dict[str, Stage]:
    return {stage.id: stage for stage in piece.stages} if isinstance(piece, Header) else {}


def _bands(body: Body, piece: Piece, at: Any, to: float) -> Iterator[Band]:
    stages = _stages(piece)
    ladder: list[tuple[float, str]] = []
    for standing, after in reversed(list(zip(body.standings[1:], body.after_px, strict=True))):
        if after <= to and (not ladder or after < ladder[0][0]):
            ladder.insert(0, (after, standing.stage or ""))
    edges = [(0.0, ""), *ladder]
    for (start, stage), (end, _) in zip(edges, [*edges[1:], (to, "")], strict=True):
        name = stages[stage].name if stage else "At rest"
        if body.place != "pinned":
            name = "Scrolls away"
        yield Band(name, at(start), round(at(end) - at(start), 3), stage)


def _grips(laid: Scene, body: Body, piece: Piece, at: Any) -> Iterator[Grip]:
    stages = _stages(piece)
    from_px = max(0.0, body.top_px - body.pin_px)
    for standing, after in zip(body.standings[1:], body.after_px, strict=True):
        stage = stages[standing.stage or ""]
        if after < 1e6:
            is_px = isinstance(stage.after, ByPixels)
            own = stage.after.px if isinstance(stage.after, ByPixels) else int(after - from_px)
            yield Grip(stage.id, stage.name, at(after), round(after), own, round(from_px), not is_px)


def found(looked: Looked, piece: Piece) -> list[Doubt]:
    """What is doubtful about a piece on the page that is looked at."""
    return [
        one for one in doubts(looked.scenes, looked.page, looked.viewport_px, looked.shape) if one.piece == piece.id
    ]


def doubt_words(doubt: Doubt, site: Site) -> str:
    names = {piece.id: piece.name for piece in site.pieces}
    stages = {stage.id: stage.name for piece in site.pieces for stage in _stages(piece).values()}
    who = stages.get(doubt.stage, names.get(doubt.piece, ""))
    px = f"{doubt.px:.0f} px"
    match doubt.kind:
        case "covered":
            return f"{100 * doubt.px:.0f} % of the window is covered at {doubt.scroll_px:.0f} px; {site.covered_percent} % were said to be too much"
        case "gap":
            return f"“{who}” begins {px} too early: so much of the room that it gives up is still in view, and shows beneath it"
        case "never":
            return f"“{who}” is not reached here: the page’s end comes {px} before it"
        case "brief":
            return f"“{who}” lasts {px}: one notch of a wheel jumps over it"
        case "limited":
            return f"“{who}” is {px} higher than was wished, by {item_name(doubt.other, site)}"
        case "overlap":
            return f"It lies {px} over {names.get(doubt.other, doubt.other)} at {doubt.scroll_px:.0f} px"
        case "hidden focus":
            return f"What has the focus finds no room between what is pinned: {px} are missing"
        case "anchor":
            return (
                f"What is jumped to stands {px} lower than it could: so much higher the piece may be on the way there"
            )


def item_name(node_id: str, site: Site) -> str:
    from .controls import node_name  # it reads this module's neighbours

    spot = find(site, node_id)
    return node_name(spot.node, site) if spot else node_id


class Limit(NamedTuple):
    """A row in a stage: how high it is and why. `offers`: what would make it as low as was wished, each in words and as
    an edit."""

    row: str
    said: str
    is_limited: bool
    offers: tuple[tuple[str, str], ...]


def limits(fitter: Fitter, site: Site, piece: Piece, stage: Stage, language: str, width: int) -> list[Limit]:
    high = heights(fitter.as_published(), fitter.resolved(site), piece, language, Viewport(float(width), 800.0))
    standing = next((one for one in high.standings if one.stage == stage.id), None) if high else None
    if standing is None:
        return []
    rows = {row.id: row for row in site.rows_in(piece)}
    return [_limit(site, rows[one.row], stage, one) for one in standing.rows if one.drawn_px > 0]


def _limit(site: Site, row: Row, stage: Stage, slim: SlimRow) -> Limit:
    tallest = [thing for thing in slim.things if thing.height_px > slim.things[0].height_px - 0.5]
    names = " and ".join(item_name(thing.node, site) for thing in tallest) or "nothing"
    around = sum(slim.slim_px)
    inner = slim.things[0].height_px if slim.things else 0.0
    said = f"{row.name}: {slim.drawn_px:g} px. {names}: {inner:g} px, padding and lines {around:g} px"
    lower = next((thing for thing in slim.things if thing.height_px <= inner - 0.5), None)
    if lower is not None:
        said += f"; next {item_name(lower.node, site)}, {lower.height_px:g} px"
    limit = slim.limit
    if limit is None or slim.wished_px is None:
        return Limit(row.id, said + ".", False, ())
    offers: list[tuple[str, Edit]] = []
    if inner <= slim.wished_px:
        padding = int((slim.wished_px - inner) // 2)
        offers.append((f"Padding of {padding} px: {inner + 2 * padding:g} px", Set(node=stage.id, field="padding_px", value=padding)))  # fmt: skip
    hidden = [*stage.without, *(thing.node for thing in tallest)]
    left = lower.height_px if lower else 0.0
    if left:
        offers.append((f"Without {names}: {max(slim.wished_px, left + around):g} px", Set(node=stage.id, field="without", value=list(hidden))))  # fmt: skip
    offers.append(
        (f"Leave it at {slim.drawn_px:g} px", Set(node=stage.id, field="height_px", value=round(slim.drawn_px)))
    )
    told = tuple((words, edit_adapter.dump_json(edit).decode()) for words, edit in offers)
    return Limit(row.id, f"{said}: {slim.wished_px:g} px were wished.", True, told)


def refused_as_flicker(fitter: Fitter, site: Site, edit: Edit) -> Refusal | None:
    """An edit that lets a stage begin where its page would flicker, or a gap open: the field, and why."""
    touched = {part.node for part in parts_of_edit(edit) if isinstance(part, Set) and part.field == "after"}
    touched |= {str(value["id"]) for part in parts_of_edit(edit) if isinstance(part, Add) and part.slot == "stages" for value in part.values if isinstance(value, dict)}  # fmt: skip
    if not touched:
        return None
    after = apply(site, edit)
    if isinstance(after, Refusal):
        return after
    published = fitter.as_published()
    after = published.resolved(after)
    pieces = [piece for piece in after.pieces if touched & _stages(piece).keys()]
    early = next((one for one in too_early(published, after, pieces) if one.stage in touched), None)
    return None if early is None else Refusal(node=early.stage, field="after", reason=early_words(early))


def early_words(early: TooEarly) -> str:
    least = -(-early.least.px // 1)
    return (
        f"at {early.after_px} px it gives up {early.least.px:g} px of room that are still in view (from a width of "
        f"{early.least.at_px} px, in {early.least.language}). Given up, the page would move back under its own distance, "
        f"and flicker between {early.would.from_px} and {early.would.to_px} px; kept, {early.gap_px:g} px of the page’s "
        f"ground would show beneath it. From {least:g} px on neither happens"
    )
