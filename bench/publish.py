"""How does publishing compare with copying the finished site? `python -m bench publish`

Prints the command line's `publish` of a bundle as a ratio to `cp -r` of what it wrote, both with warm caches (best of
three), and the peak memory of publishing.
"""

from __future__ import annotations

import shutil
import subprocess
import sys
import tempfile
import time
from collections.abc import Iterator
from pathlib import Path

from upper_rim.core.exchange.bundle import write_bundle

from .corpus import large_site
from .measured import Measured, table


def measure(tiny: bool) -> Iterator[Measured]:
    page_count = 60 if tiny else 5000
    with tempfile.TemporaryDirectory() as folder:
        bundle, out, copy = (Path(folder) / name for name in ("bundle.zip", "out", "copy"))
        site, read = large_site(page_count)
        with bundle.open("wb") as file:
            write_bundle(file, site, read)
        command = [sys.executable, "-m", "upper_rim.cli", "publish", str(bundle), "--out", str(out)]
        publishing, copying = [], []
        for _ in range(1 if tiny else 3):
            shutil.rmtree(out, ignore_errors=True)
            publishing.append(_seconds(command))
            shutil.rmtree(copy, ignore_errors=True)
            copying.append(_seconds(["cp", "-r", str(out), str(copy)]))
        shutil.rmtree(out)
        peak = _peak_megabytes(command)
    copied = ("cp -r of what was published", min(copying))
    yield Measured(f"publishing {page_count} pages", min(publishing), 4 * copied[1], "s", copied)
    yield Measured("its peak memory, all processes together", peak, None, "MB", ("a hundred MB", 100.0))


def _seconds(command: list[str]) -> float:
    begin = time.perf_counter()
    done = subprocess.run(command)
    assert done.returncode in {0, 1}, "done, though something may deserve a look"
    return time.perf_counter() - begin


def _peak_megabytes(command: list[str]) -> float:
    """The largest sum of proportional set sizes (memory shared between processes counted once) while it runs."""
    running = subprocess.Popen(command)
    peak = 0
    while running.poll() is None:
        peak = max(peak, sum(_proportional_kilobytes(pid) for pid in (running.pid, *_children(running.pid))))
        time.sleep(0.01)
    return peak / 1000


def _children(pid: int) -> list[int]:
    try:
        return [int(child) for child in Path(f"/proc/{pid}/task/{pid}/children").read_text().split()]
    except OSError:
        return []


def _proportional_kilobytes(pid: int) -> int:
    try:
        lines = Path(f"/proc/{pid}/smaps_rollup").read_text().splitlines()
    except OSError:
        return 0
    return next((int(line.split()[1]) for line in lines if line.startswith("Pss:")), 0)


if __name__ == "__main__":
    print(table(measure("--tiny" in sys.argv)))
