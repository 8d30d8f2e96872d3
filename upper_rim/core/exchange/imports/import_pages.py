"""What does an archive, folder or sitemap of someone else's site bring in, and what could not be read?

Every file is either a page, a file carried along unchanged, or left out with a reason. Names are untrusted: nothing
that climbs out or is out of proportion goes in; a link is the file that it leads to, where that is in the archive.
"""

from __future__ import annotations

import hashlib
import posixpath
import re
import xml.etree.ElementTree as ElementTree
import zipfile
import zlib
from collections.abc import Callable, Iterable, Iterator, Mapping, Set
from functools import partial
from typing import IO, NamedTuple
from urllib.parse import quote, unquote, urlsplit

from pydantic import TypeAdapter, ValidationError

from ...kinds.page_shapes import PageShape
from ...languages.identification import likely_language
from ...model.site import Asset, Lift, Page
from ...values.addresses import FilePath, PagePath
from ..html.anatomy import Anatomy, anatomy
from ..html.lifting import cuts
from ..html.markers import strip
from .language_folders import language_folders
from .shaping import Shapes

LARGEST_FILE = 50_000_000
LARGEST_PAGE = 5_000_000
LARGEST_TOTAL = 2_000_000_000
MOST_FILES = 60_000
LARGEST_RATIO = 200
"""How many times larger than in the archive a file may be, beyond its first megabyte: more is a bomb."""

PAGE_ENDINGS = (".html", ".htm")
_JUNK = re.compile(r"(^|/)(__MACOSX/|\.DS_Store$|\._|\.(git|svn|hg)/|Thumbs\.db$|desktop\.ini$)")
"""What systems and their tools leave beside a site's own files."""
_DRIVE = re.compile(r"^[A-Za-z]:")


class Problem(NamedTuple):
    """A file that was left out or is carried without pieces, and why, in a sentence."""

    name: str
    reason: str


class ArchiveEntry(NamedTuple):
    """One file: its path within the site, and its bytes (read only when asked for)."""

    name: str
    read: Callable[[], bytes]


class BrokenArchive(Exception):
    """The file as a whole cannot be read; the message is a sentence for whoever sent it."""


def files_of_zip(file: IO[bytes], problems: list[Problem]) -> Iterator[ArchiveEntry]:
    """The files of an archive, each checked before it is opened and while it is read."""
    try:
        archive = zipfile.ZipFile(file)
    except (zipfile.BadZipFile, OSError, ValueError) as error:
        raise BrokenArchive("This is not a ZIP archive, or it is damaged.") from error
    entries = [entry for entry in archive.infolist() if not entry.is_dir()]
    if len(entries) > MOST_FILES:
        raise BrokenArchive(f"The archive holds {len(entries):,} files; {MOST_FILES:,} at most can come in at once.")
    if sum(entry.file_size for entry in entries) > LARGEST_TOTAL:
        raise BrokenArchive("Unpacked, the archive would be larger than 2 GB.")
    links = {entry.filename for entry in entries if _is_link(entry)}
    by_name = {entry.filename: entry for entry in entries}
    for entry in entries:
        reason = _zip_fault(entry)
        if entry.filename in links and reason is None:
            found = _linked(archive, entry, by_name, links)
            reason = _zip_fault(found) if found is not None else "It is a link to what is not in the archive."
            if reason is None and found is not None:
                yield ArchiveEntry(entry.filename, partial(_read_entry, archive, found))
                continue
        if reason is not None:
            problems.append(Problem(entry.filename[:200], reason))
            continue
        yield ArchiveEntry(entry.filename, partial(_read_entry, archive, entry))


MOST_LINKS = 8
"""From one link to the next."""


def _is_link(entry: zipfile.ZipInfo) -> bool:
    return (entry.external_attr >> 16) & 0o170000 == 0o120000


def _linked(
    archive: zipfile.ZipFile, entry: zipfile.ZipInfo, by_name: Mapping[str, zipfile.ZipInfo], links: Set[str]
) -> zipfile.ZipInfo | None:
    """The file in the archive that a link leads to."""
    for _ in range(MOST_LINKS):
        if entry.filename not in links:
            return entry
        if entry.file_size > LONGEST_LINK:
            return None
        try:
            there = _read_entry(archive, entry).decode()
        except (BrokenArchive, UnicodeDecodeError):
            return None
        name = posixpath.normpath(posixpath.join(posixpath.dirname(entry.filename), there))
        if name not in by_name:
            return None
        entry = by_name[name]
    return None


LONGEST_LINK = 4096


def _zip_fault(entry: zipfile.ZipInfo) -> str | None:
    if entry.flag_bits & 1:
        return "It is encrypted."
    if entry.file_size > LARGEST_FILE:
        return f"It is {entry.file_size // 1_000_000:,} MB large; {LARGEST_FILE // 1_000_000} MB at most."
    if entry.file_size > 1_000_000 and entry.file_size > LARGEST_RATIO * max(1, entry.compress_size):
        return "It would unpack to hundreds of times its size; that is how archives are made to do harm."
    return None


