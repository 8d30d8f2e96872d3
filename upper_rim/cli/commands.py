"""What each command of the command line does. Each gives back remarks: sentences about what deserves a look."""

from __future__ import annotations

import argparse
import hashlib
import json
import os
import secrets
import shutil
import sys
import tempfile
from collections import deque
from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from concurrent.futures import Future, ThreadPoolExecutor
from contextlib import contextmanager, suppress
from functools import partial
from itertools import chain, islice
from multiprocessing import get_context
from pathlib import Path
from typing import IO, NamedTuple

from pydantic import ValidationError

from ..core.conditions.audience.in_period import instant_in
from ..core.conditions.visitor import VisitorCard
from ..core.exchange.bundle import BrokenBundle, Bundle, fonts_of, write_bundle
from ..core.exchange.coverage_table import as_csv, as_json, coverage_rows
from ..core.exchange.html.anatomy import anatomy
from ..core.exchange.imports.import_pages import (
    ArchiveEntry,
    BrokenArchive,
    Problem,
    files_of_zip,
    read_files,
    read_sitemap,
)
from ..core.findings.words import LOSS_WORDS
from ..core.gates.guards import guards_of
from ..core.gates.locking import Lock
from ..core.gates.unserved import losses
from ..core.kinds.entries import Entry
from ..core.kinds.items.secret import LONGEST_PASSWORD, SHORTEST_PASSWORD
from ..core.kinds.page_shapes import PageShape
from ..core.kinds.pieces.password import PasswordGate
from ..core.model.editing.check import broken_references
from ..core.model.navigation.renewed import renewed
from ..core.model.references import references
from ..core.model.site import Asset, Band, Page, Site, Splice
from ..core.model.tree import walk
from ..core.output.publication import PublishedFile, Publisher, publication
from ..core.output.unserved import unserved_of
from ..core.reach.coverage import Coverage
from ..shipped import shelf
from .clock import present

Remarks = list[str]


class CannotDo(Exception):
    """An input that cannot be read or an output that cannot be written, in a sentence."""


def demo(chosen: argparse.Namespace) -> Remarks:
    from ..demo import ostrey, quillwort  # only here: the other commands start faster without the demo's texts

    site, contents = {"ostrey": ostrey, "quillwort": quillwort}[chosen.site]()
    with _new_file(chosen.out) as out:
        write_bundle(out, site, contents.__getitem__)
    return []


def bring_in(chosen: argparse.Namespace) -> Remarks:
    source = Path(chosen.source)
    like, known, named, contents = _like(
        chosen.like, chosen.name, "A site" if chosen.source == STANDARD else source.stem
    )
    problems: list[Problem] = []
    pages: list[Page] = []
    assets: list[Asset] = []
    shapes: dict[str, PageShape] = {}
    if source.suffix.lower() == ".xml":
        paths, problems = read_sitemap(_bytes(source))
        pages = [Page(id=_id_of("pg", path), path=path, language=like.language) for path in paths]
    else:
        with _entries(source, problems) as entries:
            for incoming in read_files(entries, "{}-new".format, like.language, like.lifts, problems):
                if incoming.shape is not None:
                    shapes[incoming.shape.id] = incoming.shape
                value = incoming.value
                if isinstance(value, Page):
                    pages.append(value.replaced(id=_id_of("pg", value.path)))
                else:
                    assets.append(value.replaced(id=_id_of("as", value.path)))
                contents[value.content or ""] = incoming.content
        # Links and rules that mean a page of the other site mean the one that stands where it does.
        pages = renewed(pages, known)
    if not pages:
        raise CannotDo(
            f"no page could be read from {source}" + "".join(f"\n  {name}: {reason}" for name, reason in problems[:20])
        )
    brought = {asset.path for asset in assets}
    assets += [asset for asset in named if asset.path not in brought]
    site = like.replaced(
        pages=tuple(sorted(pages, key=lambda page: page.path)),
        assets=tuple(sorted(assets, key=lambda asset: asset.path)),
        shapes=tuple(shapes.values()),
    )
    fault = broken_references(site)
    if fault is not None:
        raise CannotDo(f"{source}: {fault.words}")
    with _new_file(chosen.out) as out:
        write_bundle(out, site, contents.__getitem__)
    return [*(f"{name}: {reason}" for name, reason in problems), *_led_nowhere(site, known)]


