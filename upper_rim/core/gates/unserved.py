"""Which gates stand before what, where no server of ours keeps them: in a folder that anybody's server sends.

There nothing is known of a visitor before they are asked: no region, no groups. So one answer holds for all of them, and
it is settled when the site is taken away.
"""

from __future__ import annotations

from collections.abc import Iterator
from typing import Literal

from ..conditions.audience.audience import Audience
from ..conditions.visitor import VisitorCard
from ..kinds.pieces.age import AgeGate
from ..kinds.pieces.gate import Gate
from ..kinds.pieces.password import PasswordGate
from .guards import SLOTS, Guards, Kept

Loss = Literal[
    "addresses show", "opens over https alone", "only a browser counts tries", "passwords do not end",
    "asks by a script", "files are not asked for", "regions are unknown", "groups are unknown", "audiences are unknown",
    "laws are unknown", "decisions are not recorded",
]  # fmt: skip
"""What a server of ours does at a gate, and others do not."""
OF_CONSENT: tuple[Loss, ...] = ("laws are unknown", "decisions are not recorded")
"""The same of questions about consent, which ask by a script wherever they stand."""


class Unserved(Guards):
    """`clock`: when the site is taken away."""

    def __init__(self, kept: Kept, clock: str) -> None:
        super().__init__(kept)
        self._anybody = VisitorCard(id="vc-anybody", languages=(kept.site.language,), clock=clock, zone=kept.site.zone)

    def met(self, path: str, card: VisitorCard) -> Iterator[Gate]:
        """Whoever looks, but that a question about age asks by a script; and only before pages and files of the site:
        what is not there tells nothing. What may be locked for somebody is locked for all: the last of its doors stands
        there, where none of them is for anybody."""
        if path not in self.kept.pages and f"{path}/" not in self.kept.pages:
            return
        asked = super().met(path, self._anybody)
        met = tuple(gate for gate in asked if card.has_script or not isinstance(gate, AgeGate))
        doors = self.before(path).by_slot[SLOTS.index("password")]
        if doors and not any(isinstance(gate, PasswordGate) for gate in met):
            yield self.gates[doors[-1]]
        yield from met

    def at(self, path: str) -> tuple[Gate, ...]:
        """The gates that have to be passed for it, in their order."""
        return tuple(self.met(path, self._anybody))


def losses(gate: Gate) -> Iterator[Loss]:
    if isinstance(gate, PasswordGate):
        yield from ("addresses show", "opens over https alone", "only a browser counts tries", "passwords do not end")
    if isinstance(gate, AgeGate):
        yield from ("asks by a script", "files are not asked for")
        if gate.by_region:
            yield "regions are unknown"
        if gate.excused:
            yield "groups are unknown"
    if gate.audience != Audience():
        yield "audiences are unknown"
