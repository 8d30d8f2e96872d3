"""What may a studio page load and run? Its own files; frames and pictures of the sites' hosts."""

from __future__ import annotations

from collections.abc import Callable

from django.conf import settings
from django.http import HttpRequest, HttpResponse


class ContentSecurityPolicy:
    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        response = self.get_response(request)
        port = request.get_port()
        frames = f"{settings.ADDRESS_SCHEME}://*.{settings.SITES_DOMAIN}:{port}"
        response["Content-Security-Policy"] = (
            f"default-src 'self'; script-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data: {frames}; font-src 'self'; "
            f"frame-src {frames}; object-src 'none'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'"
        )
        return response
