"""The passwords that open a locked door. They are secrets and no part of the site: neither undo nor a bundle knows them, and
nobody reads them again."""

from __future__ import annotations

from datetime import date
from typing import Any

from django.contrib.auth.hashers import make_password
from django.http import HttpRequest
from django.utils.crypto import get_random_string

from ....core.kinds.items.secret import LONGEST_PASSWORD, SHORTEST_PASSWORD
from ....core.kinds.pieces.base import Piece
from ....core.kinds.pieces.password import PasswordGate
from ...sites.models import GatePassword
from ..cycle.notices import StudioNotice
from ..cycle.screen import Opened

MOST = 20
"""Of one door: each that is typed is compared with all of them."""
_STAMP = 16


def passwords_shown(opened: Opened, chosen: Any) -> dict[str, Any]:
    if not isinstance(chosen, PasswordGate):
        return {}
    return {"passwords": list(_of(opened, chosen)), "least_letters": SHORTEST_PASSWORD}


def passwords_changed(request: HttpRequest, opened: Opened, piece: Piece) -> StudioNotice | None:
    """One is created or removed; a notice where that cannot be."""
    asked, _, which = request.POST.get("door", "").partition(":") if request.method == "POST" else ("", "", "")
    if not asked or not isinstance(piece, PasswordGate):
        return None
    if asked == "remove":
        _of(opened, piece).filter(pk=which if which.isdigit() else None).delete()
        return None
    try:
        label, secret, last_day = _typed(request)
    except ValueError as fault:
        return StudioNotice(str(fault), True, piece.id, "door")
    if _of(opened, piece).count() >= MOST:
        return StudioNotice(f"A door has {MOST} passwords at most: remove one first.", True, piece.id, "door")
    GatePassword.objects.create(
        site=opened.stored,
        gate=piece.id,
        label=label,
        hash=make_password(secret),
        stamp=get_random_string(_STAMP),
        last_day=last_day,
    )
    return None


def _typed(request: HttpRequest) -> tuple[str, str, date | None]:
    label, secret, day = (request.POST.get(name, "") for name in ("label", "secret", "last_day"))
    if not label.strip():
        raise ValueError("Say whom the password is for: the label is told apart by it, here alone.")
    if not SHORTEST_PASSWORD <= len(secret) <= LONGEST_PASSWORD:
        raise ValueError(f"A password has {SHORTEST_PASSWORD} characters at least, and {LONGEST_PASSWORD} at most.")
    try:
        return label.strip()[:80], secret, date.fromisoformat(day) if day else None
    except ValueError:
        raise ValueError("The last day is written as year, month and day: 2026-12-31.") from None


def _of(opened: Opened, gate: Piece) -> Any:
    return GatePassword.objects.filter(site=opened.stored, gate=gate.id)
