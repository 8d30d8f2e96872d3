"""Who translates, where no person does? The interface that a service fills, and a stand-in for one that ships.

The stand-in is no translator and says so: it has a few words and the phrases of `data/`, and of all else it makes letters
of the language, as many as such texts usually have: so one sees what will not fit, which letters a face lacks and what is
mirrored, before anybody has translated anything.
"""

from __future__ import annotations

import re
import tomllib
from collections.abc import Mapping, Sequence
from functools import lru_cache
from importlib.resources import files
from typing import Protocol

from . import PHRASES_OF, language_of, primary
from .scripts import scripts_of


class Translator(Protocol):
    NAME: str
    """As it is called on screen."""

    def translate(self, texts: Sequence[str], source: str, target: str) -> Sequence[str]:
        """One for each text, in their order. Texts may hold elements of HTML and character references, which stay."""
        ...


_LETTERS = {
    "Arab": "ابتثجحخدذرزسشصضطظعغفقكلمنهوي",
    "Armn": "աբգդեզէըթժիլխծկհձղճմյնշոչպջռսվտրցւփքօֆ",
    "Beng": "কখগঘচছজঝটঠডঢতথদধনপফবভমযরলশষসহ",
    "Cyrl": "абвгдежзийклмнопрстуфхцчшщыьэюя",
    "Deva": "कखगघचछजझटठडढतथदधनपफबभमयरलवशषसह",
    "Geor": "აბგდევზთიკლმნოპჟრსტუფქღყშჩცძწჭხჯჰ",
    "Grek": "αβγδεζηθικλμνξοπρστυφχψω",
    "Hang": "가나다라마바사아자차카타파하고노도로모보소오조초코토",
    "Hani": "山水日月木火土金人口手目耳田石竹米雨門車馬魚鳥花草心",
    "Hebr": "אבגדהוזחטיכלמנסעפצקרשת",
    "Hira": "あいうえおかきくけこさしすせそたちつてとなにぬねのはひ",
    "Thai": "กขคงจชซดตถทนบปผพฟมยรลวสหอ",
}
_ACCENTED = str.maketrans("aceinouyACEINOUY", "áçéíñóúýÁÇÉÍÑÓÚÝ")
_KEPT = re.compile(r"(<[^<>]*>|&[#\w]+;|\{[^{}]*\}|\S*[@/]\S*|\s+)")


class StandInTranslator:
    NAME = "Stand-in translator (simulated)"

    def translate(self, texts: Sequence[str], source: str, target: str) -> Sequence[str]:
        known = _known(primary(target)) if primary(source) == PHRASES_OF else {}
        longer = language_of(target).expansion / language_of(source).expansion
        return [known.get(text.strip().lower()) or _made_up(text, target, longer) for text in texts]


@lru_cache(maxsize=64)
def _known(subtag: str) -> Mapping[str, str]:
    """English in lower case, and what the language says for it."""
    english, said = language_of(PHRASES_OF).phrases, language_of(subtag).phrases
    phrases = {english[name].lower(): text for name, text in said.items() if name in english}
    words = tomllib.loads((files(__name__.rpartition(".")[0]) / "dictionary.toml").read_text(encoding="utf-8"))
    return {**phrases, **words.get(subtag, {})}


def _made_up(text: str, target: str, longer: float) -> str:
    scripts = scripts_of(target)
    letters = next((letters for script, letters in _LETTERS.items() if script in scripts), "")
    parts = _KEPT.split(text)
    return "".join(part if at % 2 else _word(part, letters, longer) for at, part in enumerate(parts))


def _word(word: str, letters: str, longer: float) -> str:
    if not any(char.isalpha() for char in word):
        return word
    if letters:
        made = "".join(letters[(ord(char) * 7) % len(letters)] if char.isalpha() else char for char in word)
    else:
        made = word.translate(_ACCENTED)
    more = round(len(word) * longer) - len(word)
    at = max((at for at, char in enumerate(made) if char.isalpha()), default=0)
    return made[: at + 1] + made[at] * max(more, 0) + made[at + 1 :]
