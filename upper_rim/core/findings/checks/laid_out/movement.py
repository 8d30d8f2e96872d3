"""What is wrong or doubtful about what pieces do while a page is scrolled, and what would mend it?"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping, Sequence
from math import inf
from typing import NamedTuple

from ....fit.advice.opened import SCREENS
from ....kinds.pieces.base import Piece
from ....kinds.pieces.header import Header
from ....model.editing.edits import Edit, Set
from ....model.site import Page, Site
from ....movement.flicker import TooEarly
from ....movement.moments import moments_that_matter
from ....movement.play import Played, play
from ....movement.scene import Body, Scene, Scenes, Shape, is_pinned
from ....reach.coverage import coverage_of
from ....reach.reached import reached
from ...finding import Finding, FindingKind, SeenAt

NOTCH_PX = 100.0
"""What a wheel scrolls by one notch: a stage that lasts less is jumped over."""
SEEN_PX = 44.0
"""A target has to find so much room between what is pinned at the window's edges (WCAG 2.2, 2.4.11 and 2.5.8)."""


def in_movement(scenes: Scenes, page: Page, viewport_px: tuple[int, int], shape: Shape) -> list[Finding]:
    """On one page, through one viewport. Nodes are pieces; `limited` and `overlap` tell another item or piece."""
    return _found_in(scenes.of(page, viewport_px, shape), scenes.site, page, viewport_px)


def _found_in(laid: Scene, site: Site, page: Page, viewport_px: tuple[int, int]) -> list[Finding]:
    played = play(laid, moments_that_matter(laid))
    pieces = {piece.id: piece for piece in site.pieces}
    found = [
        *_covered(played, site.covered_percent),
        *_stages(laid, pieces),
        *_overlaps(played),
        *_hidden_focus(laid),
        *_anchors(laid),
    ]
    return [one._replace(place=one.place._replace(page=page.id, viewport_px=viewport_px)) for one in found]


def in_movement_of_all(
    scenes: Scenes, shape_of: Callable[[Page, tuple[int, int]], Shape], viewports: Sequence[tuple[int, int]] = SCREENS
) -> list[Finding]:
    """All pages of the site, through these viewports; each finding once, where it is greatest. A stage that is reached on
    some page is no finding on those that are too short for it."""
    found: dict[tuple[str, ...], Finding] = {}
    come_to: set[tuple[str, str]] = set()
    site = scenes.site
    for page in scenes.fitter.kept("samples", (site.pages, reached(site)), lambda: samples_of(site)):
        for viewport_px in viewports:
            seen = _seen(scenes, page, viewport_px, shape_of(page, viewport_px))
            come_to |= seen.stages
            for one in seen.found:
                key = (one.kind, one.node, one.place.stage, one.other, str(viewport_px))
                if key not in found or one.amount > found[key].amount:
                    found[key] = one
    return [one for one in found.values() if one.kind != "never" or (one.node, one.place.stage) not in come_to]


MOST_ALIKE = 12
"""Of pages that show the same pieces in the same language and are of one shape so many are looked at: the shortest, the
longest and some between them. What differs among them besides is how long they are."""


