"""The published states of a site: publish, see it, take it away, go back."""

from __future__ import annotations

import json
from collections.abc import Iterator
from html import escape
from typing import Any

from django.http import Http404, HttpRequest, HttpResponse, StreamingHttpResponse
from django.shortcuts import render
from zipstream import ZipStream

from ....core.exchange.imports.import_pages import page_path
from ....core.gates.guards import guards_of
from ....core.kinds.items.form import FORMS, Form
from ....core.kinds.pieces.password import PasswordGate
from ....core.output.publication import GATES_PATH
from ...jobs import tasks
from ...jobs.publishing import new_edition
from ...live.addresses import address
from ...live.gates import guards_in
from ...live.published import listed_files
from ...sites.access import site_of
from ...sites.models import Edition, StoredSite
from ...sites.storage import editions as edition_files
from ...sites.storage import stored, stored_name
from ..cycle.screen import Opened, screen


@screen("studio/editions/editions.html", "editions")
def editions(request: HttpRequest, opened: Opened, made: tuple[str, ...]) -> dict[str, Any]:
    guards = guards_of(opened.site)
    locked = guards.locked_in(opened.site) if guards else 0
    asked = [gate.name for gate in guards.gates.values() if not isinstance(gate, PasswordGate)] if guards else []
    return {**_listed(opened.stored), "locked": locked, "not_asked": asked}


def publish(request: HttpRequest, slug: str) -> HttpResponse:
    """Begins a new edition of the newest state."""
    stored = _posted(request, slug)
    edition = new_edition(stored, request.user.pk)
    tasks.publish.configure(lock=f"edition-{edition.pk}").defer(edition_id=edition.pk)
    return _list(request, stored)


def go_back(request: HttpRequest, slug: str, number: int) -> HttpResponse:
    """Makes an earlier (or later) finished edition the one that visitors see. Nothing is composed anew."""
    stored = _posted(request, slug)
    edition = stored.editions.filter(number=number, state=Edition.State.DONE).first()
    if edition is None:
        raise Http404
    StoredSite.objects.filter(pk=stored.pk).update(current_edition=edition)
    return _list(request, site_of(request.user, slug))


def edition_list(request: HttpRequest, slug: str) -> HttpResponse:
    return _list(request, site_of(request.user, slug))


def take_away(request: HttpRequest, slug: str, number: int) -> HttpResponse:
    """The finished site of an edition as a ZIP, streamed."""
    site = site_of(request.user, slug)
    edition = site.editions.filter(number=number, state=Edition.State.DONE).first()
    if edition is None:
        raise Http404
    files = listed_files(edition.manifest)
    addresses = own_addresses(files)
    archive = ZipStream(sized=not addresses)
    guards = guards_in(files)
    for name, content in sorted(files.items()):
        # Nobody would keep the gates there.
        is_locked = guards is not None and guards.before(page_path("/" + name)).is_locked
        if is_locked or name.startswith((FORMS[1:], GATES_PATH[1:])):
            continue
        if addresses and name.endswith((".html", ".htm")):
            archive.add(_with_own_addresses(stored(content), addresses), name)
        else:
            archive.add(_chunks(content), name, size=edition_files().size(stored_name(content)))
    response = StreamingHttpResponse(archive, content_type="application/zip")
    if not addresses:
        response["Content-Length"] = str(len(archive))
    response["Content-Disposition"] = f'attachment; filename="{site.slug}-edition-{number}.zip"'
    return response


def own_addresses(files: dict[str, str]) -> dict[str, str]:
    """For forms that name an address of their own for the ZIP: where they post to on the live site, and there."""
    forms = (
        Form.model_validate_json(stored(content))
        for name, content in files.items()
        if name.endswith("/form.json") and name.startswith(FORMS[1:])
    )
    return {f"{FORMS}{form.id}/": form.own_address for form in forms if form.own_address}


def _with_own_addresses(page: bytes, addresses: dict[str, str]) -> bytes:
    for live, own in addresses.items():
        page = page.replace(f'action="{live}"'.encode(), f'action="{escape(own, quote=True)}"'.encode())
    return page


def _chunks(content: str) -> Iterator[bytes]:
    with edition_files().open(stored_name(content)) as file:
        yield from file.chunks()


def _posted(request: HttpRequest, slug: str) -> StoredSite:
    stored = site_of(request.user, slug)
    if request.method != "POST":
        raise Http404
    return stored


def _list(request: HttpRequest, stored: StoredSite) -> HttpResponse:
    context = {"slug": stored.slug, "live_address": address(stored.slug, request.get_host()), **_listed(stored)}
    response = render(request, "studio/editions/edition_list.html", context)
    response["HX-Trigger"] = json.dumps({"rim:editions": {"going_on": context["going_on"]}})
    return response


def _listed(stored: StoredSite) -> dict[str, Any]:
    listed = list(stored.editions.select_related("author")[:40])
    going_on = any(edition.state in {Edition.State.WAITING, Edition.State.WORKING} for edition in listed)
    return {"listed": listed, "going_on": going_on, "current": stored.current_edition_id}
