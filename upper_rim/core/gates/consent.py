"""Which categories may run for a visitor: by the law of where they are, what their browser signals, what they answered.

Opt-in: nothing runs before a yes. Opt-out: all runs until a no; a browser's signal is a no to what it speaks of (Global
Privacy Control). Notice: all runs, and it is said. What is necessary runs everywhere.
"""

from __future__ import annotations

import tomllib
from collections.abc import Mapping, Sequence
from functools import lru_cache
from importlib.resources import files
from typing import Literal, NamedTuple

from ..kinds.consent import Category, ConsentByRegion, ConsentRules, Mode
from ..values.nodes import NodeId, Value


class Law(NamedTuple):
    """How a region has it. `honours_signal`: a browser's signal must be taken as a no there; `source`: where that is
    said, empty for what a site says itself and for regions that are not in the table."""

    mode: Mode
    honours_signal: bool
    source: str = ""
    region: str = ""


class Table(NamedTuple):
    as_of: str
    elsewhere: Mode
    laws: Mapping[str, Law]


@lru_cache(maxsize=1)
def shipped_table() -> Table:
    said = tomllib.loads((files(__name__.rpartition(".")[0]) / "data" / "consent.toml").read_text(encoding="utf-8"))
    laws = {
        region: Law(one["mode"], one.get("signal", False), one["source"], region)
        for one in said["modes"]
        for region in one["regions"]
    }
    return Table(said["as_of"], said["elsewhere"], laws)


def law_of(region: str, own: Sequence[ConsentByRegion] = (), table: Table | None = None) -> Law:
    """Of an ISO 3166 code: what is said of the part of a country, else of the country (GB-WLS, then GB), the site's own
    word first; where nobody knows the region, the strictest there is: asking never does wrong."""
    table = table or shipped_table()
    if not region:
        return Law("opt-in", True)
    said = {one.region: one.mode for one in own}
    for part in (region, region.partition("-")[0]):
        listed = table.laws.get(part)
        if part in said:
            return Law(said[part], listed.honours_signal if listed else False, "", part)
        if listed:
            return listed
    return Law(table.elsewhere, False)


class Answer(Value):
    """To a question about consent: the categories that it says yes to."""

    yes: tuple[NodeId, ...] = ()


Why = Literal["necessary", "answered yes", "answered no", "signal", "not asked yet", "until a no", "told only"]


class Ruling(NamedTuple):
    """Whether a category may run, and why."""

    runs: bool
    why: Why


def rulings(
    categories: Sequence[Category], rules: ConsentRules, law: Law, answer: Answer | None, *, signals: bool
) -> dict[str, Ruling]:
    """By category. `signals`: the browser says no to being sold or shared (Sec-GPC). An answer of one's own counts more
    than a signal: it was given here, and later."""
    return {one.id: _ruling(one, rules, law, answer, signals=signals) for one in categories}


def _ruling(category: Category, rules: ConsentRules, law: Law, answer: Answer | None, *, signals: bool) -> Ruling:
    if category.is_necessary:
        return Ruling(True, "necessary")
    if answer is not None:
        agreed = category.id in answer.yes
        return Ruling(agreed, "answered yes" if agreed else "answered no")
    if law.mode == "opt-in":
        return Ruling(False, "not asked yet")
    if signals and category.is_sold and (rules.heeds_signal or law.honours_signal):
        return Ruling(False, "signal")
    return Ruling(True, "until a no" if law.mode == "opt-out" else "told only")