def _led_nowhere(site: Site, known: Iterable[Page]) -> Iterator[str]:
    """Entries of menus that lead to pages of the other site, where none stands now."""
    there = {page.id for page in site.pages}
    missing = {page.id: page.path for page in known if page.id not in there}
    for menu in site.menus:
        for entry in walk(menu):
            for one in references(entry):
                if one.slot == "pages" and one.id in missing:
                    label = entry.label.text if isinstance(entry, Entry) else ""
                    yield f"menu “{menu.name}”: “{label}” leads to {missing[one.id]}, and no page is there"


def publish(chosen: argparse.Namespace) -> Remarks:
    folder = Path(chosen.out)
    if folder.exists() and (not folder.is_dir() or any(folder.iterdir())) and not chosen.force:
        raise CannotDo(f"{folder} is not empty; name another folder, or say --force to write over what is there")
    with _bundle(chosen.bundle) as bundle:
        site, typed = bundle.site, _passwords(chosen.passwords, bundle.site) if chosen.passwords else {}
        unfinished = folder.absolute().with_name(f".{folder.absolute().name}.{os.getpid()}")
        try:
            write_files(site, bundle.read_checked, unfinished, typed)
            _put_in_place(unfinished, folder, prune=chosen.prune)
        except OSError as error:
            raise CannotDo(f"{error.filename or folder}: {error.strerror}") from None
        finally:
            shutil.rmtree(unfinished, ignore_errors=True)
        remarks = [f"{page.path}: {page.remark}" for page in site.pages if page.remark]
        return [*remarks, *_at_gates(site, typed)]


def _put_in_place(made: Path, folder: Path, *, prune: bool) -> None:
    """All files that were made, once they are whole. `prune`: what lies there besides is taken away."""
    if not folder.exists() or not any(folder.iterdir()):
        with suppress(FileNotFoundError):
            folder.rmdir()
        made.rename(folder)
        return
    names = [path.relative_to(made) for path in made.rglob("*") if path.is_file()]
    for name in names:
        (folder / name).parent.mkdir(parents=True, exist_ok=True)
        os.replace(made / name, folder / name)
    if prune:
        kept = {folder / name for name in names}
        # What is deepest first, so that folders are empty by their turn.
        for path in sorted(folder.rglob("*"), reverse=True):
            if path.is_dir() and not path.is_symlink():
                with suppress(OSError):
                    path.rmdir()
            elif path not in kept:
                path.unlink()


def _passwords(file: str, site: Site) -> dict[str, list[str]]:
    """What opens which door, by its id. A file names doors by id or name."""
    try:
        said = json.loads(_bytes(Path(file)))
    except (ValueError, RecursionError):
        raise CannotDo(f"{file} is no JSON") from None
    doors = {
        key: piece.id for piece in site.pieces if isinstance(piece, PasswordGate) for key in (piece.name, piece.id)
    }
    is_read = isinstance(said, dict) and all(
        isinstance(listed, list) and listed and all(isinstance(one, str) for one in listed) for listed in said.values()
    )
    if not is_read:
        raise CannotDo(f'{file} is not of the form {{"Name of a door": ["password", "another one"]}}')
    for name, listed in said.items():
        if name not in doors:
            raise CannotDo(f"{file}: “{name}” is no locked door of this site; there are {', '.join(doors) or 'none'}")
        if not all(SHORTEST_PASSWORD <= len(one) <= LONGEST_PASSWORD for one in listed):
            raise CannotDo(f"{file}: a password has {SHORTEST_PASSWORD} to {LONGEST_PASSWORD} characters")
    return {doors[name]: listed for name, listed in said.items()}


