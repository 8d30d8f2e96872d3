"""Where is each piece, in which stage, and what is left of the screen, at every position of a scroll?

Positions are played in their order, since what shows only after scrolling up depends on the way there. What is found is
kept in columns, one for each piece; a moment is put together when it is asked for.
"""

from __future__ import annotations

from bisect import bisect_left
from collections.abc import Iterator, Sequence
from itertools import pairwise
from typing import Literal, NamedTuple

from .heights import StageHeights
from .scene import Body, Scene, is_pinned


class SeenPiece(NamedTuple):
    """A piece at a moment: its rectangle in the window, in px, and how opaque it is. What is not `shown` is drawn
    outside the window, or not at all."""

    piece: str
    stage: str | None
    left_px: float
    top_px: float
    width_px: float
    height_px: float
    opacity: float
    shown: bool


class Event(NamedTuple):
    """Something begins or ends at a moment. `why`: the rule; `at_px`: the position that it names."""

    moment: int
    scroll_px: float
    piece: str
    what: Literal["stage", "comes", "goes"]
    stage: str | None
    why: Literal["distance", "up", "down", "top", "until", "footer"]
    at_px: float


class PieceTrack(NamedTuple):
    """A piece through all moments: the window's px above it, the index of its standing, whether it shows."""

    body: Body
    tops: Sequence[float]
    standings: Sequence[int]
    shown: Sequence[bool]


class Played(NamedTuple):
    scene: Scene
    scrolls: Sequence[float]
    tracks: tuple[PieceTrack, ...]

    def moment(self, at: int) -> list[SeenPiece]:
        found = []
        for track in self.tracks:
            standing: StageHeights = track.body.standings[track.standings[at]]
            found.append(
                SeenPiece(
                    track.body.piece,
                    standing.stage,
                    track.body.left_px,
                    track.tops[at],
                    track.body.width_px,
                    standing.height_px,
                    standing.opacity if track.shown[at] else 0.0,
                    track.shown[at],
                )
            )
        return found

    def covered(self) -> list[float]:
        """At every moment, the share of the window that pinned pieces cover."""
        wide, high = self.scene.viewport_px
        area = wide * high
        total = [0.0] * len(self.scrolls)
        for track in self.tracks:
            if not is_pinned(track.body):
                continue
            share = track.body.width_px / area
            heights = [standing.height_px for standing in track.body.standings]
            known: dict[tuple[float, int], float] = {}
            for at, (top, index, shown) in enumerate(zip(track.tops, track.standings, track.shown, strict=True)):
                if shown:
                    key = (top, index)
                    seen = known.get(key)
                    if seen is None:
                        seen = known[key] = max(0.0, min(top + heights[index], high) - max(top, 0.0)) * share
                    total[at] += seen
        return total

    def events(self) -> Iterator[Event]:
        """In the order of the moments."""
        found = [event for track in self.tracks for event in _events(track, self.scrolls)]
        return iter(sorted(found, key=lambda event: event.moment))


def play(scene: Scene, scrolls: Sequence[float]) -> Played:
    """`scrolls`: positions in px, each as it is when a frame is drawn; they are kept within the page."""
    most = scene.scrolls_px
    kept = [0.0 if y < 0 else min(y, most) for y in scrolls]
    return Played(scene, kept, tuple(_track(body, kept) for body in scene.bodies))


def path(points: Sequence[float], step_px: float = 1.0) -> list[float]:
    """The positions on the way from each point to the next."""
    found: list[float] = list(points[:1])
    for start, end in pairwise(points):
        count = max(1, round(abs(end - start) / step_px))
        found += [start + (end - start) * at / count for at in range(1, count + 1)]
    return found


def _track(body: Body, scrolls: Sequence[float]) -> PieceTrack:
    return PieceTrack(body, _tops(body, scrolls), _standings(body, scrolls), _shown(body, scrolls))


def _tops(body: Body, scrolls: Sequence[float]) -> Sequence[float]:
    top, pin = body.top_px, body.pin_px
    if body.place in {"low", "fixed"}:
        return [top] * len(scrolls)
    if body.place == "flow" or (body.place == "beside" and body.end_px > 1e9):
        return [top - y for y in scrolls]
    # CSS Positioned Layout 3, 6.3: moved along to stay at its inset, but not out of what contains it.
    last = max(body.end_px - body.flow_px, top)
    from_px, to_px = top - pin, last - pin
    return [top - y if y < from_px else pin if y <= to_px else last - y for y in scrolls]


def _standings(body: Body, scrolls: Sequence[float]) -> Sequence[int]:
    """The last stage, in their order, whose distance is passed."""
    ladder: list[tuple[float, int]] = []
    for index in range(len(body.after_px), 0, -1):
        after = body.after_px[index - 1]
        if not ladder or after < ladder[0][0]:
            ladder.insert(0, (after, index))
    if not ladder:
        return [0] * len(scrolls)
    edges = [after for after, _ in ladder]
    indices = [0, *(index for _, index in ladder)]
    return [indices[bisect_left(edges, y)] for y in scrolls]


def _shown(body: Body, scrolls: Sequence[float]) -> Sequence[bool]:
    shown = [True] * len(scrolls) if body.up_px is None else _after_up(body, body.up_px, scrolls)
    if body.until_px is not None:
        until = body.until_px
        shown = [was and y > until for was, y in zip(shown, scrolls, strict=True)]
    if body.yields_px is not None:
        yields = body.yields_px
        shown = [was and y < yields for was, y in zip(shown, scrolls, strict=True)]
    return shown


def _after_up(body: Body, up_px: float, scrolls: Sequence[float]) -> list[bool]:
    """`turn`: the highest position since it came, or the lowest since it went."""
    shown: list[bool] = []
    is_down, past = False, body.past_px
    turn = scrolls[0] if scrolls else 0.0
    for y in scrolls:
        if is_down:
            if y > turn:
                turn = y
            elif turn - y >= up_px:
                is_down, turn = False, y
        elif y < turn:
            turn = y
        elif y - turn >= up_px:
            is_down, turn = True, y
        shown.append(not is_down or y <= past)
    return shown


def _events(track: PieceTrack, scrolls: Sequence[float]) -> Iterator[Event]:
    body = track.body
    for at, (before, after) in enumerate(pairwise(track.standings), 1):
        if before != after:
            index = after if after > before else before
            yield Event(
                at, scrolls[at], body.piece, "stage", body.standings[after].stage, "distance", body.after_px[index - 1]
            )
    for at, (was, now) in enumerate(pairwise(track.shown), 1):
        if was != now:
            yield Event(
                at, scrolls[at], body.piece, "comes" if now else "goes", None, *_why(body, scrolls, at, now=now)
            )


def _why(
    body: Body, scrolls: Sequence[float], at: int, *, now: bool
) -> tuple[Literal["up", "down", "top", "until", "footer"], float]:
    before, y = scrolls[at - 1], scrolls[at]
    if body.yields_px is not None and (before < body.yields_px) != (y < body.yields_px):
        return "footer", body.yields_px
    if body.until_px is not None and (before > body.until_px) != (y > body.until_px):
        return "until", body.until_px
    if now and y <= body.past_px:
        return "top", body.past_px
    return ("up" if now else "down"), body.up_px or 0.0
