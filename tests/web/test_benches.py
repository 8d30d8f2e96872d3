"""No bench rots: each runs at a tiny size, and tells its figures."""

from __future__ import annotations

import subprocess
import sys

import pytest

from bench.__main__ import BENCHES
from bench.measured import Measured, table
from tests.browser.conftest import ROOT


@pytest.mark.parametrize("name", ["fit", "movement", "weight", "publish", "search", "coverage", "findings"])
def test_a_bench_runs_and_tells_what_it_got(name: str) -> None:
    found = list(BENCHES[name](True))
    assert found and all(one.got > 0 and one.yardstick[1] > 0 for one in found)
    assert all(one.name in table(found) for one in found)


def test_benches_of_the_studio_run_one_after_the_other_and_tell_what_they_got() -> None:
    of_the_studio = ["edits", "menus", "edition", "wording", "many_pages"]
    command = [sys.executable, "-m", "bench", "--tiny", *of_the_studio]
    done = subprocess.run(command, cwd=ROOT, capture_output=True, text=True, timeout=300)
    assert done.returncode == 0, done.stderr[-2000:]
    assert all(told in done.stdout for told in ("listing the sites", "cp -r"))


def test_what_falls_short_says_so() -> None:
    quick, slow = (Measured("x", got, 5.0, "ms", ("y", 2.0)) for got in (4.0, 6.0))
    assert not quick.is_short and slow.is_short and table([slow]).endswith("short")
