"""What does a visitor find who types a few letters? An index of the published pages, and the search in it.

The index is text, made at publish and read by the pages' own script as well as here. Its head says in the first line how
many pages there are; then come

- two lines a page, its path and its title;
- a line a word, in order: how many characters it shares with the word before (one base-36 digit), its other characters,
  a tab, and the pages that have it, as steps from one page to the next in base 36, with a comma between; `!` before a
  step: the word is in that page's title.

A large one is in parts, so that nobody loads it whole. The first line of its head goes on with how many pages are told in
a part, and what is put behind the head's name for a part's, before the part's own; the second has the beginnings of words
that have a part of their own, with the pages that have such words; each other is the first word of a part of words.

Words are compared without accents and case (Unicode 15.1, 3.13: compatibility decomposition, marks left out).
"""

from __future__ import annotations

import unicodedata
from bisect import bisect_left, bisect_right
from collections import defaultdict
from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from functools import cached_property, lru_cache
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


class SearchIndex:
    """The pages, and of each word where it is (`places`): their numbers twice, and one more where it is in the title; or
    what the index says of that (`steps`). `beginnings`: what is said of some beginnings of words."""

    def __init__(
        self,
        pages: Iterable[Hit],
        places: Mapping[str, list[int]],
        steps: Mapping[str, str],
        beginnings: Mapping[str, str],
    ) -> None:
        self.pages = tuple(pages)
        self._places, self._steps, self._beginnings = places, steps, beginnings

    @cached_property
    def words(self) -> list[str]:
        return sorted({*self._steps, *self._places}, key=str.encode)

    def steps(self, word: str) -> str:
        """As the index has them."""
        return _steps(self._places[word]) if word in self._places else self._steps[word]

    def places(self, word: str) -> list[int]:
        return self._places[word] if word in self._places else list(_places_in(self._steps[word]))

    def beginning(self, begin: str, words: Iterable[str]) -> str:
        """Where any of these words is, which are all that begin so; as steps."""
        if begin in self._beginnings:
            return self._beginnings[begin]
        found = set().union(*map(self.places, words))
        return _steps(sorted(place for place in found if place % 2 or place + 1 not in found))

    def with_changed(self, changed: Mapping[int, tuple[PageText, PageText]]) -> SearchIndex:
        """With other texts of some pages, by their numbers: what they were, and what they are."""
        pages, steps, beginnings = list(self.pages), dict(self._steps), dict(self._beginnings)
        for number, (old, new) in changed.items():
            pages[number] = _hit_of(new)
            before, now = _places_of(old), _places_of(new)
            for word in before.keys() | now.keys():
                if before.get(word) != now.get(word):
                    steps[word] = _with(steps.get(word, ""), number, now.get(word))
            for begin in beginnings:
                was, found = (_best(said[word] for word in said if word.startswith(begin)) for said in (before, now))
                if was != found:
                    beginnings[begin] = _with(beginnings[begin], number, found)
        return SearchIndex(pages, {}, {word: said for word, said in steps.items() if said}, beginnings)


def _best(said: Iterable[bool]) -> bool | None:
    return max(said, default=None)


def _places_of(page: PageText) -> dict[str, bool]:
    """The words of a page, and whether each is in its title."""
    plainly = dict.fromkeys(words_of(page.text), False)
    return plainly | dict.fromkeys(words_of(page.title), True)


