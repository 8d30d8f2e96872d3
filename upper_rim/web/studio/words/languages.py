"""What is a language called in English?"""

from __future__ import annotations

from django.conf.locale import LANG_INFO

from ....core.languages import primary


def language_name(language: str) -> str:
    known = LANG_INFO.get(language.lower()) or LANG_INFO.get(primary(language))
    return str(known["name"]) if known and "name" in known else language
