"""`manage.py work`: one worker, which takes up what a dead one has left."""

from __future__ import annotations

from typing import Any, cast

from django.core.management.base import BaseCommand
from procrastinate.contrib.django import app
from procrastinate.contrib.django.django_connector import DjangoConnector

from ...tasks import HEARTBEAT_S, STALLED_AFTER_S


class Command(BaseCommand):
    help = "Does the work in the background: publishing, reading archives."

    def handle(self, *args: Any, **options: Any) -> None:
        connector = cast(DjangoConnector, app.connector).get_worker_connector()
        with app.replace_connector(connector) as worker_app:
            worker_app.run_worker(
                concurrency=2,
                fetch_job_polling_interval=1.0,
                update_heartbeat_interval=HEARTBEAT_S,
                stalled_worker_timeout=STALLED_AFTER_S,
                delete_jobs="successful",
            )
