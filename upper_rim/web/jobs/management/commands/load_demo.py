"""`manage.py load_demo`: the demo sites and accounts, once; a second call changes nothing."""

from __future__ import annotations

from typing import Any

from django.contrib.auth import get_user_model
from django.contrib.auth.hashers import make_password
from django.core.management.base import BaseCommand, CommandParser
from django.db import transaction
from django.utils.crypto import get_random_string

from .....demo import ostrey, quillwort
from ....sites import store
from ....sites.models import StoredSite
from ...publishing import make_edition, new_edition

COLLEAGUE = "colleague"
PASSWORDS = {
    "ostrey": (("pc-press-door", "Newspapers", "tide-and-tern"), ("pc-press-door", "Broadcasters", "lamp-on-skarrow"))
}
"""By site: the gate, for whom, and what they type."""


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
            for gate, label, secret in PASSWORDS.get(slug, ()):
                stamp = get_random_string(16)
                stored.passwords.create(gate=gate, label=label, hash=make_password(secret), stamp=stamp)
            make_edition(new_edition(stored, designer.pk).pk)
