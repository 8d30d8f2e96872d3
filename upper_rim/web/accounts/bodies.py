"""Who may send the studio a body, and how large a one? Whoever is signed in, files where they are asked for; anybody
else a short form, to sign in with.

Asked before anything of a body is read: forms are parsed as soon as their token is looked at.
"""

from __future__ import annotations

from collections.abc import Callable
from itertools import chain
from typing import Any, TypeVar

from django.conf import settings
from django.core.exceptions import SuspiciousOperation
from django.http import HttpRequest, HttpResponse, HttpResponseForbidden, UnreadablePostError
from django.shortcuts import resolve_url
from django.urls import Resolver404, resolve

from .wrong import bad_request, too_large

LARGEST_SIGN_IN = 4_096


class OnlyMembersSend:
    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        if _has_body(request) and not request.user.is_authenticated and not _signs_in(request):
            refused = HttpResponseForbidden("Sign in first.", content_type="text/plain; charset=utf-8")
            refused["HX-Redirect"] = resolve_url("sign-in")
            return refused
        largest = _largest_at(request.path_info)
        if _length(request) > largest + _AROUND_A_FILE:
            return too_large(request, largest)
        return self.get_response(request)


_AROUND_A_FILE = 100_000
"""Bytes of the other fields, and of what stands between them."""
_View = TypeVar("_View", bound=Callable[..., Any])
_taking: dict[Callable[..., Any], int] = {}
"""How many bytes each view takes that is sent files."""


def takes_files(up_to: int) -> Callable[[_View], _View]:
    """Marks a view that is sent files, of so many bytes together."""

    def marked(view: _View) -> _View:
        _taking[view] = up_to
        return view

    return marked


def _largest_at(path: str) -> int:
    try:
        view = resolve(path).func
    except Resolver404:
        return 0
    return _taking.get(view, settings.DATA_UPLOAD_MAX_MEMORY_SIZE)


def _length(request: HttpRequest) -> int:
    length = str(request.META.get("CONTENT_LENGTH", ""))
    return int(length) if length.isdecimal() else 0


class NoNul:
    """Refuses the one character that no text has, PostgreSQL keeps none with, and no keyboard types; and what was cut
    short."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        try:
            sent = chain(request.GET.lists(), request.POST.lists())
        except UnreadablePostError as cut_short:
            return bad_request(request, cut_short)
        if "\0" in request.path or any("\0" in name or any("\0" in one for one in said) for name, said in sent):
            return bad_request(request, SuspiciousOperation("NUL"))
        return self.get_response(request)


def _has_body(request: HttpRequest) -> bool:
    return request.META.get("CONTENT_LENGTH", "") not in {"", "0"} or "HTTP_TRANSFER_ENCODING" in request.META


def _signs_in(request: HttpRequest) -> bool:
    return (
        request.path == resolve_url("sign-in")
        and request.content_type in {"application/x-www-form-urlencoded", "multipart/form-data"}
        and 0 < _length(request) <= LARGEST_SIGN_IN
    )
