"""A signed-in client on a database, for benches that stop the clock on an answer of the server."""

from __future__ import annotations

import os
import time
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from typing import TYPE_CHECKING

import django

if TYPE_CHECKING:
    from django.contrib.auth.models import User
    from django.test import Client

HEADERS = {"HX-Request": "true"}


@contextmanager
def asking() -> Iterator[tuple[Client, User]]:
    """A client of Django's own (all middleware, a real database), and who is signed in with it."""
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "upper_rim.web.settings")
    django.setup()
    from django.contrib.auth import get_user_model
    from django.core.management import call_command
    from django.template.base import Template
    from django.test import Client
    from django.test.utils import setup_test_environment, teardown_test_environment

    rendered = Template._render
    setup_test_environment()
    # Tests keep a copy of every context that is rendered; what runs for designers does not.
    Template._render = rendered
    call_command("migrate", verbosity=0)
    user = get_user_model().objects.create_user(f"bench-{os.getpid()}", password="p")
    client = Client(HTTP_HOST="localhost")
    client.force_login(user, backend="django.contrib.auth.backends.ModelBackend")
    try:
        yield client, user
    finally:
        user.delete()
        teardown_test_environment()


def best_ms(act: Callable[[int], object], times: int) -> float:
    """The least of so many, after three that do not count: see `Measured`. `act` is told which one it is."""
    for at in range(3):
        act(at)
    taken = []
    for at in range(3, times + 3):
        begin = time.perf_counter()
        act(at)
        taken.append((time.perf_counter() - begin) * 1000)
    return min(taken)
