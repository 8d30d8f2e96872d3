"""With what is a simulated visitor changed? In groups, as they are typed."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from typing import Any
from zoneinfo import ZoneInfo

from ....core.conditions.audience.audience import Audience
from ....core.conditions.audience.prefers import PREFERENCES
from ....core.conditions.visitor import Remembered, VisitorCard, instant_of
from ....core.model.names import node_name
from ....core.model.site import Site
from ....core.model.tree import walk
from .audience.field import Field

_POINTERS = (("mouse", "a mouse"), ("touch", "a finger"))
CLOSED, SEEN = "shuts-", "saw-"
"""Before a node's id: so many days ago they closed it, or saw it."""


def fields_of(card: VisitorCard, site: Site) -> list[tuple[str, list[Field]]]:
    """By group. The clock is told in their zone."""
    came_with = ", ".join(f"{one.name}={one.value}" if one.value else one.name for one in card.came_with)
    return [
        (
            "Who",
            [
                Field("text", "name", "Name", card.name, hint="German, phone, Saturday night"),
                Field("listed", "languages", "Asks for", ", ".join(card.languages), hint="de, en-GB"),
                Field("text", "region", "Is in", card.region, hint="nobody knows; or GB, DE-BY"),
                Field("yes", "signed_in", "Signed in", card.groups is not None),
                Field("listed", "groups", "in the groups", ", ".join(card.groups or ()), hint="none; or crew"),
            ],
        ),
        (
            "With what",
            [
                Field("number", "width_px", "Screen", card.width_px),
                Field("number", "height_px", "by", card.height_px, unit="px"),
                Field("choice", "pointer", "Points with", card.pointer, _POINTERS),
                Field("several", "prefers", "Asks for", card.prefers, list(PREFERENCES.items())),
                Field("yes", "has_script", "Scripts run", card.has_script),
                Field("yes", "signals", "Says no to being sold or shared", card.signals),
            ],
        ),
        (
            "When, and how often",
            [
                Field("moment", "clock", "Their clock", wall_clock(card)),
                Field("text", "zone", "in", card.zone, hint="Europe/London"),
                Field("number", "visit", "Visit", card.visit, hint="1"),
                *_remembered(card, site),
            ],
        ),
        (
            "From where",
            [
                Field("text", "came_from", "From", card.came_from, hint="nowhere; or news.example"),
                Field("listed", "came_with", "by a link with", came_with, hint="campaign=spring"),
                Field("number", "came_days", "It was", card.came_days, unit="days ago (0: now)"),
            ],
        ),
    ]


def wall_clock(card: VisitorCard) -> str:
    """What a clock on the wall shows where they are."""
    return instant_of(card.clock).astimezone(ZoneInfo(card.zone)).strftime("%Y-%m-%dT%H:%M")


def _remembered(card: VisitorCard, site: Site) -> Iterator[Field]:
    """Of all that asks whether it was closed or seen."""
    for node, name, kinds in remembering(site):
        for kind, before, words, known in (
            ("not-closed", CLOSED, "Closed", card.shuts),
            ("unseen", SEEN, "Saw", card.saw),
        ):
            if kind in kinds:
                days = next((one.days for one in known if one.node == node), None)
                yield Field("number", before + node, f"{words} “{name}”", days, hint="never", unit="days ago")


def remembering(site: Site) -> Iterator[tuple[str, str, set[str]]]:
    """Id and name of what has conditions that go by what a browser remembers of it, and their kinds."""
    for piece in site.pieces:
        node: Any
        for node in (piece, *walk(piece)):
            audience = getattr(node, "audience", None)
            kinds: set[str] = {one.kind for one in audience.conditions} if isinstance(audience, Audience) else set()
            if kinds & {"not-closed", "unseen"}:
                yield node.id, node_name(node, site), kinds


def remembered_from(
    days_of: dict[str, str | None], known: tuple[Remembered, ...], said: Callable[[str], str]
) -> list[dict[str, Any]]:
    """`days_of`: by node so many days, as they are typed; what is known of others stays. `said`: what a node says now,
    in short: that is what they closed."""
    kept = [
        {**one.model_dump(mode="json"), "days": days_of.pop(one.node, None) or one.days}
        for one in known
        if days_of.get(one.node, "kept")
    ]
    return [*kept, *({"node": node, "days": days, "text": said(node)} for node, days in days_of.items() if days)]
