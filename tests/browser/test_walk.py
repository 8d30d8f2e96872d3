"""Gates and consent on one site, on our server and in the ZIP: what visitors meet, and of whom their browser asks
something."""

from __future__ import annotations

from collections.abc import Iterator
from datetime import datetime
from itertools import count
from typing import Any

import pytest
from django.contrib.auth.hashers import make_password
from django.contrib.auth.models import User
from selenium import webdriver

from tests.consent_judge import Proxy, behind
from tests.folder import Folder
from tests.gates_judge import RIGHT
from tests.walk_judge import STEPS, judged
from upper_rim.core.kinds.pieces.password import PasswordGate
from upper_rim.core.model.site import Site
from upper_rim.web.jobs import publishing
from upper_rim.web.live import gates
from upper_rim.web.sites import store

from .conftest import chromium_options

SITES = 6


@pytest.fixture
def proxy() -> Iterator[Proxy]:
    made = Proxy()
    yield made
    made.close()


@pytest.fixture
def driver(proxy: Proxy) -> Iterator[webdriver.Chrome]:
    made = behind(proxy, chromium_options())
    yield made
    made.quit()


@pytest.mark.django_db(transaction=True)
def test_on_our_server_visitors_meet_what_is_foreseen(
    driver: webdriver.Chrome,
    proxy: Proxy,
    folder: Folder,
    live_server: Any,
    settings: Any,
    monkeypatch: pytest.MonkeyPatch,
) -> None:
    settings.REGION_HEADER = "X-Region"
    settings.PASSWORD_HASHERS = ["django.contrib.auth.hashers.MD5PasswordHasher"]
    ada, names = User.objects.create_user("ada"), count()
    clock: list[datetime] = []
    monkeypatch.setattr(gates, "now", lambda: clock[-1])

    def live(site: Site, contents: dict[str, bytes]) -> str:
        stored = store.new_site(ada, site, contents, slug=f"walked-{next(names)}")
        for gate in (piece for piece in site.pieces if isinstance(piece, PasswordGate)):
            stored.passwords.create(gate=gate.id, label="All", hash=make_password(RIGHT), stamp="x")
        publishing.make_edition(publishing.new_edition(stored, ada.pk).pk)
        return f"http://{stored.slug}.localhost:{live_server.url.rpartition(':')[2]}"

    wrong, steps = judged(driver, proxy, folder, range(SITES), live, clock.append)
    assert wrong == [] and steps == STEPS * SITES


def test_from_the_zip_visitors_meet_what_is_foreseen(driver: webdriver.Chrome, proxy: Proxy, folder: Folder) -> None:
    wrong, steps = judged(driver, proxy, folder, range(SITES, 2 * SITES))
    assert wrong == [] and steps == STEPS * SITES
