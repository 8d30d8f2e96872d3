"""Does what is pressed say where it leads?"""

from __future__ import annotations

from collections.abc import Iterator
from functools import partial
from typing import Any

from ....kinds.entries import Entry
from ....kinds.items.contact import Contact
from ....kinds.pieces.base import Piece
from ....languages import primary
from ....model.navigation.links import Links
from ....model.site import Site
from ....model.tree import items_of, walk
from ....values.targets import ToNothing
from ....values.words import Words
from ...finding import Finding
from ...keeping import Keeps, anew

VAGUE = {
    "en": {"here", "click here", "more", "read more", "learn more", "link", "this page", "go"},
    "de": {"hier", "hier klicken", "klicken sie hier", "mehr", "mehr lesen", "weiterlesen", "link"},
    "cy": {"yma", "cliciwch yma", "mwy", "darllen mwy", "dolen"},
    "ar": {"هنا", "اضغط هنا", "المزيد", "اقرأ المزيد", "رابط"},
    "fr": {"ici", "cliquez ici", "plus", "lire la suite", "en savoir plus", "lien"},
    "es": {"aquí", "haz clic aquí", "más", "leer más", "saber más", "enlace"},
    "nl": {"hier", "klik hier", "meer", "lees meer", "link"},
}
"""Names that tell nobody who hears them by themselves where one would come to (WCAG 2.2, 2.4.9)."""


def in_names(site: Site, kept: Keeps = anew) -> Iterator[Finding]:
    """Of links and buttons in pieces, and of the entries of menus; in every language."""
    yield from _unnamed(site)
    spoken = (site.languages, site.language)
    for piece in site.pieces:
        if piece.on:
            told = (piece, *spoken)
            yield from kept(("names in", piece.id), told, partial(_in_piece, piece, site))
    yield from kept("names in menus", (site.menus, site.pages, *spoken), lambda: list(_in_menus(site)))


def _in_menus(site: Site) -> Iterator[Finding]:
    links = Links(site)
    for entry in (one for menu in site.menus for one in walk(menu) if isinstance(one, Entry)):
        for language in site.languages:
            yield from _vague(entry.id, links.label(entry, language), language)


def _in_piece(piece: Piece, site: Site) -> list[Finding]:
    found: list[Finding] = []
    named: dict[tuple[str, str], tuple[str, str]] = {}
    for node in walk(piece):
        words, target = getattr(node, "words", None), getattr(node, "target", None)
        if not isinstance(words, Words) or target is None or isinstance(target, ToNothing):
            continue
        for language in site.languages:
            said = _plain(words.in_language(language))
            found += _vague(node.id, said, language)
            known = named.setdefault((language, said), (node.id, target.model_dump_json()))
            if said and language == site.language and known[1] != target.model_dump_json():
                found.append(Finding("same name", node.id, known[0], {"first": said}))
    return found


def _unnamed(site: Site) -> Iterator[Finding]:
    """Search engines are told of contact details that have a name, which every type of theirs has to have."""
    shown = [item for item in items_of(piece for piece in site.pieces if piece.on) if isinstance(item, Contact)]
    saying = [item for item in shown if item.facts()]
    if saying and not any(item.name for item in saying):
        yield Finding("no business name", saying[0].id, about={"field": "name"})


def _vague(node: str, said: str, language: str) -> Iterator[Finding]:
    if _plain(said) in VAGUE.get(primary(language), ()):
        yield Finding("vague name", node, about={"first": said, "field": "words"}, language=language)


def _plain(said: Any) -> str:
    return " ".join(str(said).split()).strip(" .…»>→").casefold()