def _read_entry(archive: zipfile.ZipFile, entry: zipfile.ZipInfo) -> bytes:
    try:
        with archive.open(entry) as opened:
            data = opened.read(entry.file_size + 1)
    except (zipfile.BadZipFile, zlib.error, NotImplementedError, RuntimeError, EOFError, OSError, ValueError) as error:
        raise BrokenArchive("It is damaged within the archive.") from error
    if len(data) != entry.file_size:
        raise BrokenArchive("It is larger than the archive says.")
    return data


def site_path(name: str) -> str | None:
    """A file's path within the site: `/a/b.html`. None where the name is no such path."""
    name = name.replace("\\", "/")
    if name.startswith("/") or _DRIVE.match(name) or any(ord(char) < 32 for char in name):
        return None
    segments = [segment for segment in name.split("/") if segment not in {"", "."}]
    if not segments or ".." in segments:
        return None
    try:
        return _file_path.validate_python("/" + "/".join(quote(segment, safe=_KEPT_IN_PATHS) for segment in segments))
    except ValidationError:
        return None


_path: TypeAdapter[str] = TypeAdapter(PagePath)
_file_path: TypeAdapter[str] = TypeAdapter(FilePath)


def valid_path(path: str) -> str | None:
    """The path as a site keeps it; None where it can be none, because it is too long, say."""
    try:
        return _path.validate_python(path)
    except ValidationError:
        return None


_KEPT_IN_PATHS = "!$&'()*+,;=:@~"


def page_path(file_path: str) -> str:
    """The address at which a page's file is found: `/a/index.html` answers at `/a/`."""
    folder, _, last = file_path.rpartition("/")
    return folder + "/" if last == "index.html" else file_path


def file_name(path: str) -> str:
    """The name of the file that answers at an address, below the site's folder: the reverse of the two above."""
    return unquote((path + "index.html" if path.endswith("/") else path)[1:])


def common_folder(names: Iterable[str]) -> str:
    """The one folder in which an archive wraps all its files, with its slash; empty where there is none."""
    first_parts = {name.replace("\\", "/").partition("/") for name in names if not _JUNK.search(name)}
    folders = {first for first, slash, _ in first_parts if slash}
    if len(folders) == 1 and all(slash for _, slash, _ in first_parts):
        return folders.pop() + "/"
    return ""


class Incoming(NamedTuple):
    """A page or file to be kept: the value, its bytes, and the shape that the page names."""

    value: Page | Asset
    content: bytes
    shape: PageShape | None = None


class Expected(NamedTuple):
    """So many files are looked at."""

    files: int


def read_archive(
    path: str, name: str, new_id: Callable[[str], str], language: str, lifts: tuple[Lift, ...]
) -> Iterator[Expected | Incoming | Problem]:
    """All that a file of somebody else's site holds: a ZIP, or a page by itself, called `name`. Raises `BrokenArchive`."""
    problems: list[Problem] = []
    with open(path, "rb") as file:
        is_page = name.lower().endswith(PAGE_ENDINGS)
        entries = [ArchiveEntry(name, file.read)] if is_page else list(files_of_zip(file, problems))
        yield Expected(len(entries))
        for incoming in read_files(entries, new_id, language, lifts, problems):
            yield incoming
            yield from problems
            problems.clear()
    yield from problems


def read_files(
    entries: Iterable[ArchiveEntry],
    new_id: Callable[[str], str],
    language: str,
    lifts: Iterable[Lift],
    problems: list[Problem],
) -> Iterator[Incoming]:
    """Pages and files one by one; what cannot be used goes to `problems`. `new_id` makes an id from a prefix."""
    entries = list(entries)
    wrapper = common_folder(entry.name for entry in entries)
    shapes = Shapes(_reader_of(entries, wrapper))
    names = (site_path(entry.name.removeprefix(wrapper)) for entry in entries if not _JUNK.search(entry.name))
    folders = language_folders(page_path(name) for name in names if name and name.lower().endswith(PAGE_ENDINGS))
    everywhere = {lift.id: lift for lift in lifts}
    taken: set[str] = set()
    seen: dict[str, str] = {}
    for entry in entries:
        if _JUNK.search(entry.name):
            continue
        path = site_path(entry.name.removeprefix(wrapper))
        if path is None:
            problems.append(Problem(entry.name[:200], "Its name leads out of the archive, is too long, or is no path."))
            continue
        address = page_path(path) if path.lower().endswith(PAGE_ENDINGS) else path
        if address in taken or address.startswith("/_rim/"):
            if not address.startswith("/_rim/"):
                problems.append(Problem(entry.name[:200], f"Another file already stands at {address}."))
            continue
        other = seen.get(address.lower())
        if other is not None:
            reason = f"Its name differs from that of {other} in capitals only; there are hosts on which one takes the other's place."
            problems.append(Problem(entry.name[:200], reason))
        try:
            content = entry.read()
        except BrokenArchive as broken:
            problems.append(Problem(entry.name[:200], str(broken)))
            continue
        taken.add(address)
        seen.setdefault(address.lower(), address)
        if not path.lower().endswith(PAGE_ENDINGS):
            yield Incoming(Asset(id=new_id("as"), path=path, content=digest(content), size=len(content)), content)
        elif len(content) > LARGEST_PAGE:
            problems.append(
                Problem(entry.name[:200], f"A page of {len(content) // 1_000_000} MB is carried along as a file.")
            )
            yield Incoming(Asset(id=new_id("as"), path=path, content=digest(content), size=len(content)), content)
        else:
            here = folders.get(address[1:].partition("/")[0])
            page = Page(id=new_id("pg"), path=address, language=here or language)
            yield _page(entry.name, page, content, everywhere, problems, shapes, is_said=here is not None)