def _with(steps: str, number: int, titled: bool | None) -> str:
    """Steps with a page as it is now; without it where `titled` is None."""
    kept = [place for place in _places_in(steps) if place // 2 != number]
    return _steps(sorted([*kept, *([] if titled is None else [2 * number + titled])]))


def read_index(load: Callable[[str], str]) -> SearchIndex:
    """One that was made before, whole. `load` gives its head or a part, by what is put behind its name."""
    searched = Searched(load)
    return SearchIndex(searched.pages(range(searched.count)), {}, dict(searched.words()), dict(searched.beginnings()))


def _hit_of(page: PageText) -> Hit:
    return Hit(page.path.replace("\n", " "), " ".join(page.title.split()))


def made_index(pages: Iterable[PageText]) -> SearchIndex:
    """The index of some pages; its size grows with the number of different words on each."""
    hits: list[Hit] = []
    places: defaultdict[bytes, list[int]] = defaultdict(list)
    for at, page in enumerate(pages):
        hits.append(_hit_of(page))
        words, in_title = _words_in(page.text), _words_in(page.title)
        for titled in in_title:
            words.pop(titled, None)
            places[titled].append(at * 2 + 1)
        for place in map(places.__getitem__, words):
            place.append(at * 2)
    return SearchIndex(hits, {word.decode(): said for word, said in places.items()}, {}, {})


WHOLE_UP_TO = 60_000
"""Characters: an index that is no larger is one file."""
PART = 24_000
"""Characters of words in a part, when one word more would begin the next."""
PAGES_A_PART = 128
MOST_PARTS = 2
"""Beginnings whose words are in more parts than these have one of their own."""


def index_files(
    index: SearchIndex, state: str = "", *, whole_up_to: int = WHOLE_UP_TO, part: int = PART
) -> dict[str, str]:
    """By what is put behind its name: the head (nothing) and the parts. `state`: tells these parts from those of the same
    index at another time. Both limits in characters."""
    pages = [line for hit in index.pages for line in hit]
    parts = list(_in_parts(index, part))
    told = "\n".join((str(len(index.pages)), *pages, *(line for _, lines in parts for line in lines)))
    if not parts or len(told) <= whole_up_to:
        return {"": "\n".join((str(len(index.pages)), *pages, *_spelled(index, index.words)))}
    beginnings = dict(_beginnings(index, [first for first, _ in parts]))
    of_state = f".{state}" if state else ""
    head = (f"{len(index.pages)} {PAGES_A_PART} {of_state}", " ".join(beginnings), *(first for first, _ in parts))
    by_part = range(0, len(pages), 2 * PAGES_A_PART)
    return {
        "": "\n".join(head),
        **{f"{of_state}-t{at}": "\n".join(pages[one : one + 2 * PAGES_A_PART]) for at, one in enumerate(by_part)},
        **{f"{of_state}-w{at}": "\n".join(lines) for at, (_, lines) in enumerate(parts)},
        **{f"{of_state}-b{at}": said for at, said in enumerate(beginnings.values())},
    }


def _in_parts(index: SearchIndex, most: int) -> Iterator[tuple[str, list[str]]]:
    """The first word of each part, and its lines."""
    before, size = "", 0
    part: tuple[str, list[str]] | None = None
    for word in index.words:
        if part is None or size > most:
            if part is not None:
                yield part
            part, before, size = (word, []), "", 0
        line = _line(before, word, index.steps(word))
        part[1].append(line)
        before, size = word, size + len(line)
    if part is not None:
        yield part


def _spelled(index: SearchIndex, words: Iterable[str]) -> Iterator[str]:
    before = ""
    for word in words:
        yield _line(before, word, index.steps(word))
        before = word


def _line(before: str, word: str, steps: str) -> str:
    shared = _shared(before, word)
    return f"{_DIGITS[shared]}{word[shared:]}\t{steps}"


def _beginnings(index: SearchIndex, firsts: Sequence[str]) -> Iterator[tuple[str, str]]:
    """Those that too many parts would have to be looked through for, in the order of the words."""
    first_bytes, words = [first.encode() for first in firsts], [word.encode() for word in index.words]

    def within(low: int, high: int, length: int) -> Iterator[tuple[str, str]]:
        while low < high:
            begin = index.words[low][:length]
            end = bisect_right(words, begin.encode() + b"\xff", low, high)
            in_parts = bisect_right(first_bytes, words[end - 1]) - bisect_right(first_bytes, words[low]) + 1
            if in_parts > MOST_PARTS:
                yield begin, index.beginning(begin, index.words[low:end])
                yield from within(low + (len(index.words[low]) == length), end, length + 1)
            low = end

    yield from within(0, len(words), 1)


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


def _places_in(steps: str) -> Iterator[int]:
    page = 0
    for step in steps.split(",") if steps else ():
        titled = step[0] == "!"
        page += _STEP.get(step) or int(step[titled:], 36)
        yield 2 * page + titled


def _read_words(lines: Iterable[str]) -> dict[str, str]:
    """Of each word its steps, in order."""
    words, before = {}, ""
    for line in lines:
        head, _, where = line.partition("\t")
        before = before[: int(head[0], 36)] + head[1:]
        words[before] = where
    return words


class _Words(NamedTuple):
    """Of a part, as it is searched."""

    listed: tuple[str, ...]
    steps: tuple[str, ...]


@lru_cache(maxsize=128)
def _words_of_part(text: str) -> _Words:
    read = _read_words(text.split("\n") if text else ())
    return _Words(tuple(read), tuple(read.values()))


class Searched:
    """An index as it is searched: what of it is needed is read then. `load` gives its head or a part, by what is put
    behind its name."""

    def __init__(self, load: Callable[[str], str]) -> None:
        first, *lines = load("").split("\n")
        count, a_part, state = (*first.split(" "), "", "")[:3]
        self._whole, self._state = load, state
        self.count, self._a_part, self._lines = int(count), int(a_part or 0), lines
        self._beginnings = {begin: at for at, begin in enumerate(lines[0].split())} if a_part else {}
        self._firsts = [first.encode() for first in lines[1:]] if a_part else [b""]

    def _load(self, part: str) -> str:
        return self._whole(f"{self._state}{part}")

    def find(self, query: str) -> list[int]:
        """Numbers of the pages that have every word of the query, the last letters of each still to come; those with it
        in their title first, then in their order."""
        scores: list[int] | None = None
        for word in words_of(query):
            found = self._scores(word)
            if scores is not None:
                found = [before and now and before + now for before, now in zip(scores, found, strict=True)]
            scores = found
        scored = scores or []
        return sorted((page for page, score in enumerate(scored) if score), key=lambda page: -scored[page])

    def pages(self, numbers: Iterable[int]) -> list[Hit]:
        return list(map(self._page, numbers))

    def _page(self, number: int) -> Hit:
        part, at = divmod(number, self._a_part) if self._a_part else (0, number)
        lines = _lines(self._load(f"-t{part}")) if self._a_part else self._lines
        return Hit(lines[2 * at], lines[2 * at + 1])

    def words(self) -> Iterator[tuple[str, str]]:
        """All, in order, with their steps."""
        for at in range(len(self._firsts)):
            part = self._part(at)
            yield from zip(part.listed, part.steps, strict=True)

    def beginnings(self) -> Iterator[tuple[str, str]]:
        return ((begin, self._load(f"-b{at}")) for begin, at in self._beginnings.items())

    def _scores(self, word: str) -> list[int]:
        found = [0] * self.count
        whole = self._beginnings.get(word)
        if whole is not None:
            _score(found, self._load(f"-b{whole}"), 0)
        for part in self._parts_with(word, only_itself=whole is not None):
            at = bisect_left(part.listed, word)
            while at < len(part.listed) and part.listed[at].startswith(word):
                is_exact = part.listed[at] == word
                if is_exact or whole is None:
                    _score(found, part.steps[at], is_exact)
                at += 1
        return found

    def _parts_with(self, word: str, *, only_itself: bool) -> Iterator[_Words]:
        at = max(0, bisect_right(self._firsts, word.encode()) - 1)
        yield self._part(at)
        while not only_itself and at + 1 < len(self._firsts) and self._firsts[at + 1].startswith(word.encode()):
            at += 1
            yield self._part(at)

    def _part(self, at: int) -> _Words:
        told = self._load(f"-w{at}") if self._a_part else "\n".join(self._lines[2 * self.count :])
        return _words_of_part(told)


@lru_cache(maxsize=64)
def _lines(text: str) -> list[str]:
    return text.split("\n")


def _score(found: list[int], steps: str, exact: int) -> None:
    for place in _places_in(steps):
        page, score = place // 2, (4 if place % 2 else 1) + exact
        if found[page] < score:
            found[page] = score


def search(index: SearchIndex, query: str) -> list[Hit]:
    """The same in an index that was just made."""
    searched = Searched(index_files(index).__getitem__)
    return searched.pages(searched.find(query))
