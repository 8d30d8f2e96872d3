"""Who is let in at the gates of a published site? Asked before a byte of what they guard is read.

What somebody has passed is told by a cookie of this host alone, signed, which no script can read. A password is part of
no site and no edition: it is kept as a hash beside them, and whoever takes one away ends the visits that it opened.
"""

from __future__ import annotations

import re
from collections.abc import Mapping
from datetime import UTC, datetime, timedelta
from functools import cached_property, lru_cache
from html import escape
from typing import Any

from django.conf import settings
from django.contrib.auth.hashers import check_password
from django.core import signing
from django.db import connection, transaction
from django.db.models import F, Q
from django.http import HttpRequest, HttpResponse
from django.utils.crypto import salted_hmac
from django.utils.timezone import now

from ...core.conditions.visitor import VisitorCard, is_zone
from ...core.gates.attempts import Patience
from ...core.gates.guards import Guards, Kept
from ...core.gates.passing import Answer, Pass, Passwords, Tries, heard_at, judged, language_read, next_gate, site_day
from ...core.kinds.context import GateState
from ...core.kinds.items.birth import ZONE
from ...core.kinds.items.secret import LONGEST_PASSWORD
from ...core.kinds.items.told import WAIT
from ...core.kinds.pieces.gate import Gate
from ...core.kinds.pieces.password import PasswordGate
from ...core.output.publication import GATES_PATH, GUARDS_PATH
from ..sites.models import GatePassword, StoredSite, WrongTry
from ..sites.storage import stored
from .answers import LARGEST_BODY, for_one_visitor, is_from_here, see_other
from .facts import groups_of, region_of

COOKIE = "rim-gate-"
_CRAWLER = re.compile(r"bot\b|crawl|spider", re.IGNORECASE)
_WAIT = re.compile(rf"(<span {WAIT}>)[^<]*(</span>)".encode())


def guards_in(files: Mapping[str, str]) -> Guards | None:
    """Of an edition's files; None where it has no gates."""
    content = files.get(GUARDS_PATH[1:])
    return _read(content) if content else None


@lru_cache(maxsize=64)
def _read(content: str) -> Guards:
    return Guards(Kept.model_validate_json(stored(content)))


def held(request: HttpRequest, slug: str, path: str, guards: Guards, files: Mapping[str, str]) -> HttpResponse | None:
    """What somebody is answered who has not passed; None where nothing stands in the way. `path`: of what would be sent,
    without escapes."""
    if not guards.before(path).any:
        return None
    visit = _Visit(request, slug, guards, files)
    gate = visit.gate_before(path)
    return None if gate is None else visit.answer(gate)


