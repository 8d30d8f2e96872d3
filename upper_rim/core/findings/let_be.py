"""What of all that was found is let be, and what of it has come back since its numbers changed?"""

from __future__ import annotations

import hashlib
import json
from collections.abc import Iterable, Mapping
from datetime import date
from typing import NamedTuple

from ..kinds.let_be import LetBe
from ..model.site import Site
from .finding import Finding
from .whole import Cause


class Sorted(NamedTuple):
    """`open`: what is to be looked at; `let_be`: what need not, with who said so; `returned`: of what is open, by key, what
    was let be before: its numbers have changed, or its last day has passed."""

    open: tuple[Cause, ...]
    let_be: tuple[tuple[Cause, LetBe], ...]
    returned: Mapping[str, LetBe]


def sorted_out(found: Iterable[Cause], site: Site, today: date) -> Sorted:
    still_open: list[Cause] = []
    let_be: list[tuple[Cause, LetBe]] = []
    returned: dict[str, LetBe] = {}
    for cause in found:
        said = [one for one in site.let_be if _is_about(one, cause)]
        holding = next((one for one in said if _holds(one, cause, today)), None)
        if holding is not None:
            let_be.append((cause, holding))
            continue
        still_open.append(cause)
        if said:
            returned[cause.key] = said[-1]
    return Sorted(tuple(still_open), tuple(let_be), returned)


def _is_about(one: LetBe, cause: Cause) -> bool:
    if one.kind != cause.kind:
        return False
    return not one.about or (one.about, one.other, one.stage) == (cause.node, cause.other, cause.stage)


def _holds(one: LetBe, cause: Cause, today: date) -> bool:
    if one.until is not None and today.isoformat() > one.until:
        return False
    return one.as_it_was in {"", as_it_is(cause)}


def as_it_is(cause: Cause) -> str:
    """Digest of its numbers and of where it is so: pages, stages, widths, languages."""
    told = json.dumps(sorted(map(_numbers, cause.findings)), sort_keys=True)
    return hashlib.sha256(told.encode()).hexdigest()[:16]


def _numbers(one: Finding) -> list[str]:
    """Lengths to a tenth of a px: less is nobody's change."""
    about = [
        f"{name}={value:.1f}" if isinstance(value, float | int) else f"{name}={value}"
        for name, value in one.about.items()
    ]
    return [one.language, one.place.page, one.place.band or "", str(one.place.viewport_px), *sorted(about)]
