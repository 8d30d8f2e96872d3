"""What is wrong or doubtful about who is shown what?"""

from __future__ import annotations

from collections.abc import Callable, Iterator
from datetime import datetime
from functools import partial
from typing import Any

from ....conditions.audience.audience import Audience, is_for_everybody
from ....conditions.audience.condition import Around
from ....conditions.audience.in_period import InPeriod
from ....conditions.audience.somebody import somebody
from ....conditions.visitor import VisitorCard
from ....kinds.items.base import ShowsMenu
from ....kinds.items.search import SearchBox
from ....kinds.pieces.base import Piece
from ....model.site import Page, Site
from ....model.tree import ROOT, walk
from ....reach.coverage import Coverage, Outcomes, in_words, reach_shape
from ....reach.looking import looking_at
from ....style.resolve import band_at
from ...finding import Finding, FindingKind, SeenAt
from ...keeping import Keeps, anew

EXPECTED: tuple[tuple[str, FindingKind], ...] = (("header", "without header"), ("footer", "without footer"))
"""What pages are missed to have, where the site has it."""


def in_visibility(coverage: Coverage, now: datetime, spoken: Callable[[str], str] = str) -> list[Finding]:
    """`now`: the moment from which on a time is past. `spoken`: what a language is called, by its tag."""
    return [*in_audiences(coverage.site, now, spoken), *in_coverage(coverage, spoken)]


def in_coverage(coverage: Coverage, spoken: Callable[[str], str] = str) -> list[Finding]:
    return [
        *_reach(coverage, spoken),
        *_missed(coverage),
        *(one for card in coverage.site.cards for one in _no_way_on(coverage, card)),
    ]


def given_of_coverage(site: Site) -> tuple[Any, ...]:
    """All that this hangs on."""
    ways = tuple(
        (row.hidden_in, row.audience, item.kind, item.hidden_in, item.audience)
        for piece in site.pieces
        for row in site.shown_rows(piece)
        for cell in row.cells
        for item in cell.items
        if isinstance(item, ShowsMenu | SearchBox)
    )
    names = tuple((piece.id, piece.name) for piece in site.pieces)
    return (site.pages, reach_shape(site), site.cards, site.zone, site.bands, site.languages, names, ways)


def in_audiences(
    site: Site, now: datetime, spoken: Callable[[str], str] = str, kept: Keeps = anew
) -> Iterator[Finding]:
    """Those that take in nobody, or nobody any more."""
    for piece in site.pieces:
        node: Any
        for node in kept(("for some in", piece.id), piece, partial(_for_some, piece)):
            kind = _shown_to(node, site, now, kept)
            if kind is not None:
                yield Finding(kind, node.id, about={"audience": node.audience.in_words(spoken)})


def _shown_to(node: Any, site: Site, now: datetime, kept: Keeps) -> FindingKind | None:
    """What is wrong about whom it takes in. Only periods hang on the present."""
    said: Audience = node.audience
    around = Around(site.languages, site.zone, node.id)
    if kept(("somebody", node.id), (said, around), lambda: somebody(said, around)) is None:
        return "nobody"
    is_timed = any(isinstance(one, InPeriod) for one in (*said.every, *said.some, *said.none))
    return "past" if is_timed and somebody(said, around._replace(after=now)) is None else None


def _for_some(piece: Piece) -> list[Any]:
    return [node for node in (piece, *walk(piece)) if not is_for_everybody(node)]


def _reach(coverage: Coverage, spoken: Callable[[str], str]) -> Iterator[Finding]:
    """Pieces that show nowhere, and rules that count nowhere. Drawers show where menus hold them."""
    site = coverage.site
    if not site.pages:
        return
    shown: set[str] = set()
    counts: set[str] = set()
    for page in site.pages:
        shown |= coverage.pieces_on(page)
        counts |= coverage.rules_on(page)
    for piece in site.pieces:
        if not piece.on or piece.kind not in coverage.slots:
            continue
        if piece.id not in shown:
            yield Finding("never shown", piece.id)
        for rule in piece.reach:
            if rule.id not in counts:
                yield Finding("no effect", piece.id, rule.id, about={"rule": in_words(rule, site, spoken)})


def _missed(coverage: Coverage) -> Iterator[Finding]:
    """Of pages that are not bare: for whoever looks."""
    site = coverage.site
    names = {band.id: band.name for band in site.bands}
    for slot, kind in EXPECTED:
        if slot not in {piece.kind for piece in site.pieces if piece.on}:
            continue
        missing: list[tuple[Page, tuple[int, ...]]] = []
        for page in site.pages:
            bands = tuple(at for at, one in enumerate(coverage.on(page)[slot]) if one.piece is None)
            if bands and not page.bare:
                missing.append((page, bands))
        if missing:
            first, _ = missing[0]
            said = dict.fromkeys(
                names.get(coverage.bands[at] or "", "all widths") for _, some in missing for at in some
            )
            about: dict[str, float | str] = {"pages": len(missing), "path": first.path, "bands": ", ".join(said)}
            yield Finding(kind, ROOT, about=about, place=SeenAt(page=first.id))


def _no_way_on(coverage: Coverage, card: VisitorCard) -> Iterator[Finding]:
    site, gets = coverage.site, coverage.gets(card)
    band = band_at(site, card.width_px)
    at = coverage.bands.index(band)
    leads = {piece.id for piece in site.pieces if _leads_on(piece, site, card, band)}
    known: dict[int, tuple[Outcomes, bool]] = {}
    lost: list[Page] = []
    for page in site.pages:
        outcomes = coverage.on(page, gets)
        if id(outcomes) not in known:
            pieces = (some[at].piece for some in outcomes.values())
            known[id(outcomes)] = outcomes, any(piece.id in leads for piece in pieces if piece)
        if not known[id(outcomes)][1] and not page.bare:
            lost.append(page)
    if lost and leads:
        about: dict[str, float | str] = {"visitor": card.name, "pages": len(lost), "path": lost[0].path}
        yield Finding("no way on", card.id, about=about, place=SeenAt(page=lost[0].id, band=band))


def _leads_on(piece: Piece, site: Site, card: VisitorCard, band: str | None) -> bool:
    """Whether it has a menu or a search for them."""

    languages = site.languages

    def is_there(node: Any) -> bool:
        if band in node.hidden_in:
            return False
        if not card.has_script:
            return is_for_everybody(node)
        return bool(node.audience.takes_in(looking_at(node, card, site, languages)))

    return any(
        isinstance(item, ShowsMenu | SearchBox) and is_there(row) and is_there(item)
        for row in site.shown_rows(piece)
        for cell in row.cells
        for item in cell.items
    )
