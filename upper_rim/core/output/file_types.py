"""Of which type is a published file, and is it worth compressing?"""

from __future__ import annotations

from mimetypes import MimeTypes

from ..exchange.imports.import_pages import file_name

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
_KNOWN = MimeTypes()
"""The same on every machine."""
_COMPRESSIBLE = (
    "text/",
    "image/svg+xml",
    "application/json",
    "application/manifest+json",
    "application/xml",
    "application/javascript",
)


def content_type(path: str) -> str:
    """From the name's ending. HTML says no charset: the page's own declaration counts, as when it was made."""
    name = file_name(path)
    ending = name.rpartition(".")[2].lower()
    return _TYPES.get(ending) or _KNOWN.guess_type(name)[0] or "application/octet-stream"


def is_compressible(kind: str) -> bool:
    """Whether files of that content type become smaller (others are compressed already)."""
    return kind.startswith(_COMPRESSIBLE)
