"""How do a piece's rows fit, in each language and at each width? The one place to ask.

A `Fitter` keeps what it has worked out: measured texts, styles, boxes, swept rows. Sites are values, so what was made
from equal parts is used again; after an edit only what the edit reaches is worked out anew.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from threading import RLock
from typing import Any, NamedTuple, TypeAlias

from pydantic import JsonValue

from ...kinds.items.menu import MenuItem
from ...kinds.items.trail import Step, Trail
from ...kinds.pieces.base import Piece
from ...kinds.pieces.sidebar import Sidebar
from ...kinds.rows import Row
from ...model.editing.apply import apply
from ...model.editing.edits import Edit, Set, Together
from ...model.memo import Memo
from ...model.navigation.current import Standings
from ...model.navigation.links import Links
from ...model.navigation.menus import Menus
from ...model.navigation.trail import Trails
from ...model.site import Site, band_widths
from ...model.stages import in_stage
from ...model.tree import items_of
from ...reach.reached import reached
from ...style.paint.pictures import Pictures
from ...style.resolve import Styling
from ...style.type.faces import Face, character_em, faces_in_use
from ...style.type.scale import sidebar_needs_px
from ...values.brands import Brands
from ...values.styling import RoleDefault
from ..css.amount import Amount, Viewport
from ..css.base import BaseSheets
from ..css.block import offset_in
from ..css.boxes import BLOCK_END, BLOCK_START, Box, Frame
from ..css.linear import value
from ..markup.pieces import beyond, piece_around, shrinks
from ..text.faces import Faces
from ..text.paragraph import Measurer
from .boxing import Boxing, Made
from .cells import Memory
from .estimates import Estimates
from .held import Held, Share, held_in
from .setting import Known, Setting, Skeleton, Styles
from .styles import laid_out
from .sweep import FROM_PX, TO_PX, Context, Laid, RowFit, look, sweep

VIEWPORT_HEIGHT_PX = 800.0
MOST_KEPT = 40_000
"""Things that a fitter keeps; with more it begins anew."""


class Whole(NamedTuple):
    """A piece laid out with all its rows, in a width band. `margins_px`: above it and below; `start_px`: from where the
    room that it has begins."""

    frame: Frame
    band: str | None
    viewport: Viewport
    margins_px: tuple[float, float]
    start_px: float


class _Boxed(NamedTuple):
    """A row's boxes, for the widths at which each of them counts."""

    contexts: tuple[Context, ...]
    estimated: frozenset[str]
    missing: str


_Bands: TypeAlias = "list[tuple[int, int, str | None, bool]]"
"""Widths between which the same rules count: from, to (included), the band, whether a sidebar stands beside."""


