"""Which categories may run for a visitor: by the law of where they are, what their browser signals, what they answered.

Opt-in: nothing runs before a yes. Opt-out: all runs until a no; a browser's signal is a no to what it speaks of (Global
Privacy Control). Notice: all runs, and it is said. What is necessary runs everywhere.
"""

from __future__ import annotations

import tomllib
from collections.abc import Mapping, Sequence
from functools import lru_cache
from importlib.resources import files
from typing import Annotated, Literal, NamedTuple, Self

from pydantic import Field, StringConstraints, model_validator

from ..conditions.visitor import Region
from ..values.nodes import Value
from ..values.words import Words

Mode = Literal["opt-in", "opt-out", "notice"]
CategoryId = Annotated[str, StringConstraints(pattern=r"^[a-z][a-z0-9-]{0,39}$")]


class Category(Value):
    """Something that one may agree to. `is_sold`: a browser's signal speaks of it: its data go to others, or are used
    to follow somebody from one site to the next (Global Privacy Control, 2)."""

    id: CategoryId
    words: Words = Words()
    about: Words = Words()
    is_necessary: bool = False
    is_sold: bool = False


CATEGORIES = (
    Category(id="necessary", is_necessary=True),
    Category(id="preferences"),
    Category(id="statistics"),
    Category(id="marketing", is_sold=True),
)
"""What a site begins with."""


class ConsentByRegion(Value):
    """A site's own word for a region, before that of the table."""

    region: Region
    mode: Mode


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
    """To a question about consent. Where a site asks for all at once, `yes` names all categories or none."""

    yes: tuple[CategoryId, ...] = ()


Why = Literal["necessary", "answered yes", "answered no", "signal", "not asked yet", "until a no", "told only"]


class Ruling(NamedTuple):
    """Whether a category may run, and why."""

    runs: bool
    why: Why


class Asked(Value):
    """A site's question about consent. `heeds_signal`: also where no law asks for it."""

    categories: tuple[Category, ...] = CATEGORIES
    by_region: tuple[ConsentByRegion, ...] = ()
    heeds_signal: bool = True
    days: Annotated[int, Field(ge=0, le=3650)] = Field(
        default=180, description="An answer counts so long; 0: the visit."
    )

    @model_validator(mode="after")
    def _are_told_apart(self) -> Self:
        ids = [one.id for one in self.categories]
        if len(ids) != len(set(ids)):
            raise ValueError("two categories have the same name")
        if not any(one.is_necessary for one in self.categories):
            raise ValueError("one category is necessary: what the site cannot be used without")
        return self


def rulings(asked: Asked, law: Law, answer: Answer | None, *, signals: bool) -> dict[str, Ruling]:
    """By category. `signals`: the browser says no to being sold or shared (Sec-GPC). An answer of one's own counts more
    than a signal: it was given here, and later."""
    return {one.id: _ruling(one, asked, law, answer, signals=signals) for one in asked.categories}


def _ruling(category: Category, asked: Asked, law: Law, answer: Answer | None, *, signals: bool) -> Ruling:
    if category.is_necessary:
        return Ruling(True, "necessary")
    if answer is not None:
        agreed = category.id in answer.yes
        return Ruling(agreed, "answered yes" if agreed else "answered no")
    if law.mode == "opt-in":
        return Ruling(False, "not asked yet")
    if signals and category.is_sold and (asked.heeds_signal or law.honours_signal):
        return Ruling(False, "signal")
    return Ruling(True, "until a no" if law.mode == "opt-out" else "told only")


def is_put(asked: Asked, law: Law, answer: Answer | None) -> bool:
    """Whether the question stands on the page: where an answer is needed, or may be given, and there is none."""
    return answer is None and any(not one.is_necessary for one in asked.categories)
