"""Which simulated visitor does a form mean?"""

from __future__ import annotations

from collections.abc import Callable
from datetime import UTC, datetime
from typing import Any
from zoneinfo import ZoneInfo

from django.http import QueryDict
from pydantic import ValidationError

from ....core.conditions.visitor import VisitorCard
from ....core.model.editing.edits import Edit, Set, Together
from ....core.model.site import Site
from ....core.model.tree import holder_of
from ....core.reach.looking import says
from ..controls.visitors import CLOSED, SEEN, fields_of, remembered_from, wall_clock
from .audience import words_of_error
from .form_error import FormError, NotThere, Posted


def card(site: Site, post: QueryDict) -> Posted:
    """The whole card is typed; what is otherwise than it was becomes one edit."""
    there = next((one for one in site.cards if one.id == post["node"]), None)
    if there is None:
        raise NotThere(post["node"])
    fields = {field.name: field for _, some in fields_of(there, site) for field in some}
    said: dict[str, Any] = {name: field.read(post) for name, field in fields.items()}
    signed_in, groups = said.pop("signed_in"), said.pop("groups")
    for slot, before, known in (("shuts", CLOSED, there.shuts), ("saw", SEEN, there.saw)):
        days = {name.removeprefix(before): said.pop(name) for name in list(said) if name.startswith(before)}
        said[slot] = remembered_from(days, known, lambda node: says(holder_of(site, node), site))
    said["groups"] = groups if signed_in else None
    pairs = (one.partition("=") for one in said["came_with"])
    said["came_with"] = [{"name": name.strip(), "value": value.strip()} for name, _, value in pairs]
    said["clock"] = _instant(there, said["clock"], said["zone"])
    try:
        whole = VisitorCard.model_validate({**there.model_dump(mode="json"), **said})
    except ValidationError as wrong:
        error = wrong.errors()[0]
        at_fault = next((fields[str(one)] for one in error["loc"] if one in fields), None)
        words = words_of_error(error, at_fault, post)
        raise FormError(there.id, "", words, name=at_fault.name if at_fault else "name") from None
    value = whole.model_dump(mode="json")
    edits: list[Edit] = [
        Set(node=there.id, field=name, value=value[name])
        for name in said
        if getattr(whole, name) != getattr(there, name)
    ]
    return Posted(edits[0] if len(edits) == 1 else Together(edits=tuple(edits)))


def _instant(there: VisitorCard, clock: str | None, zone: str) -> str:
    """In UTC, of a clock on the wall in their zone; as it is where nothing else is typed, of an hour that comes twice,
    too."""
    if (clock, zone) == (wall_clock(there), there.zone):
        return there.clock
    try:
        wall = datetime.fromisoformat(clock or "").replace(tzinfo=ZoneInfo(zone))
    except (ValueError, KeyError, OSError):
        at_fault = "clock" if not clock else "zone"
        words = "say a day and a time" if not clock else "no time zone is called so; Europe/London is one"
        raise FormError(there.id, "", words, name=at_fault) from None
    return wall.astimezone(UTC).strftime("%Y-%m-%dT%H:%MZ")


READERS: dict[str, Callable[[Site, QueryDict], Posted]] = {"card": card}
