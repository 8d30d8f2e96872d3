"""Generated sites one by one, each with a browser and a server of its files: `[SITES [FIRST]]` on the command line."""

from __future__ import annotations

import sys
from collections.abc import Iterator
from typing import NamedTuple

from selenium import webdriver

from tests.browser.conftest import plain_chromium
from tests.fit_judge import served


class Generated(NamedTuple):
    seed: int
    driver: webdriver.Chrome
    files: dict[str, bytes]
    port: int


def generated(usual: int) -> Iterator[Generated]:
    """`usual`: how many, where it is not said."""
    sites = int(sys.argv[1]) if len(sys.argv) > 1 else usual
    first = int(sys.argv[2]) if len(sys.argv) > 2 else 0
    driver = plain_chromium()
    driver.set_script_timeout(120)
    try:
        with served() as (files, port):
            for seed in range(first, first + sites):
                yield Generated(seed, driver, files, port)
    finally:
        driver.quit()
