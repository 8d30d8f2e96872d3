"""What is a language called?"""

from __future__ import annotations

from django.utils.translation import get_language_info


def language_name(tag: str) -> str:
    """In English; the tag itself where it has no name that we know."""
    try:
        return str(get_language_info(tag)["name"])
    except KeyError:
        return tag
