"""`upper-rim publish`: the finished site in a folder, whole or not at all."""

from __future__ import annotations

import argparse
import json
import os
import secrets
import shutil
from collections import deque
from collections.abc import Callable, Iterator, Mapping, Sequence
from concurrent.futures import Future, ThreadPoolExecutor
from contextlib import suppress
from functools import partial
from itertools import chain, islice
from multiprocessing import get_context
from pathlib import Path

from ..core.findings.words import LOSS_WORDS
from ..core.gates.guards import guards_of
from ..core.gates.locking import Lock
from ..core.gates.unserved import losses
from ..core.kinds.items.secret import LONGEST_PASSWORD, SHORTEST_PASSWORD
from ..core.kinds.pieces.password import PasswordGate
from ..core.model.site import Site
from ..core.output.page.compose import Composer
from ..core.output.publication import PublishedFile, Publisher, file_count, publication
from ..core.output.unserved import unserved_of
from ..shipped import shelf
from .clock import present
from .files import CannotDo, Remarks, bytes_of, opened_bundle
from .progress import Progress, progress
from .proving import MOST_TOLD, SHARED_FROM, misplaced


def publish(chosen: argparse.Namespace) -> Remarks:
    folder = Path(chosen.out)
    if folder.exists() and (not folder.is_dir() or any(folder.iterdir())) and not chosen.force:
        raise CannotDo(f"{folder} is not empty; name another folder, or say --force to write over what is there")
    with opened_bundle(chosen.bundle) as bundle:
        site, typed = bundle.site, _passwords(chosen.passwords, bundle.site) if chosen.passwords else {}
        unfinished = folder.absolute().with_name(f".{folder.absolute().name}.{os.getpid()}")
        try:
            with progress(quiet=chosen.quiet) as told:
                _refuse(misplaced(site.pages, bundle.read_checked, told))
                write_files(site, bundle.read_checked, unfinished, typed, told)
            _put_in_place(unfinished, folder, prune=chosen.prune)
        except OSError as error:
            raise CannotDo(f"{error.filename or folder}: {error.strerror}") from None
        finally:
            shutil.rmtree(unfinished, ignore_errors=True)
        remarks = [f"{page.path}: {page.remark}" for page in site.pages if page.remark]
        return [*remarks, *_at_gates(site, typed)]


def _refuse(faults: list[str]) -> None:
    if faults:
        more = f"\n  and {len(faults) - MOST_TOLD} more" if len(faults) > MOST_TOLD else ""
        raise CannotDo("the bundle is not whole" + "".join(f"\n  {one}" for one in faults[:MOST_TOLD]) + more)


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
        said = json.loads(bytes_of(Path(file)))
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
    site: Site,
    read: Callable[[str], bytes],
    folder: Path,
    passwords: Mapping[str, Sequence[str]] | None = None,
    told: Progress | None = None,
) -> None:
    """The published site into a folder, for whatever server sends it. A large one is shared out among two processes.
    `passwords`: by door, what opens it; what is behind others is left out."""
    root = os.path.abspath(folder)
    os.makedirs(root, exist_ok=True)
    now = present()
    publisher = Publisher(site, shelf(), read, now.year)
    locks = {door: Lock(typed, secrets.token_bytes) for door, typed in (passwords or {}).items()}
    told = told or Progress(None)
    told.tell("The pieces are laid out")
    files = unserved_of(site, publisher, shelf().gates_script, locks, f"{now:%Y-%m-%dT%H:%MZ}")

    def write_share(share: int, of: int, told: Progress) -> None:
        made = publication(site, shelf(), read, share=share, of=of, publisher=publisher, index=partial(_index, told))
        # Who makes the search indexes has no page besides.
        total = file_count(site) if publisher.opened.index_paths else file_count(site) // of
        written = chain(files.made(made), files.besides() if share == 0 else ())
        _write_all(root, told.counted("Files written:", written, total))

    if len(site.pages) < SHARED_FROM:
        write_share(0, 1, told)
        return
    other = get_context("fork").Process(target=write_share, args=(1, 2, Progress(None)))
    other.start()
    write_share(0, 2, told)
    while other.is_alive():
        told.tell("The search index is made" if publisher.opened.index_paths else "The rest is written")
        other.join(0.2)
    if other.exitcode:
        raise CannotDo(f"{folder}: not all files could be written")


def _index(told: Progress, composer: Composer, language: str) -> Mapping[str, bytes]:
    told.tell(f"The search index is made: {language}")
    return composer.index(language)


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
