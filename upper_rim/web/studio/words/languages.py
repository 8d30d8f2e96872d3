"""What is a language called in English?"""

from __future__ import annotations

from ....core.languages.names import name_in


def language_name(language: str) -> str:
    return name_in(language, "en")
