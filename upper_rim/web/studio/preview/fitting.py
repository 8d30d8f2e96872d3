"""How is it shown where a piece's rows fail, and what would mend them? The answers are the core's; here are the
words."""

from __future__ import annotations

from collections.abc import Iterable
from typing import NamedTuple

from django.http import HttpRequest

from ....core.findings.checks.laid_out.fit import unfitting
from ....core.findings.finding import Finding
from ....core.findings.fit_offers import RemedyOffer, offer_of
from ....core.findings.severity import Severity, severity_of
from ....core.findings.words import FIT_WORDS, finding_words
from ....core.fit.advice.bars import beside_bars
from ....core.fit.advice.opened import OpenedDrawer
from ....core.fit.advice.remedies import Failure, remedies
from ....core.fit.rows.fitter import Fitter
from ....core.fit.rows.states import FAILING, ROW_STATES, RowState
from ....core.fit.rows.sweep import RowFit, Stretch
from ....core.kinds.pieces import AnyPiece
from ....core.kinds.pieces.base import Piece
from ....core.model.names import cause_name
from ....core.model.site import Site
from ...sites import ids
from ..words.languages import language_name
from .found import Mark, mark_of


class SpanInWords(NamedTuple):
    """A stretch of widths at which a row fails, or nearly does, in one language: as the ruler shows it. `lane`: the
    language's place among all, from above."""

    row: str
    language: str
    language_name: str
    stretch: Stretch
    said: str
    lane: int
    estimate: bool

    @property
    def fails(self) -> bool:
        return self.stretch.state in FAILING

    @property
    def severity(self) -> Severity:
        return severity_of(self.stretch.state) if self.stretch.state != "fits" else "doubtful"

    @property
    def key(self) -> str:
        """Names it in an address."""
        return f"{self.row}:{self.language}:{self.stretch.from_px}"


def spans_of(site: Site, piece: Piece, fits: Iterable[RowFit]) -> list[SpanInWords]:
    """What does not fit well, row by row, the worst of each row first."""
    listed = list(fits)
    lanes = {language: lane for lane, language in enumerate(dict.fromkeys(fit.language for fit in listed))}
    return [
        SpanInWords(
            fit.row,
            fit.language,
            language_name(fit.language),
            stretch,
            said_in_language(finding, site),
            lanes[fit.language],
            fit.is_estimate,
        )
        for fit in listed
        for stretch, finding in zip((one for one in fit.stretches if one.state != "fits"), unfitting(fit), strict=True)
    ]


def said_in_language(finding: Finding, site: Site) -> str:
    said = finding_words(finding, lambda node: cause_name(site, node, finding.language))
    return f"{language_name(finding.language)}: {said}"


class SpanGroup(NamedTuple):
    """Failures of one row by one cause, in all languages, in words."""

    said: str
    spans: list[SpanInWords]


def grouped(site: Site, piece: Piece, spans: Iterable[SpanInWords]) -> list[SpanGroup]:
    """The same failures under one heading each."""
    names = {row.id: row.name for row in site.shown_rows(piece)}
    groups: dict[tuple[str, str, str], list[SpanInWords]] = {}
    for span in spans:
        cause = span.stretch.cause
        groups.setdefault((span.row, cause if not cause.startswith("en-") else "", span.stretch.state), []).append(span)
    return [
        SpanGroup(
            f"{names[row]}: {cause_name(site, cause, site.language) or 'it'} {FIT_WORDS[listed[0].stretch.state]}",
            listed,
        )
        for (row, cause, _), listed in groups.items()
    ]


class Cluster(NamedTuple):
    """Languages whose failures lie over each other on the ruler, and where the last of these ends."""

    languages: str
    to_px: int


def clusters(spans: Iterable[SpanInWords]) -> list[Cluster]:
    found: list[tuple[int, list[tuple[int, str]]]] = []
    for span in sorted((one for one in spans if one.fails), key=lambda one: one.stretch.from_px):
        ends = (span.stretch.to_px, span.language)
        if found and span.stretch.from_px <= found[-1][0] + 1:
            found[-1] = (max(found[-1][0], ends[0]), [*found[-1][1], ends])
        else:
            found.append((ends[0], [ends]))
    return [
        Cluster(" ".join(dict.fromkeys(language for _, language in sorted(listed, reverse=True))), to_px)
        for to_px, listed in found
    ]


