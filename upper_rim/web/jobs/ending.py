"""How does a work end?"""

from __future__ import annotations

from collections.abc import Iterable

from ...core.exchange.imports.import_pages import Problem
from ..sites.models import Work


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
