"""Which steps lead from an empty site to its first edition, which of them are done, and where is each?"""

from __future__ import annotations

from typing import NamedTuple
from urllib.parse import urlencode

from django.http import HttpRequest, HttpResponse, HttpResponseNotAllowed
from django.shortcuts import redirect
from django.urls import reverse

from ....core.model.beginning import steps_done
from ...sites.access import site_of
from ..cycle.screen import Opened

LEFT_OUT = "steps-left-out"
"""In a designer's session: the slugs of the sites whose list of steps is put away."""


class Step(NamedTuple):
    name: str
    about: str
    href: str
    is_done: bool


def steps_of(request: HttpRequest, opened: Opened) -> list[Step]:
    """None where all are done, or the list is put away."""
    if opened.slug in request.session.get(LEFT_OUT, ()):
        return []
    done = steps_done(opened.site)

    def to(screen: str, **asked: str) -> str:
        return reverse(screen, args=[opened.slug]) + (f"?{urlencode(asked)}" if asked else "")

    listed = [
        Step("Pages", "bring them in, or write one", to("pages"), done.pages),
        Step("Ground", "colours and type", to("foundations"), done.ground),
        Step("Menu", "of the pages; a header makes one, too", to("menus"), done.menu),
        Step("Header", "of ours, or like the one that is there", to("new-piece", kind="header"), done.header),
        Step("Footer", "the same", to("new-piece", kind="footer"), done.footer),
        Step("Small screens", "a drawer, or a bar at the bottom", to("new-piece", kind="drawer"), done.small_screens),
        Step("Publish", "the first edition", to("editions"), opened.stored.current_edition is not None),
    ]
    return [] if all(step.is_done for step in listed) else listed


def leave_out(request: HttpRequest, slug: str) -> HttpResponse:
    """Puts the list away, for who asks."""
    site_of(request.user, slug)
    if request.method != "POST":
        return HttpResponseNotAllowed(["POST"])
    request.session[LEFT_OUT] = [*request.session.get(LEFT_OUT, ()), slug]
    return redirect("pieces", slug)
