"""How does a whole site travel in one open file, and is this file such a one?

A bundle is a ZIP: `site.json` (the site, as docs/bundle.schema.json describes it) and `content/HASH` for every page's
and file's bytes, named by SHA-256.
"""

from __future__ import annotations

import json
import os
import struct
import zipfile
import zlib
from collections.abc import Callable, Iterator
from typing import IO, Any, NamedTuple

from pydantic import ValidationError

from ..kinds.page_shapes import PageShape
from ..model.editing.apply import reason_of
from ..model.editing.check import broken_references
from ..model.site import Asset, Page, Site
from ..model.tree import walk
from ..model.upgrades import UnknownFormat, upgraded
from ..style.type.fonts import FontFault, read_font
from .imports.import_pages import LARGEST_FILE, digest

SITE = "site.json"
LARGEST_SITE = 200_000_000
LOCAL_HEADER_BYTES = 30


class BrokenBundle(Exception):
    """The file is no bundle, or not a sound one; the message says where and why."""


def write_bundle(out: IO[bytes], site: Site, read: Callable[[str], bytes]) -> None:
    """`read` gives the bytes for a hash."""
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED, compresslevel=4) as archive:
        document = site.model_dump(mode="json", exclude_defaults=False)
        archive.writestr(_entry(SITE), json.dumps(document, ensure_ascii=False, indent=1))
        for content in sorted(contents_of(site)):
            archive.writestr(_entry(f"content/{content}"), read(content))


def _entry(name: str) -> zipfile.ZipInfo:
    """Entries carry one fixed date, so that equal sites make equal bundles."""
    entry = zipfile.ZipInfo(name, date_time=(2000, 1, 1, 0, 0, 0))
    entry.compress_type = zipfile.ZIP_DEFLATED
    return entry


def contents_of(site: Site) -> set[str]:
    """Hashes of all pages', files' and fonts' contents."""
    pages = {page.content for page in site.pages if page.content}
    return pages | {asset.content for asset in site.assets} | fonts_of(site)


def fonts_of(site: Site) -> set[str]:
    """Hashes of the fonts' contents alone."""
    return {file.content for font in site.fonts for file in font.files}


class Bundle:
    """An opened bundle: the site, and `read` for the bytes of its contents."""

    def __init__(self, file: IO[bytes]) -> None:
        """`file` is one of the system's own files, open for reading."""
        self._descriptor = file.fileno()
        try:
            self._archive = zipfile.ZipFile(file)
            entry = self._archive.getinfo(SITE)
        except KeyError:
            raise BrokenBundle(f"There is no {SITE} in it.") from None
        except (zipfile.BadZipFile, OSError, ValueError):
            raise BrokenBundle("It is not a ZIP archive, or it is damaged.") from None
        if entry.file_size > LARGEST_SITE:
            raise BrokenBundle(f"{SITE} is larger than {LARGEST_SITE // 1_000_000} MB.")
        self.site = read_site(self._read_entry(SITE))
        held = {name.removeprefix("content/") for name in self._archive.namelist() if name.startswith("content/")}
        missing = contents_of(self.site) - held
        if missing:
            raise BrokenBundle(
                f"The content of {len(missing)} pages or files is missing, the first content/{min(missing)}."
            )

    def read(self, content: str) -> bytes:
        return self._read_entry(f"content/{content}")

    def read_checked(self, content: str) -> bytes:
        """As `read`, and sure that the bytes are what their name says."""
        data = self.read(content)
        if digest(data) != content:
            raise BrokenBundle(f"content/{content} holds something else than its name says.")
        return data

    def _read_entry(self, name: str) -> bytes:
        try:
            entry = self._archive.getinfo(name)
            if name != SITE and entry.file_size > LARGEST_FILE:
                raise BrokenBundle(f"{name} is larger than {LARGEST_FILE // 1_000_000} MB.")
            return self._inflated(entry)
        except KeyError:
            raise BrokenBundle(f"{name} is missing.") from None
        except (zipfile.BadZipFile, zlib.error, struct.error, OSError, ValueError) as error:
            if isinstance(error, BrokenBundle):
                raise
            raise BrokenBundle(f"{name} is damaged.") from None

    def _inflated(self, entry: zipfile.ZipInfo) -> bytes:
        """An entry's bytes, read past `zipfile`'s own layers, which cost more than the inflating (APPNOTE, 4.3.7)."""
        header = os.pread(self._descriptor, LOCAL_HEADER_BYTES, entry.header_offset)
        if header[:4] != b"PK\x03\x04" or entry.flag_bits & 1:
            raise zipfile.BadZipFile("no local header")
        start = entry.header_offset + LOCAL_HEADER_BYTES + sum(struct.unpack("<HH", header[26:30]))
        packed = os.pread(self._descriptor, entry.compress_size, start)
        if entry.compress_type == zipfile.ZIP_STORED:
            data = packed
        elif entry.compress_type == zipfile.ZIP_DEFLATED:
            data = zlib.decompressobj(-zlib.MAX_WBITS).decompress(packed, entry.file_size + 1)
        else:
            raise zipfile.BadZipFile("another compression than Deflate")
        if len(data) != entry.file_size:
            raise zipfile.BadZipFile("another size than the archive says")
        return data


