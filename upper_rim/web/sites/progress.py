"""How far is something that takes long? Told to the database now and then, for whoever waits."""

from __future__ import annotations

import time
from typing import Any

from django.db.models import QuerySet

EVERY_S = 0.5


class Progress:
    """Tells a row how many are `done`, at most twice a second."""

    def __init__(self, rows: QuerySet[Any]) -> None:
        self._rows = rows
        self._told = time.monotonic()

    def tell(self, done: int) -> None:
        if time.monotonic() - self._told > EVERY_S:
            self._rows.update(done=done)
            self._told = time.monotonic()
