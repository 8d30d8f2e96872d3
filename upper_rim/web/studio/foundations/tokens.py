"""Foundations as a file of design tokens: exported, imported."""

from __future__ import annotations

from django.contrib import messages
from django.http import HttpRequest, HttpResponse, HttpResponseRedirect
from django.urls import reverse

from ....core.exchange.tokens import read_tokens, tokens_of
from ... import wall
from ...accounts.bodies import takes_files
from ...sites import ids, store
from ...sites.access import site_of
from ..cycle.announcements import announcement
from ..cycle.notices import notice_of

LARGEST_TOKENS = 2_000_000


@takes_files(LARGEST_TOKENS)
def tokens(request: HttpRequest, slug: str) -> HttpResponse:
    """GET takes the tokens away; POST brings a file in, as one edit, and tells what was not taken."""
    stored = site_of(request.user, slug)
    site = store.load(stored.pk).site
    if request.method != "POST":
        response = HttpResponse(tokens_of(site), content_type="application/design-tokens+json")
        response["Content-Disposition"] = f'attachment; filename="{slug}.tokens.json"'
        return response
    file = request.FILES.get("tokens")
    if file is None or file.size > LARGEST_TOKENS:
        messages.error(request, "Choose a file of design tokens, 2 MB at most.")
        return HttpResponseRedirect(reverse("foundations", args=[slug]))
    try:
        read = wall.read(read_tokens, file.read(), site, ids.new_id)
    except wall.Unread as unread:
        messages.error(request, f"“{file.name}” was not taken in: {unread}.")
        return HttpResponseRedirect(reverse("foundations", args=[slug]))
    answer = store.submit(stored.pk, request.user, read.edit, tells=announcement) if read.edit.edits else None
    notice = notice_of(answer, read.edit, site) if answer is not None else None
    if notice is not None:
        messages.error(request, f"Nothing was taken in. {notice.sentence}")
    else:
        messages.success(request, f"{len(read.taken)} tokens were taken in. Undo takes them out again.")
    for fault in read.faults[:40]:
        messages.error(request, f"{fault.path or 'The file'}: {fault.reason}.")
    return HttpResponseRedirect(reverse("foundations", args=[slug]))
