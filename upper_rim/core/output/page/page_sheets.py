"""Which part of the site's CSS does a page load? Rules that can match nothing of its pieces are left out."""

from __future__ import annotations

import re
from collections.abc import Callable, Collection, Iterable, Iterator, Sequence
from functools import lru_cache, reduce
from itertools import chain
from typing import NamedTuple

from ...kinds.rule import Rule
from ...style.selectors import selectors_in
from ...style.type.faces import IN_SLICES
from ...style.type.letters import OF_MANY_LETTERS
from ...style.type.unicode_range import code_points, scripts_in, scripts_served
from ..css.sheet import REFERENCE, SiteRules
from ..css.who_rules import without_visitors
from ..naming import PARTS_PATH, short_hash

_CLASSES = re.compile(r' class="([^"]*)"')
_LANGUAGES = re.compile(r' lang="([^"]*)"')
_ELEMENTS = re.compile(r"<([a-z][a-z0-9]*)")
_NAMES = re.compile(r'<span lang="[^"]+" dir="(?:ltr|rtl)">([^<]+)</span>| data-rim-said="([^"]+)"')
"""Names of languages in their own letters, and what is said in them, as `LanguageSwitch` writes them."""
_FILE = re.compile(r"([\w.-]+)\.woff2")
_LANGUAGE = re.compile(r":lang\(([\w-]+)\)")
_CONDITIONS = re.compile(r"\[[^\]]*\]|::?[\w-]+(?:\((?:[^()]|\([^()]*\))*\))?")
_OF_ELEMENTS = re.compile(r"(?:^|(?<=[\s>+~]))([a-z][a-z0-9]*)")
MADE_BY_SCRIPTS = frozenset({"html", "body", "a", "li", "span"})


class Shows(NamedTuple):
    """What a page's pieces are made of: their classes and kinds of elements, the languages said of these, the scripts
    of all that they can come to say (ISO 15924) and its characters that are of no script. `named`: characters of other
    scripts, in which languages are called by their own names. `decides`: whether anything of them is for some visitors
    only."""

    classes: frozenset[str]
    elements: frozenset[str]
    languages: frozenset[str]
    scripts: frozenset[str]
    common: frozenset[str]
    named: frozenset[str]
    decides: bool


def shows(html: str, words: frozenset[str], *, decides: bool) -> Shows:
    """Of markup of ours. `words`: characters of what may be put into it later."""
    classes = frozenset(name for listed in _CLASSES.findall(html) for name in listed.split())
    bare = _NAMES.sub("", html)
    characters = frozenset(bare) | words
    scripts = scripts_in(characters)
    names = frozenset("".join(chain.from_iterable(_NAMES.findall(html))))
    common = frozenset(one for one in characters if not scripts_in(one))
    return Shows(
        classes,
        MADE_BY_SCRIPTS | set(_ELEMENTS.findall(html)),
        frozenset(_LANGUAGES.findall(bare)),
        scripts,
        common,
        frozenset(one for one in names - characters if not scripts_in(one) <= scripts),
        decides,
    )


