"""Whose turn is it? Who has much waiting keeps nobody else waiting: of each the first comes before the second of any."""

from __future__ import annotations

from procrastinate.tasks import Task

from ..sites.models import Edition, Undertaking, Work


def begin_work(work: Work, task: Task) -> None:
    """Puts what somebody has asked for into the queue."""
    task.configure(priority=_turn(work)).defer(work_id=work.pk)


def begin_edition(edition: Edition, task: Task) -> None:
    """The same; an edition that waits already is made once."""
    task.configure(lock=f"edition-{edition.pk}", priority=_turn(edition)).defer(edition_id=edition.pk)


def _turn(asked: Work | Edition) -> int:
    """The less, the more there is of the same person's, or of nobody's at that site, that is not done yet."""
    unfinished = {"state__in": (Undertaking.State.WAITING, Undertaking.State.WORKING)}
    whose = {"author": asked.author_id} if asked.author_id else {"site": asked.site_id}
    found = (model.objects.filter(**unfinished, **whose).count() for model in (Work, Edition))
    return 1 - sum(found)
