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


_REVISION = "return Number(document.querySelector('#screen form [name=base]').value)"
_UNDO = """
const [times, done] = arguments;
const base = () => document.querySelector('#screen form [name=base]').value;
(async () => {
  for (let at = 0; at < times; at += 1)
    await htmx.ajax('POST', location.pathname, { target: '#screen', swap: 'morph:innerHTML', values: { do: 'undo', base: base() } });
  done();
})();
"""


@contextmanager
def signed_in(slug: str) -> Iterator[Browser]:
    """Whatever is edited meanwhile is undone in the end: the site is as it was."""
    with tempfile.TemporaryDirectory() as downloads:
        browser = Browser(application(), Path(downloads))
        try:
            browser.sign_in()
            browser.go(f"/s/{slug}/foundations/")
            before = browser.js(_REVISION)
            yield browser
            browser.go(f"/s/{slug}/foundations/")
            browser.driver.execute_async_script(_UNDO, browser.js(_REVISION) - before)
        finally:
            browser.quit()
