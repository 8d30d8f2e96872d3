"""How does publishing compare with copying the finished site? `python -m bench.publish [PAGES]`

Prints the command line's `publish` of a bundle as a ratio to `cp -r` of what it wrote, both with warm caches (best of
three), and the peak memory of publishing.
"""

from __future__ import annotations

import resource
import shutil
import subprocess
import sys
import tempfile
import time
from pathlib import Path

from upper_rim.core.exchange.bundle import write_bundle

from .corpus import large_site


def main() -> None:
    page_count = int(sys.argv[1]) if len(sys.argv) > 1 else 5000
    with tempfile.TemporaryDirectory() as folder:
        bundle, out, copy = (Path(folder) / name for name in ("bundle.zip", "out", "copy"))
        site, read = large_site(page_count)
        with bundle.open("wb") as file:
            write_bundle(file, site, read)
        command = [sys.executable, "-m", "upper_rim.cli", "publish", str(bundle), "--out", str(out)]
        publishing, copying = [], []
        for _ in range(3):
            shutil.rmtree(out, ignore_errors=True)
            publishing.append(_seconds(command))
            shutil.rmtree(copy, ignore_errors=True)
            copying.append(_seconds(["cp", "-r", str(out), str(copy)]))
    peak = resource.getrusage(resource.RUSAGE_CHILDREN).ru_maxrss / 1000
    print(
        f"{page_count} pages: publish {min(publishing):.2f} s, cp -r {min(copying):.2f} s, ratio {min(publishing) / min(copying):.2f}"
    )
    print(f"peak memory of publishing {peak:.0f} MB")


def _seconds(command: list[str]) -> float:
    begin = time.perf_counter()
    subprocess.run(command, check=True)
    return time.perf_counter() - begin


if __name__ == "__main__":
    main()
