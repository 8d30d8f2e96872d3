"""All findings of a site, in one list: which are one, and in which order?"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator, Sequence
from datetime import datetime
from functools import partial
from typing import NamedTuple

from ..fit.rows.fitter import Fitter
from ..fit.rows.sweep import RowFit
from ..gates.guards import Guards, guards_of
from ..gates.waiting import given_of_hosts, hosts_found
from ..kinds.pieces.base import Moving, Piece
from ..kinds.pieces.footer import Footer
from ..kinds.pieces.header import Header
from ..kinds.rows import Row
from ..model.headings import title_in
from ..model.navigation.links import Links
from ..model.navigation.menus import Menus
from ..model.site import Asset, Page, Site
from ..model.tree import walk
from ..movement.flicker import too_early
from ..movement.scene import Scenes, Shape
from ..reach.coverage import coverage_of
from ..reach.reached import reached
from .checks.contents.files import in_files as in_own_files
from .checks.contents.own_css import in_own_css
from .checks.contents.pages import Given, OutlineOf, in_contents
from .checks.contents.shapes import in_shapes
from .checks.laid_out.fit import ill_measured, too_small, unfitting
from .checks.laid_out.legibility import in_texts, squeezed
from .checks.laid_out.movement import begun_early, in_movement_of_all
from .checks.parts.languages import given_of_pages, of_pages, of_pieces
from .checks.parts.looks import in_looks
from .checks.parts.menus import IdsOf, in_menu, two_buttons
from .checks.parts.names import in_names
from .checks.parts.unfinished import in_unfinished
from .checks.parts.unused import in_unused, in_unused_files, unused_files
from .checks.shown.consent import in_consent
from .checks.shown.gates import given_of_locked, in_files, in_gates, in_pages
from .checks.shown.landmarks import in_landmarks
from .checks.shown.visibility import given_of_coverage, in_audiences, in_coverage
from .finding import Finding, FindingKind
from .severity import SEVERITIES, Severity, severity_of
from .subjects import Subject


class LookedAt(NamedTuple):
    """A site, with what is asked besides: how rows are laid out, contents by their hashes, the ids in a page, what its own
    content says of itself and is like, and the present."""

    site: Site
    fitter: Fitter
    read: Callable[[str], bytes]
    ids_of: IdsOf
    outline_of: OutlineOf
    shape_of: Callable[[Page, tuple[int, int]], Shape]
    now: datetime

    def at(self, site: Site) -> LookedAt:
        """The same of another state of the site."""
        return self._replace(site=self.fitter.resolved(site))


class Cause(NamedTuple):
    """Findings that have one cause are one: of a kind, about a node, by another one. `findings`: the places where it is so,
    the greatest first."""

    kind: FindingKind
    node: str
    other: str
    findings: tuple[Finding, ...]

    @property
    def stage(self) -> str:
        return self.findings[0].place.stage

    @property
    def key(self) -> str:
        """Names it among all causes of a site, from one state of that to the next."""
        return "~".join((self.kind.replace(" ", "-"), self.node, self.other, self.stage))

    @property
    def severity(self) -> Severity:
        return severity_of(self.kind)

    @property
    def languages(self) -> Sequence[str]:
        return list(dict.fromkeys(one.language for one in self.findings if one.language))


def findings_of(looked: LookedAt) -> Iterator[Finding]:
    yield from found_at_once(looked)
    yield from found_by_laying_out(looked)


def found_at_once(looked: LookedAt) -> Iterator[Finding]:
    """What takes no time to speak of."""
    site, fitter = looked.site, looked.fitter
    guards = fitter.kept("guards", given_of_locked(site), lambda: guards_of(site))
    menus, links = Menus(site), Links(site)
    yield from in_unfinished(site, fitter.kept)
    yield from (one for menu in site.menus for one in in_menu(menu, site, menus, links, looked.ids_of))
    yield from two_buttons(site)
    yield from in_audiences(site, looked.now, kept=fitter.kept)
    yield from fitter.kept("in coverage", given_of_coverage(site), lambda: in_coverage(coverage_of(site)))
    yield from in_gates(site, guards, fitter.kept)
    yield from fitter.kept("locked", given_of_locked(site), lambda: _about_what_is_locked(looked, guards))
    yield from in_consent(site, fitter.kept("hosts", given_of_hosts(site), lambda: hosts_found(site)))
    yield from of_pieces(site)
    yield from fitter.kept("of pages", given_of_pages(site), lambda: of_pages(site))
    yield from in_unused(site, fitter.kept)
    yield from in_unused_files(not_used(looked))
    yield from _in_pages(looked)
    yield from in_names(site, fitter.kept)
    yield from in_landmarks(coverage_of(site), fitter.kept)
    yield from in_looks(fitter, site)
    pictures = fitter.kept("pictures", site.assets, lambda: fitter.pictures(site))
    yield from in_own_files(site, pictures, coverage_of(site))
    yield from fitter.kept("shapes", (site.pages, site.shapes, site.viewport), lambda: list(in_shapes(site)))


def _about_what_is_locked(looked: LookedAt, guards: Guards | None) -> list[Finding]:
    """All pages are read for it."""
    return [*in_files(looked.site, guards, looked.read), *in_pages(looked.site, guards, looked.read)]


def not_used(looked: LookedAt) -> list[Asset]:
    """The site's files that nothing names."""

    def named() -> set[str]:
        return {name for outline in map(looked.outline_of, looked.site.pages) if outline for name in outline.files}

    return unused_files(looked.site, looked.read, named, looked.fitter.kept)


