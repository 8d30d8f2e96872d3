"""How is a page answered that was made for one visitor? Kept by nobody, and found by no search engine."""

from __future__ import annotations

from django.http import HttpResponse


def for_one_visitor(page: bytes, status: int = 200) -> HttpResponse:
    response = HttpResponse(page, content_type="text/html; charset=utf-8", status=status)
    response["Cache-Control"] = "private, no-store"
    response["X-Robots-Tag"] = "noindex"
    response["X-Content-Type-Options"] = "nosniff"
    return response
