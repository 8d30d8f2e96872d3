"""The ways through the gates to a page, as a picture: what is met from left to right, answers on the lines between."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import NamedTuple

from django.utils.safestring import SafeString

from ....core.gates.visit import Screen, Way
from ....core.kinds.markup import Element
from ..preview.svg import for_template, shape, title

BOX_WIDE, BOX_HIGH, ACROSS, DOWN, EDGE, MOST_LETTERS = 208, 54, 300, 82, 8, 26
ENDS = {
    "page": "the page is seen",
    "refused": "nothing more is asked",
    "elsewhere": "sent here",
    "loop": "asked the same again: a circle",
}


class _Met(NamedTuple):
    """A screen in the tree of ways: where it stands, in steps; `end`: how the way ends there."""

    screen: Screen
    across: int
    down: float
    end: str
    begun_at: tuple[int, float] | None
    said: str


def visit_study(ways: Sequence[Way], names: Mapping[str, str]) -> SafeString:
    """`names`: of the gates, by id."""
    met = _tree(ways)
    wide = EDGE * 2 + max(one.across for one in met) * ACROSS + BOX_WIDE
    high = EDGE * 2 + max(one.down for one in met) * DOWN + BOX_HIGH
    parts = [part for one in met for part in (*_line(one), _box(one, names))]
    said = f"{len(ways)} way{'' if len(ways) == 1 else 's'} from {ways[0].screens[0].path}"
    return for_template(
        shape(
            "svg",
            "visit-study",
            *parts,
            viewBox=f"0 0 {wide} {high}",
            width=wide,
            height=high,
            role="img",
            aria_label=said,
        )
    )


def _tree(ways: Sequence[Way]) -> list[_Met]:
    """Ways that begin alike go together until they part; each ends on a line of its own, the right answers first."""
    ordered = sorted(ways, key=lambda way: [said == "no" for _, said in way.answers])
    downs: dict[tuple[str, ...], list[int]] = {}
    for at, way in enumerate(ordered):
        for depth in range(len(way.screens)):
            downs.setdefault(tuple(said for _, said in way.answers[:depth]), []).append(at)
    middle = {begun: sum(lines) / len(lines) for begun, lines in downs.items()}
    found: dict[tuple[str, ...], _Met] = {}
    for way in ordered:
        for depth, screen in enumerate(way.screens):
            begun = tuple(said for _, said in way.answers[:depth])
            before = (depth - 1, middle[begun[:-1]]) if depth else None
            end = way.ends if depth == len(way.answers) else ""
            found.setdefault(begun, _Met(screen, depth, middle[begun], end, before, begun[-1] if begun else ""))
    return list(found.values())


def _place(across: int, down: float) -> tuple[float, float]:
    return EDGE + across * ACROSS, round(EDGE + down * DOWN, 1)


def _line(met: _Met) -> list[Element]:
    if met.begun_at is None:
        return []
    (x1, y1), (x2, y2) = _place(*met.begun_at), _place(met.across, met.down)
    begin, end = (x1 + BOX_WIDE, y1 + BOX_HIGH / 2), (x2, y2 + BOX_HIGH / 2)
    bend = (begin[0] + end[0]) / 2
    path = f"M{begin[0]} {begin[1]}C{bend} {begin[1]} {bend} {end[1]} {end[0] - 6} {end[1]}l-5 -4m5 4l-5 4"
    words = shape("text", "visit-said", met.said, x=bend, y=round((begin[1] + end[1]) / 2 - 5, 1), text_anchor="middle")
    return [shape("path", f"visit-way {met.said}", d=path), words]


def _box(met: _Met, names: Mapping[str, str]) -> Element:
    x, y = _place(met.across, met.down)
    gate = names.get(met.screen.gate, "")
    first = gate or met.screen.path
    second = ENDS.get(met.end, "") if met.end else f"before {met.screen.path}"
    look = f"visit-screen {met.end or 'asks'}"
    told = title(f"{first}: {second}" + (f", at {met.screen.path}" if gate else ""))
    texts = (
        shape("text", "visit-name", _cut(first), x=x + 12, y=y + 22),
        shape("text", "visit-about", _cut(second), x=x + 12, y=y + 41),
    )
    return shape("g", None, told, shape("rect", look, x=x, y=y, width=BOX_WIDE, height=BOX_HIGH, rx=7), *texts)


def _cut(text: str) -> str:
    return text if len(text) <= MOST_LETTERS + 2 else f"{text[:MOST_LETTERS]}…"
