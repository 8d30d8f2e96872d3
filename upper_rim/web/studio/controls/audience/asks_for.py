"""With what is the condition changed that somebody asks for a language?"""

from __future__ import annotations

from .....core.conditions.audience.asks_for import AsksFor
from .....core.model.site import Site
from ...words.languages import language_name
from .field import ConditionControls, Field


def _fields(condition: AsksFor, site: Site) -> list[Field]:
    choices = [(tag, language_name(tag)) for tag in dict.fromkeys((*site.languages, *condition.languages))]
    return [Field("several", "languages", "One of", condition.languages, choices)]


CONTROLS = ConditionControls("Language", lambda site: {"languages": [site.language]}, _fields)
