"""What visitors have sent by the site's forms: read here, exported as CSV, or removed."""

from __future__ import annotations

from typing import Any

from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import redirect

from ....core.exchange.spreadsheet import csv_line
from ....core.kinds.items.form import Form
from ....core.model.tree import items_of
from ...sites.access import site_of
from ...sites.models import Message
from ..cycle.screen import Opened, screen

MOST_SHOWN = 200


@screen("studio/inbox/inbox.html", "inbox")
def inbox(request: HttpRequest, opened: Opened, made: tuple[str, ...]) -> dict[str, Any]:
    chosen = request.GET.get("form", "")
    messages = opened.stored.messages.all()
    forms = dict(messages.order_by("form", "received_at").values_list("form", "form_name"))
    forms |= {form.id: form.name for form in items_of(opened.site.pieces) if isinstance(form, Form)}
    if chosen:
        messages = messages.filter(form=chosen)
    return {
        "received": messages[:MOST_SHOWN],
        "count": messages.count(),
        "forms": [(form, name, form == chosen) for form, name in sorted(forms.items(), key=lambda one: one[1])],
        "chosen": chosen,
    }


def as_csv(request: HttpRequest, slug: str) -> HttpResponse:
    """All messages, or those of one form: a column for each label that occurs (RFC 4180)."""
    stored = site_of(request.user, slug)
    messages = stored.messages.order_by("received_at")
    if request.GET.get("form"):
        messages = messages.filter(form=request.GET["form"])
    labels = list(dict.fromkeys(label for message in messages for label, _ in message.answers))
    lines = [csv_line(["Received", "Form", "Page", *labels])]
    for message in messages:
        answers = dict(message.answers)
        received = message.received_at.isoformat(timespec="seconds")
        said = (answers.get(label, "") for label in labels)
        lines.append(csv_line([received, message.form_name, message.page, *said]))
    response = HttpResponse("\ufeff" + "".join(lines), content_type="text/csv; charset=utf-8")
    response["Content-Disposition"] = f'attachment; filename="{stored.slug}-inbox.csv"'
    return response


def remove(request: HttpRequest, slug: str, message: int) -> HttpResponse:
    stored = site_of(request.user, slug)
    if request.method != "POST":
        raise Http404
    Message.objects.filter(site=stored, pk=message).delete()
    return redirect("inbox", slug)
