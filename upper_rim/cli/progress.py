"""How far is it? Told on a terminal, once it takes longer than a second; gone again when it is done."""

from __future__ import annotations

import sys
import time
from collections.abc import Iterable, Iterator
from contextlib import contextmanager
from typing import TextIO, TypeVar

AFTER_S, EVERY_S = 1.0, 0.1
_AGAIN = "\r\x1b[2K"
"""Back to the line's beginning, and nothing on it (ECMA-48, 8.3.41)."""

Kind = TypeVar("Kind")


class Progress:
    """`step`: what is done, as `pages composed`; of how many, where that is known."""

    def __init__(self, out: TextIO | None) -> None:
        self._out = out
        self._begun = self._told = time.monotonic()
        self._is_told = False

    def tell(self, step: str, done: int = 0, of: int = 0) -> None:
        now = time.monotonic()
        if self._out is None or now - self._begun < AFTER_S or now - self._told < EVERY_S:
            return
        count = f" {done} of {of}" if of else f" {done}" if done else ""
        self._out.write(f"{_AGAIN}{step}{count}")
        self._out.flush()
        self._told, self._is_told = now, True

    def counted(self, step: str, listed: Iterable[Kind], of: int = 0) -> Iterator[Kind]:
        """The same, one after the other, told on the way."""
        for at, one in enumerate(listed, 1):
            self.tell(step, at, of)
            yield one

    def end(self) -> None:
        if self._out is not None and self._is_told:
            self._out.write(_AGAIN)
            self._out.flush()


@contextmanager
def progress(*, quiet: bool) -> Iterator[Progress]:
    made = Progress(None if quiet or not sys.stderr.isatty() else sys.stderr)
    try:
        yield made
    finally:
        made.end()
