"""What does a visitor meet, step by step? A visit played through: addresses opened, answers given, time let pass, cookies
lost. And all the ways there are to a page.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from datetime import datetime, timedelta
from typing import Literal, NamedTuple

from ..conditions.visitor import VisitorCard, instant_of
from ..kinds.context import GateState
from ..kinds.pieces.age import AgeGate
from ..kinds.pieces.gate import Gate
from ..kinds.pieces.password import PasswordGate
from .age import age_on
from .guards import Guards
from .passing import Answer, Pass, Passwords, Put, Tries, day_there, heard_at, judged, next_gate, years_asked

MOST_STEPS = 20
"""From one address to the next: more is a loop."""
RIGHT = "the right password"
"""In a visit that is played through, this is typed where a password opens; every other is wrong."""
SIMULATED = Passwords(lambda gate, typed: RIGHT if typed == RIGHT else None, lambda gate, by: by == RIGHT)


class Screen(NamedTuple):
    """What is seen: a gate in a state, or what is kept at an address."""

    path: str
    gate: str = ""
    state: GateState | Literal["page", "loop"] = "page"
    opens: datetime | None = None


class Visit:
    """One visitor on one site. `passwords`: which open; only `RIGHT` where it is not said."""

    def __init__(self, guards: Guards, card: VisitorCard, passwords: Passwords = SIMULATED) -> None:
        self.guards, self.card = guards, card
        self.now = instant_of(card.clock)
        self.passes: dict[str, Pass] = {}
        self._passwords = passwords
        self._wrong: dict[str, list[datetime]] = {}
        self._at = ""

    def open(self, path: str) -> Screen:
        self._at = path
        gate = self._gate()
        return Screen(path) if gate is None else Screen(path, gate.id, "asked")

    def answer(self, answer: Answer) -> Screen:
        """At the gate that is seen; nothing where there is none."""
        gate = self._gate()
        if gate is None:
            return Screen(self._at)
        wrong = self._wrong.setdefault(gate.id, [])
        counts = answer.says_yes and isinstance(gate, PasswordGate)
        if counts:
            opens = heard_at(gate, Tries(wrong, wrong), self.now)
            if opens is not None:
                return Screen(self._at, gate.id, "waiting", opens)
            wrong.append(self.now)
        found = judged(self.guards, gate, answer, self.card, self._passwords, self.now)
        if isinstance(found, Pass):
            wrong.clear()
            self.passes[gate.id] = found
            return self.open(self._at)
        if found.way_out:
            return self._sent(found)
        opens = heard_at(gate, Tries(wrong, wrong), self.now) if counts else None
        return Screen(self._at, gate.id, found.state if opens is None else "waiting", opens)

    def _sent(self, refused: Put) -> Screen:
        return self.open(refused.way_out)

    def wait(self, time: timedelta) -> None:
        self.now += time

    def lose_cookies(self) -> None:
        self.passes.clear()

    def _gate(self) -> Gate | None:
        return next_gate(self.guards, self._at, self.card, self.passes, self._passwords, self.now)


class Way(NamedTuple):
    """From an address on: what was answered at each gate, what was seen then; `presses` until the end."""

    answers: tuple[tuple[str, Literal["yes", "no"]], ...]
    screens: tuple[Screen, ...]

    @property
    def presses(self) -> int:
        return len(self.answers)

    @property
    def ends(self) -> Literal["page", "refused", "elsewhere", "loop"]:
        last, first = self.screens[-1], self.screens[0]
        if last.state == "loop":
            return "loop"
        if last.gate:
            return "refused"
        return "page" if last.path == first.path else "elsewhere"


def ways(guards: Guards, card: VisitorCard, path: str) -> Iterator[Way]:
    """All that can come of opening an address: yes as far as it goes, and a no at each gate that
    knows one."""
    open_ways: list[tuple[Literal["yes", "no"], ...]] = [()]
    while open_ways:
        said = open_ways.pop(0)
        visit = Visit(guards, card)
        screens, answers = [visit.open(path)], []
        for one in said:
            gate = screens[-1].gate
            answers.append((gate, one))
            screens.append(visit.answer(fitting(guards, guards.gates[gate], card, visit.now, yes=one == "yes")))
        last = screens[-1]
        is_open = bool(last.gate) and last.state == "asked"
        if is_open and _repeats(screens):
            screens[-1] = last._replace(state="loop")
            is_open = False
        if is_open and len(said) < MOST_STEPS:
            open_ways.append((*said, "yes"))
            open_ways += [(*said, "no")] if last.gate in guards.kept.refusing else []
        else:
            yield Way(tuple(answers), tuple(screens))


def _repeats(screens: list[Screen]) -> bool:
    """Whether somebody is asked the same at the same address as before: nothing they did has changed anything."""
    return screens[-1] in screens[:-1]


def fitting(guards: Guards, gate: Gate, card: VisitorCard, now: datetime, *, yes: bool) -> Answer:
    """A yes that is let through: by somebody who is old enough to the day, or who knows the password; or a no."""
    if not yes or not isinstance(gate, AgeGate):
        return Answer(yes, password=RIGHT if yes else "")
    today = day_there(guards, card, now)
    years = years_asked(gate, card)
    day = today.replace(year=today.year - years, day=min(today.day, 28))
    assert age_on(day, today) >= years
    return Answer(True, (day.year, day.month, day.day))


def told(way: Way) -> Mapping[str, object]:
    """As JSON."""
    return {
        "ends": way.ends,
        "presses": way.presses,
        "answers": [{"gate": gate, "says": said} for gate, said in way.answers],
        "screens": [
            {"path": screen.path, **({"gate": screen.gate, "state": screen.state} if screen.gate else {})}
            for screen in way.screens
        ],
    }
