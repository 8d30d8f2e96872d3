"""How far is the work? Told to the database now and then, for whoever waits."""

from __future__ import annotations

import time
from collections.abc import Iterable

from ...core.exchange.imports.import_pages import Problem
from ..sites.models import Edition, Work

EVERY_S = 0.5


class Progress:
    """Tells how many are done, at most twice a second."""

    def __init__(self, model: type[Edition] | type[Work], pk: int) -> None:
        self._row = model.objects.filter(pk=pk)
        self._told = time.monotonic()

    def tell(self, done: int) -> None:
        if time.monotonic() - self._told > EVERY_S:
            self._row.update(done=done)
            self._told = time.monotonic()


def end_work(work: Work, state: str, message: str, problems: Iterable[Problem] = ()) -> None:
    Work.objects.filter(pk=work.pk).update(
        state=state, message=message, problems=[problem._asdict() for problem in problems], done=work.total
    )


def fail_work(work_id: int, message: str) -> None:
    """Says why nothing came of it; what is done stays done."""
    ended = {Work.State.DONE, Work.State.FAILED}
    for work in Work.objects.filter(pk=work_id).exclude(state__in=ended):
        end_work(work, Work.State.FAILED, message)
        work.file.delete(save=False)
