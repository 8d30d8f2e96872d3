"""What opens the locked doors of a site that is taken away: typed anew, for of passwords nothing is kept that could be put
into it."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from typing import NamedTuple

from django.contrib.auth.hashers import check_password
from django.db.models import QuerySet
from django.http import HttpRequest

from ....core.findings.words import LOSS_WORDS
from ....core.gates.guards import Guards
from ....core.gates.unserved import OF_CONSENT, Loss, losses
from ....core.kinds.pieces.gate import Gate
from ....core.kinds.pieces.password import PasswordGate
from ...sites.models import GatePassword, StoredSite


class WrongPasswords(Exception):
    """`faults`: what is wrong, by the password's number."""

    def __init__(self, faults: Mapping[int, str]) -> None:
        self.faults = faults


class Asked(NamedTuple):
    password: GatePassword
    fault: str


class GateTaken(NamedTuple):
    """`passwords`: None where it is no locked door."""

    gate: Gate
    passwords: list[Asked] | None
    losses: list[str]


def in_words(found: Iterable[Loss]) -> list[str]:
    return [LOSS_WORDS[loss] for loss in found]


CONSENT_LOSSES = in_words(OF_CONSENT)


def gates_shown(site: StoredSite, guards: Guards, faults: Mapping[int, str]) -> list[GateTaken]:
    known = list(_of(site, guards))
    return [
        GateTaken(
            gate,
            [Asked(one, faults.get(one.pk, "")) for one in known if one.gate == gate.id]
            if isinstance(gate, PasswordGate)
            else None,
            in_words(losses(gate)),
        )
        for gate in guards.gates.values()
    ]


def opened_by(request: HttpRequest, site: StoredSite, guards: Guards) -> dict[str, list[str]]:
    """By door the passwords that were posted and are right. Raises `WrongPasswords`."""
    opening: dict[str, list[str]] = {}
    faults: dict[int, str] = {}
    for one in _of(site, guards):
        typed = request.POST.get(f"password-{one.pk}", "")
        if typed and check_password(typed, one.hash):
            opening.setdefault(one.gate, []).append(typed)
        elif typed:
            faults[one.pk] = "This is not the password. Type it as it is typed at the door, or leave it empty."
    if faults:
        raise WrongPasswords(faults)
    return opening


def _of(site: StoredSite, guards: Guards) -> QuerySet[GatePassword]:
    doors = [gate.id for gate in guards.gates.values() if isinstance(gate, PasswordGate)]
    return site.passwords.filter(gate__in=doors)
