"""How is what strangers sent read so that it harms nobody? In a child process with limits, whose end harms nobody.

A reader is a function of the core. What it is given goes to the child as it is; what it found comes back as JSON and is
checked against the type that it says it gives, so that nothing that a reader was made to do gets further than that.
"""

from __future__ import annotations

import os
import resource
from collections.abc import Callable, Iterator
from contextlib import suppress
from functools import lru_cache
from multiprocessing import forkserver, get_context
from multiprocessing.connection import Connection
from threading import Lock
from typing import Any, Final, NamedTuple, TypeVar, get_args, get_type_hints

from pydantic import BaseModel, ConfigDict, TypeAdapter, ValidationError

_Given = TypeVar("_Given")
_Other = TypeVar("_Other")
Reader = Callable[..., Any]


class Limits(NamedTuple):
    """What a reader may use up. `silent_s`: seconds until it has found something, or something more; `busy_s`: seconds of
    a processor's time; `memory_bytes`: beside what every child has; `found_bytes`: all that it finds, as JSON."""

    silent_s: float
    busy_s: int
    memory_bytes: int
    found_bytes: int


FILE = Limits(silent_s=30, busy_s=20, memory_bytes=400_000_000, found_bytes=100_000_000)
"""For a file that somebody waits for."""
SITE = Limits(silent_s=120, busy_s=3600, memory_bytes=1_000_000_000, found_bytes=8_000_000_000)
"""For a whole site, read in the background."""


class Unread(Exception):
    """The reader used up what it may, or broke; the message is the end of a sentence that begins with the file."""


_TOO_LONG = "it takes too long to read; it may be damaged, or made to do harm"
_TOO_LARGE = "it takes more memory to read than such a file needs; it may be damaged, or made to do harm"
_BROKE = "its reader broke; it may be damaged, or made to do harm"


def read(
    reader: Callable[..., _Given], *given: Any, limits: Limits = FILE, refusals: tuple[type[Exception], ...] = ()
) -> _Given:
    """What `reader` makes of what it is given. Raises `Unread`, and those `refusals` that the reader itself raises."""
    return next(_read(reader, given, limits, refusals, is_many=False))


def read_or(otherwise: _Other, reader: Callable[..., _Given], *given: Any) -> _Given | _Other:
    """The same, and `otherwise` where it cannot be read: for what a screen or a page can do without."""
    try:
        return read(reader, *given)
    except Unread:
        return otherwise


def read_each(
    reader: Callable[..., Iterator[_Given]],
    *given: Any,
    limits: Limits = SITE,
    refusals: tuple[type[Exception], ...] = (),
) -> Iterator[_Given]:
    """One after the other, as it finds them."""
    return _read(reader, given, limits, refusals, is_many=True)


def _read(
    reader: Reader,
    given: tuple[Any, ...],
    limits: Limits,
    refusals: tuple[type[Exception], ...],
    *,
    is_many: bool,
) -> Iterator[Any]:
    found, told = _context.Pipe(duplex=False)
    child = _context.Process(target=_in_child, args=(told, reader, given, limits, refusals, is_many), daemon=True)
    with _starting:
        child.start()
    told.close()
    left = limits.found_bytes
    try:
        while True:
            sort, data = _next_of(found, child, limits, left)
            left -= len(data)
            if sort == _VALUE:
                yield _understood(reader, is_many, data)
            elif sort == _REFUSED:
                at, _, words = data.decode().partition(" ")
                raise refusals[int(at)](words)
            elif sort == _BROKEN:
                raise Unread(data.decode())
            else:
                return
    finally:
        found.close()
        child.kill()
        child.join()
        child.close()


def _understood(reader: Reader, is_many: bool, data: bytes) -> Any:
    try:
        return _adapter(reader, is_many).validate_json(data)
    except ValidationError:
        raise Unread(_BROKE) from None


def _next_of(found: Connection, child: Any, limits: Limits, left: int) -> tuple[bytes, bytes]:
    """What the child says next."""
    try:
        if found.poll(limits.silent_s):
            message = found.recv_bytes(max(left, 1))
            return message[:1], message[1:]
    except (EOFError, OSError):
        child.join(1)
        # Ended by the system: by SIGXCPU (24) for its time; what asks for too much memory is mostly ended by its own hand.
        return _BROKEN, (_TOO_LONG if child.exitcode == -24 else _BROKE).encode()
    return _BROKEN, _TOO_LONG.encode()


_VALUE, _REFUSED, _BROKEN, _ENDED = b"v", b"r", b"b", b"e"


def _in_child(
    told: Connection,
    reader: Reader,
    given: tuple[Any, ...],
    limits: Limits,
    refusals: tuple[type[Exception], ...],
    is_many: bool,
) -> None:
    adapter = _adapter(reader, is_many)
    room = _memory_in_use() + limits.memory_bytes
    resource.setrlimit(resource.RLIMIT_AS, (room, room))
    resource.setrlimit(resource.RLIMIT_CPU, (limits.busy_s, limits.busy_s + 1))
    resource.setrlimit(resource.RLIMIT_FSIZE, (0, 0))
    resource.setrlimit(resource.RLIMIT_CORE, (0, 0))
    try:
        made = reader(*given)
        for value in made if is_many else (made,):
            told.send_bytes(_VALUE + adapter.dump_json(value))
        told.send_bytes(_ENDED)
    except refusals as refused:
        at = next(at for at, kind in enumerate(refusals) if isinstance(refused, kind))
        told.send_bytes(_REFUSED + f"{at} {refused}".encode())
    except MemoryError:
        told.send_bytes(_BROKEN + _TOO_LARGE.encode())
    except Exception as error:
        is_memory = isinstance(error, OSError) and error.errno == 12
        with suppress(OSError):
            told.send_bytes(_BROKEN + (_TOO_LARGE if is_memory else _BROKE).encode())


def _memory_in_use() -> int:
    """In bytes of this process's address space (proc(5), statm)."""
    with open("/proc/self/statm", encoding="ascii") as file:
        return int(file.read().split()[0]) * os.sysconf("SC_PAGE_SIZE")


@lru_cache(maxsize=64)
def _adapter(reader: Reader, is_many: bool) -> TypeAdapter[Any]:
    """Of what it says that it gives."""
    kind = get_type_hints(reader)["return"]
    kind = get_args(kind)[0] if is_many else kind
    if isinstance(kind, type) and issubclass(kind, BaseModel):
        return TypeAdapter(kind)
    return TypeAdapter(kind, config=ConfigDict(ser_json_bytes="base64", val_json_bytes="base64"))


_context: Final = get_context("forkserver")
_context.set_forkserver_preload(
    [
        f"upper_rim.core.{name}"
        for name in (
            "exchange.bundle",
            "exchange.html.lift_proposals",
            "exchange.html.likeness",
            "exchange.html.outline",
            "exchange.imports.import_picture",
            "exchange.imports.feed",
            "exchange.tokens",
            "exchange.translations.texts_csv",
            "exchange.translations.xliff",
            "output.picture_sizes",
            "output.site_icon",
            "style.paint.pictures",
            "style.type.fonts",
        )
    ]
)
_starting = Lock()
"""The server that children are forked from is begun once."""


def begin() -> None:
    """Begins that server ahead, so that nobody waits for it when something is first read."""
    with _starting:
        forkserver.ensure_running()
