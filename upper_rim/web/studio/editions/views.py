"""The published states of a site: publish, see it, take it away, go back."""

from __future__ import annotations

import json
import secrets
from collections.abc import Iterator, Mapping, Sequence
from typing import Any

from django.http import Http404, HttpRequest, HttpResponse, StreamingHttpResponse
from django.shortcuts import render
from django.utils.timezone import now
from zipstream import ZipStream

from ....core.gates.guards import Guards
from ....core.gates.locking import Lock
from ....core.gates.unserved import Unserved
from ....core.kinds.context import GateState
from ....core.kinds.items.form import FORMS, Form
from ....core.output.publication import CONSENT_PATH, GATES_PATH
from ....core.output.unserved import Make, UnservedFiles
from ....shipped import shelf
from ...jobs import tasks
from ...jobs.publishing import new_edition
from ...jobs.turns import begin_edition
from ...live.addresses import address
from ...live.gates import guards_in
from ...live.published import listed_files
from ...sites.access import site_of
from ...sites.models import Edition, StoredSite
from ...sites.storage import editions as edition_files
from ...sites.storage import stored, stored_name
from ..cycle.screen import Opened, screen
from .gates import CONSENT_LOSSES, WrongPasswords, gates_shown, opened_by


@screen("studio/editions/editions.html", "editions")
def editions(request: HttpRequest, opened: Opened, made: tuple[str, ...]) -> dict[str, Any]:
    return _listed(opened.stored)


def publish(request: HttpRequest, slug: str) -> HttpResponse:
    """Begins a new edition of the newest state; where something breaks it is asked once more."""
    stored = _posted(request, slug)
    breaks = stored.found.get("breaks", 0) if stored.found.get("revision") == stored.revision else 0
    if breaks and not request.POST.get("anyway"):
        return _list(request, stored, asks=breaks)
    edition = new_edition(stored, request.user.pk)
    begin_edition(edition, tasks.publish)
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


@screen("studio/editions/take_away.html", "editions")
def take_away(
    request: HttpRequest, opened: Opened, made: tuple[str, ...], number: int
) -> dict[str, Any] | HttpResponse:
    """A site as a ZIP. Where it has gates, it is asked before what opens there, and told what other servers do less."""
    edition = _done(opened.stored, number)
    files = listed_files(edition.manifest)
    guards, asks = guards_in(files), CONSENT_PATH[1:] in files
    if guards is None and not asks:
        return _as_zip(opened.stored, edition, {})
    faults: Mapping[int, str] = {}
    if request.method == "POST":
        try:
            return _as_zip(opened.stored, edition, opened_by(request, opened.stored, guards) if guards else {})
        except WrongPasswords as wrong:
            faults = wrong.faults
    gates = gates_shown(opened.stored, guards, faults) if guards else []
    return {"taken": edition, "gates": gates, "of_consent": CONSENT_LOSSES if asks else ()}


def _as_zip(site: StoredSite, edition: Edition, opening: Mapping[str, Sequence[str]]) -> StreamingHttpResponse:
    """Streamed. `opening`: by door the passwords that open it; what is behind others is left out."""
    files = listed_files(edition.manifest)
    locks = {gate: Lock(typed, secrets.token_bytes) for gate, typed in opening.items()}
    unserved = _unserved(files, guards_in(files), locks)
    planned = [(*made, content) for name, content in sorted(files.items()) for made in unserved.of(name)]
    besides = list(unserved.besides())
    is_sized = not besides and all(make is None for _, make, _ in planned)
    archive = ZipStream(sized=is_sized)
    for name, make, content in planned:
        if make is None:
            archive.add(_chunks(content), name, size=edition_files().size(stored_name(content)))
        else:
            archive.add(_made(make, content), name)
    for file in besides:
        archive.add(file.data, file.name)
    response = StreamingHttpResponse(archive, content_type="application/zip")
    if is_sized:
        response["Content-Length"] = str(len(archive))
    response["Content-Disposition"] = f'attachment; filename="{site.slug}-edition-{edition.number}.zip"'
    return response


def _done(site: StoredSite, number: int) -> Edition:
    edition = site.editions.filter(number=number, state=Edition.State.DONE).first()
    if edition is None:
        raise Http404
    return edition


def _unserved(files: Mapping[str, str], guards: Guards | None, locks: Mapping[str, Lock]) -> UnservedFiles:
    def gate_page(gate: str, state: GateState, language: str) -> bytes:
        return stored(files[f"{GATES_PATH[1:]}{gate}/{state}-{language}.html"])

    forms = (
        Form.model_validate_json(stored(content))
        for name, content in files.items()
        if name.endswith("/form.json") and name.startswith(FORMS[1:])
    )
    known = Unserved(guards.kept, f"{now():%Y-%m-%dT%H:%MZ}") if guards else None
    script = shelf().gates_script
    return UnservedFiles(known, forms, locks=locks, script=script, gate_page=gate_page, taken=files)


def _made(make: Make, content: str) -> Iterator[bytes]:
    """Only when it is sent: a large site is never whole in memory."""
    yield make(stored(content))


def _chunks(content: str) -> Iterator[bytes]:
    with edition_files().open(stored_name(content)) as file:
        yield from file.chunks()


def _posted(request: HttpRequest, slug: str) -> StoredSite:
    stored = site_of(request.user, slug)
    if request.method != "POST":
        raise Http404
    return stored


def _list(request: HttpRequest, stored: StoredSite, asks: int = 0) -> HttpResponse:
    context = {
        "slug": stored.slug,
        "live_address": address(stored.slug, request.get_host()),
        "asks": asks,
        **_listed(stored),
    }
    response = render(request, "studio/editions/edition_list.html", context)
    response["HX-Trigger"] = json.dumps({"rim:editions": {"going_on": context["going_on"]}})
    return response


def _listed(stored: StoredSite) -> dict[str, Any]:
    listed = list(stored.editions.select_related("author")[:40])
    going_on = any(edition.state in {Edition.State.WAITING, Edition.State.WORKING} for edition in listed)
    return {"listed": listed, "going_on": going_on, "current": stored.current_edition_id}
