"""How do a piece's rows fit, in each language and at each width? The one place to ask.

A `Fitter` keeps what it has worked out: measured texts, styles, boxes, swept rows. Sites are values, so what was made
from equal parts is used again; after an edit only what the edit reaches is worked out anew.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from typing import Any, NamedTuple, TypeVar

from ..model.brands import Brands
from ..model.items import LinkList, MenuItem
from ..model.links import Links
from ..model.rich import RichWords
from ..model.site import BottomBar, Float, Header, Piece, Row, Sidebar, Site
from ..model.values import Words
from ..style.faces import Face, character_em, faces_in_use
from ..style.pictures import Pictures
from ..style.resolve import Styling
from ..style.scale import sidebar_needs_px
from .block import Block
from .boxes import Box
from .cells import Memory
from .estimates import Estimates
from .faces import Faces
from .items import item_box, labels_of
from .pieces import row_box
from .setting import Known, Setting, Styles
from .sweep import FROM_PX, TO_PX, Context, RowFit, sweep
from .text import Measurer

Made = TypeVar("Made")
VIEWPORT_HEIGHT_PX = 800.0


class _Made(NamedTuple):
    """An item's box, and what was found out while it was made: see `Setting`."""

    box: Box | None
    missing: frozenset[str]
    estimated: frozenset[str]


@dataclass
class Fitter:
    """`posts`: titles and dates of a posts item in a language. `read`: bytes of an uploaded font by its hash.
    `foresees`: labels that are not translated yet count with the length that they will have; otherwise as they are
    published until then."""

    faces: Mapping[str, Face]
    brands: Brands
    pictures: Callable[[Site], Pictures] = lambda site: lambda path: None
    posts: Callable[[Site], Callable[[Any, str], Sequence[tuple[str, str]]]] = lambda site: lambda item, language: ()
    read: Callable[[str], bytes] | None = None
    year: int | None = None
    foresees: bool = True
    _known: dict[Any, tuple[Any, Any]] = field(default_factory=dict)

    def rows(self, site: Site, piece: Piece, languages: Sequence[str] | None = None) -> list[RowFit]:
        """Every row of a piece in each language, those of the site's pages where none are named."""
        return [
            self.row(site, piece, row, language)
            for row in site.shown_rows(piece)
            for language in (languages_of(site) if languages is None else languages)
        ]

    def row(self, site: Site, piece: Piece, row: Row, language: str) -> RowFit:
        told = (
            _foundations(site), piece.replaced(rows=()), row, site.menus, site.pages, site.assets, site.fonts, site.name,
            self._bands_of(site, piece),
        )  # fmt: skip
        return self._kept(("row", piece.id, row.id, language), told, lambda: self._swept(site, piece, row, language))

    def _swept(self, site: Site, piece: Piece, row: Row, language: str) -> RowFit:
        missing: set[str] = set()
        estimated: set[str] = set()
        contexts = []
        for from_px, to_px, band, beside in self._bands_of(site, piece):
            box = None
            if band not in row.hidden_in and band not in piece.hidden_in:
                setting = self.setting(site, piece, row, language, band, beside=beside)
                box = self._box(piece, row, setting)
                missing |= setting.missing
                estimated |= setting.estimated
            contexts.append(Context(from_px, to_px, band, box))
        inset = self._inset(piece, site)
        laid = self._kept(
            ("laid", piece.id, row.id, language),
            (contexts, inset),
            lambda: tuple(
                sweep(contexts, VIEWPORT_HEIGHT_PX, Memory(), in_lines=stands_in_lines(piece), inset_px=inset)
            ),
        )
        return RowFit(row.id, language, laid, frozenset(estimated), "".join(sorted(missing)))

    def setting(
        self, site: Site, piece: Piece, row: Row, language: str, band: str | None, *, beside: bool = False
    ) -> Setting:
        view = site.replaced(pieces=(piece.replaced(rows=(row,)),))
        skeleton = (
            _foundations(site), piece.styles, piece.wears, piece.roles,
            tuple((node.id, node.kind if hasattr(node, "kind") else "", node.styles, node.wears) for node in _styled(row)),
            tuple(getattr(item, "rank", "") or getattr(item, "upright", "") for cell in row.cells for item in cell.items),
        )  # fmt: skip
        known = self._kept(("styles", piece.id, row.id), skeleton, Known)
        measurer = self._measurer(site)
        links = self._kept("links", site.pages, lambda: Links(site))
        languages = languages_of(site)
        return Setting(
            site=view,
            styles=Styles(lambda: Styling(view), known),
            measurer=measurer,
            links=links,
            brands=self.brands,
            pictures=self._kept("pictures", site.assets, lambda: self.pictures(site)),
            posts=self._kept("posts", (site.pages, site.assets), lambda: self.posts(site)),
            language=language,
            band=band,
            beside=beside,
            year=self.year,
            estimates=Estimates(languages) if self.foresees else None,
        )

    def _measurer(self, site: Site) -> Measurer:
        used = self._kept(
            "faces",
            (_foundations(site), site.pieces, site.pages),
            lambda: faces_in_use(site, self.faces),
        )
        names = tuple(file.name for face in used for file in face.files)
        return self._kept("measurer", names, lambda: Measurer(Faces(used, self.read)))

    def _box(self, piece: Piece, row: Row, setting: Setting) -> Block:
        """The row's box; the one from before where all that stands in it is."""
        items: dict[str, Box | None] = {}
        for item in (item for cell in row.cells for item in cell.items):
            made = self._item(piece, item, setting)
            items[item.id] = made.box
            setting.missing |= made.missing
            setting.estimated |= made.estimated
        cells = tuple(cell.replaced(items=()) for cell in row.cells)
        told = (tuple(items.values()), row.replaced(cells=cells), setting.styles.known)
        return self._kept(
            ("box", piece.id, row.id, setting.language, setting.band, setting.beside),
            told,
            lambda: row_box(row, piece, setting, items),
        )

    def _item(self, piece: Piece, item: Any, setting: Setting) -> _Made:
        def make() -> _Made:
            alone = replace(setting, missing=set(), estimated=set())
            box = item_box(item, alone)
            return _Made(box, frozenset(alone.missing), frozenset(alone.estimated))

        return self._kept(
            ("item", piece.id, item.id, setting.language, setting.band, setting.beside),
            (_seen(item, setting), setting.styles.known, setting.measurer),
            make,
        )

    def _bands_of(self, site: Site, piece: Piece) -> list[tuple[int, int, str | None, bool]]:
        """Widths between which other rules count: from, to (included), the band, whether a sidebar stands beside."""
        edges: dict[int, str | None] = {band.from_px: band.id for band in site.bands} or {0: None}
        needs = (
            sidebar_needs_px(site, character_em(site, self.faces), piece.width_px)
            if isinstance(piece, Sidebar)
            else None
        )
        starts = sorted({*edges, *([needs] if needs is not None else [])})
        found: list[tuple[int, int, str | None, bool]] = []
        band: str | None = None
        for start, end in zip(starts, [*starts[1:], TO_PX + 1], strict=True):
            band = edges.get(start, band)
            low, high = max(start, FROM_PX), min(end - 1, TO_PX)
            if low <= high:
                found.append((low, high, band, needs is not None and start >= needs))
        return found

    @staticmethod
    def _inset(piece: Piece, site: Site) -> float:
        """By how much the piece leaves its rows less than the viewport's width."""
        return 2.0 * piece.inset_px if isinstance(piece, Float) else 0.0

    def _kept(self, key: Any, told: Any, make: Callable[[], Made]) -> Made:
        """What was made for this key, if it was made from equal things."""
        known = self._known.get(key)
        if known is not None and known[0] == told:
            return known[1]  # type: ignore[no-any-return]
        made = make()
        self._known[key] = (told, made)
        return made


