"""`manage.py load_demo`: the demo sites and accounts, once; a second call changes nothing."""

from __future__ import annotations

from typing import Any

from django.contrib.auth import get_user_model
from django.core.management.base import BaseCommand, CommandParser
from django.db import transaction

from .....demo import ostrey, quillwort
from ....sites import store
from ....sites.models import StoredSite
from ...publishing import make_edition, new_edition

COLLEAGUE = "colleague"


class Command(BaseCommand):
    help = "Makes the demo account and the demo sites, where they are not there yet."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("--name", default="designer")
        parser.add_argument("--password", required=True)

    @transaction.atomic
    def handle(self, *args: Any, name: str, password: str, **options: Any) -> None:
        users = get_user_model().objects
        designer = users.filter(username=name).first() or users.create_user(name, password=password)
        colleague = users.filter(username=COLLEAGUE).first() or users.create_user(COLLEAGUE, password=password)
        for slug, make in (("ostrey", ostrey), ("quillwort", quillwort)):
            if StoredSite.objects.filter(slug=slug).exists():
                continue
            stored = store.new_site(designer, *make(), slug=slug)
            stored.people.add(colleague)
            make_edition(new_edition(stored, designer.pk).pk)