def _in_pages(looked: LookedAt) -> Iterator[Finding]:
    site, coverage = looked.site, coverage_of(looked.site)
    headers = {piece.id for piece in site.pieces if isinstance(piece, Header)}
    footers = frozenset(piece.id for piece in site.pieces if isinstance(piece, Footer))
    titled = frozenset(piece.id for piece in site.pieces if piece.id in headers and _has_title(site, piece))

    def given(page: Page) -> Given:
        takes_some = page.splice is not None and not page.bare
        shown = coverage.pieces_on(page) if takes_some else frozenset()
        return Given(bool(shown & headers), bool(shown & footers), bool(shown & titled))

    told = (site.pages, site.assets, site.icon, site.description, reached(site), titled)
    yield from looked.fitter.kept("in contents", told, lambda: in_contents(site, looked.outline_of, given))
    if site.css:
        outlines = filter(None, map(looked.outline_of, site.pages))
        yield from in_own_css(site, {mark for outline in outlines for mark in outline.marks})


def _has_title(site: Site, piece: Piece) -> bool:
    """At every width, before anybody has scrolled."""
    title = title_in(site, piece)
    comes_later = isinstance(piece, Moving) and piece.comes_and_goes and piece.hides_until is not None
    return title is not None and title.always and not piece.hidden_in and not comes_later


def found_by_laying_out(looked: LookedAt) -> Iterator[Finding]:
    """What takes seconds where nothing of the site has been laid out before."""
    site, fitter = looked.site, looked.fitter
    yield from in_texts(fitter, site, site.pieces)
    yield from _in_rows(fitter, site, site.pieces)
    yield from _in_movement(looked)


def found_again(looked: LookedAt, subject: Subject, node: str) -> Iterator[Finding]:
    """What takes no time, and of what takes some what an edit about that subject and node can have changed."""
    site, fitter = looked.site, looked.fitter
    yield from found_at_once(looked)
    if subject == "movement":
        yield from _in_movement(looked)
    pieces = [piece for piece in site.pieces if subject != "pages" and _holds(piece, node)]
    yield from _in_rows(fitter, site, pieces)
    if subject == "reading":
        yield from in_texts(fitter, site, pieces)


def _holds(piece: Piece, node: str) -> bool:
    return piece.id == node or any(one.id == node for one in walk(piece))


def _in_movement(looked: LookedAt) -> Iterator[Finding]:
    site, fitter = looked.site, looked.fitter
    yield from in_movement_of_all(Scenes(fitter.as_published(), site), looked.shape_of)
    yield from map(begun_early, too_early(fitter, site, site.pieces))


def _in_rows(fitter: Fitter, site: Site, pieces: Iterable[Piece]) -> Iterator[Finding]:
    for piece in pieces:
        rows = {row.id: row for row in site.shown_rows(piece)}
        for fit in fitter.rows(site, piece):
            key, told = ("found in", piece.id, fit.row, fit.language), (fit, site.least_measure, site.measure)
            yield from fitter.kept(key, told, partial(_in_row, site, rows[fit.row], fit))
        yield from fitter.kept(
            ("squeezed in", piece.id), fitter.given(site, piece), partial(_squeezed, fitter, site, piece)
        )


def _squeezed(fitter: Fitter, site: Site, piece: Piece) -> list[Finding]:
    """Where each width band begins, and on a wide screen; each item once, where it has the least."""
    found: dict[str, Finding] = {}
    for width in sorted({USUAL_PX, *(max(LEAST_PX, band.from_px) for band in site.bands)}):
        for one in squeezed(fitter, site, piece, site.language, width):
            if one.node not in found or one.amount < found[one.node].amount:
                found[one.node] = one
    return list(found.values())


LEAST_PX, USUAL_PX = 320, 1280
"""Widths of the smallest and of a usual window."""


def _in_row(site: Site, row: Row, fit: RowFit) -> list[Finding]:
    return [
        *(one for one in unfitting(fit) if one.kind != "tight"),
        *(one for one in ill_measured(site, fit) if not _is_usual(one)),
        *too_small(row, fit),
    ]


def _is_usual(one: Finding) -> bool:
    """Short lines of footers and on phones: only where half of what is wished finds no room does somebody have to look."""
    return one.kind == "short lines" and float(one.about["characters"]) >= float(one.about["limit"]) / 2


def causes(findings: Iterable[Finding]) -> list[Cause]:
    """The worst first, each where its first finding came."""
    found: dict[tuple[FindingKind, str, str, str], list[Finding]] = {}
    for one in findings:
        found.setdefault((one.kind, one.node, one.other, one.place.stage), []).append(one)
    made = [
        Cause(kind, node, other, tuple(sorted(listed, key=lambda one: -one.amount)))
        for (kind, node, other, _), listed in found.items()
    ]
    return sorted(made, key=lambda one: SEVERITIES.index(one.severity))
