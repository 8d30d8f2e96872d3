"""What would mend a row that does not fit: how much room does each way gain, and from which width does the row fit
then?

Each remedy is an edit that has been carried out on a copy of the site and measured there. They are ranked: first those
that mend the row in every language, and of these the ones that change least. Where much of the row follows the
viewport, so that it would have to be laid out at each width, the most promising are looked at in some widths only, and
say so.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator
from dataclasses import replace
from typing import Any, Literal, NamedTuple

from ...kinds.items.button import ButtonItem
from ...kinds.items.icon import IconLink
from ...kinds.items.logo import Logo
from ...kinds.items.menu import MenuItem
from ...kinds.items.pictures import PictureList
from ...kinds.items.spacer import Spacer
from ...kinds.pieces.base import Piece
from ...kinds.rows import Cell, Row
from ...model.editing.apply import apply
from ...model.editing.edits import Add, Edit, Move, Remove, Set, Together
from ...model.site import Band, Site, drawer_width
from ...style.resolve import StyledElement, Styling, item_elements
from ...style.type.scale import SCALE_STEPS
from ...values.styling import LOOK_PARTS, Declaration, Part
from ..css.boxes import Frame
from ..rows.fitter import VIEWPORT_HEIGHT_PX, Fitter, stands_in_lines
from ..rows.states import FAILING
from ..rows.sweep import FROM_PX, TO_PX, RowFit, Stretch, frame_at

RemedyKind = Literal[
    "band", "gap", "spacing", "size", "weight", "width", "label", "icon", "words", "second line", "move", "hide",
]  # fmt: skip
COST: dict[RemedyKind, int] = {
    "band": 1, "gap": 2, "spacing": 2, "size": 3, "weight": 3, "width": 3, "words": 4, "second line": 4, "label": 5, "icon": 6,
    "move": 7, "hide": 8,
}  # fmt: skip
"""How much of what one sees a remedy changes."""
LEAST_GAP_PX = 8
MOST_TRIED = 24
MOST_LAID = 9_000
"""Boxes that may be laid out for all remedies of one failure: about half a second's work."""
LOOKS = 12
"""At so many widths a remedy is looked at where it is not swept."""


class Remedy(NamedTuple):
    """`node`: what it changes, `value`: to what, in the words of the property (a width in px, a size, a weight, a
    band's id). `gain_px`: by how much less room the row needs where it fails most. `fits_from_px`: the width from which
    on it fits then, in all languages asked for; None: it does not. `mends`: nothing fails any more in the widths that
    it was asked for. `is_rough`: that was looked at in some widths only. `edit` is None where only a person can do it:
    a label to be shortened by `gain_px`."""

    kind: RemedyKind
    node: str
    value: str
    edit: Edit | None
    gain_px: float
    fits_from_px: int | None
    mends: bool
    is_rough: bool = False


class Failure(NamedTuple):
    """A row's failing widths, in the language in which they are."""

    language: str
    stretch: Stretch


def failures(fits: Iterable[RowFit], row: str) -> list[Failure]:
    return [Failure(fit.language, stretch) for fit in fits if fit.row == row for stretch in fit.failing]


def remedies(
    fitter: Fitter, site: Site, piece: Piece, row: Row, failure: Failure, new_id: Callable[[str], str]
) -> list[Remedy]:
    """For the failing widths of a row, and what else of that row fails in the same band and other languages."""
    asked = _Asked(fitter, site, piece, row, failure, new_id)
    candidates = list(asked.candidates())[:MOST_TRIED]
    if sum(map(asked.sweep_cost, candidates)) <= MOST_LAID:
        found = [remedy for candidate in candidates if (remedy := asked.tried(candidate))]
    else:
        found = list(asked.looked_at(candidates))
    found += asked.labels()
    return sorted(found, key=lambda one: (not one.mends, COST[one.kind], -one.gain_px))


LAID_AGAIN = 3
"""How often a box is laid out until a row stands: once for its least width, once for its greatest, once for its own."""


def _cost(fit: RowFit) -> tuple[int, int]:
    """Boxes to be laid out for a look at one width, where there are most of them, and for all of the row's widths."""
    looks: dict[int, tuple[int, int]] = {}
    whole = 0
    for laid in fit.laid:
        context = id(laid.context)
        if context not in looks:
            frame = frame_at(laid, laid.from_px, VIEWPORT_HEIGHT_PX)
            looks[context] = _count(frame), _count(frame, with_their_cells=True)
        whole += LAID_AGAIN * looks[context][1]
    return LAID_AGAIN * max((look for look, _ in looks.values()), default=0), whole


