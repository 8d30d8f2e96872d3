"""Texts on their way to translators and back."""

from __future__ import annotations

from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import render

from ....core.exchange.translations.merging import LARGEST_FILE, Merged, Remark, UnreadableFile
from ....core.exchange.translations.texts_csv import read_texts, write_texts
from ....core.exchange.translations.xliff import read_xliff, write_xliff
from ....core.model.site import Site
from ....core.model.texts import texts_of
from ....core.values.rich import without_marks
from ... import wall
from ...accounts.bodies import takes_files
from ...sites import store
from ...sites.access import site_of
from ..cycle.announcements import announcement
from ..cycle.notices import notice_of
from ..cycle.screen import Opened, frame
from ..words.languages import language_name
from .views import shown

MOST_REMARKS = 200


def as_xliff(request: HttpRequest, slug: str, language: str) -> HttpResponse:
    stored = site_of(request.user, slug)
    site = store.load(stored.pk).site
    if language not in site.other_languages:
        raise Http404
    response = HttpResponse(write_xliff(site, language), content_type="application/xliff+xml")
    response["Content-Disposition"] = f'attachment; filename="{stored.slug}-{language}.xlf"'
    return response


def as_csv(request: HttpRequest, slug: str) -> HttpResponse:
    stored = site_of(request.user, slug)
    site = store.load(stored.pk).site
    response = HttpResponse("\ufeff" + write_texts(site, site.other_languages), content_type="text/csv; charset=utf-8")
    response["Content-Disposition"] = f'attachment; filename="{stored.slug}-texts.csv"'
    return response


@takes_files(LARGEST_FILE)
def brought(request: HttpRequest, slug: str) -> HttpResponse:
    """Takes what a translator sent, and says what of it could not be taken."""
    stored = site_of(request.user, slug)
    file = request.FILES.get("file")
    if request.method != "POST":
        raise Http404
    site = store.load(stored.pk).site
    found, fault = Merged(None, 0, ()), ""
    if file is None or not file.name or not file.size:
        fault = "Choose a file first: XLIFF 2 or CSV."
    elif file.size > LARGEST_FILE:
        fault = f"“{file.name}” is larger than {LARGEST_FILE // 1_000_000} MB."
    else:
        try:
            data = file.read()
            is_table = file.name.lower().endswith((".csv", ".tsv", ".txt"))
            found = wall.read(read_texts if is_table else read_xliff, site, data, refusals=(UnreadableFile,))
        except UnreadableFile as error:
            fault = f"“{file.name}” was not taken. {error}"
        except wall.Unread as unread:
            fault = f"“{file.name}” was not taken: {unread}."
    if found.edit is not None:
        answer = store.submit(stored.pk, request.user, found.edit, tells=announcement)
        notice = notice_of(answer, found.edit, site)
        fault = notice.sentence if notice is not None else ""
    opened = Opened(stored, *store.load(stored.pk), request.user)
    told = [_told(remark, opened.site) for remark in found.remarks if remark.kind != "not said"]
    context = {
        **frame(request, opened),
        **shown(request, opened),
        "topic": "pages",
        "brought": not fault,
        "file": file.name if file else "",
        "fault": fault,
        "taken": found.taken,
        "remarks": told[:MOST_REMARKS],
        "more_remarks": max(len(told) - MOST_REMARKS, 0),
        "not_said": sum(remark.kind == "not said" for remark in found.remarks),
    }
    return render(request, "studio/wording/wording.html", context, status=422 if fault else 200)


def _told(remark: Remark, site: Site) -> tuple[str, str, str]:
    """What it is about, in which language, and what there is to say of it."""
    text = next((text for text in texts_of(site) if text.key == remark.place.rpartition(" ")[2]), None)
    about = f"{remark.place} “{without_marks(text.words.text)[:40]}”" if text else remark.place
    return about, language_name(remark.language), remark.words
