"""The movement study: what covers the screen along a way of scrolling, as it is and without what one can switch off."""

from __future__ import annotations

import re
from collections.abc import Iterator, Sequence
from typing import Any, NamedTuple
from urllib.parse import urlencode

from django.http import HttpRequest
from django.utils.safestring import SafeString

from ....core.findings.checks.laid_out.movement import in_movement
from ....core.fit.advice.opened import SCREENS
from ....core.kinds.pieces.base import Moving, Piece
from ....core.kinds.pieces.header import Header
from ....core.model.site import Page, Site
from ....core.model.stages import names_in
from ....core.movement.play import Event, Played, play
from ....core.movement.scene import Scenes, Shape, is_pinned
from ....core.output.fitting import estimated_shape
from ...sites import contents
from ...sites.fitters import site_fitter
from ..cycle.screen import Opened, Redirected, screen, site_url
from ..preview.moving import movement_words
from ..preview.svg import for_template
from ..preview.viewing import looked_at
from .picture import pad, way, way_picture
from .picture import screen_picture as small_screen

SHAPES = (*SCREENS, (1280, 800))
COMPARED = (360, 640)
MOST_PX = 200_000
USUAL = "0, 1200, 600"
_COLOURS = ("header", "sidebar", "bottom", "float", "notice", "footer")
"""Kinds of pieces, in the order of the style sheet's colours."""
WITHOUT = {"stages": "without its stages", "pinned": "with nothing pinned"}


class ComparedWay(NamedTuple):
    """A site as it is compared, its picture, and the least and greatest share of the screen that it leaves, in %."""

    name: str
    drawn: SafeString
    least: int
    greatest: int


class MomentInWords(NamedTuple):
    said: str
    drawn: SafeString
    left: int
    scroll: int


@screen("studio/movement/movement.html", "pieces")
def movement_study(request: HttpRequest, opened: Opened, piece_id: str, made: tuple[str, ...]) -> dict[str, Any]:
    site = opened.site
    piece = next((piece for piece in site.pieces if piece.id == piece_id), None)
    if piece is None:
        raise Redirected(site_url("pieces", opened))
    page = looked_at(request, site, piece)
    viewport = _viewport(request.GET.get("shape", ""))
    asked = request.GET.get("path", USUAL)
    points, fault = _points(asked)
    without = request.GET.get("without", "stages")
    without = without if without in WITHOUT else "stages"
    context: dict[str, Any] = {
        "piece": piece,
        "page": page,
        "path": asked if not fault else request.GET.get("path", ""),
        "fault": fault,
        "shapes": [(f"{wide}x{high}", (wide, high) == viewport) for wide, high in SHAPES],
        "without": [(key, words, key == without) for key, words in WITHOUT.items()],
    }
    if page is None:
        return context
    fitter = site_fitter(opened.stored.pk).as_published()
    names = names_in(site)
    colours = {one.id: _COLOURS.index(one.kind) for one in site.pieces if one.kind in _COLOURS}
    scenes = Scenes(fitter, site)
    content = estimated_shape(page, contents.read_content, viewport[0])
    laid = scenes.of(page, viewport, content)
    played = play(laid, way(points))
    other = Scenes(fitter, _plainer(site, without))
    compared = estimated_shape(page, contents.read_content, COMPARED[0])
    pair = [
        _compared("As it is", scenes, page, compared, points, names, colours),
        _compared(WITHOUT[without].capitalize(), other, page, compared, points, names, colours),
    ]
    return {
        **context,
        "drawn": for_template(way_picture(played, names, colours)),
        "key": [(names[track.body.piece], colours[track.body.piece]) for track in played.tracks],
        "moments": list(_moments(played, names, colours)),
        "pair": pair,
        "alike": pair[0].drawn == pair[1].drawn,
        "scrolls": round(laid.scrolls_px),
        "shorter": max(points) > laid.scrolls_px,
        "viewport": viewport,
        "found": [
            f"{movement_words(one, site)} ({names[one.node]})" for one in in_movement(scenes, page, viewport, content)
        ],
        "frames": _frames(played),
        "pad": pad(points, laid.scrolls_px),
        "colours": " ".join(str(colours[track.body.piece]) for track in played.tracks),
        "place": urlencode({"page": page.path}),
    }


def _viewport(text: str) -> tuple[int, int]:
    found = re.fullmatch(r"(\d{3,4})x(\d{3,4})", text)
    named = (int(found[1]), int(found[2])) if found else (390, 844)
    return (min(2560, max(280, named[0])), min(2560, max(280, named[1])))


def _points(text: str) -> tuple[list[float], str]:
    """The positions of a way, and what is wrong with what was typed."""
    parts = [part.strip() for part in text.replace(";", ",").split(",") if part.strip()]
    if len(parts) < 2 or len(parts) > 20 or not all(part.isdecimal() and int(part) <= MOST_PX for part in parts):
        return [0.0, 1200.0, 600.0], f"Write two to twenty positions in px with commas between, such as {USUAL}."
    return [float(part) for part in parts], ""


def _plainer(site: Site, without: str) -> Site:
    def plain(piece: Piece) -> Piece:
        if without == "pinned" and isinstance(piece, Moving) and not piece.is_low:
            piece = piece.replaced(moves="away", moves_in=())
        if isinstance(piece, Header):
            rows = tuple(row for row in piece.rows if row.stage is None)
            piece = piece.replaced(stages=(), rows=rows)
        return piece

    return site.replaced(pieces=tuple(plain(piece) for piece in site.pieces))


def _compared(
    name: str, scenes: Scenes, page: Page, shape: Shape, points: Sequence[float], names: dict[str, str], colours: dict[str, int]
) -> ComparedWay:  # fmt: skip
    played = play(scenes.of(page, COMPARED, shape), way(points))
    left = [round(100 * (1 - share)) for share in played.covered()]
    return ComparedWay(name, for_template(way_picture(played, names, colours, 580)), min(left), max(left))


def _moments(played: Played, names: dict[str, str], colours: dict[str, int]) -> Iterator[MomentInWords]:
    """The beginning, each event, and the end."""
    said: dict[int, list[str]] = {0: ["at first"]}
    for event in played.events():
        said.setdefault(event.moment, []).append(_event_words(event, names))
    said.setdefault(len(played.scrolls) - 1, ["at last"])
    covered = played.covered()
    for at in sorted(said)[:14]:
        pinned = [is_pinned(track.body) for track in played.tracks]
        drawn = small_screen(played.moment(at), pinned, played.scene.viewport_px, names, colours)
        yield MomentInWords(
            "; ".join(said[at]), for_template(drawn), round(100 * (1 - covered[at])), round(played.scrolls[at])
        )


def _event_words(event: Event, names: dict[str, str]) -> str:
    who = names[event.piece]
    if event.what == "stage":
        return f"{who}: {names[event.stage] if event.stage else 'at rest'}"
    why = {
        "up": f"{event.at_px:g} px upwards",
        "down": f"{event.at_px:g} px downwards",
        "top": "at its place",
        "until": f"{event.at_px:g} px",
        "footer": "the footer",
        "distance": "",
    }[event.why]
    return f"{who} {event.what}: {why}"


def _frames(played: Played) -> list[list[Any]]:
    """For playing: position, % left, and each piece's rectangle where it shows."""
    covered = played.covered()
    return [
        [
            round(y),
            round(100 * (1 - covered[at])),
            [
                [round(seen.left_px), round(seen.top_px), round(seen.width_px), round(seen.height_px)]
                if seen.shown
                else 0
                for seen in played.moment(at)
            ],
        ]
        for at, y in enumerate(played.scrolls)
    ]
