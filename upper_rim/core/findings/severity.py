"""How bad is a finding, and who says so?"""

from __future__ import annotations

from collections.abc import Mapping
from typing import Literal, get_args

from .finding import FindingKind

Severity = Literal["breaks", "hinders", "doubtful"]
"""Visitors meet something that does not work, or cannot get on; some of them have a harder time; or somebody should look at
it. From the worst on."""
SEVERITIES: tuple[Severity, ...] = get_args(Severity)

_BREAKS: frozenset[FindingKind] = frozenset({
    "first words", "leads nowhere", "leads to itself", "made-up address", "no fields", "picture gone", "first place",
    "no page", "page gone", "to come", "no yes", "no no", "no field", "goes round", "refused to a door", "locked picture",
    "told by a file", "no yes to all", "no no to all", "no way back", "waits for nobody", "clips", "overflows", "collides",
    "no way on", "nobody", "broken link", "lost file", "no viewport",
})  # fmt: skip
_HINDERS: frozenset[FindingKind] = frozenset({
    "empty heading", "dead link", "no encoding", "not turned", "unseen picture", "nameless frame", "nameless field", "cannot grow",
    "takes no pieces", "nameless link", "unseen focus", "hidden link", "colour alone", "small picture", "heavy pieces", "no title", "two mains", "id twice", "no alternative", "no picture", "empty list", "empty piece", "says nothing", "no place", "nothing", "two buttons",
    "two buttons in one", "without header", "without footer", "never shown", "no effect", "past", "unequal answers",
    "no policy", "over a bar", "over a button", "two at once", "unknown hosts", "quotes a title", "no switch", "speaks alone",
    "twice in a language", "not translated", "other letters", "in English", "not mutual", "turned by CSS", "weak text",
    "over a picture", "wraps", "breaks words", "small target", "covered", "hidden focus", "overlap", "flicker", "squeezed",
})  # fmt: skip

SOURCES: Mapping[FindingKind, str] = {
    "no title": "WCAG 2.2, 2.4.2 (A)",
    "same title": "WCAG 2.2, 2.4.2 (A)",
    "no first heading": "WCAG 2.2, 2.4.6 (AA)",
    "skips a level": "WCAG 2.2, 1.3.1 (A)",
    "no main": "ARIA Authoring Practices, landmark regions",
    "two mains": "HTML, 4.4.14",
    "nameless link": "WCAG 2.2, 2.4.4 (A)",
    "own order": "WCAG 2.2, 2.4.3 (A)",
    "two banners": "ARIA Authoring Practices, landmark regions",
    "two footers": "ARIA Authoring Practices, landmark regions",
    "same landmark": "ARIA Authoring Practices, landmark regions",
    "no encoding": "HTML, 4.2.5.4",
    "not turned": "HTML, 3.2.6.4",
    "empty heading": "WCAG 2.2, 2.4.6 (AA)",
    "dead link": "HTML, 4.5.1",
    "unseen picture": "WCAG 2.2, 1.1.1 (A)",
    "nameless frame": "WCAG 2.2, 4.1.2 (A)",
    "nameless field": "WCAG 2.2, 4.1.2 (A)",
    "cannot grow": "WCAG 2.2, 1.4.4 (AA)",
    "no language": "WCAG 2.2, 3.1.1 (A)",
    "vague name": "WCAG 2.2, 2.4.9 (AAA)",
    "same name": "WCAG 2.2, 2.4.9 (AAA)",
    "unseen focus": "WCAG 2.2, 2.4.7 (AA)",
    "colour alone": "WCAG 2.2, 1.4.1 (A)",
    "hidden link": "WCAG 2.2, 1.4.1 (A)",
    "no such weight": "CSS Fonts 4, 5.2",
    "no business name": "schema.org, LocalBusiness",
    "no viewport": "WCAG 2.2, 1.4.10 (AA)",
    "id twice": "HTML, 3.2.6",
    "no alternative": "WCAG 2.2, 1.1.1 (A)",
    "leads nowhere": "WCAG 2.2, 2.4.4 (A)",
    "same label": "WCAG 2.2, 2.4.4 (A)",
    "weak text": "WCAG 2.2, 1.4.3 (AA)",
    "over a picture": "WCAG 2.2, 1.4.3 (AA)",
    "small target": "WCAG 2.2, 2.5.8 (AA)",
    "hidden focus": "WCAG 2.2, 2.4.11 (AA)",
    "clips": "WCAG 2.2, 1.4.10 (AA)",
    "overflows": "WCAG 2.2, 1.4.10 (AA)",
    "turned by CSS": "HTML, 15.3.6",
    "long lines": "WCAG 2.2, 1.4.8 (AAA)",
    "in English": "WCAG 2.2, 3.1.2 (AA)",
    "made-up address": "RFC 2606, 3",
}
"""Where it is said that it is wrong, where that is not plain."""


def severity_of(kind: FindingKind) -> Severity:
    return "breaks" if kind in _BREAKS else "hinders" if kind in _HINDERS else "doubtful"
