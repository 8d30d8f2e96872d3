"""Past steps: who did what and when, how the site was after each, and the way back to it."""

from __future__ import annotations

from datetime import datetime
from typing import Any, NamedTuple

from django.http import HttpRequest

from ....core.model.editing.edits import edit_adapter
from ...sites import store
from ...sites.models import Edition, Revision
from ..cycle.announcements import announcement
from ..cycle.notices import StudioNotice, notice_of
from ..cycle.screen import Opened, Redirected, screen, site_url
from ..forms.numbers import whole_number
from ..preview.trials import begin

SHOWN = 25
"""So many at a time: for each the site is looked at before and after."""


class PastStep(NamedTuple):
    """`editions`: numbers of those that were published from it."""

    number: int
    who: str
    at: datetime
    what: str
    editions: list[int]


@screen("studio/past/past.html", "editions")
def past(request: HttpRequest, opened: Opened, made: tuple[str, ...]) -> dict[str, Any]:
    notice = _gone_back(request, opened)
    before = whole_number(request.GET.get("before", ""))
    newest = opened.revision if before is None else min(before, opened.revision)
    listed = _steps(opened, newest)
    context = {
        "steps": listed,
        "earlier": listed[-1].number - 1 if listed and listed[-1].number > 1 else None,
        "is_newest": newest == opened.revision,
        "first_piece": opened.site.pieces[0] if opened.site.pieces else None,
    }
    return {**context, "notice": notice} if notice else context


def _steps(opened: Opened, newest: int) -> list[PastStep]:
    number = opened.stored.pk
    rows = Revision.objects.filter(site_id=number, number__lte=newest).select_related("author")
    # Of those that are told nobody asks for what was done, which may be a whole site's pages.
    rows = rows.defer("edit", "inverse").order_by("-number")
    published: dict[int, list[int]] = {}
    for edition, revision in Edition.objects.filter(site_id=number).values_list("number", "revision"):
        published.setdefault(revision, []).append(edition)
    return [
        PastStep(
            row.number,
            row.author.get_username() if row.author else "somebody who is gone",
            row.made_at,
            _what(number, row),
            published.get(row.number, []),
        )
        for row in rows[:SHOWN]
    ]


def _what(site_id: int, row: Revision) -> str:
    said = row.said or _worked_out(site_id, row)
    how = {Revision.Kind.UNDO: "Undone: ", Revision.Kind.REDO: "Done again: "}.get(Revision.Kind(row.kind), "")
    return how + (said or "Several changes at once.")


def _worked_out(site_id: int, row: Revision) -> str:
    """Of a step that was not told when it was made: from the states before and after it."""
    edit = edit_adapter.validate_python(row.edit)
    return announcement(edit, store.load_revision(site_id, row.number - 1), store.load_revision(site_id, row.number))


def _gone_back(request: HttpRequest, opened: Opened) -> StudioNotice | None:
    """`look`: the site as it was after that step is tried on, on the workbench; `back`: it is so again, by one edit
    that can be undone."""
    asked = request.POST if request.method == "POST" else {}
    if not {"look", "back"} & set(asked):
        return None
    number = whole_number(asked.get("look", "") or asked.get("back", ""))
    edit = store.way_back(opened.stored.pk, number) if number is not None else None
    if edit is None:
        return StudioNotice("That step is too long ago to go back to at once, or is no step of this site.", True)
    if "look" in asked and opened.site.pieces:
        begin(opened, f"as after step {number}", edit)
        raise Redirected(site_url("workbench", opened, opened.site.pieces[0].id))
    answer = store.submit(opened.stored.pk, opened.user, edit, tells=lambda *_: f"Went back to step {number}.")
    notice = notice_of(answer, edit, opened.site)
    if notice is None:
        raise Redirected(site_url("past", opened))
    return notice
