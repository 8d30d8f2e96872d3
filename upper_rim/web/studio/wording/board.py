"""Which of a site's texts are looked at?"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Sequence
from itertools import chain
from typing import Any, NamedTuple

from django.core.paginator import Paginator
from django.http import QueryDict

from ....core.fit.advice.lengths import TooLong, pieces_saying, too_long
from ....core.model.site import Site
from ....core.model.texts import SaidText, texts_of
from ...sites.fitters import site_fitter

CELLS, ROWS = 100, 50
"""On one screen: so many translations, all languages beside the original together, and so many texts at most."""
MOST_BESIDE = 3
"""Languages that stand beside the original where none are chosen."""
SHOWS: tuple[tuple[str, str], ...] = (
    ("all", "All"),
    ("missing", "Missing"),
    ("older", "Older than the original"),
    ("draft", "Drafts"),
    ("long", "Too long"),
)


class Board(NamedTuple):
    """Those of one state, in some languages, with some words, in one piece or menu. `counts`: how many there are in each
    state in one of the languages; `missing`: how many are in each language of the site."""

    languages: Sequence[str]
    show: str
    words: str
    within: str
    texts: Sequence[SaidText]
    counts: Counter[str]
    missing: Counter[str]


def read_board(asked: QueryDict, site: Site, site_id: int) -> Board:
    others = site.other_languages
    wanted = asked.get("in", "").split(",")
    chosen = [tag for tag in others if tag in wanted] or others[:MOST_BESIDE]
    show = asked.get("show", "all") if asked.get("show") in dict(SHOWS) else "all"
    words, within = asked.get("q", "").strip(), asked.get("at", "")
    texts = [
        text
        for text in texts_of(site)
        if (not within or within in {text.within, text.node}) and (not words or _has(text, words))
    ]
    standings = [text.words.standings(others) for text in texts]
    states = [{found[tag] for tag in chosen} for found in standings]
    counts = Counter[str](chain.from_iterable(states))
    missing = Counter(tag for found in standings for tag, standing in found.items() if standing == "missing")
    is_any = show in {"all", "long"}
    kept = [text for text, some in zip(texts, states, strict=True) if is_any or show in some]
    counts["all"] = len(texts)
    if show == "long":
        long = {one.node for one in lengths_of(site, site_id, kept, chosen)}
        kept = [text for text in kept if text.node in long]
        counts["long"] = len(kept)
    return Board(chosen, show, words, within, kept, counts, missing)


def _has(text: SaidText, words: str) -> bool:
    wanted = words.casefold()
    said = (text.words.text, *(one.text for one in text.words.translations), text.place, text.group)
    return any(wanted in one.casefold() for one in said)


def part_of(board: Board, asked: QueryDict) -> Any:
    """What of it is on the screen."""
    return Paginator(board.texts, min(ROWS, max(CELLS // max(len(board.languages), 1), 1))).get_page(asked.get("part"))


def lengths_of(site: Site, site_id: int, texts: Iterable[SaidText], languages: Iterable[str]) -> list[TooLong]:
    """What does not fit in the pieces that say these."""
    ids = {piece.id for text in texts for piece in pieces_saying(site, text)}
    return list(too_long(site_fitter(site_id), site, [one for one in site.pieces if one.id in ids], languages))