def _page(
    name: str,
    page: Page,
    content: bytes,
    lifts: Mapping[str, Lift],
    problems: list[Problem],
    shapes: Shapes,
    *,
    is_said: bool,
) -> Incoming:
    """`is_said`: its path says its language."""
    content = strip(content)
    found = anatomy(content)
    page = _described(page, content, found)
    if page.splice is None:
        problems.append(Problem(name[:200], page.remark))
    elif not is_said and not found.language:
        page = page.replaced(likely=likely_language(found.sample))
    shape = None
    if page.splice is not None and found.styling is not None:
        shape, dark = shapes.of(page.path, found.styling)
        page = page.replaced(splice=page.splice.replaced(dark=dark))
    page = page.replaced(cuts=cuts(content, lifts_on(page, lifts.values())), shape=shape.id if shape else None)
    return Incoming(page, content, shape)


def _reader_of(entries: Iterable[ArchiveEntry], wrapper: str) -> Callable[[str], bytes | None]:
    """Gives the bytes of a file at a path of the site."""
    by_path = {site_path(entry.name.removeprefix(wrapper)): entry for entry in entries}

    def read(path: str) -> bytes | None:
        try:
            return by_path[path].read() if path in by_path else None
        except BrokenArchive:
            return None

    return read


def described_page(page: Page, content: bytes) -> Page:
    """A page with all that its content tells: places for pieces, title, language, hash."""
    return _described(page, content, anatomy(content))


def _described(page: Page, content: bytes, found: Anatomy) -> Page:
    return page.replaced(
        content=digest(content),
        splice=found.splice,
        title=found.title or page.title,
        language=found.language or page.language,
        remark=found.remark,
        dated=page.dated or found.dated or _dated_by_path(page.path),
    )


_DATED_PATH = re.compile(r"/(\d{4})[/-]([01]\d)[/-]([0-3]\d)[/-]")


def _dated_by_path(path: str) -> str | None:
    found = _DATED_PATH.search(path)
    return "-".join(found.groups()) if found else None


def lifts_on(page: Page, lifts: Iterable[Lift]) -> dict[str, str]:
    """Selectors of the lifts that apply to a page, by lift id."""
    return {lift.id: lift.selector for lift in lifts if lift.where.covers(page)}


def digest(content: bytes) -> str:
    return hashlib.sha256(content).hexdigest()


def read_sitemap(content: bytes) -> tuple[list[str], list[Problem]]:
    """Paths of the pages that a sitemap (sitemaps.org, 0.9) lists, in its order; titles and content are still to
    come."""
    problems: list[Problem] = []
    if b"<!DOCTYPE" in content[:2000].upper() or b"<!ENTITY" in content.upper():
        return [], [Problem("sitemap", "A sitemap has no document type of its own; this one is not read.")]
    try:
        root = ElementTree.fromstring(content)  # noqa: S314 - no document type, so no entities, gets this far
    except (ElementTree.ParseError, ValueError, LookupError) as error:
        return [], [Problem("sitemap", f"It is not well-formed XML: {error}.")]
    paths: dict[str, None] = {}
    for found in root.iter():
        if not isinstance(found.tag, str) or found.tag.rpartition("}")[2] != "loc":
            continue
        address = (found.text or "").strip()
        path = _sitemap_path(address)
        if path is None:
            problems.append(Problem(address[:200], "It is not the address of a page."))
        else:
            paths[path] = None
    if not paths and not problems:
        problems.append(Problem("sitemap", "It lists no page."))
    return list(paths), problems


def _sitemap_path(address: str) -> str | None:
    try:
        parts = urlsplit(address)
    except ValueError:
        return None
    if parts.scheme not in {"http", "https"} or any(char.isspace() for char in address):
        return None
    segments = unquote(parts.path or "/").split("/")
    if ".." in segments or "." in segments or "" in segments[1:-1]:
        return None
    return valid_path(parts.path or "/")
