"""Do things stand where those stood that they replace? The piece is laid out as it will be published, compared with what the
browser measured, and the room between things corrected until they do.

Letters are set closer or wider, or where they are joined smaller or larger, where another face stands for the old one; entries, items and lines are moved by margins.
What is left is told.
"""

from __future__ import annotations

import re
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from typing import NamedTuple

from ...fit.css.amount import Viewport
from ...fit.css.boxes import Frame
from ...fit.css.inline import Inline, InlineAround
from ...fit.css.linear import value
from ...fit.rows.fitter import VIEWPORT_HEIGHT_PX, Fitter
from ...languages import direction
from ...model.arrangements.arranging import JsonNode, NewId
from ...model.editing.apply import apply
from ...model.editing.edits import Add, Edit, Together
from ...model.editing.refusal import Refusal
from ...model.editing.rules import Rules
from ...model.site import Site
from ...model.tree import ROOT
from .items_like import Stood
from .looks import px, styles_json
from .making import Made
from .measured import px_of
from .rows_like import FAR_PX
from .seen import Rect, around_all

_JOINED = re.compile("[\u0600-\u08ff\u1800-\u18af\ufb50-\ufdff\ufe70-\ufeff]")
"""Letters of scripts that are joined in words (Unicode, 9.2 and 13.4)."""
ROUNDS, LETTER_ROUNDS = 7, 3
NEAR_PX = 0.3
CLOSEST_EM = 0.15
"""Letters are set closer or wider by no more."""


class Difference(NamedTuple):
    """By how much something stands further to the right and further down than what it replaces, in px."""

    name: str
    right_px: float
    down_px: float


@dataclass(frozen=True)
class Matched:
    """`edit` makes the piece with all that it needs; `differences`: how each thing stands, those furthest off first."""

    edit: Together
    piece: str
    differences: tuple[Difference, ...]
    unread: tuple[str, ...]
    notes: tuple[str, ...]


def matched(
    site: Site, made: Made, fitter: Fitter, rules: Rules | None, language: str, new_id: NewId, top_px: float
) -> Matched | Refusal:
    """`top_px`: where the old part began on its page, as far as the new one begins elsewhere."""
    loop = _Loop(site, made, fitter, rules, language, new_id, top_px)
    found: Sequence[Difference] = ()
    for number in range(ROUNDS):
        differences = loop.compare()
        if isinstance(differences, Refusal):
            return differences
        found = differences
        if number == ROUNDS - 1 or (
            number > LETTER_ROUNDS and all(max(abs(one.right_px), abs(one.down_px)) <= NEAR_PX for one in found)
        ):
            break
        loop.correct(number)
    ordered = sorted(found, key=lambda one: -max(abs(one.right_px), abs(one.down_px)))
    return Matched(loop.edit(), made.piece["id"], tuple(ordered), tuple(made.unread), tuple(made.notes))