def snap_widths(fits: Iterable[RowFit]) -> list[int]:
    """Widths at which a flag stands best: where something begins to fit."""
    found = {stretch.to_px + 1 for fit in fits for stretch in fit.failing}
    return sorted(found)


def marks_of(fits: Iterable[RowFit]) -> dict[str, Mark]:
    """For rows and the items that are causes, the state that is told beside them: the worst one."""
    order = list(ROW_STATES)
    marks: dict[str, RowState] = {}
    for fit in fits:
        for stretch in fit.failing:
            for node in {fit.row, stretch.cause}:
                if node and (node not in marks or order.index(stretch.state) > order.index(marks[node])):
                    marks[node] = stretch.state
    return {node: mark_of(state, f"at some widths: {state}") for node, state in marks.items() if state != "fits"}


def bar_words(fitter: Fitter, site: Site, piece: Piece, fits: Iterable[RowFit]) -> list[tuple[str, int]]:
    """What fails only where a scroll bar takes room: in words, and a width at which it does."""
    names = {row.id: row.name for row in site.shown_rows(piece)}
    return [
        (
            f"{language_name(one.language)} {one.from_px}–{one.to_px}: {names[one.row]}, "
            f"{cause_name(site, one.cause, one.language) or 'it'} {FIT_WORDS[one.state]}",
            one.from_px,
        )
        for one in beside_bars(fitter, site, piece, fits)
    ]


def asked_span(request: HttpRequest, spans: list[SpanInWords]) -> SpanInWords | None:
    """The failure that is looked at: the one named, else the first that fails."""
    named = request.POST.get("failure") or request.GET.get("failure") or ""
    failing = [span for span in spans if span.fails]
    return next((span for span in failing if span.key == named), failing[0] if failing else None)


def offers(fitter: Fitter, site: Site, piece: Piece, span: SpanInWords) -> list[RemedyOffer]:
    """What would mend a failure, the best first."""
    row = next(row for row in site.shown_rows(piece) if row.id == span.row)
    found = remedies(fitter, site, piece, row, Failure(span.language, span.stretch), ids.new_id)
    return [offer_of(one, site, span.language) for one in found]


class DrawerHeight(NamedTuple):
    """A menu's drawer in one language, screen by screen: its size, height in px, and how many screens that is."""

    name: str
    language: str
    screens: list[tuple[str, float, float, bool]]
    shut_px: float


def opened_words(site: Site, listed: Iterable[OpenedDrawer]) -> list[DrawerHeight]:
    drawers: dict[tuple[str, str], list[OpenedDrawer]] = {}
    for one in listed:
        drawers.setdefault((one.menu, one.language), []).append(one)
    every = (
        DrawerHeight(
            cause_name(site, menu, language),
            language_name(language),
            [(f"{one.screen[0]} × {one.screen[1]}", one.whole_px, one.screens, one.screens > 1) for one in found],
            max(one.shut_px for one in found),
        )
        for (menu, language), found in drawers.items()
    )
    # A menu that stands in two rows, as a header's at rest and in a stage, opens alike.
    alike: dict[str, DrawerHeight] = {}
    for drawer in every:
        alike.setdefault(repr(drawer), drawer)
    return list(alike.values())


def measure_words(site: Site, findings: Iterable[Finding]) -> list[tuple[str, list[tuple[str, int]]]]:
    """By item: what is the matter, and for each language and widths a short text and the first width."""
    found: dict[tuple[str, str], list[tuple[str, int]]] = {}
    for one in findings:
        said = finding_words(one, lambda node: cause_name(site, node, site.language))
        first, last = int(one.about["from_px"]), int(one.about["to_px"])
        widths = f"{first}–{last}" if last > first else str(first)
        where = f"{language_name(one.language)} {widths}: {one.about['characters']:.0f}"
        found.setdefault((one.node, said), []).append((where, first))
    return [(said, spans) for (_, said), spans in found.items()]


def resolved_piece(fitter: Fitter, site: Site, piece: Piece) -> tuple[Site, AnyPiece]:
    """Both with the widths of menus that depend on what their rows need."""
    resolved = fitter.resolved(site)
    return resolved, next(one for one in resolved.pieces if one.id == piece.id)
