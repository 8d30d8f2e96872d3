"""Every text of a site against its languages: what is missing, what is older than its original, what does not fit."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any, NamedTuple
from urllib.parse import urlencode

from django.http import HttpRequest
from django.urls import reverse

from ....core.kinds.pieces.base import Piece
from ....core.languages.scripts import is_written_in
from ....core.model.site import Menu
from ....core.model.texts import PHRASES, SaidText, texts_of
from ....core.values.rich import RichWords, without_marks
from ....core.values.words import Standing
from ..cycle.screen import Opened, screen
from ..forms.wording import translator
from ..words.languages import language_name
from .board import SHOWS, Board, part_of, read_board


class Beside(NamedTuple):
    """A language in which texts are said. `href`: the board with it, or without it where it is on it."""

    tag: str
    name: str
    is_on: bool
    href: str
    missing: int


class Cell(NamedTuple):
    """A text in a language. `longer`: by how many percent, against the original; `letters`: it is not in those of the
    language."""

    language: str
    text: str
    shown: str
    standing: Standing
    longer: int
    letters: bool
    note: str
    is_open: bool


class Line(NamedTuple):
    """`named`: the beginning of the original."""

    text: SaidText
    original: str
    named: str
    is_rich: bool
    is_open: bool
    href: str
    cells: Sequence[Cell]


@screen("studio/wording/wording.html", "pages")
def wording(request: HttpRequest, opened: Opened, made: tuple[str, ...]) -> dict[str, Any]:
    return shown(request, opened)


def shown(request: HttpRequest, opened: Opened) -> dict[str, Any]:
    """All that the board shows of what is asked for."""
    site = opened.site
    board = read_board(request.GET, site, opened.stored.pk)
    part = part_of(board, request.GET)
    edited = request.GET.get("edit", "")
    kept = {"in": ",".join(board.languages), "show": board.show, "q": board.words, "at": board.within}
    kept = {name: value for name, value in kept.items() if value and value != "all"}
    groups = dict.fromkeys((text.within, text.group) for text in texts_of(site) if text.path)
    return {
        "beside": [_beside(tag, board, kept) for tag in site.other_languages],
        "shows": [
            (name, words, board.counts[name], _query(kept, show=name), name == board.show) for name, words in SHOWS
        ],
        "show": board.show,
        "q": board.words,
        "within": board.within,
        "groups": list(groups),
        "board": part,
        "lines": [_line(text, board, edited, opened) for text in part.object_list],
        "count": len(texts_of(site)),
        "kept": _query(kept),
        "unedited": _query({**kept, "part": request.GET.get("part", "")}),
        "translator": translator().NAME,
        "can_draft": any(board.missing[tag] for tag in board.languages),
    }


def _query(kept: dict[str, str], **changed: str) -> str:
    return "?" + urlencode({name: value for name, value in {**kept, **changed}.items() if value and value != "all"})


def _beside(tag: str, board: Board, kept: dict[str, str]) -> Beside:
    on = tag in board.languages
    others = [one for one in board.languages if one != tag] if on else [*board.languages, tag]
    href = _query(kept, **{"in": ",".join(others)}) if others else ""
    return Beside(tag, language_name(tag), on, href, board.missing[tag])


def _line(text: SaidText, board: Board, edited: str, opened: Opened) -> Line:
    words, is_rich = text.words, isinstance(text.words, RichWords)
    standings = words.standings(board.languages)
    plain = without_marks if is_rich else str
    original = plain(words.text)
    cells = []
    for language in board.languages:
        said = words.translation(language)
        shown = plain(said.text) if said else ""
        longer = round(100 * len(shown) / max(len(original), 1)) - 100 if said else 0
        fits = shown == original or is_written_in(shown, language)
        own, note = (said.text, said.note) if said else ("", "")
        is_open = edited == f"{text.key}.{language}"
        cells.append(Cell(language, own, shown, standings[language], longer, not fits, note, is_open))
    return Line(text, original, original[:60], is_rich, edited == f"{text.key}.", _where(text, opened), cells)


def _where(text: SaidText, opened: Opened) -> str:
    """Where it is changed with all else that belongs to it."""
    outermost = text.path[0] if text.path else None
    if isinstance(outermost, Piece):
        return f"{reverse('workbench', args=[opened.slug, outermost.id])}?select={text.path[-1].id}"
    if isinstance(outermost, Menu):
        return f"{reverse('menu', args=[opened.slug, outermost.id])}?select={text.path[-1].id}"
    if text.within == PHRASES:
        return f"{reverse('wording', args=[opened.slug])}?at={PHRASES}"
    return reverse("settings" if outermost is None else "gates", args=[opened.slug])
