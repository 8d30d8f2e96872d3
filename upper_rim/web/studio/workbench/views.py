"""The workbench: one piece, what is chosen in it, and all that can be changed and is found there."""

from __future__ import annotations

from typing import Any
from urllib.parse import quote, urlencode

from django.http import HttpRequest

from ....core.conditions.visitor import VisitorCard
from ....core.fit.rows.sweep import FROM_PX, TO_PX
from ....core.kinds.items.base import BaseItem
from ....core.kinds.items.icon import IconLink
from ....core.kinds.items.menu import MenuItem
from ....core.kinds.moving import Stage
from ....core.kinds.pieces.asking import Asking
from ....core.kinds.pieces.base import Piece
from ....core.kinds.pieces.consent import ConsentQuestion
from ....core.kinds.pieces.drawer import Drawer
from ....core.kinds.pieces.gate import Gate
from ....core.kinds.rows import Cell, Row
from ....core.model.facts import said_everywhere, said_otherwise
from ....core.model.names import node_name, shared_row
from ....core.model.site import Page, Site, drawer_width
from ....core.model.tree import items_of, walk
from ....core.reach.coverage import coverage_of
from ....core.reach.reached import reached
from ...live.stage import CARD, TRIAL, shows_gate
from ...sites.fitters import site_fitter
from ..controls.control import Group, note
from ..controls.of_nodes import groups_for
from ..cycle.notices import pieces_with
from ..cycle.screen import Opened, Redirected, screen, site_url, stage_address
from ..forms.numbers import PHONE_PX, USUAL_PX, stage_width
from ..preview.fitting import SpanInWords, asked_span, bar_words, clusters, grouped, marks_of, snap_widths, spans_of
from ..preview.found import Marked, mark_of, told_about, worse
from ..preview.legible import legible, squeezed_note
from ..preview.moving import looked_through
from ..preview.trials import trial_of, tried_site
from ..preview.viewing import OPENED_BY, asked, looked_at, looking_as, tray
from ..words.gates import states_shown
from ..words.reach import by_bands
from .for_whom import audience_shown, audience_words
from .handles import OnStage, handles_of
from .outline import kind_of, outline_of
from .passwords import passwords_changed, passwords_shown
from .reach import reach_shown
from .scroll_ruler import movement_shown
from .trying_on import tried_on

RULER_FROM, RULER_TO = 280, 1920


