"""Does the browser do what fit predicts?

python -m bench.fit_against_browser [SITES [FIRST]] [--shaped]

Publishes generated sites (headers and footers; Latin, Greek, Cyrillic and Arabic; random faces, sizes, units, cells,
items, bands; with `--shaped` on pages of others' making, beside their scroll bars), and steps Chromium through widths of
chance and those around each predicted change. Prints the shares of predictions that were right, and every one that was
not.
"""

from __future__ import annotations

import sys
import time

from tests.browser.conftest import plain_chromium
from tests.fit_judge import Tally, compare, served


def main() -> None:
    numbers = [int(one) for one in sys.argv[1:] if one.isdigit()]
    sites, first = numbers[0] if numbers else 400, numbers[1] if numbers[1:] else 0
    shaped = "--shaped" in sys.argv
    tally = Tally()
    started = time.perf_counter()
    driver = plain_chromium(frames="none", bars=shaped)
    try:
        with served() as (files, port):
            for seed in range(first, first + sites):
                compare(seed, driver, files, port, tally, shaped=shaped)
    finally:
        driver.quit()
    for fault in tally.faults:
        print(fault)
    print(f"{sites} sites in {time.perf_counter() - started:.0f} s")
    if shaped:
        print(f"{tally.beside_bars} of them beside a scroll bar")
    for kind in tally.compared:
        print(f"{kind}: {100 * tally.share(kind):.2f} % of {tally.compared[kind]} right")


if __name__ == "__main__":
    main()
