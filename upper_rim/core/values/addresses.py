"""Where may a link lead, and what is a page's path?"""

from __future__ import annotations

import re
from typing import Annotated
from urllib.parse import unquote

from pydantic import AfterValidator, StringConstraints

_PATH = re.compile(r"^/(?:[^\s?#\\\x00-\x1f]+)?$")


_PLAIN_PATH = re.compile(r"^/(?:[A-Za-z0-9_~-][A-Za-z0-9_~.-]*/)*$")


def _check_path(path: str) -> str:
    if _PLAIN_PATH.match(path):
        return path
    last = _check_file_path(path).rpartition("/")[2]
    return path + "/" if last and "." not in last else path


def _check_file_path(path: str) -> str:
    meant = unquote(path)
    climbs = any(segment in {".", ".."} for segment in meant.split("/"))
    if not _PATH.match(path) or "//" in meant or climbs or any(ord(char) < 32 or char == "\\" for char in meant):
        raise ValueError("a path begins with /, and has no spaces, empty or dotted segments, ? or #")
    return path


_ORIGIN = re.compile(r"^https?://[a-z0-9]([a-z0-9.-]*[a-z0-9])?(:\d{1,5})?$")


def _check_origin(address: str) -> str:
    bare = address.strip().rstrip("/").lower()
    if bare and not _ORIGIN.match(bare):
        raise ValueError("a site’s address is that of its host, https://www.example.org, and nothing behind it")
    return bare


Origin = Annotated[str, StringConstraints(max_length=300), AfterValidator(_check_origin)]
"""Scheme and host, as HTML has it (7.1.1), without a stroke at the end; or empty."""

PagePath = Annotated[str, StringConstraints(max_length=1000), AfterValidator(_check_path)]
"""A page's address within its site: `/`, `/fares/` or `/old/list.html`. `/fares` is read as `/fares/`."""

FilePath = Annotated[str, StringConstraints(max_length=1000), AfterValidator(_check_file_path)]
"""A file's address within its site, whatever it is called: `/logo.svg` or `/LICENSE`."""

_SCHEMES = ("http://", "https://", "mailto:", "tel:")


def _check_address(address: str) -> str:
    lowered = address.lower()
    if any(ord(char) <= 32 for char in address):
        raise ValueError("an address has no spaces in it")
    if lowered.startswith(_SCHEMES) and len(address) > len(lowered.split(":")[0]) + 3:
        return address
    if address.startswith(("#", "/")) and not address.startswith("//") and "\\" not in address:
        return address
    raise ValueError("an address begins with https://, http://, mailto:, tel:, / or #")


Address = Annotated[str, StringConstraints(strip_whitespace=True, max_length=2000), AfterValidator(_check_address)]
"""Somewhere a link may lead: a web, mail or telephone address, a path on this site, a place on the page."""