def _count(frame: Frame, *, with_their_cells: bool = False, is_within: bool = False) -> int:
    """How many boxes of a row have to be laid out anew at another width; `with_their_cells`: and all that stands in a
    cell with one of them, as a sweep does, for the room in it moves."""
    is_within = is_within or (with_their_cells and frame.box.part == "cell" and not frame.box.stays)
    kids = (_count(kid, with_their_cells=with_their_cells, is_within=is_within) for _, _, kid in frame.kids)
    return (is_within or not frame.box.stays) + sum(kids)


class _Candidate(NamedTuple):
    kind: RemedyKind
    node: str
    value: str
    edit: Edit


class _Asked:
    """One failure, and the means to try remedies of it."""

    def __init__(
        self, fitter: Fitter, site: Site, piece: Piece, row: Row, failure: Failure, new_id: Callable[[str], str]
    ) -> None:
        self.fitter = replace(fitter, _known=dict(fitter._known))
        self.site, self.piece, self.row, self.failure, self.new_id = site, piece, row, failure, new_id
        self.in_lines = stands_in_lines(piece)
        self.band = failure.stretch.band
        self.bands = {band.id: band for band in site.bands}
        every = fitter.rows(site, piece)
        self.fits = [fit for fit in every if fit.row == row.id]
        self.languages = [fit.language for fit in self.fits]
        self.at = failure.stretch.from_px
        now = next(fit for fit in self.fits if fit.language == failure.language).at(self.at)
        assert now is not None
        self._costs = {one.id: [_cost(fit) for fit in every if fit.row == one.id] for one in site.shown_rows(piece)}
        self.look_cost = max(look for look, _ in self._costs[row.id])
        self.need = now.need_px(self.at)
        self.short = self.need - now.room_px(self.at)
        self.styling = Styling(site.replaced(pieces=(piece.replaced(rows=site.shown_rows(piece)),)))
        self.items = [
            item
            for cell in row.cells
            for item in cell.items
            if self.band not in item.hidden_in and not isinstance(item, Spacer)
        ]

    def sweep_cost(self, candidate: _Candidate) -> int:
        """Boxes to be laid out for it to be measured at all widths."""
        touched = [self.row.id, *([candidate.value] if candidate.kind == "move" else [])]
        return sum(sweep for row in touched for _, sweep in self._costs[row])

    def candidates(self) -> Iterator[_Candidate]:
        yield from self._bands()
        yield from self._gaps()
        for item in self.items:
            yield from self._styles(item)
            yield from self._words(item)
        yield from self._moves()

    def _bands(self) -> Iterator[_Candidate]:
        """The change to the drawer where the row fits: one band begins at another width."""
        ends = [stretch.to_px for fit in self.fits for stretch in fit.failing if stretch.band == self.band]
        to = max(ends) + 1
        band = self.bands.get(self.band or "")
        for menu in (item for item in self.items if isinstance(item, MenuItem)):
            below = drawer_width(menu, self.site)
            if band is None or (below is not None and band.from_px < below):
                continue
            if below == band.from_px and self._may_begin(band, to):
                yield _Candidate("band", band.id, str(to), Set(node=band.id, field="from_px", value=to))
            elif below is None or below < to:
                later = next((one for one in self.site.bands if one.from_px >= to), None)
                if later is not None:
                    edit = Set(node=menu.id, field="drawer_below", value=later.id)
                    yield _Candidate("band", menu.id, str(later.from_px), edit)

    def _may_begin(self, band: Band, px: int) -> bool:
        later = next((one for one in self.site.bands if one.from_px > band.from_px), None)
        return px <= 5000 and (later is None or px < later.from_px)

    def _gaps(self) -> Iterator[_Candidate]:
        menus = [item for item in self.items if isinstance(item, MenuItem)]
        holders: list[Row | Cell | MenuItem] = [self.row, *self.row.cells, *menus]
        for holder in holders:
            half = max(LEAST_GAP_PX, holder.gap_px // 2)
            for gap in dict.fromkeys((half, LEAST_GAP_PX)):
                if gap < holder.gap_px:
                    yield _Candidate("gap", holder.id, f"{gap}px", Set(node=holder.id, field="gap_px", value=gap))

    def _styles(self, item: Any) -> Iterator[_Candidate]:
        for element in item_elements(item, self.styling.elements[item.id, "box"].parent or self._top()):
            if element.part not in LOOK_PARTS or element.role in {"menu", "opener", "block", "divider", "upright"}:
                continue
            yield from self._style(item, element)

    def _top(self) -> StyledElement:
        return self.styling.elements[self.piece.id, "box"]

    def _style(self, item: Any, element: StyledElement) -> Iterator[_Candidate]:
        def said(name: str) -> str:
            return self.styling.resolve(element, name, "rest", self.band).value

        spacing = said("letter-spacing")
        if spacing not in {"normal", "0"} and not spacing.startswith("-"):
            yield self._declared("spacing", item, element.part, "letter-spacing", "normal")
        size = self.styling.font_size(element, self.band)
        if size.endswith("px"):
            smaller = [one for one in self._scale() if one < float(size[:-2]) - 0.01]
            if smaller:
                yield self._declared("size", item, element.part, "font-size", f"{max(smaller):g}px")
        weight = int(said("font-weight"))
        lighter = max(self._lightest(said("font-family")), weight - 100)
        if lighter < weight and lighter >= 300:
            yield self._declared("weight", item, element.part, "font-weight", str(lighter))

        stretch = float(said("font-stretch").rstrip("%"))
        narrower = max(self._narrowest(said("font-family")), stretch - 10)
        if narrower < stretch:
            yield self._declared("width", item, element.part, "font-stretch", f"{narrower:g}%")

    def _narrowest(self, face: str) -> float:
        font = next((font for font in self.site.fonts if font.id == face), None)
        return min((file.narrowest for file in font.files), default=100.0) if font else 100.0

    def _scale(self) -> list[float]:
        return [round(self.site.text_px * self.site.ratio**step, 2) for step in SCALE_STEPS.values()]

    def _lightest(self, face: str) -> int:
        font = next((font for font in self.site.fonts if font.id == face), None)
        if font is not None:
            return min(file.lightest for file in font.files)
        known = self.fitter.faces.get(face)
        return known.lightest if known else 1000

    def _declared(self, kind: RemedyKind, item: Any, part: Part, name: str, value: str) -> _Candidate:
        """A style of the item's own, in the failing band alone."""
        kept = next(
            (one for one in item.styles if (one.part, one.property, one.state, one.band) == (part, name, "rest", self.band)),
            None,
        )  # fmt: skip
        edit: Edit
        if kept is not None:
            edit = Set(node=kept.id, field="value", value=value)
        else:
            made = Declaration(id=self.new_id("st"), property=name, value=value, part=part, band=self.band)
            edit = Add(parent=item.id, slot="styles", values=(made.model_dump(mode="json"),))
        return _Candidate(kind, item.id, value, edit)

    def _words(self, item: Any) -> Iterator[_Candidate]:
        match item:
            case MenuItem(button_words_shown=True):
                yield _Candidate("words", item.id, "", Set(node=item.id, field="button_words_shown", value=False))
            case IconLink() if item.words_shown != "none":
                yield _Candidate("words", item.id, "", Set(node=item.id, field="words_shown", value="none"))
            case ButtonItem():
                icon = IconLink(
                    id=self.new_id("it"), icon="arrow-right", words=item.words, target=item.target, hidden_in=item.hidden_in
                )  # fmt: skip
                cell = next(cell for cell in self.row.cells if item in cell.items)
                place = cell.items.index(item)
                put = Add(parent=cell.id, slot="items", values=(icon.model_dump(mode="json"),), at=place)
                yield _Candidate("icon", item.id, "", Together(edits=(Remove(nodes=(item.id,)), put)))
            case PictureList():
                none = {"text": "", "translations": []}
                second = tuple(Set(node=link.id, field="second", value=none) for link in item.links if link.second.text)
                if second:
                    yield _Candidate("second line", item.id, "", Together(edits=second))

    def _moves(self) -> Iterator[_Candidate]:
        others = [row for row in self.piece.rows if row.id != self.row.id and row.cells and row.shares is None]
        for item in self.items:
            if isinstance(item, MenuItem | Logo):
                continue
            for row in others:
                cell = row.cells[-1]
                edit = Move(node=item.id, parent=cell.id, slot="items", at=len(cell.items))
                yield _Candidate("move", item.id, row.id, edit)
            if self.band is not None:
                hidden = [*item.hidden_in, self.band]
                yield _Candidate("hide", item.id, self.band, Set(node=item.id, field="hidden_in", value=hidden))

    def _after(self, candidate: _Candidate) -> tuple[Site, Piece, Row] | None:
        site = apply(self.site, candidate.edit)
        if not isinstance(site, Site):
            return None
        piece = next(one for one in site.pieces if one.id == self.piece.id)
        row = next((one for one in site.shown_rows(piece) if one.id == self.row.id), None)
        return None if row is None else (site, piece, row)

    def looked_at(self, candidates: Iterable[_Candidate]) -> Iterator[Remedy]:
        """As many of the remedies as the work allows, each at some widths: those first that gain most."""
        left = float(MOST_LAID)
        gains: list[tuple[float, _Candidate, tuple[Site, Piece, Row]]] = []
        for candidate in candidates:
            after = self._after(candidate) if left > self.look_cost else None
            if after is None:
                continue
            left -= self.look_cost
            there = self.fitter.row_at(*after, self.failure.language, self.at)
            gain = self.need - there.need_px(self.at) if there is not None else 0.0
            if candidate.kind == "move" and self._crowds(after, candidate.value):
                continue
            if candidate.kind == "band" or gain >= 0.5:
                gains.append((gain, candidate, after))
        each = self.look_cost * LOOKS * len(self.languages)
        for gain, candidate, after in sorted(gains, key=lambda one: (one[1].kind != "band", -one[0])):
            left -= each
            if left < 0:
                return
            yield self._roughly(candidate, gain, after)

    def _crowds(self, after: tuple[Site, Piece, Row], row_id: str) -> bool:
        """Whether the row that an item was moved to fails where this one did."""
        site, piece, _ = after
        row = next(one for one in piece.rows if one.id == row_id)
        laid = self.fitter.row_at(site, piece, row, self.failure.language, self.at)
        return laid is not None and laid.found.state in FAILING

    def _roughly(self, candidate: _Candidate, gain: float, after: tuple[Site, Piece, Row]) -> Remedy:
        def fits(width: int, languages: Iterable[str]) -> bool:
            laid = (self.fitter.row_at(*after, language, width) for language in languages)
            return all(one is None or one.found.state not in FAILING for one in laid)

        start, end = self.failure.stretch.from_px, self.failure.stretch.to_px
        asked = self.languages if candidate.kind == "band" else [self.failure.language]
        mends = all(fits(width, asked) for width in {start, (start + end) // 2, end})
        wells = [fit.fits_from_px for fit in self.fits]
        low, high = FROM_PX - 1, TO_PX if any(px is None for px in wells) else max(px or 0 for px in wells)
        fits_from = high if fits(high, self.languages) else None
        while fits_from is not None and high - low > 16:
            middle = (low + high) // 2
            low, high = (low, middle) if fits(middle, self.languages) else (middle, high)
            fits_from = high
        return Remedy(*candidate, round(gain, 1), fits_from, mends, True)

    def tried(self, candidate: _Candidate) -> Remedy | None:
        """The remedy measured; None where it cannot be, or gains nothing."""
        after = self._after(candidate)
        if after is None:
            return None
        site, piece, row = after
        first = self.fitter.row(site, piece, row, self.failure.language)
        there = first.at(self.at)
        gain = self.need - there.need_px(self.at) if there is not None else 0.0
        drawn_in = candidate.kind == "band"
        if not drawn_in and gain < 0.5:
            return None
        fits = [self.fitter.row(site, piece, row, language) for language in self.languages]
        if candidate.kind == "move" and self._spoils(site, piece, candidate.value):
            return None
        span = range(self.failure.stretch.from_px, self.failure.stretch.to_px + 1)
        mends = not any(
            stretch.from_px in span or stretch.to_px in span or (stretch.from_px < span.start and stretch.to_px >= span.stop)
            for fit in fits
            for stretch in fit.failing
            if drawn_in or fit.language == self.failure.language
        )  # fmt: skip
        wells = [fit.fits_from_px for fit in fits]
        fits_from = None if any(px is None for px in wells) else max(px or 0 for px in wells)
        return Remedy(*candidate, round(gain, 1), fits_from, mends)

    def _spoils(self, site: Site, piece: Piece, row_id: str) -> bool:
        """Whether the row that an item was moved to fails more than before."""
        after = next(row for row in piece.rows if row.id == row_id)
        before = next(row for row in self.piece.rows if row.id == row_id)
        language = self.failure.language
        return len(self.fitter.row(site, piece, after, language).failing) > len(
            self.fitter.row(self.site, self.piece, before, language).failing
        )

    def labels(self) -> list[Remedy]:
        """The label that is longest, and by how much it would have to be shorter."""
        language = self.failure.language
        setting = self.fitter.setting(self.site, self.piece, self.row, language)
        listed = [
            (len(setting.links.label(entry, language)), entry.id)
            for item in self.items
            if isinstance(item, MenuItem)
            for entry in setting.menus.shown(item)
        ]
        listed += [
            (len(item.words.in_language(language)), item.id)
            for item in self.items
            if hasattr(item, "words") and not isinstance(item, Logo)
        ]
        longest = max(listed, default=None)
        if longest is None or self.short <= 0 or longest[0] < 4:
            return []
        return [Remedy("label", longest[1], "", None, round(self.short, 1), None, False)]


__all__ = ["Failure", "Remedy", "failures", "remedies"]
