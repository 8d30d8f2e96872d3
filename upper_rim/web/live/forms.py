"""What happens to a form that a visitor sends? It is checked once more, and lies in the site's inbox; or a page says
what is wrong with it.

Nothing of it is trusted: whoever sends may be a program. A field that nobody sees catches the simplest, numbers by
time the others.
"""

from __future__ import annotations

import re
from datetime import timedelta
from html import escape
from urllib.parse import urlencode, urlsplit

from django.http import HttpRequest, HttpResponse, HttpResponseForbidden, HttpResponseNotFound
from django.utils import timezone
from django.utils.crypto import salted_hmac

from ...core.exchange.html.markers import marked
from ...core.kinds.items.form import FORMS, TRAP, Form
from ...core.languages import phrase
from ..sites.models import Message, StoredSite
from ..sites.storage import stored
from .answers import LARGEST_BODY, for_one_visitor, is_from_here, see_other

MOST_BY_ONE, WITHIN = 6, timedelta(minutes=10)
MOST_IN_ALL, IN_AN_HOUR = 300, timedelta(hours=1)
_PARTS = re.compile(rf"{FORMS}([a-z][a-z0-9-]+)/(?:(sent|not-sent)-([A-Za-z0-9-]+)\.html)?")
_TOLD = re.compile(rb"<!--rim:told-->.*?<!--/rim-->", re.DOTALL)
_BACK = re.compile(rb"<!--rim:back-->.*?<!--/rim-->", re.DOTALL)


def receive(request: HttpRequest, slug: str, files: dict[str, str]) -> HttpResponse:
    """Answers a form that was posted: 303 to its thanks, 422 with what is wrong, 429 where too many come."""
    asked = _PARTS.fullmatch(request.path)
    known = files.get(f"{FORMS[1:]}{asked[1]}/form.json") if asked else None
    if asked is None or known is None:
        return HttpResponseNotFound("There is no such form.", content_type="text/plain")
    if not is_from_here(request):
        return HttpResponseForbidden("A form can be sent from its own site only.", content_type="text/plain")
    if int(request.META.get("CONTENT_LENGTH") or 0) > LARGEST_BODY:
        return HttpResponse("This is too long for a form.", status=413, content_type="text/plain")
    form = Form.model_validate_json(stored(known))
    page = _page_of(request)
    language = _language(request, asked[1], files)
    thanks = f"{FORMS}{form.id}/sent-{language}.html?{urlencode({'from': page})}"
    if request.POST.get(TRAP):
        return see_other(thanks)
    answers = {field.id: request.POST.get(field.id, "") for field in form.fields}
    faults = form.faults(answers, language)
    if faults:
        return _not_sent(form, language, files, faults, page, 422)
    sender = salted_hmac("upper_rim.forms", request.META.get("REMOTE_ADDR", "")).hexdigest()
    site = StoredSite.objects.only("pk").get(slug=slug)
    if _floods(site, sender):
        return _not_sent(form, language, files, [phrase("too_much_sent", language)], page, 429)
    said = [[field.words.text, answers[field.id].strip()] for field in form.fields]
    Message.objects.create(site=site, form=form.id, form_name=form.name, page=page[:1000], answers=said, sender=sender)
    return see_other(thanks)


def told(request: HttpRequest, files: dict[str, str]) -> HttpResponse:
    """The page that says that a form has arrived, with the way back to where it stands."""
    asked = _PARTS.fullmatch(request.path)
    content = files.get(request.path[1:]) if asked and asked[2] else None
    if asked is None or content is None:
        return HttpResponseNotFound("There is nothing at this address.", content_type="text/plain")
    back = request.GET.get("from", "")
    return _page(stored(content), asked[3], back if _is_path(back) else "/", 200)


def _not_sent(
    form: Form, language: str, files: dict[str, str], faults: list[str], page: str, status: int
) -> HttpResponse:
    content = stored(files[f"{FORMS[1:]}{form.id}/not-sent-{language}.html"])
    listed = "".join(f"<li>{escape(fault)}</li>" for fault in faults)
    return _page(_TOLD.sub(lambda _: f'<ul role="alert">{listed}</ul>'.encode(), content), language, page, status)


def _page(content: bytes, language: str, back: str, status: int) -> HttpResponse:
    link = f'<p><a href="{escape(back, quote=True)}">{escape(phrase("go_back", language))}</a></p>'
    filled = _BACK.sub(lambda _: marked("back", link).encode(), content)
    return for_one_visitor(filled, status)


def _page_of(request: HttpRequest) -> str:
    """Path of the page that the form stands on, as the browser tells it."""
    path = urlsplit(request.headers.get("Referer", "")).path
    return path if _is_path(path) else "/"


def _is_path(text: str) -> bool:
    return text.startswith("/") and not text.startswith(("//", "/\\")) and "\\" not in text and len(text) <= 1000


def _language(request: HttpRequest, form: str, files: dict[str, str]) -> str:
    wanted = request.POST.get("language", "")
    known = [name for name in files if name.startswith(f"{FORMS[1:]}{form}/sent-")]
    names = [name.rpartition("/sent-")[2].removesuffix(".html") for name in known]
    return wanted if wanted in names else names[0]


def _floods(site: StoredSite, sender: str) -> bool:
    now = timezone.now()
    by_one = site.messages.filter(sender=sender, received_at__gt=now - WITHIN).count()
    return by_one >= MOST_BY_ONE or site.messages.filter(received_at__gt=now - IN_AN_HOUR).count() >= MOST_IN_ALL
