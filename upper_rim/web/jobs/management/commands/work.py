"""`manage.py work`: one worker, which takes up what a dead one has left, and waits for a database that is away."""

from __future__ import annotations

import asyncio
import logging
import signal
import time
from contextlib import suppress
from typing import Any, cast

from django.core.management.base import BaseCommand
from procrastinate.contrib.django import app
from procrastinate.contrib.django.django_connector import DjangoConnector
from procrastinate.exceptions import ConnectorException

from ...tasks import HEARTBEAT_S, STALLED_AFTER_S

log = logging.getLogger(__name__)

AGAIN_S = 2.0


class Command(BaseCommand):
    help = "Does the work in the background: publishing, reading archives."

    def handle(self, *args: Any, **options: Any) -> None:
        while not asyncio.run(self._work()):
            log.warning("the database went away; it is asked again in %s seconds", AGAIN_S)
            time.sleep(AGAIN_S)

    async def _work(self) -> bool:
        """Until somebody stops it (True), or the database does not answer any more."""
        connector = cast(DjangoConnector, app.connector).get_worker_connector()
        loop, was_stopped = asyncio.get_running_loop(), False

        def stop() -> None:
            nonlocal was_stopped
            was_stopped = True
            working.cancel()

        with app.replace_connector(connector) as worker_app, suppress(ConnectorException, asyncio.CancelledError):
            async with worker_app.open_async():
                working = asyncio.create_task(
                    worker_app.run_worker_async(
                        concurrency=2,
                        fetch_job_polling_interval=1.0,
                        update_heartbeat_interval=HEARTBEAT_S,
                        stalled_worker_timeout=STALLED_AFTER_S,
                        delete_jobs="successful",
                        install_signal_handlers=False,
                    )
                )
                for told in (signal.SIGINT, signal.SIGTERM):
                    loop.add_signal_handler(told, stop)
                await working
        return was_stopped