class Content(NamedTuple):
    """Bytes by their SHA-256."""

    hash: str
    data: bytes


def frame_in(path: str) -> Site:
    """The site in a bundle, without its pages and files, its fonts looked at. Raises `BrokenBundle`."""
    with open(path, "rb") as file:
        bundle = Bundle(file)
        _sound_fonts(bundle)
        return bundle.site.replaced(pages=(), assets=())


def site_with_fonts(path: str) -> tuple[Site, tuple[bytes, ...]]:
    """The site in a bundle, and its fonts. Raises `BrokenBundle`."""
    with open(path, "rb") as file:
        bundle = Bundle(file)
        return bundle.site, _sound_fonts(bundle)


def _sound_fonts(bundle: Bundle) -> tuple[bytes, ...]:
    """Its fonts, each as good as one that is uploaded by itself: texts are measured with it. Raises `BrokenBundle`."""
    names = {file.content: font.name for font in bundle.site.fonts for file in font.files}
    found: list[bytes] = []
    for content in sorted(names):
        data = bundle.read_checked(content)
        read = read_font(data)
        if isinstance(read, FontFault):
            raise BrokenBundle(f"Its font “{names[content]}” cannot be used: {read.reason}.")
        found.append(data)
    return tuple(found)


class Brought(NamedTuple):
    """A part of what a bundle brings: how many contents there are to come, some pages, or its files and the shapes of its
    pages, or a content."""

    contents: int = 0
    pages: tuple[Page, ...] = ()
    assets: tuple[Asset, ...] = ()
    shapes: tuple[PageShape, ...] = ()
    content: Content | None = None


PAGES_AT_ONCE = 200


def brought_by(path: str) -> Iterator[Brought]:
    """What a site has that is in a bundle besides its frame: part by part, each content sure to be what its name says.
    Raises `BrokenBundle`."""
    with open(path, "rb") as file:
        bundle = Bundle(file)
        site, names = bundle.site, sorted(contents_of(bundle.site))
        yield Brought(contents=len(names), assets=site.assets, shapes=site.shapes)
        for at in range(0, len(site.pages), PAGES_AT_ONCE):
            yield Brought(pages=site.pages[at : at + PAGES_AT_ONCE])
        for name in names:
            yield Brought(content=Content(name, bundle.read_checked(name)))


def read_site(document: bytes) -> Site:
    """A site from its JSON, valid as a whole, or `BrokenBundle`."""
    try:
        data: Any = json.loads(document)
    except (ValueError, RecursionError) as error:
        raise BrokenBundle(f"{SITE} is not JSON: {error}.") from None
    if not isinstance(data, dict):
        raise BrokenBundle(f"{SITE} is no JSON object.")
    try:
        site = Site.model_validate(upgraded(data))
    except UnknownFormat as error:
        raise BrokenBundle(f"{SITE}: {error}.") from None
    except RecursionError:
        raise BrokenBundle(f"{SITE} is nested more deeply than any site is.") from None
    except ValidationError as error:
        place = ".".join(str(part) for part in error.errors()[0]["loc"])
        raise BrokenBundle(f"{SITE}, at {place}: {reason_of(error)}.") from None
    return checked_site(site)


def checked_site(site: Site) -> Site:
    """The site, its sorted slots in order; `BrokenBundle` where ids are doubled or references lead nowhere."""
    seen: set[str] = set()
    for node in walk(site):
        if node.id in seen:
            raise BrokenBundle(f"{SITE}: the id {node.id} is used twice.")
        seen.add(node.id)
    site = site.replaced(
        pages=tuple(sorted(site.pages, key=lambda page: page.path)),
        assets=tuple(sorted(site.assets, key=lambda asset: asset.path)),
        bands=tuple(sorted(site.bands, key=lambda band: band.from_px)),
    )
    fault = broken_references(site)
    if fault is not None:
        raise BrokenBundle(f"{SITE}, at {fault.node}.{fault.field}: {fault.words}.")
    return site


def bundle_schema() -> dict[str, Any]:
    """JSON Schema (2020-12) of `site.json`."""
    schema = Site.model_json_schema()
    return {"$schema": "https://json-schema.org/draft/2020-12/schema", "title": "An Upper Rim site", **schema}
