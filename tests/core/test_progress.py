"""What a command that takes its time says on a terminal, and nowhere else."""

from __future__ import annotations

import io
import re
import sys
import time

import pytest

from upper_rim.cli.progress import Progress, progress


class Terminal(io.StringIO):
    def isatty(self) -> bool:
        return True


def lines_of(out: io.StringIO) -> list[str]:
    return re.split(r"\r\x1b\[2K", out.getvalue())[1:]


def test_it_is_told_after_a_second_not_more_often_than_can_be_read_and_goes_again(
    monkeypatch: pytest.MonkeyPatch,
) -> None:
    now = 100.0
    monkeypatch.setattr(time, "monotonic", lambda: now)
    out = Terminal()
    told = Progress(out)
    listed = []
    for at in told.counted("Pages read:", range(300), 300):
        listed.append(at)
        now += 0.01
    assert listed == list(range(300))
    lines = lines_of(out)
    assert 15 < len(lines) < 25 and lines[0] == "Pages read: 101 of 300", "nothing within the first second"
    told.end()
    assert lines_of(out)[-1] == ""


def test_it_is_told_to_terminals_alone_and_not_where_quiet_is_asked_for(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr("upper_rim.cli.progress.AFTER_S", 0)
    monkeypatch.setattr("upper_rim.cli.progress.EVERY_S", 0)
    for out, quiet, is_told in ((Terminal(), False, True), (Terminal(), True, False), (io.StringIO(), False, False)):
        monkeypatch.setattr(sys, "stderr", out)
        with progress(quiet=quiet) as told:
            told.tell("The search index is made")
        assert (lines_of(out) == ["The search index is made", ""]) is is_told and bool(out.getvalue()) is is_told