@dataclass
class Fitter:
    """`posts`: titles and dates of a posts item in a language. `read`: bytes of an uploaded font by its hash.
    `foresees`: labels that are not translated yet count with the length that they will have; otherwise as they are
    published until then. `bar_px`: how much of the window's width its scroll bar takes, for which media queries do not
    count it out (CSS Overflow 3, 3.4; Media Queries 4, 4.1)."""

    faces: Mapping[str, Face]
    brands: Brands
    sheets: BaseSheets
    pictures: Callable[[Site], Pictures] = lambda site: lambda path: None
    posts: Callable[[Site], Callable[[Any, str], Sequence[tuple[str, str]]]] = lambda site: lambda item, language: ()
    read: Callable[[str], bytes] | None = None
    year: int | None = None
    foresees: bool = True
    bar_px: float = 0.0
    _known: dict[Any, tuple[Any, Any]] = field(default_factory=dict)
    _lock: RLock = field(default_factory=RLock)
    _bare: Fitter | None = None
    _published: Fitter | None = None
    _beside_bars: dict[float, Fitter] = field(default_factory=dict)
    _of_no_bar: Fitter | None = None
    _foreseeing: Fitter | None = None

    def beside_bar(self, bar_px: float) -> Fitter:
        """One for windows whose scroll bar takes so many px. What rows are made of is shared with it."""
        if bar_px == self.bar_px:
            return self
        if bar_px not in self._beside_bars:
            shared = {key: value for key, value in self._known.items() if key in _SHARED}
            self._beside_bars[bar_px] = replace(
                self, bar_px=bar_px, _known=shared, _bare=None, _published=None, _beside_bars={}, _of_no_bar=self
            )
        return self._beside_bars[bar_px]

    def as_published(self) -> Fitter:
        """One that foresees nothing: what it says holds for what is published now."""
        if not self.foresees:
            return self
        if self._published is None:
            self._published = replace(self, foresees=False, _known={}, _bare=None, _beside_bars={}, _foreseeing=self)
        return self._published

    def rows(self, site: Site, piece: Piece, languages: Sequence[str] | None = None) -> list[RowFit]:
        """Every row of a piece in each language: those of the pages that it shows on, where none are named."""
        asked = self.languages(site, piece) if languages is None else languages
        return [self.row(site, piece, row, language) for row in site.shown_rows(piece) for language in asked]

    def whole(
        self, site: Site, piece: Piece, language: str, viewport: Viewport, stage: str | None = None
    ) -> Whole | None:
        """The piece with the rows that it shows at rest, or in a stage; None where it does not show at that width."""
        width, site = int(value(viewport.width)), self.resolved(site)
        own = next((one for one in site.pieces if one.id == piece.id), piece)
        piece = piece.replaced(rows=own.rows)
        boxes: list[Box] = []
        within: Setting | None = None
        for row in site.rows_in(piece, stage):
            setting = self.setting(site, piece, row, language)
            bands = self._bands_of(site, piece, row, self._held(site, piece).below_px)
            of = next(((start, band, beside) for start, last, band, beside in bands if start <= width <= last), None)
            if of is None or of[1] in piece.hidden_in:
                return None
            within = replace(setting, band=of[1], beside=of[2], from_px=of[0])
            if of[1] not in row.hidden_in:
                seen = {item.id: self._boxing.seen(item, setting) for cell in row.cells for item in cell.items}
                boxes.append(self._boxing.row(piece, row, within, seen))
        if within is None:
            return None
        around = self.kept(
            ("whole", piece.id, stage, language, within.band, within.beside),
            (boxes, piece.replaced(rows=()), within.styles.known.ground, within.part(piece.id)),
            lambda: piece_around(boxes, piece, within, stands_free=stage is not None or _stands_free(piece, within)),
        )
        room = self._held(site, piece).share._replace(edges=beyond(piece, within)).at(viewport)
        of_viewport = around.fitting if shrinks(piece, within) else around.filling
        if within.beside:
            # Its track, which is as wide as what it holds asks for.
            room = around.wanted(viewport).most
        own_width = of_viewport(viewport, room)
        frame = self.kept(
            ("frame", piece.id, stage, language, viewport),
            (around, own_width, room),
            lambda: around.lay_out(own_width, viewport, room),
        )
        start = value(offset_in(around, own_width, room, viewport))
        margins = (
            value(around.block_margin(BLOCK_START, viewport, room)),
            value(around.block_margin(BLOCK_END, viewport, room)),
        )
        return Whole(frame, within.band, viewport, margins, start)

    def languages(self, site: Site, piece: Piece) -> list[str]:
        """The languages of the pages that a piece shows on, the site's own first; that one alone, where it shows
        nowhere."""
        found = reached(site).languages.get(piece.id) or {site.language}
        return sorted(found, key=lambda language: (language != site.language, language))

    def row(self, site: Site, piece: Piece, row: Row, language: str) -> RowFit:
        name = (piece.id, row.id, language)
        piece = in_stage(piece, row.stage)
        given = (
            foundations_of(site), piece.replaced(rows=()), row, _menus_in(row, site), site.pages, site.assets, site.name,
            self.measurer(site), self._held(site, piece),
        )  # fmt: skip
        return self.kept(("row", *name), given, lambda: self._seen_anew(site, piece, row, language))

    def given(self, site: Site, piece: Piece) -> tuple[Any, ...]:
        """All that hangs together with how a piece is laid out, at whatever width: it is as before where this is equal."""
        rows = site.shown_rows(piece)
        shown = tuple(_menus_in(row, site) for row in rows)
        shared = tuple(row for row in rows if row not in piece.rows)
        return (
            foundations_of(site), piece, shared, shown, site.pages, site.assets, site.name, self.measurer(site),
            self._held(site, piece),
        )  # fmt: skip

    def row_at(self, site: Site, piece: Piece, row: Row, language: str, width: int) -> Laid | None:
        """What `row` says of one width, without looking at the others; None where it does not show there."""
        piece = in_stage(piece, row.stage)
        boxed, memory, in_lines = self._boxed_row(site, piece, row, language)
        return look(boxed.contexts, width, VIEWPORT_HEIGHT_PX, memory, in_lines=in_lines)

    def resolved(self, site: Site) -> Site:
        """The site with a width of its own for each menu that is to be a button wherever its row is full; itself, where
        there is none. Each is the greatest of the least widths from which on the row fits, over all languages."""
        if self._of_no_bar is not None:
            # What is published is the same for all.
            return self._of_no_bar.resolved(site)
        if not _some_wait.of(site.pieces, lambda pieces: any(map(_waits, items_of(pieces)))):
            return site
        told = (site.pieces, site.menus, site.pages, site.assets, site.name, foundations_of(site))
        return self.kept("resolved", told, lambda: self._resolved(site))

    def _resolved(self, site: Site) -> Site:
        if self._bare is None:
            # Rows without their buttons are other rows: they are remembered by themselves.
            shared = {key: value for key, value in self._known.items() if key in _SHARED}
            self._bare = replace(self, _known=shared)
        waiting = [item.id for item in items_of(site.pieces) if _waits(item)]
        rows = _edited(
            site, (Set(node=node, field=field, value=value) for node in waiting for field, value in _NO_BUTTON)
        )
        widths: dict[str, int] = {}
        for piece in rows.pieces:
            fits = self._bare.rows(rows, piece)
            for row in piece.rows:
                needed = max((fit.fits_from_px or TO_PX + 1 for fit in fits if fit.row == row.id), default=FROM_PX)
                widths |= {item.id: needed for cell in row.cells for item in cell.items}
        return _edited(site, (Set(node=node, field="drawer_below_px", value=widths[node]) for node in waiting))

    def _seen_anew(self, site: Site, piece: Piece, row: Row, language: str) -> RowFit:
        """What can be seen of it may still be what it was: another language's words have changed, say."""
        boxed, memory, in_lines = self._boxed_row(site, piece, row, language)
        return self.kept(
            ("fit", piece.id, row.id, language),
            (boxed, in_lines),
            lambda: RowFit(
                row.id,
                language,
                tuple(sweep(boxed.contexts, VIEWPORT_HEIGHT_PX, memory, in_lines=in_lines)),
                boxed.estimated,
                boxed.missing,
            ),
        )

    def _boxed_row(self, site: Site, piece: Piece, row: Row, language: str) -> tuple[_Boxed, Memory, bool]:
        """Its boxes at all widths, and what is remembered of them."""
        setting = self.setting(site, piece, row, language)
        seen = {item.id: self._boxing.seen(item, setting) for cell in row.cells for item in cell.items}
        held = self._held(site, piece)
        bands = self._bands_of(site, piece, row, held.below_px)
        told = (self._boxing.shape(row), tuple(seen.values()), setting.styles.known, setting.measurer, bands, held)
        name = (piece.id, row.id, language)
        boxed = self.kept(("boxed", *name), told, lambda: self._boxed(piece, row, setting, seen, bands, held.share))
        in_lines = stands_in_lines(piece)
        return boxed, self.kept(("memory", piece.id, row.id), in_lines, Memory), in_lines

    def _boxed(
        self, piece: Piece, row: Row, setting: Setting, seen: Mapping[str, Any], bands: _Bands, share: Share
    ) -> _Boxed:
        contexts = []
        for from_px, to_px, band, beside in bands:
            box, narrow = None, False
            edges: tuple[Amount, ...] = ()
            if band not in row.hidden_in and band not in piece.hidden_in:
                there = replace(setting, band=band, beside=beside, from_px=from_px)
                box = self._boxing.piece(piece, row, there, seen)
                narrow, edges = shrinks(piece, there), beyond(piece, there)
            contexts.append(Context(from_px, to_px, band, box, narrow, share._replace(edges=edges)))
        return _Boxed(tuple(contexts), frozenset(setting.estimated), "".join(sorted(setting.missing)))

    def setting(self, site: Site, piece: Piece, row: Row, language: str) -> Setting:
        """For a row of a piece; its band is still to be chosen."""
        view = self.kept(
            ("view", piece.id, row.id),
            (
                foundations_of(site),
                site.menus,
                site.pages,
                site.assets,
                site.name,
                piece.replaced(rows=()),
                row,
            ),
            lambda: site.replaced(pieces=(piece.replaced(rows=(row,)),)),
        )
        name, skeleton = ("styles", piece.id, row.id), self._skeleton(site, piece, row)
        before = self._known.get(name)
        known = self.kept(name, skeleton, lambda: before[1].carried(skeleton) if before else Known(skeleton))
        return Setting(
            site=view,
            styles=Styles(lambda: Styling(view), known),
            measurer=self.measurer(site),
            links=self.kept("links", site.pages, lambda: Links(site)),
            menus=self.kept("menus", (site.menus, site.pages, site.language), lambda: Menus(site)),
            brands=self.brands,
            sheets=self.sheets,
            pictures=self.kept("pictures", site.assets, lambda: self.pictures(site)),
            trails=lambda item, language: self._longest_trail(site, item, language),
            posts=self.kept("posts", (site.pages, site.assets), lambda: self.posts(site)),
            language=language,
            band=None,
            year=self.year,
            estimates=Estimates() if self.foresees else None,
        )

    def _held(self, site: Site, piece: Piece) -> Held:
        held = held_in(site, piece)
        return held._replace(share=held.share._replace(bar_px=self.bar_px)) if self.bar_px else held

    def _skeleton(self, site: Site, piece: Piece, row: Row) -> Skeleton:
        nodes: dict[str, tuple[Any, ...]] = {row.id: (piece.id, laid_out(row.styles), row.wears)}
        for cell in row.cells:
            nodes[cell.id] = (row.id, laid_out(cell.styles), cell.wears)
            for item in cell.items:
                nodes[item.id] = (cell.id, laid_out(item.styles), item.wears, item.kind, *item.roles.values())
        said = (piece.id, laid_out(piece.styles), piece.wears, _defaults(piece.roles))
        return Skeleton(self.kept("laid out", foundations_of(site), lambda: _laid_out_foundations(site)), said, nodes)

    def _longest_trail(self, site: Site, item: Trail, language: str) -> list[Step]:
        told = (item.words, item.menu, site.menus, site.pages, site.language)

        def work() -> list[Step]:
            links, menus = Links(site), Menus(site)
            return Trails(site, links, menus, Standings(links)).longest(item, language, site.pages)

        return self.kept(("trail", item.id, language), told, work)

    def measurer(self, site: Site) -> Measurer:
        used = self.kept(
            "faces",
            (foundations_of(site), site.pieces, site.pages),
            lambda: faces_in_use(site, self.faces),
        )
        names = tuple(file.name for face in used for file in face.files)
        return self.kept("measurer", names, lambda: Measurer(Faces(used, self.read)))

    def _bands_of(self, site: Site, piece: Piece, row: Row, below_px: int) -> _Bands:
        """Widths between which other rules count, all `below_px`."""
        edges: dict[int, str | None] = {band.from_px: band.id for band in site.bands} or {0: None}
        needs = (
            sidebar_needs_px(site, character_em(site, self.faces), piece.width_px)
            if isinstance(piece, Sidebar)
            else None
        )
        widths = band_widths(site)
        own = {px for cell in row.cells for item in cell.items for px in item.changes_at(widths) if px <= TO_PX}
        starts = sorted({*edges, *([needs] if needs is not None else []), *own})
        found: _Bands = []
        band: str | None = None
        for start, end in zip(starts, [*starts[1:], TO_PX + 1], strict=True):
            band = edges.get(start, band)
            low, high = max(start, FROM_PX), min(end, below_px) - 1
            if low <= high:
                found.append((low, high, band, needs is not None and start >= needs))
        return found

    @property
    def _boxing(self) -> Boxing:
        return Boxing(self.kept)

    def kept(self, key: Any, told: Any, make: Callable[[], Made]) -> Made:
        """What was made for this key, if it was made from equal things. One thread at a time: boxes and what is
        remembered of them are shared."""
        with self._lock:
            known = self._known.get(key)
            if known is not None and known[0] == told:
                # What is equal now is the same the next time, and not compared part by part.
                self._known[key] = (told, known[1])
                return known[1]
            known = self._of_what_is_foreseen(key, told)
            made = known[1] if known is not None else make()
            if len(self._known) > MOST_KEPT:
                self._known.clear()
            self._known[key] = (told, made)
            return made

    def _of_what_is_foreseen(self, key: Any, told: Any) -> tuple[Any, Any] | None:
        other = self._foreseeing
        name = key[0] if isinstance(key, tuple) else key
        if other is None or (name not in _OF_BOTH and name not in _SHARED):
            return None
        known = other._known.get(key)
        is_same = known is not None and known[0] == told and not getattr(known[1], "estimated", ())
        return known if is_same else None