@screen("studio/workbench/workbench.html", "pieces")
def workbench(request: HttpRequest, opened: Opened, piece_id: str, made: tuple[str, ...]) -> dict[str, Any]:
    site = opened.site
    piece = next((piece for piece in site.pieces if piece.id == piece_id), None)
    if piece is None:
        raise Redirected(site_url("pieces", opened))
    gone = made[0] if made and request.POST.get("do") == "copy" else request.POST.get("node", "")
    moved_to = _moved_to(request, site, piece, gone)
    if moved_to is not None:
        raise Redirected(site_url("workbench", opened, moved_to) + f"?select={gone}")
    page = looked_at(request, site, piece)
    chosen = _chosen(request, site, piece, made)
    notice = tried_on(request, opened, piece) or passwords_changed(request, opened, piece)
    trial = trial_of(opened)
    shown = (tried_site(site, trial) if trial else None) or site
    fitter = site_fitter(opened.stored.pk)
    shown = fitter.resolved(shown)
    seen_piece = next((one for one in shown.pieces if one.id == piece.id), piece)
    fits = fitter.rows(shown, seen_piece)
    spans = spans_of(shown, seen_piece, fits)
    pages = reached(site).pages
    usual = PHONE_PX if isinstance(piece, Drawer) else USUAL_PX
    width = stage_width(request.POST, request.GET, usual=usual)
    card = looking_as(request, site)
    goes_to = _as_wide_as(request, card) or _asked_into(request, site, width) or _seen_at(request, site, chosen, width)
    width = goes_to or width
    looked = looked_through(request, fitter, shown, page, width) if page else None
    failing = [span for span in spans if span.fails]
    tray_shown = tray(request, site, chosen, width, stage_address(request, opened))
    movement = movement_shown(fitter, shown, seen_piece, chosen, page, looked, width, tray_shown["tray"])
    found = legible(fitter, shown, seen_piece, page, width)
    marked = Marked(opened.stored.pk, site)
    marks = marked.beside(found.marks | marks_of(fits))
    outline = outline_of(piece, site, page, marks)
    overlaps = movement["overlaps"]
    overlap = mark_of("overlap", "; ".join(overlaps)) if overlaps else None
    language = page.language if page else site.language
    on_stage = OnStage(width, language, tray_shown["band"], tray_shown["tray"] == "room", fitter)
    place = {"page": page.path if page else "", "select": chosen.id, "width": width}
    beside = looking_as(request, site, "beside") if card else None
    place |= {"as": card.id} if card else {}
    place |= {"beside": beside.id} if beside else {}
    gate_states = _gate_states(piece, site)
    gate_state = asked(request, "gate", gate_states, "asked") if gate_states else ""
    place |= {"gate": gate_state} if gate_state else {}
    context = {
        **tray_shown,
        **movement,
        **audience_shown(site, chosen),
        **passwords_shown(opened, chosen),
        "card": card,
        "beside": beside,
        "beside_px": min(max(beside.width_px, FROM_PX), TO_PX) if beside else 0,
        "beside_query": _stage_query(trial is not None, beside),
        "gate_state": gate_state,
        "gate_states": gate_states,
        "piece_for": audience_words(piece),
        "piece": piece,
        "page": page,
        "chosen": chosen,
        "chosen_name": node_name(chosen, site),
        "chosen_kind": kind_of(chosen),
        "groups": [*groups_for(chosen, site), *_computed(chosen, shown), *squeezed_note(found, chosen, site, width)],
        "weak_texts": found.weak,
        "pictured": found.pictured,
        "squeezed": found.said,
        "outline": outline,
        "piece_mark": worse(overlap, marks.get(piece.id)),
        "told_of_chosen": told_about(marked, chosen.id, site, opened.stored.slug),
        "others": [(other.id, other.name, _into(other, other)) for other in site.pieces if other is not piece],
        "shareable": [
            (other.name, [(row.id, row.name) for row in other.rows if row.shares is None])
            for other in site.pieces
            if other is not piece and not isinstance(other, Asking)
        ],
        "shared": shared_row(site, chosen.shares) if isinstance(chosen, Row) and chosen.shares else None,
        "into": _into(piece, chosen),
        "into_at": next((line.after for line in outline if line.id == chosen.id and line.kind == "item"), None),
        "destinations": _destinations(chosen, piece, site),
        "reached": pages.get(piece.id, 0),
        **reach_shown(site, piece),
        "held": [(item.id, node_name(item, site), holder.id, holder.name) for holder, item in site.holders(piece)],
        "is_drawer": isinstance(piece, Drawer),
        "here": _here(site, page, piece, card) if page else [],
        "width": width,
        "goes_to": goes_to,
        "place": urlencode(place),
        "piece_place": urlencode({**place, "select": piece.id, "tray": "who"}),
        "stage_query": _stage_query(trial is not None, card, shows_gate(piece.id, gate_state)),
        "swatch_names": [swatch.name for swatch in site.swatches],
        "ruler": _ruler(shown),
        "stage_page": quote(page.path, safe="/%") if page else "",
        "handles": handles_of(site, chosen, on_stage),
        "elsewhere": _elsewhere(chosen, site),
        "has_icon": isinstance(chosen, IconLink | MenuItem),
        "trial": trial,
        "spans": [
            (span, _ruled(span.stretch.from_px), _ruled_width(span))
            for span in spans
            if span.stretch.from_px < RULER_TO
        ],
        "lanes": max((span.lane for span in spans), default=0) + 1,
        "failing": failing,
        "groups_failing": grouped(shown, seen_piece, failing),
        "beside_bars": bar_words(fitter, shown, seen_piece, fits) if tray_shown["tray"] == "fit" else (),
        "clusters": _clusters(spans),
        "failure": asked_span(request, spans),
        "snaps": " ".join(map(str, snap_widths(fits))),
    }
    return {**context, "notice": notice} if notice else context


