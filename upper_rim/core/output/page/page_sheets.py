"""Which part of the site's CSS does a page load? Rules that can match nothing of its pieces are left out."""

from __future__ import annotations

import re
from collections.abc import Iterable, Iterator
from functools import lru_cache
from typing import NamedTuple

import lightningcss

from ...style.selectors import selectors_in
from ...style.unicode_range import code_points, scripts_in, scripts_served
from ..css.sheet import SiteRules
from ..naming import PARTS_PATH, short_hash

_CLASSES = re.compile(r' class="([^"]*)"')
_LANGUAGES = re.compile(r' lang="([^"]*)"')
_ELEMENTS = re.compile(r"<([a-z][a-z0-9]*)")
_FLAT_RULE = re.compile(r"([^{};@]+)\{([^{}]*)\}")
_LANGUAGE = re.compile(r":lang\(([\w-]+)\)")
_CONDITIONS = re.compile(r"\[[^\]]*\]|::?[\w-]+(?:\((?:[^()]|\([^()]*\))*\))?")
_OF_ELEMENTS = re.compile(r"(?:^|(?<=[\s>+~]))([a-z][a-z0-9]*)")
MADE_BY_SCRIPTS = frozenset({"html", "body", "a", "li", "span"})
_FAMILY = re.compile(r'font-family:("[^"]*")')
_REFERENCE = re.compile(r"var\(\s*(--[\w-]+)")
_SERVED = re.compile(r"unicode-range:([^;}]+)")


class Shows(NamedTuple):
    """What a page's pieces are made of: their classes and kinds of elements, the languages said of these, the scripts of
    all that they can come to say (ISO 15924) and its characters that are of no script."""

    classes: frozenset[str]
    elements: frozenset[str]
    languages: frozenset[str]
    scripts: frozenset[str]
    common: frozenset[str]


def shows(html: str, words: frozenset[str]) -> Shows:
    """Of markup of ours. `words`: characters of what may be put into it later."""
    classes = frozenset(name for listed in _CLASSES.findall(html) for name in listed.split())
    characters = frozenset(html) | words
    common = frozenset(one for one in characters if not scripts_in(one))
    return Shows(
        classes,
        MADE_BY_SCRIPTS | set(_ELEMENTS.findall(html)),
        frozenset(_LANGUAGES.findall(html)),
        scripts_in(characters),
        common,
    )


class PageSheets:
    """The sheets that were asked for, each once. `key` begins every published class name."""

    def __init__(self, rules: SiteRules, key: str, late: str = "") -> None:
        """`late`: CSS that comes when something is used."""
        # Each selector by itself, so that it can be left out by itself; those that stay are joined again.
        ours = _FLAT_RULE.sub(_one_by_one, rules.ours)
        self._rules = rules._replace(ours=ours)
        self._named = frozenset(re.findall(rf"\.({re.escape(key)}-[\w-]+)", rules.first + ours))
        self._late = late
        self._property = re.compile(rf"(--{re.escape(key)}-(?!stage:)[\w-]+):[^;{{}}]*;?")
        self._made: dict[Shows, str] = {}
        self._files: dict[str, bytes] = {}

    def path(self, shown: Shows) -> str:
        """Where the sheet for a page with these pieces stands."""
        asked = shown._replace(classes=shown.classes & self._named)
        if asked not in self._made:
            made = self._less(asked).encode()
            self._made[asked] = path = f"{PARTS_PATH}{short_hash(made)}.css"
            self._files[path] = made
        return self._made[asked]

    def files(self) -> Iterator[tuple[str, bytes]]:
        """Paths and contents of the sheets that pages were told so far."""
        yield from list(self._files.items())

    def _less(self, shown: Shows) -> str:
        def met(rule: re.Match[str]) -> str:
            spoken = all(_is_spoken(one, shown.languages) for one in _LANGUAGE.findall(rule[1]))
            return rule[0] if spoken and _elements_of(rule[1]) <= shown.elements else ""

        faces = [face for face in self._rules.faces if _is_written(face, shown)]
        ours = _FLAT_RULE.sub(met, self._rules.ours)
        for family in _families(self._rules.faces) - _families(faces):
            ours = ours.replace(f"{family},", "")
        css = lightningcss.process_stylesheet(
            "".join(faces) + self._rules.first + self._less_unused(ours),
            unused_symbols=set(self._named - shown.classes),
            minify=True,
        )
        return str(css)

    def _less_unused(self, css: str) -> str:
        """Without custom properties that nothing refers to, but for the one that tells which stage shows."""
        used = set(_REFERENCE.findall(css + self._rules.first + self._late))
        return self._property.sub(lambda said: said[0] if said[1] in used else "", css)


def _one_by_one(rule: re.Match[str]) -> str:
    return "".join(f"{selector}{{{rule[2]}}}" for selector in selectors_in(rule[1]))


@lru_cache(maxsize=4096)
def _elements_of(selector: str) -> frozenset[str]:
    """The kinds of elements without which a selector matches nothing."""
    bare = selector
    while (less := _CONDITIONS.sub("", bare)) != bare:
        bare = less
    return frozenset(_OF_ELEMENTS.findall(bare))


def _is_spoken(asked: str, languages: Iterable[str]) -> bool:
    """Selectors 4, 7.2: a range matches what begins with it."""
    return any(f"{one}-".lower().startswith(f"{asked}-".lower()) for one in languages)


def _families(faces: Iterable[str]) -> set[str]:
    """Their names, in quotation marks as they are written in lists of families, too."""
    return {found[1] for face in faces if (found := _FAMILY.search(face))}


def _is_written(face: str, shown: Shows) -> bool:
    """Whether a font file serves a script that the page is written in, or a character that it has of none."""
    served = _SERVED.search(face)
    if served is None:
        return True
    points = code_points(served[1])
    return bool(scripts_served(served[1]) & shown.scripts) or any(ord(one) in points for one in shown.common)