def languages_of(site: Site) -> list[str]:
    """The languages of the site's pages, its own first."""
    return list(dict.fromkeys([site.language, *(page.language for page in site.pages)]))


def stands_in_lines(piece: Piece) -> bool:
    """Whether a piece's items are meant to stand on one line. In footers, sidebars and notice bars text flows."""
    return isinstance(piece, Header | BottomBar | Float)


def _styled(row: Row) -> list[Any]:
    return [row, *row.cells, *(item for cell in row.cells for item in cell.items)]


def _foundations(site: Site) -> tuple[Any, ...]:
    return (
        site.language, site.face, site.heading_face, site.text_px, site.text_weight, site.ratio, site.least_measure,
        site.content_px, site.gutter_px, site.sidebar_px, site.looks, site.roles, site.bands, site.fonts,
    )  # fmt: skip


def _seen(item: Any, setting: Setting) -> tuple[Any, ...]:
    """What of an item can be seen in the setting's language: nothing else is worth a new box."""
    shown = []
    for name, held in item.__dict__.items():
        if isinstance(held, Words | RichWords):
            shown.append((held.in_language(setting.language), bool(held.in_language(setting.language))))
        elif name not in {"styles", "wears"}:
            shown.append(held)
    foreseen = tuple(
        setting.words(held, item.id) for held in item.__dict__.values() if isinstance(held, Words)
    ) if setting.estimates else ()  # fmt: skip
    menu = labels_of(item, setting) if isinstance(item, MenuItem | LinkList) else ()
    return (tuple(shown), foreseen, menu, setting.site.name, setting.site.assets)
