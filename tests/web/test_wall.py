"""Readers of what strangers sent: in a child that may use up so much, and harms nobody where it wants more."""

from __future__ import annotations

import os
import time
from collections.abc import Iterator
from pathlib import Path

import pytest

from upper_rim.core.exchange.bundle import BrokenBundle
from upper_rim.core.model.site import Site
from upper_rim.web import wall

SMALL = wall.Limits(silent_s=20, busy_s=1, memory_bytes=50_000_000, found_bytes=1_000_000)


def process_that_reads(data: bytes) -> int:
    return os.getpid()


def takes_memory(data: bytes) -> int:
    return len([bytes(1_000_000) for _ in range(1000)])


def takes_time(data: bytes) -> int:
    while True:
        pass


def sleeps(data: bytes) -> int:
    time.sleep(60)
    return 0


def dies(data: bytes) -> int:
    os.abort()


def breaks(data: bytes) -> int:
    return len(data) // 0


def finds_much(data: bytes) -> Iterator[bytes]:
    while True:
        yield bytes(100_000)


def writes(data: bytes) -> int:
    return Path(data.decode()).write_text("here")


def lies(data: bytes) -> int:
    return "no number"  # type: ignore[return-value]


def refuses(data: bytes) -> Site:
    raise BrokenBundle("It is none: no, none.")


def says(data: bytes) -> tuple[str, bytes, Path | None]:
    return "ä", b"\x00\xff", None


def test_what_was_found_comes_back_as_it_was_from_another_process() -> None:
    assert wall.read(says, b"") == says(b"")
    assert wall.read(process_that_reads, b"") != os.getpid()


@pytest.mark.parametrize(
    ("reader", "reason"),
    [
        (takes_memory, "more memory"),
        (takes_time, "too long"),
        (sleeps, "too long"),
        (dies, "broke"),
        (breaks, "broke"),
        (writes, "broke"),
    ],
)
def test_a_reader_that_wants_more_than_it_may_ends_alone_and_it_is_said_why(
    reader: wall.Reader, reason: str, tmp_path: Path
) -> None:
    limits = SMALL._replace(silent_s=3)
    with pytest.raises(wall.Unread, match=reason):
        wall.read(reader, str(tmp_path / "left.txt").encode(), limits=limits)
    assert not (tmp_path / "left.txt").exists() or not (tmp_path / "left.txt").read_text()


def test_of_what_finds_without_end_no_more_comes_in_than_may() -> None:
    came = 0
    with pytest.raises(wall.Unread):
        for found in wall.read_each(finds_much, b"", limits=SMALL):
            came += len(found)
    assert 0 < came <= SMALL.found_bytes


def test_what_is_not_what_the_reader_says_that_it_gives_comes_no_further() -> None:
    with pytest.raises(wall.Unread):
        wall.read(lies, b"")


def test_a_refusal_of_the_readers_own_is_said_in_its_words() -> None:
    with pytest.raises(BrokenBundle, match=r"It is none: no, none\."):
        wall.read(refuses, b"", refusals=(BrokenBundle,))
