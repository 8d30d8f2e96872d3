"""Which audience does a form mean? Each form is about one condition, in one of the three parts."""

from __future__ import annotations

from collections.abc import Callable
from datetime import timedelta
from typing import Any, cast
from zoneinfo import ZoneInfo

from django.http import QueryDict
from pydantic import JsonValue, TypeAdapter, ValidationError
from pydantic_core import ErrorDetails

from ....core.conditions.audience import AUDIENCE_KINDS, AnyCondition
from ....core.conditions.audience.audience import Audience
from ....core.conditions.audience.in_period import InPeriod, instant_in
from ....core.model.editing.edits import Set
from ....core.model.site import Site
from ....core.model.tree import holder_of
from ..controls.audience import CONTROLS_OF
from ..controls.audience.field import Field
from .form_error import FormError, NoSuchField, NotThere, Posted

_condition: TypeAdapter[AnyCondition] = TypeAdapter(AnyCondition)
_KINDS = {kind.model_fields["kind"].default: kind for kind in AUDIENCE_KINDS}


def condition(site: Site, post: QueryDict) -> Posted:
    """`condition`: one is changed, by its place (`at`) in its `part`; `condition:add`: another of a `kind`;
    `condition:remove`."""
    node = post["node"]
    holder: Any = holder_of(site, node)
    if holder is None:
        raise NotThere(node, "audience")
    if not isinstance(getattr(holder, "audience", None), Audience):
        raise NoSuchField(node, "audience")
    part, how = post["part"], post["do"].partition(":")[2]
    audience: Audience = holder.audience
    said = {name: list(getattr(audience, name)) for name in Audience.model_fields}
    if how == "add":
        kind = post["kind"]
        said[part].append(_KINDS[kind](**cast(Any, CONTROLS_OF[kind].begins(site))))
    else:
        at = int(post["at"])
        if not 0 <= at < len(said[part]):
            raise NotThere(node, "audience")
        there = said[part].pop(at)
        if how != "remove":
            said[part].insert(at, _read(node, there, site, post))
    value: dict[str, JsonValue] = {
        name: [one.model_dump(mode="json") for one in conditions] for name, conditions in said.items()
    }
    return Posted(Set(node=node, field="audience", value=value))


def _read(node: str, there: AnyCondition, site: Site, post: QueryDict) -> AnyCondition:
    controls = CONTROLS_OF[there.kind]
    try:
        return _condition.validate_python(controls.read(there, site, post))
    except ValidationError as wrong:
        error = wrong.errors()[0]
    fields = {field.name: field for field in controls.fields(there, site)}
    # The first place is the kind's own.
    at_fault = next((fields[one] for one in error["loc"] if one in fields), None)
    name = at_fault.name if at_fault else next(iter(fields))
    raise FormError(node, "", words_of_error(error, at_fault, post), name=name)


def words_of_error(error: ErrorDetails, field: Field | None, post: QueryDict) -> str:
    """What is wrong with what was typed in a field, as the end of a sentence."""
    if error["type"] == "value_error":
        return str(error["ctx"]["error"])
    if field is None or not post.get(field.name, "").strip():
        return "say something here" if field is None else f"say something for “{field.label}”"
    typed = error["input"] if isinstance(error["input"], str) else post[field.name]
    hint = f"; it is written like this: {field.hint}" if field.hint else ""
    return f"“{typed}” will not do for “{field.label}”{hint}"


def turned(site: Site, post: QueryDict) -> Posted:
    """`turn-time`: an `end` (`begins` or `ends`) of a period, among `every` by its place (`at`), is so many `minutes`
    behind the beginning of a day (`from`) now: to the hour, of the site's zone."""
    node, at, end = post["node"], int(post["at"]), post["end"]
    holder: Any = holder_of(site, node)
    audience: Audience | None = getattr(holder, "audience", None)
    if audience is None or not 0 <= at < len(audience.every) or end not in {"begins", "ends"}:
        raise NotThere(node, "audience")
    period = audience.every[at]
    if not isinstance(period, InPeriod):
        raise NotThere(node, "audience")
    moment = instant_in(f"{post['from']}T00:00", site.zone) + timedelta(minutes=int(post["minutes"]))
    wall = (moment + timedelta(minutes=30)).astimezone(ZoneInfo(site.zone)).replace(minute=0)
    said = {**period.model_dump(mode="json"), end: f"{wall:%Y-%m-%dT%H:%M}"}
    try:
        changed = InPeriod.model_validate(said)
    except ValidationError as wrong:
        raise FormError(node, "", words_of_error(wrong.errors()[0], None, post)) from None
    every = [changed if place == at else one for place, one in enumerate(audience.every)]
    value = audience.replaced(every=tuple(every)).model_dump(mode="json")
    return Posted(Set(node=node, field="audience", value=value))


READERS: dict[str, Callable[[Site, QueryDict], Posted]] = {"condition": condition, "turn-time": turned}
