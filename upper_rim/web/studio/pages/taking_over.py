"""A piece that begins with an old part of the pages: as the designer's browser measured it, seen beside it, then kept in its
place or taken off."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any, NamedTuple
from urllib.parse import quote, urlencode

from django.contrib import messages
from django.http import HttpRequest
from pydantic import ValidationError

from ....core.exchange.html.lifting import lifted
from ....core.exchange.taken_over.making import SLOTS
from ....core.exchange.taken_over.measured import Measured
from ....core.exchange.taken_over.taking import Asked, Brought, Taken, drawings_in, family_read, font_files, take_over
from ....core.kinds.pieces import PIECE_KINDS
from ....core.model.editing.edits import Add, SetEach, Together, edit_adapter
from ....core.model.fonts import Font
from ....core.model.site import Lift, Page
from ....core.model.tree import ROOT
from ... import wall
from ...accounts.bodies import takes_files
from ...jobs import tasks
from ...jobs.turns import begin_work
from ...live.stage import TRIAL
from ...sites import contents, ids
from ...sites.fitters import site_fitter
from ...sites.models import Trial, Work
from ...sites.rules import rules_of
from ..cycle.screen import Opened, Redirected, screen, site_url, stage_address
from ..preview.trials import begin, ended, taken_over_by
from .views import posted_lift

LARGEST_MEASURED = 4_000_000
NEAR_PX = 1.0
"""Nobody sees a difference of that."""
_OWN_EDITS = 2
"""The last ones of a trial: the lift, and its cuts on one page."""
SEEN_WIDTH_PX = 1280


class Unmade(Exception):
    """Why nothing could begin, as a sentence."""


@takes_files(LARGEST_MEASURED)
@screen("studio/pages/taken_over.html", "pages")
def taken_over(request: HttpRequest, opened: Opened, made: tuple[str, ...]) -> dict[str, Any]:
    if request.method == "POST" and request.POST.get("measured"):
        try:
            _begin(request, opened)
        except Unmade as why:
            messages.error(request, str(why))
            asked = {name: request.POST.get(name, "") for name in ("lift", "below")}
            back = urlencode({"selector": asked["lift"], "below": asked["below"]})
            raise Redirected(f"{site_url('lifting', opened)}?{back}") from why
        raise Redirected(site_url("taken-over", opened))
    trial = taken_over_by(opened)
    if trial is None:
        raise Redirected(site_url("lifting", opened))
    asked_for = request.POST.get("trial", "") if request.method == "POST" else ""
    if asked_for == "keep":
        _keep(opened, trial)
    elif asked_for == "off":
        ended(opened, "off")
    if asked_for:
        raise Redirected(site_url("lifting", opened))
    about = trial.about
    differences = [Shown.of(one) for one in about["differences"]]
    page = quote(about["page"], safe="/%")
    return {
        "trial": trial,
        "about": about,
        "off": [one for one in differences if one.off > NEAR_PX],
        "compared": len(differences),
        "near": sum(one.off <= NEAR_PX for one in differences),
        "furthest": max((one.off for one in differences), default=0.0),
        "frames": [
            (f"The old one, on {about['page']}, {SEEN_WIDTH_PX} px wide", "old-one", page),
            ("The new one", "new-one", f"{page}?{urlencode({TRIAL: '1'})}"),
        ],
        "begins_px": max(0, about["top"] - 12),
        "high_px": min(900, about["height"] + 24),
        "ends_px": about["top"] + about["height"] + 60,
        "width_px": SEEN_WIDTH_PX,
        "rivals": [
            piece.name for piece in opened.site.pieces if piece.kind == about["slot"] and opened.site.rules_of(piece)
        ],
    }


class Shown(NamedTuple):
    """How far something stands from what it replaces, in words."""

    name: str
    words: str
    off: float

    @classmethod
    def of(cls, told: Sequence[Any]) -> Shown:
        name, right, down = told
        ways = (
            (right, "to the right" if right > 0 else "to the left"),
            (down, "lower" if down > 0 else "higher"),
        )
        said = [f"{abs(px):.0f} px {where}" for px, where in ways if abs(px) >= NEAR_PX / 2]
        return cls(name, " and ".join(said), max(abs(right), abs(down)))


def _begin(request: HttpRequest, opened: Opened) -> None:
    """From what was measured to what is tried on. Nothing of the site is changed."""
    site = opened.site
    slot = next((slot for slot in SLOTS if slot == request.POST.get("slot")), None)
    page = next((page for page in site.pages if page.id == request.POST.get("page") and page.content), None)
    lift = posted_lift(request, site)
    if slot is None or page is None or lift is None:
        raise Unmade("The page or the part is not there any more: point at it again.")
    try:
        measured = Measured.model_validate_json(request.POST["measured"])
    except (ValidationError, RecursionError) as error:
        raise Unmade("The part could not be measured on this page: point at another one.") from error
    cuts = _cuts(page, lift)
    origin = stage_address(request, opened).rstrip("/")
    name = _free_name(opened, PIECE_KINDS[slot].NAME)
    try:
        taken = take_over(
            site,
            measured,
            Asked(slot, name, lift.where.model_dump(mode="json"), origin, page.language),
            ids.new_id,
            site_fitter(opened.stored.pk),
            rules_of(opened.stored.pk),
            _brought(opened, measured, origin),
        )
    except ValueError as why:
        raise Unmade(f"Nothing could begin with it: {why}.") from why
    if not isinstance(taken, Taken):
        raise Unmade(f"Nothing could begin with it: {taken.words}.")
    top = measured.parts[0].rect
    about = {
        "slot": slot,
        "page": page.path,
        "piece": taken.piece,
        "lift": lift.model_dump(mode="json"),
        "differences": [list(one) for one in taken.differences],
        "unread": list(taken.unread),
        "notes": list(taken.notes),
        "top": max(0, round(top[1])),
        "height": max(20, round(top[3])),
    }
    added = Add(parent=ROOT, slot="lifts", values=(lift.model_dump(mode="json"),))
    tried = Together(edits=(*taken.edit.edits, added, SetEach(field="cuts", values=((page.id, cuts),))))
    begin(opened, name, tried, about)


def _cuts(page: Page, lift: Lift) -> list[Any]:
    """Of one page, those of earlier lifts kept."""
    content = contents.read_content(page.content or "")
    try:
        (found,) = wall.read(lifted, [(content, {lift.id: lift.selector})], lift.selector)
    except wall.Unread as unread:
        raise Unmade(f"The page cannot be looked through: {unread}.") from unread
    if not found.cuts:
        raise Unmade(" ".join(found.lifting.faults) or "It is not written in the page itself: a script adds it.")
    apart = [cut for cut in page.cuts if all(cut.end <= new.start or cut.start >= new.end for new in found.cuts)]
    return [cut.model_dump(mode="json") for cut in sorted((*apart, *found.cuts), key=lambda cut: cut.start)]


def _brought(opened: Opened, measured: Measured, origin: str) -> Brought:
    """What comes along, read where it harms nobody, and kept."""
    try:
        drawn = wall.read(drawings_in, measured) if any(part.drawing for part in measured.parts) else {}
    except wall.Unread:
        drawn = {}
    kept = {asset.content: data for asset, data in drawn.values()}
    fonts: dict[str, Font] = {}
    for family, files in font_files(opened.site, measured, origin).items():
        try:
            found = wall.read(
                family_read, family, ids.new_id("ft"), [contents.read_content(one.content) for one in files]
            )
        except wall.Unread:
            found = None
        if found is not None:
            fonts[family] = found[0]
            kept |= {file.content: data for file, data in zip(found[0].files, found[1], strict=False)}
    contents.keep_contents(kept)
    return Brought({source: asset for source, (asset, _) in drawn.items()}, fonts)


def _free_name(opened: Opened, kind: str) -> str:
    taken = {piece.name for piece in opened.site.pieces}
    numbered = (f"{kind} {number}" for number in range(2, len(taken) + 3))
    return next(name for name in (kind, *numbered) if name not in taken)


def _keep(opened: Opened, trial: Trial) -> None:
    """In the background: the old part goes from all pages where it is, and the piece comes, as one step."""
    edit = edit_adapter.validate_python(trial.edit)
    assert isinstance(edit, Together)
    instead = Together(edits=edit.edits[:-_OWN_EDITS])
    lift = trial.about["lift"]
    work = Work.objects.create(
        site=opened.stored,
        author=opened.user,
        kind=Work.Kind.LIFT_OUT,
        name=lift["selector"][:200],
        details={
            "lift": lift,
            "instead": edit_adapter.dump_python(instead, mode="json"),
            "name": trial.name,
            "piece": trial.about["piece"],
        },
    )
    trial.delete()
    begin_work(work, tasks.lift_out)