def _at_gates(site: Site, typed: Mapping[str, Sequence[str]]) -> Remarks:
    """What other servers do less than ours at gates."""
    guards = guards_of(site)
    if guards is None:
        return []
    shut = {gate.id for gate in guards.gates.values() if isinstance(gate, PasswordGate)} - typed.keys()
    names = " and ".join(f"“{guards.gates[gate].name}”" for gate in sorted(shut))
    left_out = f"what is locked by {names} is left out: no password was given for it (--passwords)"
    there = (gate for gate in guards.gates.values() if gate.id not in shut)
    told = [f"“{gate.name}” on another server: {LOSS_WORDS[loss]}" for gate in there for loss in losses(gate)]
    return [*([left_out] if shut else []), *told]


def write_files(
    site: Site, read: Callable[[str], bytes], folder: Path, passwords: Mapping[str, Sequence[str]] | None = None
) -> None:
    """The published site into a folder, for whatever server sends it. A large one is shared out among two processes.
    `passwords`: by door, what opens it; what is behind others is left out."""
    root = os.path.abspath(folder)
    os.makedirs(root, exist_ok=True)
    now = present()
    publisher = Publisher(site, shelf(), read, now.year)
    locks = {door: Lock(typed, secrets.token_bytes) for door, typed in (passwords or {}).items()}
    files = unserved_of(site, publisher, shelf().gates_script, locks, f"{now:%Y-%m-%dT%H:%MZ}")

    def write_share(share: int, of: int) -> None:
        made = publication(site, shelf(), read, share=share, of=of, publisher=publisher)
        _write_all(root, chain(files.made(made), files.besides() if share == 0 else ()))

    if len(site.pages) < SHARED_FROM:
        write_share(0, 1)
        return
    other = get_context("fork").Process(target=write_share, args=(1, 2))
    other.start()
    write_share(0, 2)
    other.join()
    if other.exitcode:
        raise CannotDo(f"{folder}: not all files could be written")


def _write_all(root: str, made_files: Iterator[PublishedFile]) -> None:
    """One thread composes while another waits for the disk."""
    with ThreadPoolExecutor(max_workers=1) as writer:
        writing: deque[Future[None]] = deque()
        made: set[str] = {root}
        for files in _in_batches(made_files, BATCH):
            writing.append(writer.submit(_write_batch, root, files, made))
            if len(writing) > 2:
                writing.popleft().result()
        for left in writing:
            left.result()


SHARED_FROM = 500
"""Pages from which on a second process is worth its beginning."""

BATCH = 100
"""Files handed to the writing thread at once: few enough to hold in memory, many enough that handing over costs
nothing."""


def _in_batches(files: Iterator[PublishedFile], size: int) -> Iterator[list[PublishedFile]]:
    while batch := list(islice(files, size)):
        yield batch


def _write_batch(root: str, files: list[PublishedFile], made: set[str]) -> None:
    for file in files:
        path = f"{root}/{file.name}"
        _make_folder(path.rpartition("/")[0], made)
        descriptor = os.open(path, os.O_WRONLY | os.O_CREAT | os.O_TRUNC, 0o644)
        try:
            left = memoryview(file.data)
            while left:
                left = left[os.write(descriptor, left) :]
        finally:
            os.close(descriptor)


def _make_folder(folder: str, made: set[str]) -> None:
    if folder in made:
        return
    _make_folder(folder.rpartition("/")[0], made)
    with suppress(FileExistsError):
        os.mkdir(folder)
    made.add(folder)


def coverage(chosen: argparse.Namespace) -> Remarks:
    with _bundle(chosen.bundle) as bundle:
        site = bundle.site
        if chosen.compare and not chosen.card:
            raise CannotDo("--compare asks for --card, too: with which one is it compared?")
        if chosen.at and not chosen.card:
            raise CannotDo("--at asks for --card, too: who looks then? --card '{}' is somebody")
        cards = [_card(site, said, chosen.at) for said in (chosen.card, chosen.compare) if said]
        rows = list(coverage_rows(Coverage(site), *cards))
    if chosen.form == "json":
        sys.stdout.writelines(as_json(rows))
    elif chosen.form == "csv":
        sys.stdout.writelines(as_csv(rows))
    else:
        for row in rows:
            reason = f"{row.why}: {row.rule}" if row.rule else row.why
            who = f"  for {row.card}" if len(cards) > 1 else ""
            print(f"{row.page}  {row.slot}  {row.band or 'all widths'}  {row.piece or '-'}  ({reason}){who}")
    tied = {
        f"{row.page}: {row.piece} and {', '.join(row.beaten)} tie; the first in the site's order shows"
        for row in rows
        if row.why == "tie"
    }
    return sorted(tied)


