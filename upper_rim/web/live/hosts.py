"""Is this request for the studio, a published site or a stage? Sites are answered here, before any cookie is read."""

from __future__ import annotations

from collections.abc import Callable

from django.conf import settings
from django.core.exceptions import DisallowedHost
from django.http import HttpRequest, HttpResponse, HttpResponseBadRequest, HttpResponseNotFound

from . import published, stage
from .addresses import read_stage_label


class SiteHosts:
    """Middleware: everything below the sites' domain is a site; the studio's host goes on to the studio."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        try:
            host = request.get_host().rpartition(":")[0] or request.get_host()
        except DisallowedHost:
            return HttpResponseBadRequest("This host is not served here.", content_type="text/plain")
        if host == settings.STUDIO_HOST:
            return self.get_response(request)
        label = host.removesuffix(f".{settings.SITES_DOMAIN}")
        if label == host or "." in label:
            return HttpResponseNotFound("There is no site at this address.", content_type="text/plain")
        key = read_stage_label(label)
        response = published.respond(request, label) if key is None else stage.respond(request, key)
        return _without_body(response) if request.method == "HEAD" else response


def _without_body(response: HttpResponse) -> HttpResponse:
    """An answer to HEAD: all headers of the answer to GET, and no content (RFC 9110, 9.3.2)."""
    if response.status_code != 304:
        response["Content-Length"] = str(len(response.content))
    response.content = b""
    return response
