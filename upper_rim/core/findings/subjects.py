"""What is a finding about? A subject for each kind, as whoever works on a site would ask for it."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Literal, get_args

from .finding import FindingKind

Subject = Literal[
    "unfinished", "fit", "reading", "names and looks", "movement", "menus", "pages", "who sees it", "gates", "consent", "languages", "unused"
]  # fmt: skip
SUBJECTS: tuple[Subject, ...] = get_args(Subject)

_KINDS: Mapping[Subject, tuple[FindingKind, ...]] = {
    "unfinished": (
        "first words", "leads nowhere", "leads to itself", "made-up address", "empty list", "empty piece", "no fields",
        "no picture", "picture gone", "no alternative", "first place", "says nothing",
    ),
    "fit": ("tight", "wraps", "breaks words", "clips", "overflows", "collides", "squeezed", "small target"),
    "reading": ("weak text", "over a picture", "short lines", "long lines"),
    "names and looks": (
        "vague name", "same name", "unseen focus", "colour alone", "hidden link", "no such weight", "heavy picture",
        "heavy pieces", "small picture", "no business name", "same landmark", "same on hover",
        "current unmarked",
    ),
    "movement": ("covered", "gap", "never", "brief", "limited", "overlap", "hidden focus", "anchor", "flicker"),
    "menus": (
        "no page", "page gone", "to come", "no place", "nothing", "double", "same label", "deep", "nothing grows",
        "two buttons", "two buttons in one",
    ),
    "pages": (
        "no title", "same title", "no description", "no icon", "no first heading", "two first headings", "skips a level",
        "no main", "two mains", "id twice", "broken link", "no viewport", "takes no pieces", "left as it is", "nameless link", "own order",
        "two banners", "two footers", "no language", "unseen picture", "nameless frame", "nameless field", "cannot grow",
        "empty heading", "dead link", "lost file", "no encoding", "not turned",
    ),
    "who sees it": ("never shown", "no effect", "without header", "without footer", "nobody", "past", "no way on"),
    "gates": (
        "no yes", "no no", "no field", "goes round", "refused to a door", "many presses", "locked picture", "told by a file",
        "quotes a title",
    ),
    "consent": (
        "no yes to all", "no no to all", "unequal answers", "no policy", "no way back", "over a bar", "over a button",
        "two at once", "unknown hosts", "waits for nobody",
    ),
    "languages": (
        "one language", "no switch", "speaks alone", "twice in a language", "not translated", "older texts", "drafts",
        "other letters", "in English", "older pages", "not mutual", "turned by CSS",
    ),
    "unused": ("unused", "reaches nothing", "unused files"),
}  # fmt: skip
_OF_KIND = {kind: subject for subject, kinds in _KINDS.items() for kind in kinds}


def subject_of(kind: FindingKind) -> Subject:
    return _OF_KIND[kind]
