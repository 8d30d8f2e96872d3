"""Gates and consent on one site, on our server and in the ZIP: what visitors meet, and of whom their browser asks
something."""

from __future__ import annotations

from collections.abc import Callable
from datetime import datetime

import pytest
from selenium import webdriver

from tests.consent_judge import Proxy
from tests.folder import Folder
from tests.walk_judge import STEPS, judged
from upper_rim.core.model.site import Site
from upper_rim.web.live import gates

SITES = 6


@pytest.mark.django_db(transaction=True)
def test_on_our_server_visitors_meet_what_is_foreseen(
    driver: webdriver.Chrome,
    proxy: Proxy,
    folder: Folder,
    live: Callable[[Site, dict[str, bytes]], str],
    monkeypatch: pytest.MonkeyPatch,
) -> None:
    clock: list[datetime] = []
    monkeypatch.setattr(gates, "now", lambda: clock[-1])
    wrong, steps = judged(driver, proxy, folder, range(SITES), live, clock.append)
    assert wrong == [] and steps == STEPS * SITES


def test_from_the_zip_visitors_meet_what_is_foreseen(driver: webdriver.Chrome, proxy: Proxy, folder: Folder) -> None:
    wrong, steps = judged(driver, proxy, folder, range(SITES, 2 * SITES))
    assert wrong == [] and steps == STEPS * SITES