@dataclass
class _Loop:
    site: Site
    made: Made
    fitter: Fitter
    rules: Rules | None
    language: str
    new_id: NewId
    top_px: float
    boxes: Mapping[str, _Boxes] = field(default_factory=dict)
    spacing: dict[tuple[str, str], float] = field(default_factory=dict)
    """How letters were set at first, by item and part."""

    def edit(self, piece: JsonNode | None = None) -> Together:
        added = Add(parent=ROOT, slot="pieces", values=(piece or self.made.piece,))
        edits: list[Edit] = [*self.made.edits[:-1], added]
        return Together(edits=tuple(edits))

    def compare(self) -> Sequence[Difference] | Refusal:
        with_it = apply(self.site, self.edit(_as_laid_out(self.made.piece)), self.rules)
        if isinstance(with_it, Refusal):
            return with_it
        piece = next(piece for piece in with_it.pieces if piece.id == self.made.piece["id"])
        viewport = Viewport(float(self.made.width), VIEWPORT_HEIGHT_PX)
        whole = self.fitter.as_published().whole(with_it, piece, self.language, viewport)
        self.boxes = {} if whole is None else _boxes_of(whole.frame, whole.margins_px[0], viewport)
        return [difference for stood in self.made.stood for difference in self._differences(stood)]

    def _differences(self, stood: Stood) -> Iterator[Difference]:
        for name, old, new in zip(stood.names, stood.rects, self._now(stood), strict=False):
            old = self._old(old)
            right = new.left - old.left
            yield Difference(name, -right if self._is_rtl else right, new.middle - old.middle)

    @property
    def _is_rtl(self) -> bool:
        return direction(self.language) == "rtl"

    def _old(self, rect: Rect) -> Rect:
        """Where it was, from the piece's upper corner at its beginning."""
        if self._is_rtl:
            rect = Rect(self.made.width - rect.right, rect.top, self.made.width - rect.left, rect.bottom)
        return Rect(rect.left, rect.top - self.top_px, rect.right, rect.bottom - self.top_px)

    def _now(self, stood: Stood) -> list[Rect]:
        boxes = self.boxes.get(stood.item)
        if boxes is None:
            return []
        if stood.part:
            return boxes.parts.get(stood.part, [])
        return [boxes.text if stood.texts else boxes.box]

    # Corrections

    def correct(self, number: int) -> None:
        items = {item["id"]: item for row in self.made.piece["rows"] for cell in row["cells"] for item in cell["items"]}
        if number < LETTER_ROUNDS:
            for stood in self.made.stood:
                item = items[stood.item]
                if stood.texts:
                    self._set_letters(item, stood)
                if stood.part == "entry" and item["kind"] == "menu" and item["way"] == "row":
                    self._set_gap(item, stood)
        if number:
            first = {stood.item: stood for stood in reversed(self.made.stood)}
            for row in self.made.piece["rows"]:
                down = self._move_row(row, first)
                for cell in row["cells"]:
                    self._move(row, cell, first, down)

    def _move_row(self, row: JsonNode, first: Mapping[str, Stood]) -> float:
        """By the room above it and below, as far as there is any. Returns how far its highest thing is still to go down."""
        items = [item for cell in row["cells"] for item in cell["items"][:1] if item["id"] in first]
        items = [item for item in items if self._off(first[item["id"]]) is not None]
        if not items or row["id"] not in self.boxes:
            return 0.0
        highest = max(items, key=lambda item: self.boxes[item["id"]].box.height)
        off = self._off(first[highest["id"]])
        assert off is not None
        before, behind = _px(row, "padding-block-start", "box"), _px(row, "padding-block-end", "box")
        moved = max(-before, off.down)
        more = self.made.high[row["id"]] - self.boxes[row["id"]].box.height
        self._put(row, "padding-block-start", before + moved)
        self._put(row, "padding-block-end", max(0.0, behind + more - moved))
        return moved

    def _set_letters(self, item: JsonNode, stood: Stood) -> None:
        now = self._now(stood)
        letters = sum(len(text) for text in stood.texts)
        wide = sum(one.width for one in now)
        if len(now) != len(stood.rects) or not letters or not wide:
            return
        more = sum(old.width - new.width for old, new in zip(stood.rects, now, strict=True)) / letters
        if abs(more) < 0.01:
            return
        parts = {"entry": ("content", "apart"), "title": ("heading",)}.get(stood.part, ("box",))
        joined = _JOINED.search("".join(stood.texts))
        # Letters that are joined stay so: they are made larger or smaller.
        name = "font-size" if joined else "letter-spacing"
        for part in parts:
            if part == "apart" and not _has(item, "apart"):
                continue
            size = _px(item, "font-size", part) or self.made.text_px
            now_px, most = (size if joined else _px(item, name, part)), CLOSEST_EM * size
            was = self.spacing.setdefault((item["id"], part), now_px)
            wished = size * (1 + more * letters / wide) if joined else now_px + more
            self._put(item, name, min(was + most, max(was - most, wished)), part)

    def _set_gap(self, item: JsonNode, stood: Stood) -> None:
        """Whole px between entries are the menu's own, what is left the entries'."""
        now, old = self._now(stood), [self._old(rect) for rect in stood.rects]
        if len(now) != len(old) or len(old) < 2:
            return
        apart = [(new.left, before.left) for new, before in zip(now, old, strict=True)]
        more = ((apart[-1][1] - apart[0][1]) - (apart[-1][0] - apart[0][0])) / (len(old) - 1)
        wanted = item["gap_px"] + _px(item, "margin-inline-start", "content") + more
        item["gap_px"] = max(0, int(wanted))
        for part in ("content", "apart"):
            if part == "content" or _has(item, "apart"):
                self._put(item, "margin-inline-start", wanted - item["gap_px"], part)

    def _move(self, row: JsonNode, cell: JsonNode, first: Mapping[str, Stood], moved: float) -> None:
        """`moved`: how far the whole row goes down by itself."""
        lines: list[list[JsonNode]] = [[]]
        breaks: list[JsonNode] = []
        for item in cell["items"]:
            if item["kind"] == "spacer":
                breaks.append(item)
                lines.append([])
            elif item["id"] in first:
                lines[-1].append(item)
        above = moved
        for at, line in enumerate(lines):
            off = [self._off(first[item["id"]]) for item in line]
            away = [one for one in off if one is not None]
            if not away or len(away) < len(off):
                continue
            self._move_across(line, away, cell["align"])
            down = away[0].down
            if at:
                self._move_by(breaks[at - 1], "margin-block-start", down - above)
            else:
                self._move_by(line[0], "margin-block-start", (down - above) * (2 if row["align"] == "center" else 1))
            for item, one in zip(line[1:], away[1:], strict=True):
                self._move_by(item, "margin-block-start", 2 * (one.down - down))
            above = down

    def _move_across(self, line: Sequence[JsonNode], away: Sequence[_Off], align: str) -> None:
        before = 0.0
        if align == "end":
            for item, one in zip(reversed(line), reversed(away), strict=True):
                self._move_by(item, "margin-inline-end", -(one.end - before))
                before = one.end
            return
        for at, (item, one) in enumerate(zip(line, away, strict=True)):
            more = one.start - before
            if align == "center" and not at:
                # What is centred goes half as far as its margin.
                more = one.start + away[-1].end
            self._move_by(item, "margin-inline-start", more)
            before = one.start

    def _off(self, stood: Stood) -> _Off | None:
        now = self._now(stood)
        if not now:
            return None
        old = [self._old(rect) for rect in stood.rects]
        new, was = around_all(now[: len(old)]), around_all(old)
        return _Off(was.left - new.left, was.right - new.right, old[0].middle - now[0].middle)

    def _move_by(self, item: JsonNode, name: str, by: float) -> None:
        if abs(by) < 0.05:
            return
        self._put(item, name, _px(item, name, "box") + by)

    def _put(self, item: JsonNode, name: str, length: float, part: str = "box") -> None:
        """Much room at a side counts in the widest band alone, and less than there is by itself: there is none to spare in
        others."""
        item["styles"] = [
            one for one in item["styles"] if (one["property"], one["part"], one["state"]) != (name, part, "rest")
        ]
        if abs(length) < 0.005 and not name.startswith("padding"):
            return
        far = part == "box" and name.startswith("margin-inline") and not 0 <= length <= FAR_PX
        item["styles"] += styles_json(
            {name: px(length)}, self.new_id, part, band=self.made.widest_band if far else None
        )


