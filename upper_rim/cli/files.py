"""What do commands read and write, and what is said where that cannot be done?"""

from __future__ import annotations

import os
import shutil
import sys
import tempfile
from collections.abc import Iterator
from contextlib import contextmanager
from functools import partial
from pathlib import Path
from typing import IO

from ..core.exchange.bundle import BrokenBundle, Bundle
from ..core.exchange.imports.import_pages import (
    ArchiveEntry,
    BrokenArchive,
    Problem,
    files_of_zip,
)

Remarks = list[str]


class CannotDo(Exception):
    """An input that cannot be read or an output that cannot be written, in a sentence."""


STANDARD = "-"
"""Standard input, or output."""


@contextmanager
def opened_bundle(path: str) -> Iterator[Bundle]:
    try:
        with _opened(path) as file:
            yield Bundle(file)
    except BrokenBundle as fault:
        raise CannotDo(f"{path}: {fault}") from None
    except OSError as error:
        raise CannotDo(f"{path}: {error.strerror}") from None


@contextmanager
def new_file(path: str) -> Iterator[IO[bytes]]:
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


def bytes_of(path: Path) -> bytes:
    try:
        return path.read_bytes()
    except OSError as error:
        raise CannotDo(f"{path}: {error.strerror}") from None


@contextmanager
def entries_in(source: Path, problems: list[Problem]) -> Iterator[Iterator[ArchiveEntry]]:
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
            yield ArchiveEntry(name, partial(bytes_of, path))
