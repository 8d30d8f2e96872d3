"""What does it cost to take a site with gates away? `python -m bench taken_away`

All of its pages behind a door, and all behind a question about age: what is done to the published files then, as a ratio to
publishing them (best of three), and how large the service worker's list becomes.
"""

from __future__ import annotations

import secrets
import time
from collections.abc import Iterator

from upper_rim.core.conditions.everywhere import Everywhere
from upper_rim.core.gates.locking import Lock
from upper_rim.core.kinds.pieces.age import AgeGate
from upper_rim.core.kinds.pieces.base import ReachRule
from upper_rim.core.kinds.pieces.gate import Gate
from upper_rim.core.kinds.pieces.password import PasswordGate
from upper_rim.core.output.publication import Publisher, publication
from upper_rim.core.output.unserved import unserved_of
from upper_rim.shipped import shelf

from .corpus import large_site
from .measured import Measured


def measure(tiny: bool) -> Iterator[Measured]:
    site, read = large_site(60 if tiny else 10_000)
    rule = ReachRule(id="rr-gate", where=Everywhere())
    gates: tuple[Gate, ...] = (
        PasswordGate(id="pc-gate", name="Door", reach=(rule,)),
        AgeGate(id="pc-gate", name="Age", reach=(rule,)),
    )
    for gate in gates:
        guarded = site.replaced(pieces=(*site.pieces, gate))
        publisher = Publisher(guarded, shelf(), read, 2026)
        begin = time.perf_counter()
        files = list(publication(guarded, shelf(), read, publisher=publisher))
        publishing = time.perf_counter() - begin
        took, listed = [], 0
        for _ in range(1 if tiny else 3):
            begin = time.perf_counter()
            locks = {gate.id: Lock(["a long password"], secrets.token_bytes)} if isinstance(gate, PasswordGate) else {}
            unserved = unserved_of(guarded, publisher, shelf().gates_script, locks, "2026-06-15T12:00Z")
            for _made in unserved.made(files):
                pass
            listed = sum(len(file.data) for file in unserved.besides() if file.name.endswith(".json"))
            took.append(time.perf_counter() - begin)
        yardstick = ("publishing them", publishing)
        yield Measured(f"{len(guarded.pages)} pages behind “{gate.name}”", min(took), publishing, "s", yardstick)
        if listed:
            yield Measured("the worker's list of them", listed / 1000, 100.0, "kB", ("a hundred kB", 100.0))
