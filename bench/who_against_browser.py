"""Do visitors see what is predicted, on more sites than the tests'?

python -m bench.who_against_browser [COUNT [FIRST]]

Generated sites, three pages each, looked at by three visitors in Chromium: how many outcomes of pieces, rows and items
there were, and how many were as predicted.
"""

from __future__ import annotations

import sys

from tests.browser.conftest import plain_chromium
from tests.who_judge import judged


def main(count: int, first: int) -> None:
    driver = plain_chromium(frames="none")
    try:
        wrong, outcomes = judged(driver, range(first, first + count))
    finally:
        driver.quit()
    for one in wrong[:10]:
        print(*one)
    missed = sum(len(more) + len(less) for _, _, more, less, _ in wrong)
    print(f"{count} sites, {outcomes} outcomes, {100 * (1 - missed / max(outcomes, 1)):.3f} % as predicted")


if __name__ == "__main__":
    main(*(int(said) for said in [*sys.argv[1:], *("300", "1000")[len(sys.argv) - 1 :]]))
