"""Is somebody let through a gate: by what they passed before, and by what they answer now? The server asks here, and so does
a visit that is only played through.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from datetime import date, datetime, timedelta
from typing import NamedTuple
from zoneinfo import ZoneInfo

from ..conditions.visitor import VisitorCard
from ..kinds.context import GateState
from ..kinds.pieces.age import AgeGate
from ..kinds.pieces.gate import Gate
from ..kinds.pieces.password import PasswordGate
from ..languages import primary
from .age import age_on, born, needed_years
from .answers import Given, lapsed
from .attempts import Patience, opens_at
from .guards import Guards

LONGEST_VISIT = timedelta(hours=24)
"""Of a pass that counts for the visit: how long a browser stays open is not known to who asks."""
BY_ALL = 20
"""So many times as many wrong tries as of one visitor are borne from all together."""


class Pass(NamedTuple):
    """What a visitor keeps of a gate that they passed. `asked`: what it asked, in short; `years`: the age that was asked
    for; `by`: by which password, told by something that is another one when it is changed."""

    at: datetime
    asked: str
    years: int = 0
    by: str = ""


class Answer(NamedTuple):
    """`birth`: year, month and day as they were typed, None where one is no number; `password`: as it was typed."""

    says_yes: bool
    birth: tuple[int | None, int | None, int | None] = (None, None, None)
    password: str = ""


class Tries(NamedTuple):
    """Moments of wrong tries at a door, oldest first: the visitor's own, and those of all."""

    own: Sequence[datetime] = ()
    all: Sequence[datetime] = ()


class Passwords(NamedTuple):
    """`opens`: by which password something typed opens a gate, None where it does not; `counts`: whether one still
    does."""

    opens: Callable[[Gate, str], str | None]
    counts: Callable[[Gate, str], bool]


class Put(NamedTuple):
    """What an answer leads to: the gate's own screen in a state, where it is not passed. `opens`: when the next try is
    heard; `way_out`: where somebody is sent."""

    state: GateState
    opens: datetime | None = None
    way_out: str = ""


def next_gate(
    guards: Guards,
    path: str,
    card: VisitorCard,
    passes: Mapping[str, Pass],
    passwords: Passwords,
    now: datetime,
    *,
    is_crawler: bool = False,
) -> Gate | None:
    """The first that stands between a visitor and an address; None where none does."""
    for gate in guards.met(path, card):
        if is_crawler and isinstance(gate, AgeGate) and gate.lets_crawlers_in:
            continue
        if not has_passed(guards, gate, card, passes.get(gate.id), passwords, now):
            return gate
    return None


def has_passed(
    guards: Guards, gate: Gate, card: VisitorCard, kept: Pass | None, passwords: Passwords, now: datetime
) -> bool:
    if kept is None:
        return False
    if lapsed(Given(kept.at, 0, kept.asked), guards.kept.asked[gate.id], gate.days, 0, now) is not None:
        return False
    if gate.days == 0 and now - kept.at > LONGEST_VISIT:
        return False
    if isinstance(gate, AgeGate):
        return kept.years >= years_asked(gate, card)
    return passwords.counts(gate, kept.by)


def years_asked(gate: AgeGate, card: VisitorCard) -> int:
    return needed_years(gate.years, gate.by_region, card.region)


def site_day(guards: Guards, now: datetime) -> date:
    """The day where the site is at home."""
    return _day_in(guards.kept.site.zone, now)


def day_there(guards: Guards, card: VisitorCard, now: datetime) -> date:
    """The day where a visitor is, by their browser's clock, which only a script can read; else the site's."""
    return _day_in(card.zone if card.has_script else guards.kept.site.zone, now)


def _day_in(zone: str, now: datetime) -> date:
    return now.astimezone(ZoneInfo(zone)).date()


def judged(
    guards: Guards,
    gate: Gate,
    answer: Answer,
    card: VisitorCard,
    passwords: Passwords,
    now: datetime,
) -> Pass | Put:
    """What an answer that is heard leads to. Of passwords see `heard_at`."""
    if not answer.says_yes:
        return _refused(guards, gate, card)
    asked = guards.kept.asked[gate.id]
    if isinstance(gate, AgeGate):
        years = years_asked(gate, card)
        if gate.id in guards.kept.dated:
            today = day_there(guards, card, now)
            found = born(*answer.birth, today)
            if found.day is None:
                return Put("wrong")
            if age_on(found.day, today) < years:
                return _refused(guards, gate, card)
        return Pass(now, asked, years=years)
    by = passwords.opens(gate, answer.password)
    return Put("wrong") if by is None else Pass(now, asked, by=by)


def _refused(guards: Guards, gate: Gate, card: VisitorCard) -> Put:
    ways_out = guards.kept.ways_out.get(gate.id, {})
    return Put("refused", way_out=ways_out.get(language_read(guards, card), ""))


def language_read(guards: Guards, card: VisitorCard) -> str:
    """In which of the site's languages a visitor is asked: the one that they read best, whatever page is guarded. Of that
    nothing is told."""
    for wanted in card.languages:
        for one in guards.kept.languages:
            if primary(one) == primary(wanted):
                return one
    return guards.kept.languages[0]


def heard_at(gate: Gate, tries: Tries, now: datetime) -> datetime | None:
    """When a door hears the next try; None: now."""
    if not isinstance(gate, PasswordGate):
        return None
    one = Patience(tries=gate.tries, wait_s=gate.wait_s)
    all_together = one.replaced(tries=min(100, gate.tries * BY_ALL))
    waits = (opens_at(one, tries.own, now), opens_at(all_together, tries.all, now))
    return max((at for at in waits if at is not None), default=None)
