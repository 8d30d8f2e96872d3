"""`manage.py make_account NAME`: an account for a designer, its password drawn by chance and told once."""

from __future__ import annotations

import secrets
from typing import Any

from django.contrib.auth import get_user_model
from django.core.management.base import BaseCommand, CommandError, CommandParser


class Command(BaseCommand):
    help = "Makes an account and prints its password."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("name")

    def handle(self, *args: Any, name: str, **options: Any) -> None:
        users = get_user_model().objects
        if users.filter(username=name).exists():
            raise CommandError(f"There is an account called {name} already; choose another name.")
        password = secrets.token_urlsafe(12)
        users.create_user(name, password=password)
        self.stdout.write(f"Account {name}, password {password}")
