"""For whom is what is chosen, and which of the site's simulated visitors get it?"""

from __future__ import annotations

from typing import Any, NamedTuple

from ....core.conditions.audience.audience import Audience
from ....core.conditions.visitor import VisitorCard
from ....core.model.site import Site
from ....core.reach.looking import looking_at
from ..controls.audience import CONTROLS_OF
from ..controls.audience.field import Field
from ..words.languages import language_name

PARTS = (
    ("every", "All of", "Everybody, so far. Each condition that is added here narrows it."),
    ("some", "At least one of", "Of several conditions here one is enough."),
    ("none", "None of", "Whoever meets one of these does not get it."),
)


class ConditionShown(NamedTuple):
    """`told`: what is not obvious about it."""

    name: str
    told: str
    fields: list[Field]


_TOLD = {
    "region": "Only a server knows it: in a ZIP nobody is known.",
    "member": "It is in the page of others, too, and only does not show: to keep it from them takes a gate.",
}


def audience_shown(site: Site, chosen: Any) -> dict[str, Any]:
    """Nothing where what is chosen has no audience of its own."""
    audience = getattr(chosen, "audience", None)
    if not isinstance(audience, Audience):
        return {}
    return {
        "audience_parts": [
            (part, name, told, [_shown(one, site) for one in getattr(audience, part)]) for part, name, told in PARTS
        ],
        "condition_kinds": [(kind, controls.name) for kind, controls in CONTROLS_OF.items()],
        "for_whom": audience.in_words(language_name),
        "gets": [(card, why_not(chosen, card, site)) for card in site.cards],
    }


def audience_words(node: Any) -> str:
    """Empty where it is for everybody."""
    audience = getattr(node, "audience", None)
    return audience.in_words(language_name) if isinstance(audience, Audience) and not audience.is_everybody else ""


def _shown(condition: Any, site: Site) -> ConditionShown:
    controls = CONTROLS_OF[condition.kind]
    return ConditionShown(controls.name, _TOLD.get(condition.kind, ""), controls.fields(condition, site))


def why_not(node: Any, card: VisitorCard, site: Site) -> str:
    """Empty where they get it; else the condition that keeps it from them."""
    if not card.has_script and not node.audience.is_everybody:
        return "without scripts nobody is known"
    failing = node.audience.failing(looking_at(node, card, site, site.languages))
    if failing is None:
        return ""
    part, condition = failing
    if part == "some":
        return "none of these is so: " + " or ".join(one.in_words(language_name) for one in node.audience.some)
    only = "not" if part == "none" else "only"
    of_people = "" if condition.KNOWN_BY == "the clock" else " for"
    return f"{only}{of_people} {condition.in_words(language_name)}"
