"""`upper-rim movement`: where is each piece of a page, and in which stage, along a way of scrolling?"""

from __future__ import annotations

import argparse
import json
import re
import sys
from typing import Any

from ..core.exchange.bundle import Bundle
from ..core.findings.checks.laid_out.movement import begun_early, in_movement
from ..core.findings.finding import Finding
from ..core.findings.words import finding_words
from ..core.model.editing.edits import edit_adapter
from ..core.model.site import Page, Site
from ..core.model.stages import names_in
from ..core.movement.flicker import too_early
from ..core.movement.play import Event, Played, SeenPiece, play
from ..core.movement.scene import Scenes, Shape
from ..core.output.fitting import estimated_shape, fitter_of
from ..shipped import shelf
from .clock import present
from .pages import none_at, page_meant


class CannotPlay(Exception):
    """What was asked for does not say a page, a viewport or positions; in a sentence."""


def report(bundle: Bundle, chosen: argparse.Namespace) -> list[str]:
    """Prints what was asked for; gives back a sentence for each finding."""
    viewport_px = _viewport(chosen.viewport)
    scrolls = _positions(chosen.scroll)
    fitter = fitter_of(shelf(), bundle.read, present().year).as_published()
    scenes = Scenes(fitter, bundle.site)
    page = _page(scenes.site, chosen.page)
    is_told = chosen.content is not None
    shape = Shape(chosen.content) if is_told else estimated_shape(page, bundle.read, viewport_px[0])
    laid = scenes.of(page, viewport_px, shape)
    played = play(laid, scrolls)
    found = in_movement(scenes, page, viewport_px, shape)
    early = list(too_early(fitter, scenes.site, scenes.site.pieces))
    names = names_in(scenes.site)
    said = [
        f"{names[one.node]}: {finding_words(one, lambda node: names.get(node, node))}"
        for one in (*found, *map(begun_early, early))
    ]
    if chosen.json:
        whole = {
            "page": page.path,
            "viewport": list(viewport_px),
            "page_px": round(laid.page_px, 2),
            "scrolls_px": round(laid.scrolls_px, 2),
            "content_px": shape.content_px,
            "estimate": not is_told,
            "moments": _moments(played),
            "events": [event._asdict() for event in played.events()],
            "findings": [_told(one) for one in found],
            "too_early": [
                {**one._asdict(), "least": one.least._asdict(), "would": one.would._asdict()} for one in early
            ],
        }
        json.dump(whole, sys.stdout, ensure_ascii=False, indent=1)
        print()
    else:
        _print(played, page, names, estimate=not is_told)
    return said


def _viewport(text: str) -> tuple[int, int]:
    found = re.fullmatch(r"(\d{3,4})x(\d{3,4})", text)
    if found is None:
        raise CannotPlay(f"“{text}” is no viewport; write width and height in px, such as 390x844")
    return int(found[1]), int(found[2])


def _positions(text: str) -> list[float]:
    try:
        return [float(part) for part in text.split(",")]
    except ValueError:
        raise CannotPlay(
            f"“{text}” are no scroll positions; write px with commas between, such as 0,1200,600"
        ) from None


def _page(site: Site, path: str) -> Page:
    page = page_meant(site, path)
    if page is None:
        raise CannotPlay(none_at(site, path))
    return page


def _moments(played: Played) -> list[dict[str, Any]]:
    return [
        {
            "scroll_px": y,
            "left_share": round(1 - covered, 4),
            "pieces": [{name: _rounded(value) for name, value in seen._asdict().items()} for seen in played.moment(at)],
        }
        for at, (y, covered) in enumerate(zip(played.scrolls, played.covered(), strict=True))
    ]


def _rounded(value: Any) -> Any:
    return round(value, 2) if isinstance(value, float) else value


def _told(finding: Finding) -> dict[str, Any]:
    edit = None if finding.remedy is None else edit_adapter.dump_python(finding.remedy, mode="json")
    return {**finding._asdict(), "place": finding.place._asdict(), "remedy": edit}


def _print(played: Played, page: Page, names: dict[str, str], *, estimate: bool) -> None:
    laid = played.scene
    wide, high = laid.viewport_px
    about = " (its content's height is an estimate; --content says it)" if estimate else ""
    print(f"{page.path} at {wide:g}x{high:g}: {laid.page_px:g} px high, scrolls {laid.scrolls_px:g} px{about}")
    events: dict[int, list[Event]] = {}
    for event in played.events():
        events.setdefault(event.moment, []).append(event)
    for at, (y, covered) in enumerate(zip(played.scrolls, played.covered(), strict=True)):
        print(f"{y:>7g} px  {100 * (1 - covered):.1f} % left to the content")
        for event in events.get(at, ()):
            what = f"to {names.get(event.stage or '', 'rest')}" if event.what == "stage" else event.what
            print(f"            {names[event.piece]} {what}: {event.why}, {event.at_px:g} px")
        for seen in played.moment(at):
            print(f"            {_where(seen, names)}")


def _where(seen: SeenPiece, names: dict[str, str]) -> str:
    stage = f", {names[seen.stage]}" if seen.stage else ""
    if not seen.shown:
        return f"{names[seen.piece]}{stage}: not shown"
    return f"{names[seen.piece]}{stage}: {seen.left_px:g}, {seen.top_px:g}; {seen.width_px:g} x {seen.height_px:g}"