class PageSheets:
    """The sheets that were asked for, each once. `cut_fonts`: by the name of a font's file that these ask for, from which
    file it is cut, and the characters that are in it."""

    def __init__(
        self, rules: SiteRules, late: Iterable[Rule] = (), letters: Callable[[], frozenset[str]] = frozenset
    ) -> None:
        """`late`: those that come when something is used. `letters`: of scripts that have very many, all that the site's
        pieces say anywhere: one file for all pages."""
        # Each selector by itself, so that it can be left out by itself; those that stay are joined again.
        self._rules = rules._replace(ours=tuple(_one_by_one(rules.ours)))
        every = chain(self._rules.ours, rules.theirs, rules.children)
        own = re.compile(rf"\.({re.escape(rules.key)}-[\w-]+)")
        self._named = frozenset(name for text in (rules.own, *_texts(every)) for name in own.findall(text))
        others = chain(rules.registered, rules.theirs, late)
        self._referred = frozenset(_references([rules.own, *_texts(others)]))
        self._made: dict[Shows, str] = {}
        self._files: dict[str, bytes] = {}
        self._letters = letters
        self.cut_fonts: dict[str, tuple[str, str]] = {}

    def path(self, shown: Shows) -> str:
        """Where the sheet for a page with these pieces stands."""
        asked = shown._replace(classes=shown.classes & self._named)
        if asked not in self._made:
            # Said in the sheet: a page in another encoding would have it read in that (CSS Syntax 3, 3.2).
            made = f'@charset "utf-8";{self._less(asked)}'.encode()
            self._made[asked] = path = f"{PARTS_PATH}{short_hash(made)}.css"
            self._files[path] = made
        return self._made[asked]

    def files(self) -> Iterator[tuple[str, bytes]]:
        """Paths and contents of the sheets that pages were told so far."""
        yield from list(self._files.items())

    def _less(self, shown: Shows) -> str:
        written = ((face, _is_written(face, shown)) for face in self._rules.faces)
        some = shown.named | (self._letters() if shown.scripts & OF_MANY_LETTERS else frozenset())
        found = (face if is_whole else self._cut(face, some) for face, is_whole in written)
        faces = tuple(face for face in found if face is not None)
        missed = _families(self._rules.faces) - _families(faces)
        rules = self._rules.ours if shown.decides else without_visitors(self._rules.ours)
        ours = [_less_families(rule, missed) for rule in rules if _is_met(rule.selector, shown)]
        less = self._rules._replace(faces=faces, ours=tuple(self._less_unused(ours)))
        return less.minified(unused=self._named - shown.classes)

    def _cut(self, face: Rule, named: frozenset[str]) -> Rule | None:
        """A face of which some letters only are needed, for the names of languages, say; None where none are."""
        served = code_points(face.declarations.get("unicode-range", ""))
        letters = "".join(sorted(one for one in named if ord(one) in served))
        source = _FILE.search(face.declarations["src"])
        if not letters:
            return None
        if source is None:  # a font of the visitor's own
            return face
        name = f"{source[1]}-{short_hash(letters.encode())}.woff2"
        self.cut_fonts[name] = (f"{source[1]}.woff2", letters)
        ranges = ",".join(f"U+{ord(one):X}" for one in letters)
        declared = {"src": face.declarations["src"].replace(source[0], name), "unicode-range": ranges}
        return face._replace(declarations={**face.declarations, **declared})

    def _less_unused(self, rules: Sequence[Rule]) -> Iterator[Rule]:
        """Without custom properties that nothing refers to, but for the one that tells which stage shows."""
        ours, stage = f"--{self._rules.key}-", f"--{self._rules.key}-stage"
        used = {stage, *self._referred, *_references(_texts(rules))}
        for rule in rules:
            unused = {name for name in rule.declarations if name.startswith(ours) and name not in used}
            if not unused:
                yield rule
                continue
            kept = {name: value for name, value in rule.declarations.items() if name not in unused}
            yield rule._replace(declarations=kept)


def _texts(rules: Iterable[Rule]) -> Iterator[str]:
    for rule in rules:
        yield rule.selector
        yield from rule.declarations.values()


def _references(texts: Iterable[str]) -> Iterator[str]:
    """Custom properties that are referred to."""
    return (name for text in texts if "var(" in text for name in REFERENCE.findall(text))


def _one_by_one(rules: Iterable[Rule]) -> Iterator[Rule]:
    return (rule._replace(selector=one) for rule in rules for one in selectors_in(rule.selector))


def _is_met(selector: str, shown: Shows) -> bool:
    """Whether the page has the languages and the elements that it asks for."""
    spoken = all(_is_spoken(one, shown.languages) for one in _languages_of(selector))
    return spoken and _elements_of(selector) <= shown.elements


def _less_families(rule: Rule, missed: Collection[str]) -> Rule:
    families = rule.declarations.get("font-family")
    if families is None or not missed:
        return rule
    kept = reduce(lambda listed, one: listed.replace(f"{one},", ""), missed, families)
    return rule._replace(declarations={**rule.declarations, "font-family": kept})


@lru_cache(maxsize=4096)
def _languages_of(selector: str) -> tuple[str, ...]:
    return tuple(_LANGUAGE.findall(selector))


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


def _families(faces: Iterable[Rule]) -> set[str]:
    """Their names, in quotation marks as they are written in lists of families, too."""
    return {face.declarations["font-family"] for face in faces}


def _is_written(face: Rule, shown: Shows) -> bool:
    """Whether a font file serves a script that the page is written in, or a character that it has of none."""
    served = face.declarations.get("unicode-range")
    if served is None:
        return True
    if IN_SLICES.search(face.declarations["src"]):
        return False
    points = code_points(served)
    return bool(scripts_served(served) & shown.scripts) or any(ord(one) in points for one in shown.common)
