"""Do the findings say what axe-core says of published pages?

python -m bench.axe_against_findings [SITES [FIRST]]

Publishes generated sites with holes in them, on pages with faults of their own, and asks axe-core at two widths. Prints
what axe alone says, which is to be nothing, and how often we alone say something of what it knows, and why.
"""

from __future__ import annotations

import sys
import time
from collections import Counter

from tests.axe_judge import WE_ALONE, unlike
from tests.browser.conftest import plain_chromium
from tests.fit_judge import served


def main() -> None:
    sites = int(sys.argv[1]) if len(sys.argv) > 1 else 300
    first = int(sys.argv[2]) if len(sys.argv) > 2 else 0
    alone: Counter[str] = Counter()
    unsaid = 0
    started = time.perf_counter()
    driver = plain_chromium()
    driver.set_script_timeout(120)
    try:
        with served() as (files, port):
            for seed in range(first, first + sites):
                by_axe, by_us = unlike(seed, driver, files, port)
                alone.update(one.kind for one in by_us)
                unsaid += len(by_axe)
                for said in by_axe:
                    print(seed, *said)
    finally:
        driver.quit()
    print(f"{sites} pages in {time.perf_counter() - started:.0f} s; axe alone: {unsaid}")
    for kind, count in alone.most_common():
        print(f"we alone: {count} {kind} ({WE_ALONE.get(kind, 'not explained')})")


if __name__ == "__main__":
    main()
