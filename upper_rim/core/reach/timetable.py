"""When is what in force? The times of audiences over some days, where two of a slot meet, and where there is none."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence
from datetime import UTC, datetime, timedelta
from itertools import combinations
from typing import Any, NamedTuple
from zoneinfo import ZoneInfo

from ..conditions.audience.audience import Audience
from ..conditions.audience.in_period import InPeriod, instant_in
from ..kinds.pieces.base import Piece
from ..kinds.pieces.notice import Notice
from ..model.site import Site
from ..model.tree import walk
from .coverage import Coverage


class Span(NamedTuple):
    """The end is no longer in it. Both in UTC."""

    begin: datetime
    end: datetime


class Timed(NamedTuple):
    """Something that is not in force always. `piece`: what it stands in. `turned`: the place among those of `every` of the
    one period whose beginning and end are its own, where there is such a one."""

    node: Any
    piece: Piece
    spans: tuple[Span, ...]
    turned: int | None


class SlotTimes(NamedTuple):
    """`meets`: when two timed pieces that share a page are in force at once, and their ids. `none`: when no piece of the
    slot is, where none is in force always."""

    slot: str
    timed: tuple[Timed, ...]
    meets: tuple[tuple[Span, str, str], ...]
    none: tuple[Span, ...]


def timetable(coverage: Coverage, during: Span) -> list[SlotTimes]:
    """By slot, those that have something timed. Of conditions only the times count; a visitor's own clock is taken for
    the site's."""
    site = coverage.site
    found = []
    for slot in coverage.slots:
        pieces = [piece for piece in site.pieces if piece.kind == slot and piece.on]
        timed = [one for piece in pieces for one in _timed_in(piece, site, during)]
        if not timed:
            continue
        by_piece = {one.node.id: one for one in timed if one.node is one.piece}
        meets = [
            (both, one.node.id, other.node.id)
            for one, other in combinations(by_piece.values(), 2)
            if coverage.share_a_page(one.node.id, other.node.id)
            for both in _both(one.spans, other.spans)
        ]
        always = len(by_piece) < len(pieces)
        none = () if always else tuple(_without(during, [span for one in by_piece.values() for span in one.spans]))
        found.append(SlotTimes(slot, tuple(timed), tuple(sorted(meets)), none))
    return found


def _timed_in(piece: Piece, site: Site, during: Span) -> Iterator[Timed]:
    node: Any
    for node in (piece, *walk(piece)):
        audience = getattr(node, "audience", None)
        if not isinstance(audience, Audience):
            continue
        said = _of_notice(node)
        if said is not None:
            audience = audience.replaced(every=(*audience.every, said))
        if any(isinstance(one, InPeriod) for one in audience.conditions):
            yield Timed(node, piece, tuple(in_force(audience, during, site.zone)), _turned(node))


def _of_notice(node: Any) -> InPeriod | None:
    """A notice's own time, by each visitor's clock."""
    if not isinstance(node, Notice) or not (node.shows_from or node.shows_until):
        return None
    return InPeriod(begins=node.shows_from, ends=node.shows_until, zone_of="visitor")


def _turned(node: Any) -> int | None:
    periods = [at for at, one in enumerate(node.audience.every) if isinstance(one, InPeriod)]
    plain = [at for at in periods if (one := node.audience.every[at]).begins or one.ends]
    if len(plain) != 1 or node.audience.every[plain[0]].yearly or _of_notice(node) is not None:
        return None
    return plain[0]


def in_force(audience: Audience, during: Span, zone: str) -> list[Span]:
    """When its times are met. Where one of several is enough, and one of them is no time, any time will do."""
    every, none = ([one for one in some if isinstance(one, InPeriod)] for some in (audience.every, audience.none))
    some = [one for one in audience.some if isinstance(one, InPeriod)]
    if len(some) < len(audience.some):
        some = []
    edges = sorted({during.begin, *_edges([*every, *some, *none], during, zone)})
    found: list[Span] = []
    for begin, end in zip(edges, [*edges[1:], during.end], strict=True):
        held = (
            all(one.holds_at(begin, zone) for one in every)
            and not any(one.holds_at(begin, zone) for one in none)
            and (not some or any(one.holds_at(begin, zone) for one in some))
        )
        if held and found and found[-1].end == begin:
            found[-1] = Span(found[-1].begin, end)
        elif held:
            found.append(Span(begin, end))
    return found


def _edges(periods: Iterable[InPeriod], during: Span, zone: str) -> Iterator[datetime]:
    """The moments within, at which one of them may begin or cease to hold."""
    days = (during.end - during.begin).days + 2
    first = during.begin.astimezone(ZoneInfo(zone)).date()
    for period in periods:
        hours = [hour for hour in (period.from_hour, period.to_hour) if hour]
        if period.weekdays:
            hours.append("00:00")
        moments = [f"{first + timedelta(days=day)}T{hour}" for day in range(-1, days) for hour in hours]
        for end in (period.begins, period.ends):
            if end is not None:
                years = range(during.begin.year, during.end.year + 1) if period.yearly else (int(end[:4]),)
                moments += [f"{year:04}{end[4:]}" for year in years]
        for moment in moments:
            at = _instant(moment, zone)
            if at is not None and during.begin < at < during.end:
                yield at
        if hours:
            # Where a clock is put back, an hour comes twice.
            yield from _turns(during, zone)


def _instant(moment: str, zone: str) -> datetime | None:
    try:
        return instant_in(moment, zone)
    except ValueError:
        return None


def _turns(during: Span, zone: str) -> Iterator[datetime]:
    """The hours around a change of the zone's offset."""
    at, place = during.begin, ZoneInfo(zone)
    while at < during.end:
        later = at + timedelta(days=1)
        if at.astimezone(place).utcoffset() != later.astimezone(place).utcoffset():
            quarter = timedelta(minutes=15)
            yield from (one for one in (at + quarter * step for step in range(96)) if during.begin < one < during.end)
        at = later


def _both(one: Sequence[Span], other: Sequence[Span]) -> Iterator[Span]:
    for mine in one:
        for theirs in other:
            begin, end = max(mine.begin, theirs.begin), min(mine.end, theirs.end)
            if begin < end:
                yield Span(begin, end)


def _without(during: Span, spans: Iterable[Span]) -> Iterator[Span]:
    at = during.begin
    for span in sorted(spans):
        if span.begin > at:
            yield Span(at, span.begin)
        at = max(at, span.end)
    if at < during.end:
        yield Span(at, during.end)


def days_from(first: str, days: int, zone: str) -> Span:
    """From the beginning of a day (`2026-11-29`), by the clock on the wall there. Raises ValueError where there is no
    such day."""
    begin = instant_in(f"{first}T00:00", zone)
    last = datetime.fromisoformat(first) + timedelta(days=days)
    return Span(begin, instant_in(f"{last:%Y-%m-%d}T00:00", zone).astimezone(UTC))
