"""Which files does a text name: markup, a style sheet, a script, a feed?"""

from __future__ import annotations

import re
from collections.abc import Iterator
from urllib.parse import unquote

_ENDINGS = (
    "avif",
    "gif",
    "ico",
    "jpeg",
    "jpg",
    "m4a",
    "mp3",
    "mp4",
    "ogg",
    "otf",
    "png",
    "svg",
    "ttf",
    "webm",
    "webp",
    "woff",
    "woff2",
)
_ENDS = re.compile(rf"\.(?:{'|'.join(_ENDINGS)})(?![0-9A-Za-z])", re.IGNORECASE)
_BEFORE = re.compile(r"[^\s\"'()<>=?#/\\,;&|]*+\Z")
LONGEST = 120
"""Letters of a name that are looked at."""


def is_shown(path: str) -> bool:
    """Whether a file is there to be shown, heard or set in: a picture, a film, a sound, a font."""
    return path.lower().rpartition(".")[2] in _ENDINGS


def names_of_files(text: str) -> Iterator[str]:
    """Without their folders; of those that are there to be shown. Of a name with a space in it what stands behind that, be
    it written or escaped, as a path of the site has it."""
    for end in _ENDS.finditer(text):
        name = unquote(_last(text[max(0, end.start() - LONGEST) : end.start()]))
        yield _last(name) + end[0]


def _last(text: str) -> str:
    found = _BEFORE.search(text)
    return found[0] if found else ""