_OF_BOTH = frozenset({"styles", "view", "shape", "item", "cell", "box", "piece", "boxed", "fit", "whole", "frame"})
"""What a fitter that foresees has made serves the one that does not, by the keys' first words: it is made from what is seen,
and nothing of that is foreseen where it is equal."""
_SHARED = frozenset({"faces", "measurer", "links", "menus", "pictures", "posts"})


def _waits(item: Any) -> bool:
    """Whether a menu's width depends on what its row needs."""
    return isinstance(item, MenuItem) and item.drawer_when_full and not item.drawer_always


_some_wait: Memo[tuple[Piece, ...], bool] = Memo(64)


_NO_BUTTON: tuple[tuple[str, JsonValue], ...] = (
    ("drawer_below", None),
    ("drawer_below_px", None),
    ("drawer_when_full", False),
)


def _edited(site: Site, edits: Iterable[Edit]) -> Site:
    made = apply(site, Together(edits=tuple(edits)))
    assert isinstance(made, Site), made
    return made


def _stands_free(piece: Piece, setting: Setting) -> bool:
    """In the stack at the window's lower edge, or in a track beside the content."""
    return piece.is_low or (isinstance(piece, Sidebar) and setting.beside)


def stands_in_lines(piece: Piece) -> bool:
    """Whether a piece's items are meant to stand on one line. In footers, sidebars and notice bars text flows."""
    return piece.IN_LINES


def _menus_in(row: Row, site: Site) -> tuple[Any, ...]:
    shown = {getattr(item, "menu", None) for cell in row.cells for item in cell.items}
    return tuple(menu for menu in site.menus if menu.id in shown)


def _defaults(roles: Iterable[RoleDefault]) -> tuple[Any, ...]:
    return tuple((default.role, laid_out(default.styles)) for default in roles)


def _laid_out_foundations(site: Site) -> tuple[Any, ...]:
    looks = tuple((look.id, laid_out(look.styles)) for look in site.looks)
    unstyled = site.replaced(looks=(), roles=())
    return (foundations_of(unstyled), looks, _defaults(site.roles))


def foundations_of(site: Site) -> tuple[Any, ...]:
    return (
        site.language, site.face, site.heading_face, site.text_px, site.text_weight, site.ratio, site.least_measure,
        site.content_px, site.gutter_px, site.sidebar_px, site.looks, site.roles, site.bands, site.fonts,
        site.spoken, site.phrases,
    )  # fmt: skip
