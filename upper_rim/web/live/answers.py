"""How is somebody answered who sends something, or for whom a page was made? It is kept by nobody, and found by no search
engine."""

from __future__ import annotations

from urllib.parse import urlsplit

from django.http import HttpRequest, HttpResponse, HttpResponseRedirect

LARGEST_BODY = 100_000


def for_one_visitor(page: bytes, status: int = 200) -> HttpResponse:
    response = HttpResponse(page, content_type="text/html; charset=utf-8", status=status)
    response["Cache-Control"] = "private, no-store"
    response["X-Robots-Tag"] = "noindex"
    response["X-Content-Type-Options"] = "nosniff"
    return response


def see_other(address: str) -> HttpResponse:
    response = HttpResponseRedirect(address)
    response.status_code = 303
    return response


def is_from_here(request: HttpRequest) -> bool:
    origin = request.headers.get("Origin", "")
    return not origin or urlsplit(origin).netloc == request.get_host()
