"""How do texts fit where they stand: those on the board, and one that is being typed?"""

from __future__ import annotations

from django.http import HttpRequest, HttpResponse
from django.shortcuts import render
from django.utils.html import escape

from ....core.fit.advice.lengths import TooLong, pieces_saying
from ....core.model.editing.apply import apply
from ....core.model.editing.edits import Set
from ....core.model.names import cause_name
from ....core.model.site import Site
from ....core.model.texts import texts_of
from ...sites import store
from ...sites.access import site_of
from ...sites.rules import rules_of
from ..forms.form_error import Posted
from ..forms.posting import posted_edit
from .board import lengths_of, part_of, read_board


def lengths(request: HttpRequest, slug: str) -> HttpResponse:
    """Of the texts on the board, those that do not fit where they stand: put into the cells that wait for it."""
    stored = site_of(request.user, slug)
    site = store.load(stored.pk).site
    board = read_board(request.GET, site, stored.pk)
    on_it = {text.node: text for text in part_of(board, request.GET).object_list}
    worst: dict[tuple[str, str], TooLong] = {}
    for one in lengths_of(site, stored.pk, on_it.values(), board.languages):
        known = worst.get((one.node, one.language))
        if one.node in on_it and (known is None or one.px > known.px):
            worst[one.node, one.language] = one
    cells = [
        (text.key, tag, _in_px(worst[node, tag]) if (node, tag) in worst else "")
        for node, text in on_it.items()
        for tag in board.languages
    ]
    return render(request, "studio/wording/lengths.html", {"cells": cells})


def _in_px(one: TooLong) -> str:
    return f"{one.px:.0f} px too long at {one.from_px} to {one.to_px} px"


_SAME_PX = 0.5


def tried(request: HttpRequest, slug: str) -> HttpResponse:
    """What comes of a text as it is typed, before it is kept."""
    stored = site_of(request.user, slug)
    site = store.load(stored.pk).site
    asked = request.GET.copy()
    asked["do"] = "set"
    posted = posted_edit(site, asked)
    after = apply(site, posted.edit, rules_of(stored.pk)) if isinstance(posted, Posted) else None
    if not isinstance(posted, Posted) or not isinstance(posted.edit, Set) or not isinstance(after, Site):
        return HttpResponse("")
    node, language = posted.edit.node, asked.get("language") or site.language
    texts = [text for text in texts_of(after) if text.node == node]
    before: dict[str, float] = {}
    for one in lengths_of(site, stored.pk, texts, [language]):
        before[one.row] = max(one.px, before.get(one.row, 0.0))
    found = lengths_of(after, stored.pk, texts, [language])
    own = max((one for one in found if one.node == node), key=lambda one: one.px, default=None)
    other = next((one for one in found if one.px > before.get(one.row, 0.0) + _SAME_PX), None)
    if own is not None:
        return HttpResponse(_in_px(own))
    if other is not None:
        return HttpResponse(escape(f"{_in_px(other)}, with {cause_name(after, other.node, language)} beside it"))
    return HttpResponse("fits" if texts and any(pieces_saying(after, text) for text in texts) else "")