def visit(chosen: argparse.Namespace) -> Remarks:
    from .visit import report  # only here: no other command plays a visit through

    with _bundle(chosen.bundle) as bundle:
        card = _card(bundle.site, chosen.card or "{}", chosen.at)
        return report(bundle.site, bundle.read, card, chosen)


def _card(site: Site, said: str, at: str | None) -> VisitorCard:
    try:
        if said.lstrip().startswith("{"):
            card = VisitorCard.model_validate({"id": "vc-said", **json.loads(said)})
        else:
            card = next(one for one in site.cards if said.casefold() in {one.name.casefold(), one.id})
        return card.replaced(clock=f"{instant_in(at, site.zone):%Y-%m-%dT%H:%MZ}") if at else card
    except StopIteration:
        names = ", ".join(one.name for one in site.cards) or "there are none"
        raise CannotDo(f"no card is called {said} ({names})") from None
    except ValidationError as error:
        first = error.errors()[0]
        raise CannotDo(f"--card: {'.'.join(map(str, first['loc']))}: {first['msg']}") from None
    except ValueError as error:
        raise CannotDo(f"--card, --at: {error}") from None


def validate(chosen: argparse.Namespace) -> Remarks:
    remarks: Remarks = []
    with _bundle(chosen.bundle) as bundle:
        for page in bundle.site.pages:
            if page.content is None:
                continue
            content = bundle.read_checked(page.content)
            if _places_of(page.splice) != _places_of(anatomy(content).splice):
                remarks.append(f"{page.path}: the places for pieces do not belong to this content")
            if any(cut.end > len(content) or cut.start > cut.end for cut in page.cuts):
                remarks.append(f"{page.path}: a cut lies outside its content")
        for asset in bundle.site.assets:
            bundle.read_checked(asset.content)
        print(
            f"{bundle.site.name}: {len(bundle.site.pages)} pages, {len(bundle.site.assets)} files, "
            f"{len(bundle.site.pieces)} pieces"
        )
    return remarks


def _places_of(splice: Splice | None) -> object:
    """Where pieces can be put, without what else was noticed: of that, older bundles hold less."""
    return splice and (splice.encoding, splice.head_at, splice.body_at, splice.end_at, splice.close, splice.wraps)


def fit(chosen: argparse.Namespace) -> Remarks:
    from .fit import NoPiece, report  # only here: the other commands start faster without fonts being measured

    with _bundle(chosen.bundle) as bundle:
        try:
            return report(bundle, chosen)
        except NoPiece as fault:
            raise CannotDo(f"{chosen.bundle}: {fault}") from None


def movement(chosen: argparse.Namespace) -> Remarks:
    from .movement import CannotPlay, report  # as with `fit`

    with _bundle(chosen.bundle) as bundle:
        try:
            return report(bundle, chosen)
        except CannotPlay as fault:
            raise CannotDo(str(fault)) from None


def texts(chosen: argparse.Namespace) -> Remarks:
    from .texts import NotTaken, read, written  # only here: no other command has to do with translators

    with _bundle(chosen.bundle) as bundle:
        try:
            if chosen.source is None:
                with _new_file(chosen.out) as out:
                    out.write(written(bundle.site, chosen).encode())
                return []
            site, remarks = read(bundle.site, Path(chosen.source), _bytes(Path(chosen.source)))
        except NotTaken as fault:
            raise CannotDo(str(fault)) from None
        with _new_file(chosen.out) as out:
            write_bundle(out, site, bundle.read)
        return remarks


