"""What does a visitor find who types a few letters? An index of the published pages, and the search in it.

The index is a text, made at publish and read by the pages' own script as well as here:

- first line: the number of pages; then two lines a page, its path and its title;
- then a line a word, in order: how many characters it shares with the word before (one base-36 digit), its other
  characters, a tab, and the pages that have it, as steps from one page to the next in base 36, with a comma between;
  `!` before a step: the word is in that page's title.

Words are compared without accents and case (Unicode 15.1, 3.13: compatibility decomposition, marks left out).
"""

from __future__ import annotations

import unicodedata
from bisect import bisect_left
from collections import defaultdict
from collections.abc import Callable, Iterable
from functools import lru_cache
from typing import NamedTuple

from selectolax.lexbor import LexborHTMLParser

_DIGITS = "0123456789abcdefghijklmnopqrstuvwxyz"
LONGEST_WORD = 40
LEFT_OUT = "script,style,noscript,template,svg,head"


class PageText(NamedTuple):
    path: str
    title: str
    text: str


class Hit(NamedTuple):
    path: str
    title: str


def plain(text: str) -> str:
    """Without accents and case."""
    return text.lower() if text.isascii() else text.translate(_PLAIN)


class _Made(dict[int, str]):
    """What each character becomes, for `str.translate`: worked out when it first occurs. What can be decomposed is so
    whatever stands beside it. As many as any language writes are kept."""

    MOST = 20_000

    def __init__(self, make: Callable[[str], str]) -> None:
        super().__init__()
        self._make = make

    def __missing__(self, point: int) -> str:
        made = self._make(chr(point))
        if len(self) < self.MOST:
            self[point] = made
        return made


def _plain_of(char: str) -> str:
    decomposed = unicodedata.normalize("NFKD", char.casefold())
    return "".join(one for one in decomposed if unicodedata.category(one) != "Mn")


_PLAIN = _Made(_plain_of)
_IN_WORDS = _Made(lambda char: "".join(one if one.isalnum() else " " for one in _PLAIN[ord(char)]))
_ASCII_IN_WORDS = bytes(ord(_IN_WORDS[point]) if point < 128 else 0 for point in range(256))


def words_of(text: str) -> list[str]:
    """Each once, in the order in which they come: letters and digits without anything between them."""
    return [word.decode() for word in _words_in(text)]


def _words_in(text: str) -> dict[bytes, None]:
    """The same in UTF-8, whose order is that of the characters: bytes are quicker to part, and are words of the index
    only once for all pages."""
    plainly = text.encode().translate(_ASCII_IN_WORDS) if text.isascii() else text.translate(_IN_WORDS).encode()
    words = dict.fromkeys(plainly.split())
    if max(map(len, words), default=0) <= LONGEST_WORD:
        return words
    return dict.fromkeys(word.decode()[:LONGEST_WORD].encode() for word in words)


def text_of(html: str) -> str:
    """What a page says, less scripts and the like."""
    tree = LexborHTMLParser(html)
    for node in tree.css(LEFT_OUT):
        node.decompose()
    return tree.body.text(separator=" ") if tree.body else ""


def made_index(pages: Iterable[PageText]) -> str:
    """The index of some pages; its size grows with the number of different words on each."""
    lines: list[str] = []
    places: defaultdict[bytes, list[int]] = defaultdict(list)
    for at, page in enumerate(pages):
        lines += [page.path.replace("\n", " "), " ".join(page.title.split())]
        words, in_title = _words_in(page.text), _words_in(page.title)
        for titled in in_title:
            words.pop(titled, None)
            places[titled].append(at * 2 + 1)
        for place in map(places.__getitem__, words):
            place.append(at * 2)
    before = ""
    for said in sorted(places):
        word = said.decode()
        shared = _shared(before, word)
        lines.append(f"{_DIGITS[shared]}{word[shared:]}\t{_steps(places[said])}")
        before = word
    return "\n".join((str((len(lines) - len(places)) // 2), *lines))


def _shared(before: str, word: str) -> int:
    most = min(len(before), len(word), len(_DIGITS) - 1)
    return next((at for at in range(most) if before[at] != word[at]), most)


def _steps(places: list[int]) -> str:
    said, last = [], 0
    for place in places:
        at, titled = divmod(place, 2)
        step = at - last
        said.append(("!" if titled else "") + (_STEPS[step] if step < len(_STEPS) else _base36(step)))
        last = at
    return ",".join(said)


def _base36(number: int) -> str:
    digits = ""
    while True:
        number, digit = divmod(number, 36)
        digits = _DIGITS[digit] + digits
        if not number:
            return digits


_STEPS = [_base36(number) for number in range(36**2)]
_STEP = {step: number for number, step in enumerate(_STEPS)}
"""Nearly all steps; looking one up is quicker than working it out."""


class Index(NamedTuple):
    """An index as it is searched: pages, words in order, and where each is."""

    pages: tuple[Hit, ...]
    words: tuple[str, ...]
    places: tuple[str, ...]


@lru_cache(maxsize=8)
def read_index(text: str) -> Index:
    first, *lines = text.split("\n")
    count = int(first) * 2
    pages = tuple(Hit(path, title) for path, title in zip(lines[0:count:2], lines[1:count:2], strict=True))
    words, places, before = [], [], ""
    for line in lines[count:]:
        head, _, where = line.partition("\t")
        before = before[: int(head[0], 36)] + head[1:]
        words.append(before)
        places.append(where)
    return Index(pages, tuple(words), tuple(places))


def search(index: Index, query: str) -> list[Hit]:
    """Pages that have every word of the query, the last letters of each still to come; those with it in their title
    first, then in the order of their paths."""
    wanted = words_of(query)
    if not wanted:
        return []
    scores: list[int] | None = None
    for word in wanted:
        found = [0] * len(index.pages)
        at = bisect_left(index.words, word)
        while at < len(index.words) and index.words[at].startswith(word):
            page, plainly, in_title = 0, 1 + (index.words[at] == word), 4 + (index.words[at] == word)
            for step in index.places[at].split(","):
                score = plainly
                if step[0] == "!":
                    step, score = step[1:], in_title
                page += _STEP.get(step) or int(step, 36)
                if found[page] < score:
                    found[page] = score
            at += 1
        if scores is None:
            scores = found
        else:
            scores = [before and now and before + now for before, now in zip(scores, found, strict=True)]
    assert scores is not None
    hits = [page for page, score in enumerate(scores) if score]
    return [index.pages[page] for page in sorted(hits, key=lambda page: -scores[page])]
