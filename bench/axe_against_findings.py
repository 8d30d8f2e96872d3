"""Do the findings say what axe-core says of published pages?

python -m bench.axe_against_findings [SITES [FIRST]]

Publishes generated sites with holes in them, on pages with faults of their own, and asks axe-core at two widths. Prints
what axe alone says, which is to be nothing, and how often we alone say something of what it knows, and why.
"""

from __future__ import annotations

import time
from collections import Counter

from tests.axe_judge import WE_ALONE, unlike

from .generated import generated


def main() -> None:
    alone: Counter[str] = Counter()
    sites = unsaid = 0
    started = time.perf_counter()
    for one in generated(300):
        by_axe, by_us = unlike(*one)
        sites += 1
        unsaid += len(by_axe)
        alone.update(found.kind for found in by_us)
        for said in by_axe:
            print(one.seed, *said)
    print(f"{sites} pages in {time.perf_counter() - started:.0f} s; axe alone: {unsaid}")
    for kind, count in alone.most_common():
        print(f"we alone: {count} {kind} ({WE_ALONE.get(kind, 'not explained')})")


if __name__ == "__main__":
    main()