COMMANDS: dict[str, Callable[[argparse.Namespace], Remarks]] = {
    "demo": demo,
    "import": bring_in,
    "publish": publish,
    "coverage": coverage,
    "fit": fit,
    "movement": movement,
    "visit": visit,
    "texts": texts,
    "validate": validate,
}


class _Like(NamedTuple):
    """A site without pages to put some into; the pages that its menus and pieces know; the files that they name, and the
    contents of these and of its fonts."""

    site: Site
    known: tuple[Page, ...]
    named: list[Asset]
    contents: dict[str, bytes]


def _like(bundle: str | None, name: str | None, usual: str) -> _Like:
    """`usual`: the name of a site that is like no other, where none is chosen."""
    if bundle is None:
        bands = (Band(id="bd-narrow", name="Narrow", from_px=0), Band(id="bd-wide", name="Wide", from_px=900))
        key = f"q{hashlib.sha256((name or usual).encode()).hexdigest()[:6]}"
        return _Like(Site(key=key, name=name or usual, bands=bands), (), [], {})
    with _bundle(bundle) as opened:
        like = opened.site
        said = like.model_dump_json(exclude={"pages", "assets"})
        named = [asset for asset in like.assets if asset.path in said]
        kept = {content: opened.read_checked(content) for content in fonts_of(like) | {one.content for one in named}}
    return _Like(like.replaced(name=name or like.name, pages=(), assets=()), like.pages, named, kept)


def _id_of(prefix: str, path: str) -> str:
    """The same each time, so that the same pages make the same bundle."""
    return f"{prefix}-{hashlib.sha256(path.encode()).hexdigest()[:10]}"


@contextmanager
def _bundle(path: str) -> Iterator[Bundle]:
    try:
        with _opened(path) as file:
            yield Bundle(file)
    except BrokenBundle as fault:
        raise CannotDo(f"{path}: {fault}") from None
    except OSError as error:
        raise CannotDo(f"{path}: {error.strerror}") from None


@contextmanager
def _new_file(path: str) -> Iterator[IO[bytes]]:
    """A file that appears under its name only when it is whole."""
    if path == STANDARD:
        with tempfile.TemporaryFile() as whole:
            yield whole
            whole.seek(0)
            shutil.copyfileobj(whole, sys.stdout.buffer)
        return
    target = Path(path)
    unfinished = target.with_name(f".{target.name}.{os.getpid()}")
    try:
        with open(unfinished, "wb") as file:
            yield file
        os.replace(unfinished, target)
    except OSError as error:
        raise CannotDo(f"{path}: {error.strerror}") from None
    finally:
        unfinished.unlink(missing_ok=True)


STANDARD = "-"
"""Standard input, or output."""


@contextmanager
def _opened(path: str | Path) -> Iterator[IO[bytes]]:
    """A file of the system's own, whatever standard input is."""
    if str(path) != STANDARD:
        with open(path, "rb") as file:
            yield file
        return
    with tempfile.TemporaryFile() as whole:
        shutil.copyfileobj(sys.stdin.buffer, whole)
        whole.seek(0)
        yield whole


def _bytes(path: Path) -> bytes:
    try:
        return path.read_bytes()
    except OSError as error:
        raise CannotDo(f"{path}: {error.strerror}") from None


@contextmanager
def _entries(source: Path, problems: list[Problem]) -> Iterator[Iterator[ArchiveEntry]]:
    if source.is_dir():
        yield _folder(source, problems)
        return
    try:
        with _opened(source) as file:
            yield files_of_zip(file, problems)
    except BrokenArchive as broken:
        raise CannotDo(f"{source}: {broken}") from None
    except OSError as error:
        raise CannotDo(f"{source}: {error.strerror}") from None


def _folder(source: Path, problems: list[Problem]) -> Iterator[ArchiveEntry]:
    for path in sorted(source.rglob("*")):
        name = str(path.relative_to(source))
        if path.is_symlink() and not path.resolve().is_relative_to(source.resolve()):
            problems.append(Problem(name, "It is a link to what lies outside the folder."))
        elif path.is_file():
            yield ArchiveEntry(name, partial(_bytes, path))
