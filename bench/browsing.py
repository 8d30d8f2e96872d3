"""A signed-in browser on the whole application, run as ./start does, for benches that stop the clock on a screen."""

from __future__ import annotations

import tempfile
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from tests.browser.conftest import Browser, Running


@contextmanager
def signed_in() -> Iterator[Browser]:
    running = Running()
    try:
        with tempfile.TemporaryDirectory() as downloads:
            browser = Browser(running, Path(downloads))
            try:
                browser.sign_in()
                yield browser
            finally:
                browser.quit()
    finally:
        running.stop()
