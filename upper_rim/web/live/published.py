"""What does a published site answer? A file of its current edition, its type, and nothing worked out anew.

The edition's list says which content stands at which path. Contents never change, so lists are kept by content
hash; compressed forms were made when the edition was.
"""

from __future__ import annotations

import json
from collections.abc import Mapping
from contextlib import suppress
from threading import Lock
from urllib.parse import unquote

from cachetools import LRUCache, cached
from django.http import (
    HttpRequest,
    HttpResponse,
    HttpResponseNotAllowed,
    HttpResponseNotFound,
    HttpResponsePermanentRedirect,
)
from django.utils.cache import get_conditional_response, patch_vary_headers

from ...core.exchange.imports.import_pages import file_name, page_path
from ...core.kinds.items.form import FORMS
from ...core.output.file_types import content_type, is_compressible
from ...core.output.naming import PARTS_PATH, VISITOR_PATH
from ...core.output.page.consent import RECORDS
from ...core.output.publication import GATES_PATH, NOT_FOUND
from ...core.output.search.search_html import RESULTS
from ...core.output.search.site_search import is_head
from ..sites.models import StoredSite
from ..sites.storage import editions, stored, stored_name
from .answers import see_other
from .consent import record
from .facts import SIGN_IN, sign_in, visitor
from .forms import receive, told
from .gates import for_nobody_else, guards_in, held
from .searching import answered


def respond(request: HttpRequest, slug: str) -> HttpResponse:
    if request.path == SIGN_IN:
        return sign_in(request)
    posted = request.path.startswith(FORMS) and request.method == "POST"
    if request.method not in {"GET", "HEAD", "POST"}:
        return HttpResponseNotAllowed(["GET", "HEAD"])
    manifest = StoredSite.objects.filter(slug=slug).values_list("current_edition__manifest", flat=True).first()
    if not manifest:
        return HttpResponseNotFound("There is no published site at this address.", content_type="text/plain")
    files = listed_files(manifest)
    if request.path == RECORDS:
        return record(request, slug, files)
    if posted:
        return receive(request, slug, files)
    path, name = request.path, _name(request.path, files)
    guards = guards_in(files)
    if guards is not None and (not path.startswith(PARTS_PATH) or path in guards.kept.pages):
        asked = page_path("/" + name)
        answer = held(request, slug, asked, guards, files)
        if answer is not None:
            return answer
        if guards.before(asked).any and request.method != "POST":
            return for_nobody_else(_answered(request, path, name, files, is_kept=False))
    if request.method == "POST":
        # An answer once more, by somebody who has passed meanwhile.
        return (
            for_nobody_else(see_other(request.get_full_path()))
            if "gate" in request.POST
            else HttpResponseNotAllowed(["GET", "HEAD"])
        )
    if path.startswith(GATES_PATH):
        return HttpResponseNotFound()
    if path == VISITOR_PATH:
        return visitor(request)
    if path.startswith(FORMS):
        return told(request, files)
    if path.startswith(RESULTS) and request.GET.get("q"):
        found = answered(request, files)
        if found is not None:
            return found
    return _answered(request, path, name, files)


def _name(path: str, files: Mapping[str, str]) -> str:
    """Of the file that answers at an address, or of the page to which it leads on; of one that is not there, where none is."""
    name = file_name(path)
    if name not in files and not path.endswith("/") and f"{name}/index.html" in files:
        return f"{name}/index.html"
    if name not in files and path.endswith("/") and unquote(path[1:]) + "index.htm" in files:
        return unquote(path[1:]) + "index.htm"
    return name


def _answered(
    request: HttpRequest, path: str, name: str, files: Mapping[str, str], *, is_kept: bool = True
) -> HttpResponse:
    """`is_kept`: caches may keep it, and are told when it is still the same."""
    if name not in files:
        missing = files.get(NOT_FOUND[1:])
        return _file(request, NOT_FOUND, missing, status=404) if missing else HttpResponseNotFound()
    if name != file_name(path) and not path.endswith("/"):
        query = request.META.get("QUERY_STRING", "")
        return HttpResponsePermanentRedirect(request.path + "/" + (f"?{query}" if query else ""))
    return _file(request, path, files[name], is_kept=is_kept)


_MOST_LISTED = 400_000
"""Names of files that are kept, of all lists together: lists of large sites take the room of many small ones."""


@cached(LRUCache(_MOST_LISTED, getsizeof=len), lock=Lock())
def listed_files(manifest: str) -> dict[str, str]:
    """Content hashes by file name."""
    with editions().open(stored_name(manifest)) as file:
        files: dict[str, str] = json.load(file)
    return files


def _file(request: HttpRequest, path: str, content: str, status: int = 200, *, is_kept: bool = True) -> HttpResponse:
    kind = content_type(path)
    encoding = _accepted(request.headers.get("Accept-Encoding", "")) if is_compressible(kind) else ""
    data, encoding = _in_encoding(content, encoding)
    response: HttpResponse = HttpResponse(data, content_type=kind, status=status)
    if encoding:
        response["Content-Encoding"] = encoding
    response["X-Content-Type-Options"] = "nosniff"
    if not is_kept:
        return response
    response["ETag"] = etag = f'"{content[:32]}{"-" + encoding if encoding else ""}"'
    is_for_good = path.startswith(PARTS_PATH) and not is_head(path)
    response["Cache-Control"] = (
        "public, max-age=31536000, immutable" if is_for_good else "public, max-age=0, must-revalidate"
    )
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
