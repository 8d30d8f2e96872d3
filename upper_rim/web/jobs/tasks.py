"""The work that is done in the background. Procrastinate keeps the queue in PostgreSQL."""

from __future__ import annotations

import logging
from collections.abc import Callable
from contextlib import suppress

from asgiref.sync import sync_to_async
from django.db import connection, transaction
from procrastinate import JobContext, RetryStrategy
from procrastinate.contrib.django import app
from procrastinate.exceptions import AlreadyEnqueued
from procrastinate.jobs import Job, Status

from ..sites.storage import NO_ROOM, no_room
from . import arriving, lifting, publishing, sweeping
from .ending import fail_work

log = logging.getLogger(__name__)

HEARTBEAT_S = 2.0
STALLED_AFTER_S = 8.0


@app.task(name="publish", retry=RetryStrategy(max_attempts=3, wait=2))
def publish(edition_id: int) -> None:
    _connected_anew()
    try:
        publishing.make_edition(edition_id)
    except Exception as error:
        log.exception("edition %s could not be published", edition_id)
        said = NO_ROOM if no_room(error) else "Something went wrong while publishing; publish again."
        publishing.fail_edition(edition_id, f"{said} The site still shows its last edition.")
        raise


@app.task(name="take_in")
def take_in(work_id: int) -> None:
    _work(arriving.take_in, work_id)


@app.task(name="lift_out")
def lift_out(work_id: int) -> None:
    _work(lifting.lift_out, work_id)


def _connected_anew() -> None:
    """Where a restart of the database has broken the connection that the last job left."""
    if connection.connection is not None and not connection.is_usable():
        connection.close()


@app.periodic(cron="17 3 * * *")
@app.task(name="sweep", queueing_lock="sweep")
def sweep(timestamp: int = 0) -> None:
    """Each night, and some time after a site was deleted."""
    _connected_anew()
    log.info("swept away: %s", sweeping.sweep())


def sweep_later() -> None:
    """Once, however many have gone."""
    with suppress(AlreadyEnqueued), transaction.atomic():
        sweep.configure(schedule_in={"seconds": int(1.1 * sweeping.YOUNG.total_seconds())}).defer()


def _work(do: Callable[[int], None], work_id: int) -> None:
    _connected_anew()
    try:
        do(work_id)
    except Exception as error:
        log.exception("work %s could not be done", work_id)
        fail_work(work_id, NO_ROOM if no_room(error) else WENT_WRONG)
        raise


WENT_WRONG = "Something went wrong while it was read; nothing was changed. Try again, or with less of it."


MOST_TRIES = 3
GAVE_UP = (
    "The worker that did it ended three times, so it is not tried again; nothing was changed. "
    "It may be too much at once, or made to do harm."
)


@app.periodic(cron="* * * * * */4")
@app.task(name="take_up_stalled", pass_context=True, queueing_lock="take_up_stalled")
async def take_up_stalled(context: JobContext, timestamp: int) -> None:
    """Jobs whose worker has died are put back into the queue, three times at most; then they fail, and what they worked
    at says so."""
    manager = app.job_manager
    for job in await manager.get_stalled_jobs(seconds_since_heartbeat=STALLED_AFTER_S):
        if job.attempts + 1 < MOST_TRIES:
            await manager.retry_job(job)
            continue
        await sync_to_async(_give_up)(job)
        await manager.finish_job(job, status=Status.FAILED, delete_job=False)


def _give_up(job: Job) -> None:
    if job.task_name == "publish":
        publishing.fail_edition(int(str(job.task_kwargs["edition_id"])), GAVE_UP)
    elif "work_id" in job.task_kwargs:
        fail_work(int(str(job.task_kwargs["work_id"])), GAVE_UP)
    connection.close()  # Of a thread that does nothing else.
