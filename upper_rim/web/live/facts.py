"""What does the server tell of a visitor that a page's script asks? One small answer that no cache may keep.

The region comes from the header that a deployment's edge adds; where none is named in the settings, from a simulated
look-up by address. Members are signed in by the site's own application, with a cookie; here by a simulated sign-in.
"""

from __future__ import annotations

import json
import re
from html import escape
from ipaddress import ip_address, ip_network

from django.conf import settings
from django.core import signing
from django.http import HttpRequest, HttpResponse, HttpResponseNotAllowed, HttpResponseNotFound

from ...core.output.naming import PARTS_PATH

SIGN_IN = f"{PARTS_PATH}sign-in/"
MEMBER_COOKIE = "rim-member"
"""The groups of whoever is signed in, with dots between. It says what is shown, and guards nothing."""
PROOF_COOKIE = "rim-member-proof"
"""The same, signed."""
_REGION = re.compile(r"[A-Z]{2}(-[A-Z0-9]{1,3})?")
_GROUPS = re.compile(r"[a-z][a-z0-9-]{0,39}")
_SIMULATED = tuple(
    (ip_network(network), region)
    for network, region in (
        ("192.0.2.0/24", "GB"),
        ("198.51.100.0/24", "DE-BY"),
        ("203.0.113.0/24", "GB-WLS"),
        ("2001:db8::/32", "AT"),
        ("127.0.0.0/8", "GB"),
        ("::1/128", "GB"),
    )
)
"""Networks that are kept for documentation (RFC 5737, RFC 3849), and this machine."""


def visitor(request: HttpRequest) -> HttpResponse:
    told = json.dumps({"region": region_of(request)}, separators=(",", ":"))
    response = HttpResponse(f"window.rimVisitor={told}", content_type="text/javascript; charset=utf-8")
    response["X-Content-Type-Options"] = "nosniff"
    response["Cache-Control"] = "private, no-store"
    return response


def region_of(request: HttpRequest) -> str:
    """Empty where nobody knows."""
    if settings.REGION_HEADER:
        said = request.headers.get(settings.REGION_HEADER, "").upper()
        return said if _REGION.fullmatch(said) else ""
    try:
        address = ip_address(request.META.get("REMOTE_ADDR", ""))
    except ValueError:
        return ""
    return next((region for network, region in _SIMULATED if address in network), "")


def groups_of(request: HttpRequest) -> tuple[str, ...] | None:
    """For gates, which go by nothing that a visitor may say of themselves. None where nobody is signed in."""
    if settings.MEMBER_HEADER:
        said = request.headers.get(settings.MEMBER_HEADER, "").lower()
    else:
        try:
            said = signing.loads(request.COOKIES.get(PROOF_COOKIE, ""), salt=f"upper_rim.members:{request.get_host()}")
        except signing.BadSignature:
            said = ""
    return tuple(_GROUPS.findall(said)[:20]) if said else None


def proof_of(groups: str, host: str) -> str:
    """What the simulated sign-in gives along, of that host alone."""
    return signing.dumps(groups, salt=f"upper_rim.members:{host}")


def sign_in(request: HttpRequest) -> HttpResponse:
    """A stand-in for the site's own: whoever asks is in the groups that they name, or signed out."""
    if settings.MEMBER_HEADER:
        return HttpResponseNotFound("There is nothing at this address.", content_type="text/plain")
    if request.method not in {"GET", "HEAD", "POST"}:
        return HttpResponseNotAllowed(["GET", "HEAD", "POST"])
    groups = _GROUPS.findall(request.POST.get("groups", "members").lower()) or ["members"]
    if request.method == "POST":
        response = HttpResponse(status=303, headers={"Location": "/"})
        if request.POST.get("do") == "out":
            response.delete_cookie(MEMBER_COOKIE)
            response.delete_cookie(PROOF_COOKIE)
        else:
            said = ".".join(groups[:20])
            response.set_cookie(MEMBER_COOKIE, said, samesite="Lax")
            response.set_cookie(PROOF_COOKIE, proof_of(said, request.get_host()), samesite="Lax", httponly=True)
        return response
    now = request.COOKIES.get(MEMBER_COOKIE, "")
    response = HttpResponse(
        "<!doctype html><html lang=en><meta charset=utf-8><meta name=viewport content='width=device-width'>"
        "<title>Simulated sign-in</title><h1>Simulated sign-in</h1>"
        f"<p>{f'Signed in, in the groups: {escape(now)}' if now else 'Nobody is signed in.'}</p><form method=post>"
        "<label>Groups <input name=groups value=members></label> <button name=do value=in>Sign in</button> "
        "<button name=do value=out>Sign out</button></form>"
    )
    response["Cache-Control"] = "private, no-store"
    return response
