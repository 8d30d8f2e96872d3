"""The board: every page against every slot, for a width band and a visitor, or for two of them that are compared."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any, NamedTuple
from urllib.parse import urlencode

from django.http import HttpRequest, HttpResponse, StreamingHttpResponse
from django.shortcuts import render
from django.urls import reverse
from django.utils import timezone

from ....core.conditions.audience.in_period import instant_in
from ....core.conditions.visitor import VisitorCard
from ....core.exchange.coverage_table import as_csv, as_json, coverage_rows
from ....core.findings.checks.visibility import in_visibility
from ....core.findings.finding import Finding
from ....core.findings.words import finding_words
from ....core.kinds.pieces import PIECE_KINDS
from ....core.kinds.pieces.base import Piece
from ....core.model.memo import Memo
from ....core.model.site import Site
from ....core.model.tree import ROOT, walk
from ....core.reach.board import Board, BoardRow, Share
from ....core.reach.coverage import Coverage, Gets
from ...sites import store
from ...sites.access import site_of
from ..cycle.notices import named
from ..cycle.screen import Opened, screen
from ..forms.numbers import whole_number
from ..words.languages import language_name
from ..words.reach import by_bands
from .overview import overview

FEW_PAGES = 200
"""So many pages of a section are shown before more are asked for."""
ALL_OPEN_UP_TO = 24
"""Sites with no more pages than this are unfolded at first."""
COLOURS = 6
PARTS_OF_PLACE = ("band", "as", "against", "at", "open", "upto", "cell")

_coverages: Memo[Site, Coverage] = Memo(8)
_boards: Memo[Site, dict[tuple[Gets, Gets | None], Board]] = Memo(4)


class PieceShown(NamedTuple):
    """`look`: the class of its colour and pattern."""

    id: str
    name: str
    letter: str
    look: str


class ShareShown(NamedTuple):
    """A part of a cell: what shows on so many pages, and to the other visitor, where that is something else."""

    first: PieceShown | None
    second: PieceShown | None
    differs: bool
    pages: int


class RowShown(NamedTuple):
    row: BoardRow
    name: str
    toggled: str
    more: str
    cells: list[tuple[str, str, bool, list[ShareShown], str]]


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
    rows = [_row(row, whole, pieces, asked, opened_paths, upto) for row in whole.rows(band, opened_paths, upto)]
    return {
        "kept": asked,
        "cards": site.cards,
        "card": card,
        "other": other,
        "bands": [(one.id, one.name, _place(asked, band=one.id), at == band) for at, one in enumerate(site.bands)],
        "slots": [PIECE_KINDS[slot].NAME for slot in whole.slots],
        "rows": rows,
        "listed_pieces": _by_slot(site, whole, pieces),
        "overview": overview(whole, band, pieces),
        "told": _told(asked["cell"], site, coverage, (gets, others), rows, band) if asked["cell"] else None,
        "table_place": _place(asked, open="", cell="", upto=""),
    }


def coverage_of(site: Site) -> Coverage:
    return _coverages.of(site, Coverage)


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


def pieces_shown(site: Site) -> dict[str, PieceShown]:
    """A letter for each piece within its slot, and a colour; behind the sixth, a colour and a pattern."""
    found: dict[str, PieceShown] = {}
    counts: dict[str, int] = {}
    for piece in site.pieces:
        at = counts[piece.kind] = counts.get(piece.kind, -1) + 1
        letter = chr(ord("A") + at % 26) + (str(at // 26 + 1) if at >= 26 else "")
        pattern = f" pattern-{at // COLOURS % 4}" if at >= COLOURS else ""
        found[piece.id] = PieceShown(piece.id, piece.name, letter, f"colour-{at % COLOURS}{pattern}")
    return found


def _by_slot(site: Site, found: Board, pieces: dict[str, PieceShown]) -> list[tuple[str, list[PieceShown]]]:
    return [
        (PIECE_KINDS[slot].NAME, [pieces[piece.id] for piece in site.pieces if piece.kind == slot])
        for slot in found.slots
    ]


def _place(asked: dict[str, str], **other: str) -> str:
    return urlencode({name: value for name, value in {**asked, **other}.items() if value})


def _row(
    row: BoardRow,
    found: Board,
    pieces: dict[str, PieceShown],
    asked: dict[str, str],
    opened_paths: frozenset[str],
    upto: int,
) -> RowShown:
    toggled = "|".join(sorted(opened_paths ^ {row.path})) or "-"
    cells = []
    for slot, shares in zip(found.slots, row.cells, strict=True):
        key = f"{slot} {'page' if row.page else 'below'} {row.path}"
        shown = [_share(share, pieces) for share in shares]
        said = "; ".join(_said(share, row.pages) for share in shown)
        cells.append((key, _place(asked, cell=key), key == asked["cell"], shown, said))
    name = row.path
    return RowShown(
        row,
        name,
        "" if row.page else _place(asked, open=toggled),
        _place(asked, upto=str(upto + FEW_PAGES)) if row.more else "",
        cells,
    )


def _share(share: Share, pieces: dict[str, PieceShown]) -> ShareShown:
    one, other = share.shown
    return ShareShown(pieces.get(one or ""), pieces.get(other or ""), one != other, share.pages)


def _said(share: ShareShown, pages: int) -> str:
    named = share.first.name if share.first else "nothing"
    if share.differs:
        named += f", and for the other {share.second.name if share.second else 'nothing'}"
    return named if share.pages == pages else f"{named} on {share.pages}"


def _told(
    cell: str,
    site: Site,
    coverage: Coverage,
    looking: tuple[Gets, Gets | None],
    rows: list[RowShown],
    band: int,
) -> dict[str, Any] | None:
    """What a cell tells: of a page each outcome with its reason, of a section what shows on how many of its pages; and
    the exceptions that can be taken there."""
    slot, _, rest = cell.partition(" ")
    kind, _, path = rest.partition(" ")
    row = next((one.row for one in rows if one.row.path == path and bool(one.row.page) == (kind == "page")), None)
    if slot not in coverage.slots or row is None:
        return None
    rivals = [piece for piece in site.pieces if piece.kind == slot]
    shown = [share.shown[0] for share in row.cells[coverage.slots.index(slot)]]
    return {
        "path": path,
        "slot": PIECE_KINDS[slot].NAME,
        "where": "page" if row.page else "below",
        "page": row.page,
        "pages": row.pages,
        "reasons": [list(by_bands(coverage.on(row.page, gets)[slot], site)) for gets in looking if gets is not None]
        if row.page
        else [],
        "shares": [
            (_named(piece, rivals), share.pages)
            for piece, share in zip(shown, row.cells[coverage.slots.index(slot)], strict=True)
        ],
        "shown": [piece for piece in rivals if piece.id in shown],
        "others": [(piece.id, piece.name) for piece in rivals if piece.id not in shown],
    }


def _named(piece: str | None, rivals: Sequence[Piece]) -> str:
    return next((one.name for one in rivals if one.id == piece), "nothing")


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

    findings = in_visibility(coverage_of(site), timezone.now(), language_name)
    said = [(finding_words(one, lambda node: named(site, node).strip("“”")), place(one)) for one in findings]
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
