"""What is said where a request cannot be answered."""

from __future__ import annotations

import sys
from urllib.parse import quote

from django.http import HttpRequest, HttpResponse
from django.shortcuts import render

from ..sites.storage import NO_ROOM, no_room


def bad_request(request: HttpRequest, exception: Exception) -> HttpResponse:
    """HTTP 400 (RFC 9110, 15.5.1)."""
    sentence = "It has too many fields, a character that no text has, or was cut short. Go back and send it again."
    return _told(request, "This could not be read", sentence, 400)


def not_found(request: HttpRequest, exception: Exception) -> HttpResponse:
    """HTTP 404 (RFC 9110, 15.5.5)."""
    sentence = "It may have been removed, or belong to a site that you do not work on."
    return _told(request, "Nothing is here", sentence, 404)


def too_large(request: HttpRequest, most: int) -> HttpResponse:
    """HTTP 413 (RFC 9110, 15.5.14). `most`: bytes."""
    taken = f"{most / 1_000_000:g} MB at most are taken here" if most else "Nothing is taken here"
    return _told(request, "This is too large", f"{taken}. Go back and send less.", 413)


def server_error(request: HttpRequest) -> HttpResponse:
    """HTTP 500 (RFC 9110, 15.6.1), or 507 (RFC 4918, 11.5). Nothing is asked of the database, which may be what is
    missing."""
    if no_room(sys.exception()):
        return _told(request, "There is no room left", NO_ROOM, 507)
    sentence = "It is our fault. What you have changed before is kept; try again in a moment."
    return _told(request, "Something went wrong", sentence, 500)


def _told(request: HttpRequest, title: str, sentence: str, status: int) -> HttpResponse:
    answer = render(request, "accounts/wrong.html", {"title": title, "sentence": sentence}, status=status)
    answer["X-Rim-Wrong"] = quote(f"{title}. {sentence}")  # for who asked from within a screen, and keeps it
    return answer
