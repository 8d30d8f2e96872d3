"""Does the browser do what fit predicts?

python -m bench.fit_against_browser [SITES [FIRST]]

Publishes generated sites (headers and footers; Latin, Greek, Cyrillic and Arabic; random faces, sizes, units, cells,
items, bands), and steps Chromium through widths of chance and those around each predicted change. Prints the shares of
predictions that were right, and every one that was not.
"""

from __future__ import annotations

import sys
import time

from tests.browser.conftest import plain_chromium
from tests.fit_judge import Tally, compare, served


def main() -> None:
    sites = int(sys.argv[1]) if len(sys.argv) > 1 else 400
    first = int(sys.argv[2]) if len(sys.argv) > 2 else 0
    tally = Tally()
    started = time.perf_counter()
    driver = plain_chromium(frames="none")
    try:
        with served() as (files, port):
            for seed in range(first, first + sites):
                compare(seed, driver, files, port, tally)
    finally:
        driver.quit()
    for fault in tally.faults:
        print(fault)
    print(f"{sites} sites in {time.perf_counter() - started:.0f} s")
    for kind in tally.compared:
        print(f"{kind}: {100 * tally.share(kind):.2f} % of {tally.compared[kind]} right")


if __name__ == "__main__":
    main()
