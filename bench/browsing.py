"""A signed-in browser on the whole application, run as ./start does, for benches that stop the clock on a screen."""

from __future__ import annotations

import atexit
import tempfile
from collections.abc import Iterator
from contextlib import contextmanager
from functools import cache
from pathlib import Path

from tests.browser.conftest import Browser, Chromium, Running


@cache
def application() -> Running:
    """One application for all benches of a run."""
    running = Running()
    atexit.register(running.stop)
    atexit.register(Chromium.quit_idle)
    return running


@contextmanager
def signed_in() -> Iterator[Browser]:
    with tempfile.TemporaryDirectory() as downloads:
        browser = Browser(application(), Path(downloads))
        try:
            browser.sign_in()
            yield browser
        finally:
            browser.quit()
