"""Do pieces stand where movement predicts while a page is scrolled?

python -m bench.movement_against_browser [SITES [FIRST]]

Publishes generated sites (stacks of up to four pieces, stages, hand-overs, what shows upwards only, sidebars, heights
of chance), scrolls each in Chromium through three viewports along a path of chance with transitions off, and compares
every piece's rectangle and stage at every moment. Prints the share of moments at which all was right, and each that was
not.
"""

from __future__ import annotations

import sys
import time

from tests.browser.conftest import plain_chromium
from tests.fit_judge import Tally, served
from tests.movement_judge import compare_movement


def main() -> None:
    sites = int(sys.argv[1]) if len(sys.argv) > 1 else 200
    first = int(sys.argv[2]) if len(sys.argv) > 2 else 0
    tally = Tally()
    started = time.perf_counter()
    driver = plain_chromium()
    driver.set_script_timeout(120)
    try:
        with served() as (files, port):
            for seed in range(first, first + sites):
                compare_movement(seed, driver, files, port, tally)
    finally:
        driver.quit()
    for fault in tally.faults:
        print(fault)
    print(f"{sites} sites in {time.perf_counter() - started:.0f} s, {tally.compared['rectangles']} rectangles")
    for kind in ("pages", "moments"):
        print(f"{kind}: {100 * tally.share(kind):.2f} % of {tally.compared[kind]} right")


if __name__ == "__main__":
    main()
