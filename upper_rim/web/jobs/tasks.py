"""The work that is done in the background. Procrastinate keeps the queue in PostgreSQL."""

from __future__ import annotations

import logging

from procrastinate import JobContext, RetryStrategy
from procrastinate.contrib.django import app

from . import arriving, lifting, publishing

log = logging.getLogger(__name__)

HEARTBEAT_S = 2.0
STALLED_AFTER_S = 8.0


@app.task(name="publish", retry=RetryStrategy(max_attempts=3, wait=2))
def publish(edition_id: int) -> None:
    try:
        publishing.make_edition(edition_id)
    except Exception:
        log.exception("edition %s could not be published", edition_id)
        publishing.fail_edition(
            edition_id, "Something went wrong while publishing. The site still shows its last edition; publish again."
        )
        raise


@app.task(name="take_in")
def take_in(work_id: int) -> None:
    arriving.take_in(work_id)


@app.task(name="lift_out")
def lift_out(work_id: int) -> None:
    lifting.lift_out(work_id)


@app.periodic(cron="* * * * * */4")
@app.task(name="take_up_stalled", pass_context=True, queueing_lock="take_up_stalled")
async def take_up_stalled(context: JobContext, timestamp: int) -> None:
    """Jobs whose worker has died are put back into the queue."""
    manager = app.job_manager
    for job in await manager.get_stalled_jobs(seconds_since_heartbeat=STALLED_AFTER_S):
        await manager.retry_job(job)
