"""Do pieces stand where movement predicts while a page is scrolled?

python -m bench.movement_against_browser [SITES [FIRST]]

Publishes generated sites (stacks of up to four pieces, stages, hand-overs, what shows upwards only, sidebars, heights
of chance), scrolls each in Chromium through three viewports along a path of chance with transitions off, and compares
every piece's rectangle and stage at every moment. Prints the share of moments at which all was right, and each that was
not.
"""

from __future__ import annotations

import time

from tests.fit_judge import Tally
from tests.movement_judge import compare_movement

from .generated import generated


def main() -> None:
    sites, tally = 0, Tally()
    started = time.perf_counter()
    for seed, *at in generated(200):
        compare_movement(seed, *at, tally)
        sites += 1
    for fault in tally.faults:
        print(fault)
    print(f"{sites} sites in {time.perf_counter() - started:.0f} s, {tally.compared['rectangles']} rectangles")
    for kind in ("pages", "moments"):
        print(f"{kind}: {100 * tally.share(kind):.2f} % of {tally.compared[kind]} right")


if __name__ == "__main__":
    main()
