"""Would a stage turn its own condition over, if the page moved with it; and from which distance on does its room not
show?

A header that becomes less high by `less_px` could give that room up: the page would move by as much, the browser would
keep what one reads where it is (CSS Scroll Anchoring 1), and so the scroll position would go back by `less_px`. Just
beyond the distance that is less than the distance again: the header grows, the position comes back, and so on. What is
published keeps the room, so that nothing of this happens; but where the stage begins before the room is scrolled out of
sight, the page's ground shows beneath the header. From `least_px` on neither is the case.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from typing import NamedTuple

from ..fit.rows.fitter import Fitter
from ..kinds.moving import ByPixels, Stage
from ..kinds.pieces.base import Piece
from ..kinds.pieces.header import Header
from ..model.editing.apply import apply
from ..model.editing.edits import Add, Edit, Set, parts_of_edit
from ..model.site import Site
from ..model.stages import hands_over, stages_of
from .over_widths import differences, widths_of

TURNS = 6
"""So many changes without a step of one's own are a flicker."""


class Flicker(NamedTuple):
    """Scroll positions, both included, at which a stage would come and go by itself."""

    from_px: int
    to_px: int


def turns(after_px: float, less_px: float, scroll_px: float, *, keeps_room: bool) -> int:
    """How often a stage comes or goes until it rests, when a step has led to a scroll position from where it did not
    hold. `TURNS` where it never rests."""
    moved = 0.0 if keeps_room else less_px
    y, holds = scroll_px, False
    for turn in range(TURNS):
        now = y > after_px
        if now == holds:
            return turn
        y, holds = (y - moved if now else y + moved), now
    return TURNS


def flicker(after_px: float, less_px: float, *, keeps_room: bool) -> Flicker | None:
    """Played for each position around a distance, in steps of 1 px."""
    start, end = int(after_px) - 2, int(after_px + abs(less_px)) + 3
    found = [y for y in range(max(0, start), end) if turns(after_px, less_px, float(y), keeps_room=keeps_room) == TURNS]
    return Flicker(found[0], found[-1]) if found else None


class Least(NamedTuple):
    """The least distance in px at which a stage can begin so that no room shows: where it is greatest over all widths
    and languages, the first of these widths, and the language."""

    px: float
    at_px: int
    language: str


def least(fitter: Fitter, site: Site, piece: Piece, stage: Stage) -> Least | None:
    """None where it gives no room up."""
    if not isinstance(piece, Header) or piece.over:
        return None
    found: Least | None = None
    over = bool(hands_over(site, piece, stage))
    for language in fitter.languages(site, piece):
        for start, less in differences(widths_of(fitter, site, piece, language), stage, over=over):
            if less > 0.5 and (found is None or less > found.px):
                found = Least(less, start, language)
    return found


class TooEarly(NamedTuple):
    """A stage whose distance in px is less than the room that it gives up. `would`: where it would flicker, if that
    were given up; `gap_px`: how much of it shows as it is kept."""

    piece: str
    stage: str
    after_px: int
    least: Least
    would: Flicker
    gap_px: float

    @property
    def about(self) -> dict[str, float | str]:
        """The numbers, as words name them."""
        return {
            "after_px": self.after_px,
            "given_up_px": self.least.px,
            "at_px": self.least.at_px,
            "language": self.least.language,
            "from_px": self.would.from_px,
            "to_px": self.would.to_px,
            "gap_px": self.gap_px,
            "least_px": -(-self.least.px // 1),
        }


def too_early(fitter: Fitter, site: Site, pieces: Iterable[Piece]) -> Iterator[TooEarly]:
    for piece in pieces:
        for stage in piece.stages if isinstance(piece, Header) and piece.is_ever_pinned else ():
            if not isinstance(stage.after, ByPixels):
                continue
            asked = least(fitter, site, piece, stage)
            if asked is None or stage.after.px >= asked.px - 0.5:
                continue
            would = flicker(float(stage.after.px), asked.px, keeps_room=False)
            if would is not None:
                yield TooEarly(piece.id, stage.id, stage.after.px, asked, would, asked.px - stage.after.px)


def begun_too_early(fitter: Fitter, site: Site, edit: Edit) -> TooEarly | None:
    """The first of the stages to which an edit gives a distance that is less than the room that they give up. None,
    too, where the edit cannot be carried out."""
    parts = list(parts_of_edit(edit))
    touched = {part.node for part in parts if isinstance(part, Set) and part.field == "after"}
    for part in parts:
        if isinstance(part, Add) and part.slot == "stages":
            touched |= {str(value["id"]) for value in part.values if isinstance(value, dict)}
    after = apply(site, edit) if touched else None
    if not isinstance(after, Site):
        return None
    after = fitter.resolved(after)
    pieces = [piece for piece in after.pieces if any(stage.id in touched for stage in stages_of(piece))]
    return next((one for one in too_early(fitter, after, pieces) if one.stage in touched), None)