def _gate_states(piece: Piece, site: Site) -> dict[str, str]:
    """Of a gate or a question, in which states the stage can show it, and without it."""
    if isinstance(piece, Gate):
        return dict(states_shown(piece, site), passed="Passed")
    return dict(states_shown(piece, site), answered="Answered") if isinstance(piece, ConsentQuestion) else {}


def _stage_query(is_trial: bool, card: VisitorCard | None, gate: dict[str, str] | None = None) -> str:
    query = {**({TRIAL: "1"} if is_trial else {}), **({CARD: card.id} if card else {}), **(gate or {})}
    return f"?{urlencode(query)}" if query else ""


def _as_wide_as(request: HttpRequest, card: VisitorCard | None) -> int | None:
    """The width of the screen of whom one begins to look as (`into`: `as`)."""
    if card is None or request.GET.get("into") != "as":
        return None
    return min(max(card.width_px, FROM_PX), TO_PX)


def _computed(chosen: Any, shown: Site) -> list[Group]:
    """What fit has found for the chosen item that is to follow it."""
    if not (isinstance(chosen, MenuItem) and chosen.drawer_when_full):
        return []
    item = next((one for one in items_of(shown.pieces) if one.id == chosen.id), None)
    px = item.drawer_below_px if isinstance(item, MenuItem) else None
    if px is None:
        return []
    said = (
        "The row fits at all widths: no button shows."
        if px <= FROM_PX
        else f"Now below {px} px: from there on the row fits in every language."
    )
    return [Group("Computed", [note(chosen, said)])]


def _into(piece: Piece, chosen: Any) -> str:
    """The cell that takes a new item: the chosen one or the chosen item's, else the first within what is chosen."""
    cells = [(row, cell) for row in piece.rows for cell in row.cells]
    around = [cell.id for row, cell in cells if chosen in (piece, row, cell, *cell.items)]
    return around[0] if around else ""


def _moved_to(request: HttpRequest, site: Site, piece: Piece, node: str) -> str | None:
    """The piece in which a node is now that was moved, or copied, out of this one."""
    if request.POST.get("do", "").partition(":")[0] not in {"move", "copy", "beside"} or any(
        below.id == node for below in walk(piece)
    ):
        return None
    return next((other.id for other in site.pieces if any(below.id == node for below in walk(other))), None)


def _destinations(chosen: Any, piece: Piece, site: Site) -> list[tuple[str, str, list[tuple[str, str]]]]:
    """Where the chosen item or row could be moved to: by piece, the cells, or the other pieces themselves."""
    if isinstance(chosen, Piece | Cell | Stage):
        return []
    if isinstance(chosen, Row):
        if chosen.shares is not None or chosen.stage is not None:
            return []
        return [("rows", other.name, [(other.id, other.name)]) for other in site.pieces if other is not piece]
    return [
        (
            "items",
            other.name,
            [
                (cell.id, f"{other.name}, {row.name}, {node_name(cell, site)}")
                for row in other.rows
                for cell in row.cells
            ],
        )
        for other in site.pieces
    ]


def _elsewhere(chosen: Any, site: Site) -> tuple[str, str] | None:
    """Where something else is said of the site than what the chosen item says, and the edit that mends it."""
    edit = said_everywhere(site, chosen) if isinstance(chosen, BaseItem) else None
    if edit is None:
        return None
    ids = {other.id for other, _ in said_otherwise(site, chosen)}
    return f"Something else is said in {pieces_with(site, ids)}.", edit.model_dump_json()