def samples_of(site: Site) -> list[Page]:
    """In the order of the pages."""
    groups: dict[tuple[object, ...], list[Page]] = {}
    for page, alike in zip(site.pages, coverage_of(site).in_order, strict=True):
        groups.setdefault((alike.shown, page.language, page.shape, page.bare), []).append(page)
    kept: set[str] = set()
    for pages in groups.values():
        if len(pages) > MOST_ALIKE:
            by_length = sorted(pages, key=_length)
            last = len(pages) - 1
            pages = [by_length[last * at // (MOST_ALIKE - 1)] for at in range(MOST_ALIKE)]
        kept.update(page.id for page in pages)
    return [page for page in site.pages if page.id in kept]


def _length(page: Page) -> int:
    """Of its own content, in bytes."""
    splice = page.splice
    return 0 if splice is None or splice.end_at is None else splice.end_at - splice.body_at


class _Seen(NamedTuple):
    """`stages`: those that are reached, each with its piece."""

    found: list[Finding]
    stages: set[tuple[str, str]]


def _seen(scenes: Scenes, page: Page, viewport_px: tuple[int, int], shape: Shape) -> _Seen:
    """As it was before, where nothing has changed that it hangs on."""

    def work() -> _Seen:
        laid = scenes.of(page, viewport_px, shape)
        return _Seen(_found_in(laid, scenes.site, page, viewport_px), _reached(laid))

    told = (page.language, shape, scenes.given(page, viewport_px), scenes.site.covered_percent)
    return scenes.fitter.kept(("seen on", page.id, viewport_px), told, work)


def _reached(laid: Scene) -> set[tuple[str, str]]:
    return {
        (body.piece, body.standings[number].stage or "")
        for body in laid.bodies
        for number, after in enumerate(body.after_px, 1)
        if after < laid.scrolls_px
    }


def _covered(played: Played, most_percent: int) -> Iterator[Finding]:
    """More of the window than was said is too much: where it is most."""
    shares = played.covered()
    worst = max(range(len(shares)), key=shares.__getitem__)
    if 100 * shares[worst] > most_percent:
        sizes = [
            (track.body.standings[track.standings[worst]].height_px * track.body.width_px, track.body.piece)
            for track in played.tracks
            if is_pinned(track.body) and track.shown[worst]
        ]
        place, about = SeenAt(scroll_px=played.scrolls[worst]), {"percent": 100 * shares[worst], "most": most_percent}
        yield Finding("covered", max(sizes)[1], about=about, place=place)


def _stages(laid: Scene, pieces: Mapping[str, Piece]) -> Iterator[Finding]:
    for body in laid.bodies:
        piece = pieces[body.piece]
        if not isinstance(piece, Header) or not body.after_px:
            continue
        starts = sorted((after, number) for number, after in enumerate(body.after_px, 1))
        for at, (after, number) in enumerate(starts):
            standing = body.standings[number]
            stage = standing.stage or ""
            if after >= laid.scrolls_px:
                yield _found("never", piece.id, after, after - laid.scrolls_px, stage)
                continue
            following = starts[at + 1][0] if at + 1 < len(starts) else inf
            if following - after < NOTCH_PX:
                yield _found("brief", piece.id, after, following - after, stage)
            gap = body.top_px + body.flow_px - after - body.pin_px - standing.height_px
            if gap > 0.5 and body.flow_px > 0:
                yield _found("gap", piece.id, after, gap, stage)._replace(remedy=_later(piece, stage, gap))
            for row in standing.rows:
                limit = row.limit
                if limit is not None and row.wished_px is not None:
                    more = row.drawn_px - row.wished_px
                    yield _found("limited", piece.id, after, more, stage, limit.node)


def _later(piece: Header, stage_id: str, by_px: float) -> Edit | None:
    stage = next(stage for stage in piece.stages if stage.id == stage_id)
    if stage.after.kind != "px":
        return None
    return Set(node=stage_id, field="after", value={"kind": "px", "px": int(stage.after.px + by_px + 0.999)})


def _overlaps(played: Played) -> Iterator[Finding]:
    """Floats over another piece: one that is pinned, too, or one that cannot be scrolled from beneath it, at the page's
    beginning or end."""
    seen: set[tuple[str, str]] = set()
    over = [track for track in played.tracks if track.body.kind == "float"]
    others = [track for track in played.tracks if track.body.kind != "float"]
    ends = {0.0, played.scene.scrolls_px}
    for track in over:
        for other in others:
            for at, y in enumerate(played.scrolls):
                if (track.body.piece, other.body.piece) in seen or not (track.shown[at] and other.shown[at]):
                    continue
                if not is_pinned(other.body) and y not in ends:
                    continue
                deep = _deep(
                    track.body, track.standings[at], track.tops[at], other.body, other.standings[at], other.tops[at]
                )
                if deep > 1.0:
                    seen.add((track.body.piece, other.body.piece))
                    yield _found("overlap", track.body.piece, y, deep, other=other.body.piece)


def _deep(one: Body, index: int, top: float, other: Body, other_index: int, other_top: float) -> float:
    """By how many px two rectangles overlap from above to below; 0 where they stand beside each other."""
    if one.left_px >= other.left_px + other.width_px or other.left_px >= one.left_px + one.width_px:
        return 0.0
    end = min(top + one.standings[index].height_px, other_top + other.standings[other_index].height_px)
    return max(0.0, end - max(top, other_top))


def _kept(laid: Scene) -> tuple[float, float]:
    """What is kept free at the window's edges when something is scrolled to (`scroll-padding`)."""
    top = max(
        (body.pin_px + max(one.height_px for one in body.standings) for body in laid.bodies if body.place == "pinned"),
        default=0.0,
    )
    low = sum(body.standings[0].height_px for body in laid.bodies if body.place == "low" and body.kind != "float")
    return top, low


def _hidden_focus(laid: Scene) -> Iterator[Finding]:
    top, low = _kept(laid)
    room = laid.viewport_px[1] - top - low
    if room < SEEN_PX:
        highest = max(
            (body for body in laid.bodies if is_pinned(body)),
            key=lambda body: max(one.height_px for one in body.standings),
        )
        yield _found("hidden focus", highest.piece, 0.0, SEEN_PX - room)


def _anchors(laid: Scene) -> Iterator[Finding]:
    """Where more is kept free for what is scrolled to than is covered in the last stage: it comes to stand so much
    lower."""
    for body in laid.bodies:
        if body.place != "pinned" or not body.after_px:
            continue
        passed = [number for number, after in enumerate(body.after_px, 1) if after < laid.scrolls_px]
        if passed:
            more = max(one.height_px for one in body.standings) - body.standings[passed[-1]].height_px
            if more > NOTCH_PX:
                yield _found(
                    "anchor", body.piece, body.after_px[passed[-1] - 1], more, body.standings[passed[-1]].stage or ""
                )


def _found(kind: FindingKind, piece: str, scroll_px: float, px: float, stage: str = "", other: str = "") -> Finding:
    return Finding(kind, piece, other, {"px": px}, SeenAt(stage=stage, scroll_px=scroll_px))


def begun_early(early: TooEarly) -> Finding:
    """A stage that begins before the room that it gives up is out of view."""
    return Finding("flicker", early.piece, about=early.about, place=SeenAt(stage=early.stage))
