"""Which boxes of a row are still those from before? All of which what can be seen has not changed."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, replace
from typing import Any, NamedTuple, Protocol, TypeVar

from ...kinds.items.copyright import Copyright
from ...kinds.items.languages import LanguageSwitch
from ...kinds.items.links import LinkList
from ...kinds.items.logo import Logo
from ...kinds.items.menu import MenuItem
from ...kinds.items.picture import PictureItem
from ...kinds.items.pictures import PictureList
from ...kinds.items.posts import Posts
from ...kinds.items.trail import Trail
from ...kinds.pieces.base import Piece
from ...kinds.rows import Cell, Row
from ...values.rich import RichWords
from ...values.words import Words
from ..css.block import Block
from ..css.boxes import Box
from ..markup.items import item_box, variant_of
from ..markup.menus import labels_of
from ..markup.pieces import cell_box, piece_around, row_box, side_of
from .setting import Setting

Made = TypeVar("Made")


class Keeping(Protocol):
    def __call__(self, key: Any, told: Any, make: Callable[[], Made]) -> Made:
        """What was made for this key, if it was made from equal things."""


class _Made(NamedTuple):
    """An item's box, and what was found out while it was made: see `Setting`."""

    box: Box | None
    missing: frozenset[str]
    estimated: frozenset[str]


@dataclass(frozen=True)
class Boxing:
    """`seen`, where it is asked for: what can be seen of each item, by its id."""

    kept: Keeping

    def seen(self, item: Any, setting: Setting) -> tuple[Any, ...]:
        """All of it that can be seen in the setting's language."""
        shown = setting.menus.shown(item) if isinstance(item, MenuItem | LinkList) else ()
        told = (item, shown, setting.links, setting.pictures, setting.posts, setting.site.name, setting.site.language)
        return self.kept(("seen", item.id, setting.language), told, lambda: seen_of(item, setting))

    def piece(self, piece: Piece, row: Row, setting: Setting, seen: Mapping[str, Any]) -> Block:
        """The piece around the row."""
        box = self.row(piece, row, setting, seen)
        own = setting.part(piece.id)
        return self.kept(
            ("piece", piece.id, row.id, setting.language, id(box), id(own)),
            (box, own, setting.styles.known.ground),
            lambda: piece_around([box], piece, setting),
        )

    def row(self, piece: Piece, row: Row, setting: Setting, seen: Mapping[str, Any]) -> Block:
        """The row's box; the one from before where all that stands in it is. The same goes for cells and items, in all
        bands in which they are alike."""
        cells = {cell.id: self._cell(piece, row, cell, setting, seen) for cell in row.cells}
        fold = next((fold.count for fold in row.columns if fold.band == setting.band), 0)
        own = setting.part(row.id)
        variant = (tuple(map(id, cells.values())), id(own), fold, setting.beside)
        return self.kept(
            ("box", piece.id, row.id, setting.language, variant),
            (tuple(cells.values()), own, self.shape(row), setting.styles.known.ground),
            lambda: row_box(row, piece, setting, cells),
        )

    def shape(self, row: Row) -> Row:
        """The row without its items."""
        return self.kept(
            ("shape", row.id),
            row,
            lambda: row.replaced(cells=tuple(cell.replaced(items=()) for cell in row.cells)),
        )

    def _cell(self, piece: Piece, row: Row, cell: Cell, setting: Setting, seen: Mapping[str, Any]) -> Box:
        items = []
        for item in cell.items:
            if setting.band is not None and setting.band in item.hidden_in:
                continue
            made = self._item(piece, item, setting, seen[item.id])
            items.append(made.box)
            setting.missing |= made.missing
            setting.estimated |= made.estimated
        style = setting.part(cell.id)
        variant = (tuple(map(id, items)), id(style), side_of(cell, setting.band))
        return self.kept(
            ("cell", piece.id, cell.id, setting.language, variant),
            (items, style, cell.gap_px, row.styles, setting.styles.known.ground),
            lambda: cell_box(cell, row, setting, items),
        )

    def _item(self, piece: Piece, item: Any, setting: Setting, seen: Any) -> _Made:
        def make() -> _Made:
            alone = replace(setting, missing=set(), estimated=set())
            box = item_box(item, alone)
            return _Made(box, frozenset(alone.missing), frozenset(alone.estimated))

        variant = variant_of(item, setting)
        return self.kept(
            ("item", piece.id, item.id, setting.language, tuple(map(id, variant.styles)), variant.past),
            (seen, variant, setting.styles.known.ground, setting.measurer),
            make,
        )


def seen_of(item: Any, setting: Setting) -> tuple[Any, ...]:
    """What of an item can be seen in the setting's language: nothing else is worth a new box."""
    shown: list[Any] = []
    for name, held in item.__dict__.items():
        if isinstance(held, Words):
            shown.append(setting.words(held, item.id))
        elif isinstance(held, RichWords):
            shown.append(held.in_language(setting.language))
        elif name not in {"styles", "wears"}:
            shown.append(held)
    match item:
        case MenuItem() | LinkList():
            shown.append(labels_of(item, setting))
        case Trail():
            shown.append(tuple(setting.trail(item)))
        case LanguageSwitch():
            shown += [
                setting.site.offered_in(setting.language),
                setting.site.spoken,
                setting.pictures if item.pictures != "none" else (),
            ]
        case Posts():
            shown.append(tuple(setting.posts(item, setting.language)[: item.count]))
        case Logo() | Copyright():
            shown += [setting.site.name, setting.pictures]
        case PictureItem() | PictureList():
            shown += [setting.pictures, setting.links]
    return tuple(shown)
