"""The board: every page against every slot, for a width band and a visitor, or for two of them that are compared."""

from __future__ import annotations

from typing import Any
from urllib.parse import urlencode

from django.http import HttpRequest, HttpResponse, StreamingHttpResponse
from django.shortcuts import render
from django.urls import reverse
from django.utils import timezone

from ....core.conditions.audience.in_period import instant_in
from ....core.conditions.visitor import VisitorCard
from ....core.exchange.coverage_table import as_csv, as_json, coverage_rows
from ....core.findings.checks.shown.gates import in_gates
from ....core.findings.checks.shown.visibility import in_visibility
from ....core.findings.finding import Finding
from ....core.findings.words import finding_words
from ....core.gates.guards import guards_of
from ....core.kinds.pieces import PIECE_KINDS
from ....core.kinds.pieces.base import Piece
from ....core.model.memo import Memo
from ....core.model.site import Site
from ....core.model.tree import ROOT, walk
from ....core.reach.board import Board, BoardRow
from ....core.reach.coverage import Coverage, Gets, coverage_of
from ...sites import store
from ...sites.access import site_of
from ..cycle.notices import named
from ..cycle.screen import Opened, screen
from ..forms.numbers import whole_number
from ..preview.found import Mark, Marked, mark_of
from ..words.languages import language_name
from .overview import overview
from .shown import CellShown, PieceShown, cells_shown, pieces_shown, told_of_cell

FEW_PAGES = 200
"""So many pages of a section are shown before more are asked for."""
ALL_OPEN_UP_TO = 24
"""Sites with no more pages than this are unfolded at first."""
PARTS_OF_PLACE = ("band", "as", "against", "at", "open", "upto", "cell")

_boards: Memo[Site, dict[tuple[Gets, Gets | None], Board]] = Memo(4)


@screen("studio/board/board.html", "board")
def board(request: HttpRequest, opened: Opened, made: tuple[str, ...]) -> dict[str, Any]:
    site = opened.site
    asked = {name: request.POST.get(name) or request.GET.get(name) or "" for name in PARTS_OF_PLACE}
    coverage = coverage_of(site)
    card, other = _card(site, asked["as"], asked["at"]), _card(site, asked["against"], asked["at"])
    gets = coverage.gets(card) if card else coverage.everybody
    others = coverage.gets(other) if other else None
    whole = board_of(coverage, gets, others)
    band = next((at for at, one in enumerate(coverage.bands) if one == asked["band"]), len(coverage.bands) - 1)
    opened_paths = frozenset(asked["open"].split("|") if asked["open"] else whole.sections_of_few(ALL_OPEN_UP_TO))
    asked["open"] = "|".join(sorted(opened_paths))
    upto = max(whole_number(asked["upto"]) or 0, FEW_PAGES)
    pieces = pieces_shown(site)
    rows = list(whole.rows(band, opened_paths, upto))
    return {
        "kept": asked,
        "cards": site.cards,
        "card": card,
        "other": other,
        "bands": [(one.id, one.name, _place(asked, band=one.id), at == band) for at, one in enumerate(site.bands)],
        "slots": [PIECE_KINDS[slot].NAME for slot in whole.slots],
        "rows": [_row(row, whole, pieces, asked, upto) for row in rows],
        "listed_pieces": _by_slot(site, whole, pieces, Marked(opened.stored.pk, site)),
        "overview": overview(whole, band, pieces),
        "told": told_of_cell(asked["cell"], site, coverage, (gets, others), rows) if asked["cell"] else None,
        "table_place": _place(asked, open="", cell="", upto=""),
    }


def board_of(coverage: Coverage, gets: Gets, other: Gets | None) -> Board:
    """Kept for the newest states of a site that were asked for, and few visitors of each."""
    known = _boards.of(coverage.site, lambda _: {})
    made = known.get((gets, other))
    if made is None:
        if len(known) >= 8:
            known.clear()
        known[gets, other] = made = Board(coverage, gets, other)
    return made


def _card(site: Site, asked: str, at: str) -> VisitorCard | None:
    """At another moment, by the site's clock, where one is said."""
    card = next((card for card in site.cards if card.id == asked), None)
    if card is None or not at:
        return card
    try:
        return card.replaced(clock=f"{instant_in(at, site.zone):%Y-%m-%dT%H:%MZ}")
    except ValueError:
        return card


def _by_slot(
    site: Site, found: Board, pieces: dict[str, PieceShown], marked: Marked
) -> list[tuple[str, list[tuple[PieceShown, Mark | None]]]]:
    return [
        (
            PIECE_KINDS[slot].NAME,
            [(pieces[piece.id], marked.of_piece(piece)) for piece in site.pieces if piece.kind == slot],
        )
        for slot in found.slots
    ]


def _place(asked: dict[str, str], **other: str) -> str:
    return urlencode({name: value for name, value in {**asked, **other}.items() if value})


def _row(
    row: BoardRow, whole: Board, pieces: dict[str, PieceShown], asked: dict[str, str], upto: int
) -> tuple[BoardRow, str, str, list[tuple[CellShown, str]]]:
    """A row with where one goes: to fold or unfold it, to see more of its section, and to what its cells tell."""
    toggled = "|".join(sorted(frozenset(asked["open"].split("|")) ^ {row.path})) or "-"
    fold = "" if row.page else _place(asked, open=toggled)
    more = _place(asked, upto=str(upto + FEW_PAGES)) if row.more else ""
    return row, fold, more, [(cell, _place(asked, cell=cell.key)) for cell in cells_shown(row, whole.slots, pieces)]


def found(request: HttpRequest, slug: str) -> HttpResponse:
    """What is wrong or doubtful, asked for once the board is there: times are looked through."""
    stored = site_of(request.user, slug)
    site = store.load(stored.pk).site
    cards = {card.id for card in site.cards}

    def place(finding: Finding) -> str:
        if finding.node in cards:
            return reverse("visitors", args=[slug]) + f"?card={finding.node}"
        if finding.node == ROOT:
            return reverse("page", args=[slug, finding.place.page])
        holder = next(piece for piece in site.pieces if piece.id == finding.node or finding.node in ids_below(piece))
        tray = "who" if finding.kind in {"nobody", "past"} else ""
        return reverse("workbench", args=[slug, holder.id]) + f"?{urlencode({'select': finding.node, 'tray': tray})}"

    findings = [*in_visibility(coverage_of(site), timezone.now(), language_name), *in_gates(site, guards_of(site))]
    said = [
        (mark_of(one.kind), finding_words(one, lambda node: named(site, node).strip("“”")), place(one))
        for one in findings
    ]
    return render(request, "studio/board/found.html", {"found": said})


def ids_below(piece: Piece) -> set[str]:
    return {node.id for node in walk(piece)}


def board_file(request: HttpRequest, slug: str, form: str) -> HttpResponse | StreamingHttpResponse:
    """All outcomes as CSV or JSON: for a visitor, or where two are not shown the same."""
    stored = site_of(request.user, slug)
    site = store.load(stored.pk).site
    named = (_card(site, request.GET.get(name, ""), request.GET.get("at", "")) for name in ("as", "against"))
    rows = coverage_rows(coverage_of(site), *(card for card in named if card))
    lines, kind = (as_json(rows), "application/json") if form == "json" else (as_csv(rows), "text/csv; charset=utf-8")
    response = StreamingHttpResponse(lines, content_type=kind)
    response["Content-Disposition"] = f'attachment; filename="{stored.slug}-coverage.{form}"'
    return response
