"""What does a published site answer? A file of its current edition, its type, and nothing worked out anew.

The edition's list says which content stands at which path. Contents never change, so lists and compressed forms are
kept by content hash.
"""

from __future__ import annotations

import gzip
import json
import mimetypes
from functools import lru_cache
from urllib.parse import unquote

import brotli
from django.http import (
    HttpRequest,
    HttpResponse,
    HttpResponseNotAllowed,
    HttpResponseNotFound,
    HttpResponsePermanentRedirect,
)
from django.utils.cache import patch_vary_headers

from ...core.exchange.pages_in import file_name
from ...core.output.form_html import FORMS
from ...core.output.naming import PARTS
from ...core.output.publication import NOT_FOUND
from ...core.output.search_html import RESULTS
from ..sites.models import StoredSite
from ..sites.storage import editions, stored, stored_name
from .forms import receive, told
from .searching import answered

_TYPES = {
    "js": "text/javascript; charset=utf-8",
    "css": "text/css; charset=utf-8",
    "woff2": "font/woff2",
    "svg": "image/svg+xml",
    "webmanifest": "application/manifest+json",
    "html": "text/html",
    "htm": "text/html",
    "avif": "image/avif",
    "webp": "image/webp",
}
_COMPRESSIBLE = (
    "text/",
    "image/svg+xml",
    "application/json",
    "application/manifest+json",
    "application/xml",
    "application/javascript",
)
LARGEST_COMPRESSED = 4_000_000
SMALLEST_COMPRESSED = 400


def respond(request: HttpRequest, slug: str) -> HttpResponse:
    posted = request.path.startswith(FORMS) and request.method == "POST"
    if request.method not in {"GET", "HEAD"} and not posted:
        return HttpResponseNotAllowed(["GET", "HEAD"])
    manifest = StoredSite.objects.filter(slug=slug).values_list("current_edition__manifest", flat=True).first()
    if not manifest:
        return HttpResponseNotFound("There is no published site at this address.", content_type="text/plain")
    files = listed_files(manifest)
    if posted:
        return receive(request, slug, files)
    path = request.path
    if path.startswith(FORMS):
        return told(request, files)
    if path.startswith(RESULTS) and request.GET.get("q"):
        found = answered(request, files)
        if found is not None:
            return found
    content = files.get(file_name(path))
    if content is None and not path.endswith("/") and f"{path[1:]}/index.html" in files:
        query = request.META.get("QUERY_STRING", "")
        return HttpResponsePermanentRedirect(request.path + "/" + (f"?{query}" if query else ""))
    if content is None and path.endswith("/"):
        content = files.get(unquote(path[1:]) + "index.htm")
    if content is None:
        return (
            _file(request, NOT_FOUND, files[NOT_FOUND[1:]], status=404)
            if NOT_FOUND[1:] in files
            else HttpResponseNotFound()
        )
    return _file(request, path, content)


@lru_cache(maxsize=64)
def listed_files(manifest: str) -> dict[str, str]:
    """Content hashes by file name."""
    with editions().open(stored_name(manifest)) as file:
        files: dict[str, str] = json.load(file)
    return files


def content_type(path: str) -> str:
    """From the name's ending. HTML says no charset: the page's own declaration counts, as when it was made."""
    name = file_name(path)
    ending = name.rpartition(".")[2].lower()
    return _TYPES.get(ending) or mimetypes.guess_type(name)[0] or "application/octet-stream"


def _file(request: HttpRequest, path: str, content: str, status: int = 200) -> HttpResponse:
    kind = content_type(path)
    compressible = kind.startswith(_COMPRESSIBLE)
    encoding = _accepted(request.headers.get("Accept-Encoding", "")) if compressible else ""
    etag = f'"{content[:32]}{"-" + encoding if encoding else ""}"'
    if status == 200 and etag in request.headers.get("If-None-Match", ""):
        response = HttpResponse(status=304)
    else:
        data = stored(content)
        if len(data) < SMALLEST_COMPRESSED or len(data) > LARGEST_COMPRESSED:
            encoding, etag = "", f'"{content[:32]}"'
        response = HttpResponse(compressed(content, encoding) if encoding else data, content_type=kind, status=status)
        if encoding:
            response["Content-Encoding"] = encoding
    response["ETag"] = etag
    response["Cache-Control"] = (
        "public, max-age=31536000, immutable" if path.startswith(PARTS) else "public, max-age=0, must-revalidate"
    )
    response["X-Content-Type-Options"] = "nosniff"
    if compressible:
        patch_vary_headers(response, ["Accept-Encoding"])
    return response


def _accepted(header: str) -> str:
    offered = {
        part.split(";")[0].strip()
        for part in header.lower().split(",")
        if "q=0" not in part.replace(" ", "").replace("q=0.", "")
    }
    return "br" if "br" in offered else "gzip" if "gzip" in offered else ""


@lru_cache(maxsize=512)
def compressed(content: str, encoding: str) -> bytes:
    data = stored(content)
    return brotli.compress(data, quality=5) if encoding == "br" else gzip.compress(data, 6, mtime=0)
