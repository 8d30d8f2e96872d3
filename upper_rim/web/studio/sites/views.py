"""A designer's sites: the list, a new one, taking one in or away as a bundle, working on it with somebody."""

from __future__ import annotations

import json
import tempfile
from typing import Any

from django.conf import settings
from django.contrib.auth import get_user_model
from django.http import FileResponse, Http404, HttpRequest, HttpResponse
from django.shortcuts import redirect, render

from ....core.exchange.bundle import BrokenBundle, frame_in, write_bundle
from ....core.model.beginning import blank_site
from ....core.model.tree import ROOT
from ... import wall
from ...accounts.bodies import takes_files
from ...jobs import tasks
from ...jobs.turns import begin_work
from ...live.addresses import address
from ...sites import contents, ids, store
from ...sites.access import site_of, sites_of
from ...sites.fitters import site_fitter
from ...sites.looking import sorted_today, whole
from ...sites.models import StoredSite, Work
from ...sites.uploads import on_disk
from ..controls.control import Control, is_picture, words
from ..cycle.screen import Opened, screen, stage_address
from ..preview.small import pictures_of_front


def sites(request: HttpRequest, fault: str = "", name: str = "") -> HttpResponse:
    listed = [
        (stored, stored.nodes.filter(slot="pages").count(), address(stored.slug, request.get_host()))
        for stored in sites_of(request.user).select_related("current_edition")
    ]
    return render(
        request,
        "studio/sites/sites.html",
        {"listed": listed, "fault": fault, "name": name},
        status=422 if fault else 200,
    )


def front(request: HttpRequest, slug: str) -> HttpResponse:
    """What a site is known by in the list, asked for once it is in view: large sites take a moment to read."""
    stored = site_of(request.user, slug)
    opened = Opened(stored, *store.load(stored.pk), request.user)
    drawn = pictures_of_front(opened.site, site_fitter(stored.pk), stage_address(request, opened))
    return render(request, "studio/sites/front.html", {"drawn": drawn})


@takes_files(settings.LARGEST_UPLOAD)
def new_site(request: HttpRequest) -> HttpResponse:
    """An empty site, or one out of a bundle."""
    if request.method != "POST":
        return redirect("sites")
    bundle = request.FILES.get("bundle")
    if bundle is not None:
        return _from_bundle(request, bundle)
    name = request.POST.get("name", "").strip()
    if not name or len(name) > 120:
        return sites(request, "Give the new site a name of up to 120 characters.", name)
    stored = store.new_site(request.user, blank_site(name, ids.new_key(), ids.new_id), {})
    return redirect("pages", stored.slug)


def _from_bundle(request: HttpRequest, upload: Any) -> HttpResponse:
    """Foundations, menus and pieces at once, the pages in the background. A bundle that is none makes no site."""
    if upload.size > settings.LARGEST_UPLOAD:
        return sites(
            request,
            f"The bundle is {upload.size // 1_000_000} MB large; {settings.LARGEST_UPLOAD // 1_000_000} MB at most.",
        )
    try:
        with on_disk(upload) as path:
            frame = wall.read(frame_in, path, refusals=(BrokenBundle,))
    except BrokenBundle as broken:
        return sites(request, f"{upload.name}: {broken}")
    except wall.Unread as unread:
        return sites(request, f"“{upload.name}” was not taken in: {unread}.")
    stored = store.new_site(request.user, frame.replaced(key=ids.new_key()), {})
    work = Work.objects.create(
        site=stored,
        author=request.user,
        kind=Work.Kind.BRING_IN,
        name=upload.name[:200],
        file=upload,
        details={"bundle": True},
    )
    begin_work(work, tasks.take_in)
    return redirect("pages", stored.slug)


def bundle(request: HttpRequest, slug: str) -> FileResponse:
    """The site as it stands now, as a bundle."""
    stored = site_of(request.user, slug)
    file = tempfile.TemporaryFile()  # noqa: SIM115 - the response closes it
    write_bundle(file, store.load(stored.pk).site, contents.read_content)
    file.seek(0)
    return FileResponse(file, as_attachment=True, filename=f"{stored.slug}.rim.zip", content_type="application/zip")


@screen("studio/sites/settings.html", "settings")
def settings_screen(request: HttpRequest, opened: Opened, made: tuple[str, ...]) -> dict[str, Any]:
    fault = ""
    if request.method == "POST" and request.POST.get("person"):
        person = get_user_model().objects.filter(username=request.POST["person"].strip()).first()
        if person is None:
            fault = "There is nobody here by that name."
        else:
            opened.stored.people.add(person)
    site = opened.site
    listed = [("", "none: browsers show their own")] + [
        (one.path, one.path) for one in site.assets if is_picture(one.path)
    ]
    icon = Control("choice", "Icon", ROOT, "icon", site.icon or "", listed)
    bring = Control("upload", "Upload", ROOT, "icon", "")
    return {
        "people": opened.stored.people.order_by("username"),
        "fault": fault,
        "told_of_the_site": [icon, bring, *words(site, "description", "Description", site)],
    }


def leave_site(request: HttpRequest, slug: str, person: int) -> HttpResponse:
    """Takes somebody off a site. The last person stays."""
    stored = site_of(request.user, slug)
    if request.method != "POST":
        raise Http404
    if stored.people.count() > 1:
        stored.people.remove(person)
    return redirect("settings", slug) if person != request.user.pk else redirect("sites")


def delete_site(request: HttpRequest, slug: str) -> HttpResponse:
    """Removes a site for good, where its name is typed as it is written."""
    stored = site_of(request.user, slug)
    if request.method != "POST":
        raise Http404
    if request.POST.get("name", "").strip() != stored.name:
        return redirect("settings", slug)
    for work in stored.works.exclude(file=""):
        work.file.delete(save=False)
    stored.delete()
    # What it alone had of pages, files and editions goes by and by.
    tasks.sweep_later()
    return redirect("sites")


def newest(request: HttpRequest, slug: str, revision: int) -> HttpResponse:
    """Whether somebody else has changed the site since `revision`. It is told, and puts nothing onto the screen (204)."""
    stored = site_of(request.user, slug)
    if stored.revision == revision:
        return _kept_up(stored)
    return _told("rim:elsewhere", revision=stored.revision)


def _kept_up(stored: StoredSite) -> HttpResponse:
    """Where somebody has asked before what there is to find, it is looked at anew after each edit, once nobody is at it."""
    if not stored.found or stored.found["revision"] == stored.revision:
        return HttpResponse(status=204)
    site, revision = store.load(stored.pk)
    open_now = sorted_today(whole(stored.pk, revision, site), site).open
    breaks = sum(cause.severity == "breaks" for cause in open_now)
    return _told("rim:found", breaks=breaks)


def _told(event: str, **detail: int) -> HttpResponse:
    return HttpResponse(status=204, headers={"HX-Trigger": json.dumps({event: detail})})
