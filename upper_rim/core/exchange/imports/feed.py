"""Which posts does an Atom (RFC 4287) or RSS 2.0 file name?"""

from __future__ import annotations

import io
import re
from functools import lru_cache
from typing import NamedTuple

import feedparser
from pydantic import TypeAdapter, ValidationError

from ...kinds.context import Post
from ...values.addresses import Address
from .import_picture import Brought

LARGEST_FEED = 2_000_000
MOST_POSTS = 200
_address: TypeAdapter[str] = TypeAdapter(Address)


class FeedFault(NamedTuple):
    reason: str


def read_brought_feed(data: bytes) -> Brought | FeedFault:
    """As somebody brings it along; with nothing left out of it."""
    found = read_feed(data)
    return found if isinstance(found, FeedFault) else Brought(data, "xml", ())


@lru_cache(maxsize=16)
def read_feed(data: bytes) -> tuple[Post, ...] | FeedFault:
    """The newest first. What leads nowhere, or by a scheme that no link here may have, is left out."""
    if len(data) > LARGEST_FEED:
        return FeedFault(f"a feed may have {LARGEST_FEED // 1_000_000} MB at most")
    if re.search(rb"<!\s*(?:DOCTYPE|ENTITY)", data.replace(b"\0", b""), re.IGNORECASE):
        return FeedFault("it declares a document type, which no feed needs")
    # Its cleaning of markup goes back over what it has seen; of a post no markup is used.
    found = feedparser.parse(io.BytesIO(data), sanitize_html=False, resolve_relative_uris=False)
    broken = found.get("bozo") and not isinstance(found.get("bozo_exception"), feedparser.CharacterEncodingOverride)
    if not found.get("version") or broken:
        return FeedFault("it is no well-formed Atom or RSS")
    posts = []
    for entry in found.entries[:MOST_POSTS]:
        title = re.sub(r"<[^<>]*+>|\s++", " ", str(entry.get("title", ""))).strip()[:300]
        day = entry.get("published_parsed") or entry.get("updated_parsed")
        try:
            address = _address.validate_python(str(entry.get("link", "")))
        except ValidationError:
            continue
        date = f"{day[0]:04}-{day[1]:02}-{day[2]:02}" if day else ""
        posts.append(Post(title or address, address, date))
    return tuple(sorted(posts, key=lambda post: post.date, reverse=True))