class _Visit:
    """Somebody before a site's gates."""

    def __init__(self, request: HttpRequest, slug: str, guards: Guards, files: Mapping[str, str]) -> None:
        self.request, self.slug, self.guards, self.files = request, slug, guards, files
        self.now = now()
        self.card = _card(request, guards, self.now)
        self.passwords = Passwords(self._opens, self._counts)

    def gate_before(self, path: str) -> Gate | None:
        passes = {gate: kept for gate in self.guards.gates if (kept := self._kept(gate)) is not None}
        is_crawler = bool(_CRAWLER.search(self.request.headers.get("User-Agent", "")))
        return next_gate(self.guards, path, self.card, passes, self.passwords, self.now, is_crawler=is_crawler)

    def answer(self, gate: Gate) -> HttpResponse:
        post = self.request.POST if self._is_sent_here() else {}
        if post.get("gate") != gate.id:
            return self._page(gate, "asked")
        year, month, day = (_number(post.get(name, "")) for name in ("year", "month", "day"))
        birth = (year, month, day)
        zone = post.get(ZONE, "")
        card = self.card.replaced(zone=zone) if is_zone(zone) else self.card
        said = Answer(post.get("answer") == "yes", birth, post.get("password", "")[: LONGEST_PASSWORD + 1])
        if said.says_yes and isinstance(gate, PasswordGate):
            opens = self._counted(gate)
            if opens is not None:
                return self._page(gate, "waiting", opens)
        found = judged(self.guards, gate, said, card, self.passwords, self.now)
        if isinstance(found, Pass):
            return self._passed(gate, found)
        if found.way_out:
            return for_nobody_else(see_other(found.way_out))
        opens = heard_at(gate, self._tries(gate), self.now) if found.state == "wrong" else None
        return self._page(gate, found.state if opens is None else "waiting", opens)

    def _is_sent_here(self) -> bool:
        is_short = int(self.request.META.get("CONTENT_LENGTH") or 0) <= LARGEST_BODY
        return self.request.method == "POST" and is_short and is_from_here(self.request)

    def _kept(self, gate: str) -> Pass | None:
        try:
            at, *others = signing.loads(self.request.COOKIES.get(COOKIE + gate, ""), salt=self._salt(gate))
            return Pass(datetime.fromtimestamp(at, UTC), *others)
        except (signing.BadSignature, TypeError, ValueError):
            return None

    def _salt(self, gate: str) -> str:
        return f"upper_rim.gates:{self.slug}:{gate}"

    def _opens(self, gate: Gate, typed: str) -> str | None:
        found = next((one for one in self._passwords(gate) if check_password(typed, one.hash)), None)
        if found is None:
            return None
        self._wrong_tries(gate).filter(sender=self._sender).delete()
        GatePassword.objects.filter(pk=found.pk).update(uses=F("uses") + 1)
        return f"{found.pk} {found.stamp}"

    def _counts(self, gate: Gate, by: str) -> bool:
        which, _, stamp = by.partition(" ")
        return bool(self._passwords(gate).filter(pk=int(which), stamp=stamp).exists())

    def _passwords(self, gate: Gate) -> Any:
        known = GatePassword.objects.filter(site__slug=self.slug, gate=gate.id)
        return known.filter(Q(last_day=None) | Q(last_day__gte=site_day(self.guards, self.now)))

    def _counted(self, gate: Gate) -> datetime | None:
        """When the next try is heard; None: now, and it counts as a wrong one until it turns out right, so that many at
        the same time are no more than one after the other."""
        with transaction.atomic():
            with connection.cursor() as cursor:
                cursor.execute("select pg_advisory_xact_lock(hashtextextended(%s, 0))", [self._salt(gate.id)])
            opens = heard_at(gate, self._tries(gate), self.now)
            if opens is None:
                site = StoredSite.objects.only("pk").get(slug=self.slug)
                WrongTry.objects.create(site=site, gate=gate.id, sender=self._sender, at=self.now)
        return opens

    def _tries(self, gate: Gate) -> Tries:
        since = self.now - timedelta(seconds=Patience().forgets_s)
        tries = list(self._wrong_tries(gate).filter(at__gt=since).order_by("at").values_list("sender", "at"))
        return Tries([at for sender, at in tries if sender == self._sender], [at for _, at in tries])

    def _wrong_tries(self, gate: Gate) -> Any:
        return WrongTry.objects.filter(site__slug=self.slug, gate=gate.id)

    @cached_property
    def _sender(self) -> str:
        return salted_hmac("upper_rim.gates", self.request.META.get("REMOTE_ADDR", "")).hexdigest()

    def _passed(self, gate: Gate, found: Pass) -> HttpResponse:
        """To the very address, which is no longer guarded from them."""
        response = see_other(self.request.get_full_path())
        kept = signing.dumps([found.at.timestamp(), *found[1:]], salt=self._salt(gate.id))
        response.set_cookie(
            COOKIE + gate.id,
            kept,
            max_age=gate.days * 86_400 or None,
            httponly=True,
            samesite="Lax",
            secure=settings.ADDRESS_SCHEME == "https",
        )
        return for_nobody_else(response)

    def _page(self, gate: Gate, state: GateState, opens: datetime | None = None) -> HttpResponse:
        content = stored(self.files[f"{GATES_PATH[1:]}{gate.id}/{state}-{self._language}.html"])
        if opens is None:
            return for_one_visitor(content, 403)
        seconds = max(1, round((opens - self.now).total_seconds()))
        told = escape(_in_words(seconds)).encode()
        response = for_one_visitor(_WAIT.sub(lambda found: found[1] + told + found[2], content), 429)
        response["Retry-After"] = str(seconds)
        return response

    @cached_property
    def _language(self) -> str:
        return language_read(self.guards, self.card)


def for_nobody_else(response: HttpResponse) -> HttpResponse:
    """What was let through, or leads on: kept by no cache, for it would open to others what is guarded."""
    response["Cache-Control"] = "private, no-store"
    response["Vary"] = "Cookie"
    return response


def _card(request: HttpRequest, guards: Guards, at: datetime) -> VisitorCard:
    """As far as a server may know a visitor: where, when, in which groups, what they read."""
    languages = [part.split(";")[0].strip() for part in request.headers.get("Accept-Language", "").split(",")]
    read = [tag for tag in languages if re.fullmatch(r"[A-Za-z]{2,3}(-[A-Za-z0-9]{2,8})*", tag)]
    return VisitorCard(
        id="vc-somebody",
        region=region_of(request),
        groups=groups_of(request),
        languages=tuple(read[:10]) or (guards.kept.site.language,),
        clock=at.astimezone(UTC).strftime("%Y-%m-%dT%H:%MZ"),
        zone=guards.kept.site.zone,
    )


def _number(text: str) -> int | None:
    return int(text) if re.fullmatch(r"[0-9]{1,4}", text.strip()) else None


def _in_words(seconds: int) -> str:
    """`45 s`, `3 min`: signs that are read in all languages (SI)."""
    return f"{seconds} s" if seconds < 100 else f"{-(-seconds // 60)} min"