def _chosen(request: HttpRequest, site: Site, piece: Piece, made: tuple[str, ...]) -> Any:
    below = {node.id: node for node in walk(piece)}
    for node_id in (*made, request.POST.get("select", ""), request.GET.get("select", "")):
        node = below.get(node_id)
        if node is not None and kind_of(node) != "rule":
            return node
    return piece


def _here(site: Site, page: Page, piece: Piece, card: VisitorCard | None) -> list[tuple[str, str]]:
    """What shows on the page in this piece's slot, by band, each with the reason in words: to whoever it is, where it is
    not said who looks."""
    if isinstance(piece, Drawer):
        return []
    coverage = coverage_of(site)
    return list(by_bands(coverage.on(page, coverage.gets(card) if card else None)[piece.kind], site))


def _asked_into(request: HttpRequest, site: Site, width: int) -> int | None:
    """Where the stage is to go into a band (`into`: its id, or `view`, the one that is set for): the nearest width
    there; None where it is in it, or nothing is asked."""
    into = request.GET.get("into", "") if request.method == "GET" else ""
    asked = request.GET.get("band", "") if into == "view" else into
    at = next((at for at, band in enumerate(site.bands) if band.id == asked), None)
    if at is None:
        return None
    last = site.bands[at + 1].from_px - 1 if at + 1 < len(site.bands) else TO_PX
    nearest = min(max(width, site.bands[at].from_px, FROM_PX), last)
    return nearest if nearest != width else None


def _seen_at(request: HttpRequest, site: Site, chosen: Any, width: int) -> int | None:
    """Where the stage is to go to show a part of a menu that is asked for, which is in a row or in a drawer; None where
    it shows already."""
    if request.GET.get("into") != "view" or not isinstance(chosen, MenuItem):
        return None
    below = drawer_width(chosen, site)
    needs = {"title": "drawer", **OPENED_BY}.get(request.GET.get("part", ""))
    if below is None or needs is None or (needs == "drawer") == (width < below):
        return None
    return max(FROM_PX, below - 1) if needs == "drawer" else min(TO_PX, below)


def _ruled(px: int) -> float:
    """A width's place on the ruler, in %."""
    return round(100 * (min(max(px, RULER_FROM), RULER_TO) - RULER_FROM) / (RULER_TO - RULER_FROM), 3)


def _ruled_width(span: SpanInWords) -> float:
    return round(_ruled(span.stretch.to_px + 1) - _ruled(span.stretch.from_px), 3)


def _clusters(spans: list[SpanInWords]) -> list[tuple[Any, float, float]]:
    """Languages that stop fitting together: where on the ruler, and how much room there is for their names, in %."""
    shown = [(one, _ruled(one.to_px + 1)) for one in clusters(spans) if one.to_px < RULER_TO]
    ends = (*(at for _, at in shown[1:]), 100.0)
    return [(one, at, round(max(0.0, end - at), 3)) for (one, at), end in zip(shown, ends, strict=False)]


def _ruler(site: Site) -> dict[str, Any]:
    flags = [
        {
            "band": band,
            "before": before.name,
            "at": _ruled(band.from_px),
            "room": round(_ruled(band.from_px) - _ruled(before.from_px), 3) if before.from_px > RULER_FROM else 100,
        }
        for before, band in zip(site.bands, site.bands[1:], strict=False)
    ]
    edges = [_ruled(band.from_px) for band in site.bands] + [100.0]
    spans = [
        {"name": band.name, "at": start, "wide": round(end - start, 3)}
        for band, start, end in zip(site.bands, edges, edges[1:], strict=False)
    ]
    return {
        "from": RULER_FROM,
        "to": RULER_TO,
        "ticks": [(px, _ruled(px)) for px in range(320, RULER_TO, 160)],
        "flags": flags,
        "spans": spans,
    }