def _as_laid_out(piece: JsonNode) -> JsonNode:
    """With the menus that become a button where there is no room as entries: before all stands where it should there may be
    none yet."""
    return {
        **piece,
        "rows": [{**row, "cells": [_with_entries(cell) for cell in row["cells"]]} for row in piece["rows"]],
    }


def _with_entries(cell: JsonNode) -> JsonNode:
    items = [{**item, "drawer_when_full": False} if item["kind"] == "menu" else item for item in cell["items"]]
    return {**cell, "items": items}


class _Off(NamedTuple):
    """How far it has to go: its start, its end, its middle downwards."""

    start: float
    end: float
    down: float


def _px(item: JsonNode, name: str, part: str) -> float:
    found = (one for one in item["styles"] if (one["property"], one["part"], one["state"]) == (name, part, "rest"))
    return sum(px_of(one["value"]) for one in found)


def _has(item: JsonNode, part: str) -> bool:
    return any(one["part"] == part for one in item["styles"])


@dataclass
class _Boxes:
    """Of an item: its own box, its text's, and its parts' by what they are called."""

    box: Rect
    text: Rect
    parts: dict[str, list[Rect]] = field(default_factory=dict)


_PARTS = frozenset({"entry", "field", "picture", "title", "icon"})


def _boxes_of(frame: Frame, top: float, viewport: Viewport) -> dict[str, _Boxes]:
    found: dict[str, _Boxes] = {}
    _walk(frame, 0.0, top, None, found, viewport)
    return found


def _walk(frame: Frame, x: float, y: float, item: str | None, found: dict[str, _Boxes], viewport: Viewport) -> None:
    box = frame.box
    rect = Rect(x, y, x + value(frame.width), y + value(frame.height))
    if box.node.startswith("rw-"):
        found[box.node] = _Boxes(rect, rect)
    if box.node.startswith("it-") and box.node not in found:
        item = box.node
        found[item] = _Boxes(rect, _text_in(frame, x, y, viewport) or rect)
    if item is not None and box.part in _PARTS:
        told = rect if box.part in {"field", "picture", "icon"} else _text_in(_words_of(frame), x, y, viewport) or rect
        found[item].parts.setdefault(box.part, []).append(told)
        if box.part == "icon" and any(kid.box.part == "icon" for _, _, kid in frame.kids):
            found[item].parts["icon"].pop()
    for inner_x, inner_y, kid in frame.kids:
        _walk(kid, x + value(inner_x), y + value(inner_y), item, found, viewport)


def _text_in(frame: Frame, x: float, y: float, viewport: Viewport) -> Rect | None:
    """Where the texts in a box stand: no wider than they are where each is on one line."""
    if isinstance(frame.box, Inline | InlineAround):
        # A label's room is the same on both sides.
        edges = value(frame.box.inline_edges(viewport, 0.0))
        wide = min(value(frame.width), value(frame.box.wanted(viewport, 0.0).most)) - edges
        return Rect(x + edges / 2, y, x + edges / 2 + wide, y + value(frame.height))
    within = [_text_in(kid, x + value(inner_x), y + value(inner_y), viewport) for inner_x, inner_y, kid in frame.kids]
    found = [rect for rect in within if rect is not None]
    return around_all(found) if found else None


def _words_of(frame: Frame) -> Frame:
    """Of an entry, without the mark beside its words."""
    words = frame.kids[:1] if frame.box.part == "entry" and len(frame.kids) > 1 else ()
    return Frame(frame.box, frame.width, frame.height, words) if words else frame
