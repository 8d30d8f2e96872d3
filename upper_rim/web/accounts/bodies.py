"""Who may send the studio a body? Whoever is signed in; anybody else a short form, to sign in with.

Asked before anything of a body is read: forms are parsed as soon as their token is looked at.
"""

from __future__ import annotations

from collections.abc import Callable

from django.http import HttpRequest, HttpResponse, HttpResponseForbidden
from django.shortcuts import resolve_url

LARGEST_SIGN_IN = 4_096


class OnlyMembersSend:
    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        if _has_body(request) and not request.user.is_authenticated and not _signs_in(request):
            refused = HttpResponseForbidden("Sign in first.", content_type="text/plain; charset=utf-8")
            refused["HX-Redirect"] = resolve_url("sign-in")
            return refused
        return self.get_response(request)


def _has_body(request: HttpRequest) -> bool:
    return request.META.get("CONTENT_LENGTH", "") not in {"", "0"} or "HTTP_TRANSFER_ENCODING" in request.META


def _signs_in(request: HttpRequest) -> bool:
    length = str(request.META.get("CONTENT_LENGTH", ""))
    return (
        request.path == resolve_url("sign-in")
        and request.content_type in {"application/x-www-form-urlencoded", "multipart/form-data"}
        and length.isdecimal()
        and int(length) <= LARGEST_SIGN_IN
    )
