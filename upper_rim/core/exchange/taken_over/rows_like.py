"""How do the lines of an old part become rows, and what stands beside each other cells?

Room between things is left to `matching`; here it is found out what holds on to the start, to the end, to the middle, and
what shares the room.
"""

from __future__ import annotations

from collections.abc import Sequence
from itertools import pairwise

from ...model.arrangements.arranging import JsonNode, NewId
from ...model.editing.edits import Edit, Set
from ...model.site import Site
from ...model.tree import ROOT
from .dividing import Columns, Division, Heap, Lines, all_seen, common_holder
from .items_like import TARGET_PX, ItemMaker
from .looks import Looks, Values, px, styles_json
from .measured import Measured
from .seen import Rect, Seen, around_all, content_box, is_painted, rect_of

FAR_PX = 40
"""More room than that between things counts in the widest band alone."""
BIG_GAP_PX = 48
MOST_GAP_PX = 16
_CENTRED_PX = 6.0
WHOLE_SHARE = 0.97
_WITH_LOOKS = frozenset({"button", "search", "social", "picture", "logo"})
"""Kinds of things that have a ground and edges of their own."""
_OF_SEVERAL = ("background-", "border-inline-")
"""What lies behind several rows is behind each of them."""


class RowMaker:
    """`edits`: what the site needs for the rows; `high`: how high each has to be, in px."""

    def __init__(self, site: Site, measured: Measured, new_id: NewId, looks: Looks, items: ItemMaker) -> None:
        self.site, self.measured, self.new_id, self.looks, self.items = site, measured, new_id, looks, items
        self.top = measured.parts[0]
        self.is_whole = rect_of(self.top).width >= measured.width * WHOLE_SHARE
        self.gutter = float(site.gutter_px)
        self.content_px = site.content_px
        self.may_set_content = looks.begins_site
        self.edits: list[Edit] = []
        self.high: dict[str, float] = {}
        self._gap_px = 0

    def rows(self, lines: Sequence[Division]) -> list[JsonNode]:
        rows: list[JsonNode] = []
        bounds = self._bounds([all_seen(line) for line in lines])
        for number, (line, (top, bottom)) in enumerate(zip(lines, bounds, strict=True)):
            rows.append(self._row(line, top, bottom, number))
            apart = top - bounds[number - 1][1] if number else 0.0
            if apart > 0.5:
                declare(rows[-1], {"margin-block-start": px(apart)}, self.new_id)
        return rows

    def _bounds(self, rows: Sequence[Sequence[Seen]]) -> list[tuple[float, float]]:
        """Where each row begins and ends: at edges of elements that hold one row alone, else amid the room between. What is
        between two of them belongs to neither."""
        unions = [around_all(one.box for one in row) for row in rows]
        holders = [self._holder(row, [one for other in rows if other is not row for one in other]) for row in rows]
        block = rect_of(self.top)
        start = min(block.top, unions[0].top) if block.height else unions[0].top
        end = max(block.bottom, unions[-1].bottom) if block.height else unions[-1].bottom
        if self.is_whole and block.height:
            # Its own edges are the piece's.
            start, end = start + self.top.px("border-top-width"), end - self.top.px("border-bottom-width")
        starts, ends = [start], []
        for at, (above, below) in enumerate(pairwise(unions)):
            upper, lower = (rect_of(self.measured.parts[holders[one]]) for one in (at, at + 1))
            fitting = [edge for edge in (upper.bottom, lower.top) if above.bottom - 1 <= edge <= below.top + 1]
            edges = fitting or [(above.bottom + below.top) / 2]
            if self._is_painted_behind([*rows[at], *rows[at + 1]]):
                edges = edges[-1:]
            ends.append(edges[0])
            starts.append(max(edges[0], edges[-1]))
        return list(zip(starts, [*ends, end], strict=True))

    def _is_painted_behind(self, seen: Sequence[Seen]) -> bool:
        """Whether several rows have a ground in common that is not the piece's own."""
        holder = common_holder([part for one in seen for part in one.parts], self.measured)
        return self.measured.band is not None or any(
            is_painted(self.measured.parts[at].styles.get("background-color", "")) and (at or not self.is_whole)
            for at in (holder, *self.measured.around(holder))
        )

    def _holder(self, row: Sequence[Seen], others: Sequence[Seen]) -> int:
        """The outermost element that holds a row, and nothing of the others; the whole, where there are none."""
        holder = common_holder([part for one in row for part in one.parts], self.measured)
        elsewhere = {part for one in others for part in one.parts}
        for around in self.measured.around(holder):
            if around == 0 and elsewhere:
                break
            if elsewhere and elsewhere & set(self.measured.within(around)):
                break
            holder = around
        return holder

    def _row(self, division: Division, top: float, bottom: float, number: int) -> JsonNode:
        seen = all_seen(division)
        union = around_all(one.box for one in seen)
        name = f"Row {number + 1}"
        own, painted = self._grounds(seen, top, bottom, number)
        room = self._room(seen, union)
        values: Values = {"padding-block-start": "0px", "padding-block-end": "0px", **own}
        self._gap_px = self._least_gap(_columns(division))
        row: JsonNode = {"id": self.new_id("rw"), "name": name, "gap_px": self._gap_px, "full_width": True}
        self.high[row["id"]] = bottom - top
        is_flat = not any(_is_tall(one) for one in _columns(division))
        # As much above as below: what is higher than that would move its neighbours.
        beside = max(0.0, min(union.top - top, bottom - union.bottom))
        self.items.row_high = union.height + 2 * beside if is_flat else TARGET_PX
        left = self._inline(row, values, room, painted)
        row["align"] = "center" if is_flat else "start"
        values["padding-block-start"] = px(max(0.0, union.top - top))
        values["padding-block-end"] = px(max(0.0, bottom - union.bottom))
        cells = self._cells(division, room)
        row["cells"] = cells
        if len(cells) > 1 and not self.items.in_header and len(self.site.bands) > 1:
            self._fold(row)
        row["styles"] = styles_json(values, self.new_id) + styles_json(left, self.new_id, band=self.looks.widest_band)
        return row

    def _fold(self, row: JsonNode) -> None:
        """On the narrowest windows what stood beside each other stands below each other, at the start."""
        narrowest = self.site.bands[0].id
        row["columns"] = [{"band": narrowest, "count": 1}]
        for cell in row["cells"]:
            if cell["align"] == "end":
                cell["aligned"] = [{"band": narrowest, "align": "start"}]

    def _grounds(self, seen: Sequence[Seen], top: float, bottom: float, number: int) -> tuple[Values, Rect | None]:
        """What is painted behind a row alone: its values, and where it is, where that is less than the whole window."""
        holder = common_holder([part for one in seen for part in one.parts], self.measured)
        chain = [holder, *self.measured.around(holder)]
        own_looks = {part for one in seen if one.kind in _WITH_LOOKS or one.links or one.has_box for part in one.parts}
        values: Values = {}
        narrow: Rect | None = None
        band = self.measured.band
        if band is not None:
            values["background-color"] = self.looks.colour(band.colour, "Page ground")
            narrow = Rect(band.left, top, band.left + band.width, bottom)
        for at in reversed(chain):
            part = self.measured.parts[at]
            box = rect_of(part)
            whole = box.width >= self.measured.width * WHOLE_SHARE
            if (at == 0 and whole) or part.styles.get("display") in {"inline", None} or at in own_looks:
                continue
            found = self.looks.box_of(part, f"Row {number + 1}", with_padding=False)
            if box.top < top - 1.5:
                found = {
                    name: value for name, value in found.items() if name.startswith(_OF_SEVERAL) or "block-end" in name
                }
            if box.bottom > bottom + 1.5:
                found = {
                    name: value
                    for name, value in found.items()
                    if name.startswith(_OF_SEVERAL) or "block-start" in name
                }
            if found and not whole:
                narrow = box
            values |= found
        return values, narrow

    def _room(self, seen: Sequence[Seen], union: Rect) -> Rect:
        """What its cells share: the content of what holds them all, as far as that is most of the whole."""
        whole = content_box(self.top) if rect_of(self.top).width else rect_of(self.top)
        if whole.width < self.measured.width / 2:
            whole = Rect(0, whole.top, self.measured.width, whole.bottom)
        holder = common_holder([part for one in seen for part in one.parts], self.measured)
        for at in (holder, *self.measured.around(holder)):
            part = self.measured.parts[at]
            inner = content_box(part)
            if part.styles.get("display") != "inline" and inner.width >= max(0.6 * whole.width, union.width - 1):
                return _across(inner, union)
        return _across(whole, union)

    def _inline(self, row: JsonNode, values: Values, room: Rect, painted: Rect | None) -> Values:
        """Room at a row's sides, beside the gutter that all rows have: told for the widest band alone, where it is much.
        What is as wide as it may be and centred, stays so; on a new site all content is as wide from now on."""
        width = self.measured.width
        outer = painted or Rect(0, room.top, width, room.bottom)
        centred = abs(room.left - (width - room.right)) <= 2 and room.left > self.gutter + 4
        if centred and painted is None and self._is_bounded(room):
            content = round(room.width + 2 * self.gutter)
            if self.may_set_content and 280 <= content <= 4000:
                self.may_set_content = False
                if content != self.content_px:
                    self.content_px = content
                    self.edits.append(Set(node=ROOT, field="content_px", value=content))
            if content == self.content_px:
                row["full_width"] = False
                return {}
            if any(name.startswith("background") for name in values):
                beside = f"clamp(0px, 50vw - {content / 2:g}px, 4000px)"
                values["padding-inline-start"] = values["padding-inline-end"] = beside
                return {}
        if centred and (painted is not None or self._is_bounded(room)):
            wide = painted.width if painted else room.width + 2 * self.gutter
            values["max-inline-size"] = px(wide)
            values["margin-inline-start"] = values["margin-inline-end"] = "auto"
            outer = Rect((width - wide) / 2, room.top, (width + wide) / 2, room.bottom)
        sides = {"inline-start": room.left - outer.left, "inline-end": outer.right - room.right}
        if self.looks.is_rtl:
            sides = {"inline-start": sides["inline-end"], "inline-end": sides["inline-start"]}
        far: Values = {}
        for side, between in sides.items():
            more = between - self.gutter
            if more > 0.5:
                (far if more > FAR_PX and self.looks.widest_band else values)[f"padding-{side}"] = px(more)
        return far

    def _is_bounded(self, room: Rect) -> bool:
        """Whether what holds it is centred by its margins."""
        return any(
            part.styles
            and abs(rect_of(part).centre - room.centre) <= 2
            and rect_of(part).left - 1 <= room.left <= rect_of(part).left + 60
            and part.px("margin-left") > 8
            and abs(part.px("margin-left") - part.px("margin-right")) <= 1
            for part in self.measured.parts
        )

    # Cells

    @staticmethod
    def _least_gap(columns: Sequence[Division]) -> int:
        """Room that is kept between things at all widths; where there was more, the rest is put between them by itself."""
        boxes = sorted(column.box for column in columns)
        gaps = [after.left - before.right for before, after in pairwise(boxes)]
        return int(max(0.0, min(float(MOST_GAP_PX), *gaps))) if gaps else 0

    def _cells(self, division: Division, room: Rect) -> list[JsonNode]:
        columns = _columns(division)
        if self.looks.is_rtl:
            columns = columns[::-1]
        if len(columns) > 1 and any(map(_is_tall, columns)) and not self.items.in_header:
            return self._shared(columns, room)
        start, middle, end = self._groups(columns, room)
        cells: list[JsonNode] = []
        for group, align in ((start, "start"), (middle, "center"), (end, "end")):
            for run in _runs(group):
                cells.append(self._cell(run, align))
        if len(cells) == 1 or not cells:
            for cell in cells:
                cell["track"] = {"kind": "share"}
            return cells
        if middle and start and end and not self._is_amid(middle, room):
            # Between what is beside it, which need not be equally wide.
            amid = len(_runs(start))
            cells[amid]["track"] = {"kind": "share"}
        elif middle:
            # What is left and right of it takes as much room, so that it stays in the middle.
            if not start:
                cells.insert(0, self._cell([], "start"))
            if not end:
                cells.append(self._cell([], "end"))
            cells[0]["track"] = cells[-1]["track"] = {"kind": "share"}
        else:
            grows = len(_runs(start)) - 1 if start else 0
            cells[max(0, grows)]["track"] = {"kind": "share"}
        return cells

    @staticmethod
    def _is_amid(middle: Sequence[Division], room: Rect) -> bool:
        return abs(around_all(one.box for one in middle).centre - room.centre) <= _CENTRED_PX

    def _shared(self, columns: Sequence[Division], room: Rect) -> list[JsonNode]:
        """Each column gets the share of the room that it had, up to where the next one begins."""
        boxes = [column.box for column in columns]
        if self.looks.is_rtl:
            spans = [before.right - after.right for before, after in pairwise(boxes)]
            spans = [room.right - boxes[0].right + spans[0], *spans[1:], boxes[-1].right - room.left]
        else:
            spans = [after.left - before.left for before, after in pairwise(boxes)]
            spans = [boxes[0].left - room.left + spans[0], *spans[1:], room.right - boxes[-1].left]
        cells = [self._cell([column], "start") for column in columns]
        for cell, span in zip(cells, spans, strict=True):
            own = span - (self._gap_px if cell is not cells[-1] else 0)
            cell["track"] = {"kind": "share", "amount": max(1, min(4000, round(own)))}
        return cells

    def _groups(self, columns: Sequence[Division], room: Rect) -> tuple[list[Division], list[Division], list[Division]]:
        """What stands at the row's start, amid it, at its end."""
        boxes = [column.box for column in columns]
        if self.looks.is_rtl:
            mirror = room.left + room.right
            boxes = [Rect(mirror - box.right, box.top, mirror - box.left, box.bottom) for box in boxes]
        whole = around_all(boxes)
        before, after = whole.left - room.left, room.right - whole.right
        gaps = [(right.left - left.right, at + 1) for at, (left, right) in enumerate(pairwise(boxes))]
        big = sorted(at for gap, at in gaps if gap >= BIG_GAP_PX)
        if not big:
            if abs(before - after) <= 2 * _CENTRED_PX and before > _CENTRED_PX:
                return [], list(columns), []
            if before > after + _CENTRED_PX and after < before / 4:
                return [], [], list(columns)
            return list(columns), [], []
        if len(big) >= 2:
            first, last = big[0], big[-1]
            centre = around_all(boxes[first:last]).centre
            sides = [gap for gap, at in gaps if at in {first, last}]
            if abs(centre - room.centre) <= _CENTRED_PX or abs(sides[0] - sides[-1]) <= 2 * _CENTRED_PX:
                return list(columns[:first]), list(columns[first:last]), list(columns[last:])
        parts_at = max(gaps)[1]
        if after > max(gaps)[0]:
            return list(columns), [], []
        return list(columns[:parts_at]), [], list(columns[parts_at:])

    def _cell(self, run: Sequence[Division], align: str) -> JsonNode:
        items: list[JsonNode] = []
        for division in run:
            items += self._stack(division, align)
        gap = 0 if any(map(_is_tall, run)) else self._gap_px
        return {"id": self.new_id("cl"), "track": {"kind": "content"}, "align": align, "gap_px": gap, "items": items}

    def _stack(self, division: Division, align: str) -> list[JsonNode]:
        """Items; those below each other are parted by what is as wide as the cell."""
        if isinstance(division, Seen):
            return self.items.items(division)
        if isinstance(division, Heap):
            self.items.note("Some things stood over each other; here they stand beside each other.")
            return [item for one in division.within for item in self.items.items(one)]
        parts = [self._stack(inner, align) for inner in division.within]
        if isinstance(division, Columns):
            return [item for part in parts for item in part]
        items: list[JsonNode] = []
        for number, part in enumerate(parts):
            if number and part:
                items.append(self._break())
            items += part
        return items

    def _break(self) -> JsonNode:
        """What comes behind it begins a new line."""
        styles = styles_json({"inline-size": "100%", "block-size": "0px"}, self.new_id)
        return {"id": self.new_id("it"), "kind": "spacer", "size_px": 0, "styles": styles}


def _columns(division: Division) -> list[Division]:
    return list(division.within) if isinstance(division, Columns) else [division]


def _is_tall(division: Division) -> bool:
    return division.is_tall if isinstance(division, Seen) else isinstance(division, Lines | Heap)


def _runs(group: Sequence[Division]) -> list[list[Division]]:
    """What stands on one line shares a cell; what has lines of its own has one."""
    runs: list[list[Division]] = []
    for one in group:
        if runs and not _is_tall(one) and not any(map(_is_tall, runs[-1])):
            runs[-1].append(one)
        else:
            runs.append([one])
    return runs


def _across(room: Rect, union: Rect) -> Rect:
    return Rect(min(room.left, union.left), union.top, max(room.right, union.right), union.bottom)


def declare(node: JsonNode, values: Values, new_id: NewId) -> None:
    node["styles"] = [one for one in node["styles"] if one["property"] not in values] + styles_json(values, new_id)
