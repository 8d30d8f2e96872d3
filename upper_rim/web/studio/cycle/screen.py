"""How does a screen answer? GET shows it, POST makes an edit and shows it again; htmx gets the part that changes.

Every screen of a site goes through `screen`: it finds the site among the user's own (404 otherwise), carries out what
was posted through the one store, and renders. A view itself only gathers what its template shows.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from functools import wraps
from typing import Any, NamedTuple
from urllib.parse import quote

from django.contrib.auth.base_user import AbstractBaseUser
from django.http import HttpRequest, HttpResponse, HttpResponseNotAllowed
from django.http.response import HttpResponseBase
from django.shortcuts import render
from django.urls import reverse
from django.utils.cache import patch_vary_headers

from ....core.model.editing.edits import Together
from ....core.model.facts import said_alike
from ....core.model.site import Site
from ...live.addresses import StageKey, address, stage_label
from ...sites import store
from ...sites.access import site_of
from ...sites.models import StoredSite
from ..forms.form_error import Posted
from ..forms.numbers import whole_number
from ..forms.posting import posted_edit
from .announcements import announcement
from .effects import effect_notice
from .notices import StudioNotice, alike_notice, notice_of
from .regions import SHAPE, SHOWN


@dataclass(frozen=True)
class Opened:
    """A site as somebody works on it: the stored row, its newest value and revision."""

    stored: StoredSite
    site: Site
    revision: int
    user: AbstractBaseUser

    @property
    def slug(self) -> str:
        return self.stored.slug


class Redirected(Exception):
    """What the screen was about is gone; `url` is the screen to show instead."""

    def __init__(self, url: str) -> None:
        self.url = url


AHEAD, AHEAD_S = "X-Rim-Ahead", 3
"""Names the revision from which a screen is asked for before it is pressed; what is pressed names it, too, and finds the
answer in the browser for so many seconds."""

View = Callable[..., dict[str, Any] | HttpResponseBase]


def screen(template: str, topic: str) -> Callable[[View], Callable[..., HttpResponseBase]]:
    """Makes a view of a site's screen. `topic` is the entry of the top line that is marked as current."""

    def wrap(view: View) -> Callable[..., HttpResponseBase]:
        @wraps(view)
        def respond(request: HttpRequest, slug: str, **named: Any) -> HttpResponseBase:
            stored = site_of(request.user, slug)
            if request.method not in {"GET", "HEAD", "POST"}:
                return HttpResponseNotAllowed(["GET", "HEAD", "POST"])
            done = Done()
            if request.method == "POST" and request.POST.get("do"):
                done = _carry_out(request, stored, named.get("piece_id", ""))
            opened = Opened(stored, *store.load(stored.pk), request.user)
            try:
                context = view(request, opened, made=done.made, **named)
            except Redirected as elsewhere:
                return _go(request, elsewhere.url)
            if isinstance(context, HttpResponseBase):
                return context
            told = {"topic": topic, "notice": done.notice, "said": done.said}
            return _rendered(request, template, {**told, **frame(request, opened), **context})

        return respond

    return wrap


def frame(request: HttpRequest, opened: Opened) -> dict[str, Any]:
    """What the lines around every screen show."""
    can_undo, can_redo = store.steps_left(opened.stored.pk, opened.user)
    edition = opened.stored.current_edition
    return {
        "base": "studio/cycle/part.html" if request.htmx else "studio/cycle/page.html",
        "opened": opened,
        "site": opened.site,
        "slug": opened.slug,
        "revision": opened.revision,
        "can_undo": can_undo,
        "can_redo": can_redo,
        "edition": edition,
        "found": opened.stored.found,
        "changes": opened.revision - edition.revision if edition else None,
        "live_address": address(opened.slug, request.get_host()),
        "stage_address": stage_address(request, opened),
    }


def stage_address(request: HttpRequest, opened: Opened) -> str:
    """Where the site's pages and files are seen as they are now, by this designer."""
    return address(stage_label(StageKey(opened.stored.pk, opened.user.pk)), request.get_host())


def _rendered(request: HttpRequest, template: str, context: dict[str, Any]) -> HttpResponse:
    response = render(request, template, context)
    notice: StudioNotice | None = context["notice"]
    if notice is not None and notice.is_fault:
        response.status_code = 200 if request.htmx else 422
    if request.method == "POST":
        response["X-Rim-Revision"] = str(context["revision"])
        if notice is not None and notice.is_fault:
            response["X-Rim-Refused"] = "1"
        elif context.get("said"):
            response["X-Rim-Said"] = quote(context["said"])
    elif AHEAD in request.headers:
        response["Cache-Control"] = f"private, max-age={AHEAD_S}"
        patch_vary_headers(response, [AHEAD, SHOWN, SHAPE, "HX-Request", "Cookie"])
    return response


class Done(NamedTuple):
    """What came of a post: the notice about it, the ids of nodes that it made, and what happened, in words."""

    notice: StudioNotice | None = None
    made: tuple[str, ...] = ()
    said: str = ""


def _carry_out(request: HttpRequest, stored: StoredSite, piece_id: str) -> Done:
    do = request.POST["do"]
    if do in {"undo", "redo"}:
        answer = (store.undo if do == "undo" else store.redo)(stored.pk, request.user)
        words = "Undone." if do == "undo" else "Done again."
        return Done(notice_of(answer, None, store.load(stored.pk).site), (), words)
    newest = store.load(stored.pk)
    post = request.POST.copy()
    post["by"] = str(request.user.get_username())
    posted = posted_edit(newest.site, post)
    if not isinstance(posted, Posted):
        return Done(notice_of(posted, None, newest.site))
    alike = said_alike(newest.site, posted.edit) if do == "set" else ()
    edit = Together(edits=(posted.edit, *(there for _, there in alike))) if alike else posted.edit
    answer = store.submit(stored.pk, request.user, edit, _base(request), announcement)
    if not isinstance(answer, store.Loaded):
        return Done(notice_of(answer, edit, newest.site))
    notice = effect_notice(newest.site, answer.site, request.POST, piece_id) if piece_id else None
    notice = alike_notice(newest.site, alike) if alike else notice
    return Done(notice, posted.made, announcement(posted.edit, newest.site, answer.site))


def _base(request: HttpRequest) -> int | None:
    return whole_number(request.POST.get("base", ""))


def _go(request: HttpRequest, url: str) -> HttpResponse:
    if request.htmx:
        return HttpResponse(headers={"HX-Redirect": url})
    return HttpResponse(status=303, headers={"Location": url})


def site_url(name: str, opened: Opened, *args: str) -> str:
    return reverse(name, args=[opened.slug, *args])
