"""What visitors have answered to a question about consent, on record: when, to what, what, and from where; by a number that
their browser made up, and no address.
"""

from __future__ import annotations

import json
import re
from collections.abc import Mapping
from datetime import timedelta

from django.http import HttpRequest, HttpResponse, HttpResponseForbidden, HttpResponseNotAllowed, HttpResponseNotFound
from django.utils import timezone

from ...core.output.publication import CONSENT_PATH
from ..sites.models import ConsentRecord, StoredSite
from ..sites.storage import stored
from .answers import LARGEST_BODY, is_from_here
from .facts import region_of

MOST_IN_A_MINUTE = 1000
"""Of one site: more are not kept, whoever sends them."""
_ASKED = re.compile(r"[0-9a-f]{16}")
_NUMBER = re.compile(r"[0-9-]{1,24}")


def record(request: HttpRequest, slug: str, files: Mapping[str, str]) -> HttpResponse:
    """Takes one down; nothing that could be read comes back."""
    known = files.get(CONSENT_PATH[1:])
    if known is None:
        return HttpResponseNotFound("Nobody is asked here.", content_type="text/plain")
    if request.method != "POST":
        return HttpResponseNotAllowed(["POST"])
    if not is_from_here(request):
        return HttpResponseForbidden("An answer can be sent from its own site only.", content_type="text/plain")
    if int(request.META.get("CONTENT_LENGTH") or 0) > LARGEST_BODY:
        return HttpResponse("This is too long for an answer.", status=413, content_type="text/plain")
    asked, number = request.POST.get("asked", ""), request.POST.get("number", "")
    about = json.loads(stored(known))
    yes = [one for one in request.POST.get("yes", "").split(".") if one]
    if not _ASKED.fullmatch(asked) or not _NUMBER.fullmatch(number) or not set(yes) <= set(about["categories"]):
        return HttpResponse("This is no answer to what is asked here.", status=422, content_type="text/plain")
    site = StoredSite.objects.only("pk").get(slug=slug)
    forget_old(site, about["kept_days"])
    response = HttpResponse(status=204)
    response["Cache-Control"] = "private, no-store"
    if site.consents.filter(at__gt=timezone.now() - timedelta(minutes=1)).count() < MOST_IN_A_MINUTE:
        site.consents.create(number=number, asked=asked, yes=sorted(set(yes)), region=region_of(request))
    return response


def forget_old(site: StoredSite, kept_days: int) -> None:
    """Takes away what has been on record for its time."""
    ConsentRecord.objects.filter(site=site, at__lt=timezone.now() - timedelta(days=kept_days)).delete()
