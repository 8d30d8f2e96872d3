"""What does a published site answer? A file of its current edition, its type, and nothing worked out anew.

The edition's list says which content stands at which path. Contents never change, so lists are kept by content
hash; compressed forms were made when the edition was.
"""

from __future__ import annotations

import json
from contextlib import suppress
from functools import lru_cache
from urllib.parse import unquote

from django.http import (
    HttpRequest,
    HttpResponse,
    HttpResponseNotAllowed,
    HttpResponseNotFound,
    HttpResponsePermanentRedirect,
)
from django.utils.cache import get_conditional_response, patch_vary_headers

from ...core.exchange.imports.import_pages import file_name
from ...core.kinds.items.form import FORMS
from ...core.output.naming import PARTS_PATH, VISITOR_PATH
from ...core.output.publication import NOT_FOUND
from ...core.output.search.search_html import RESULTS
from ..sites.file_types import content_type, is_compressible
from ..sites.models import StoredSite
from ..sites.storage import editions, stored, stored_name
from .facts import SIGN_IN, sign_in, visitor
from .forms import receive, told
from .searching import answered


def respond(request: HttpRequest, slug: str) -> HttpResponse:
    if request.path == SIGN_IN:
        return sign_in(request)
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
    if path == VISITOR_PATH:
        return visitor(request)
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


def _file(request: HttpRequest, path: str, content: str, status: int = 200) -> HttpResponse:
    kind = content_type(path)
    encoding = _accepted(request.headers.get("Accept-Encoding", "")) if is_compressible(kind) else ""
    data, encoding = _in_encoding(content, encoding)
    response: HttpResponse = HttpResponse(data, content_type=kind, status=status)
    if encoding:
        response["Content-Encoding"] = encoding
    response["ETag"] = etag = f'"{content[:32]}{"-" + encoding if encoding else ""}"'
    response["Cache-Control"] = (
        "public, max-age=31536000, immutable" if path.startswith(PARTS_PATH) else "public, max-age=0, must-revalidate"
    )
    response["X-Content-Type-Options"] = "nosniff"
    if is_compressible(kind):
        patch_vary_headers(response, ["Accept-Encoding"])
    if status == 200:
        response = get_conditional_response(request, etag=etag, response=response)
    return response


def _in_encoding(content: str, encoding: str) -> tuple[bytes, str]:
    """The bytes to send, and how they are encoded: plain, where the compressed form is not kept."""
    if encoding:
        with suppress(FileNotFoundError):
            return stored(content, encoding), encoding
    return stored(content), ""


def _accepted(header: str) -> str:
    offered = {
        part.split(";")[0].strip()
        for part in header.lower().split(",")
        if "q=0" not in part.replace(" ", "").replace("q=0.", "")
    }
    return "br" if "br" in offered else "gzip" if "gzip" in offered else ""
