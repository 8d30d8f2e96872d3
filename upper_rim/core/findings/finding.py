"""What is a finding? Something wrong or doubtful about a site: of which kind, about which node, where, by how much, and
what would mend it."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Literal, NamedTuple

from ..model.editing.edits import Edit

FindingKind = Literal[
    # of what is not finished
    "first words", "leads nowhere", "leads to itself", "made-up address", "empty list", "empty piece", "no fields", "no picture",
    "picture gone", "no alternative", "first place", "says nothing",
    # of what is there for nothing
    "unused",
    # of the pages themselves
    "no title", "same title", "no description", "no icon", "no first heading", "two first headings", "skips a level", "no main",
    "two mains", "id twice", "broken link",
    "no viewport", "takes no pieces", "left as it is", "nameless link", "own order", "two banners", "two footers", "no language",
    "unseen picture", "nameless frame", "nameless field", "cannot grow",
    "empty heading", "dead link", "lost file", "no encoding", "not turned",
    # of names, looks and files
    "vague name", "same name", "unseen focus", "colour alone", "hidden link", "no such weight", "heavy picture", "heavy pieces",
    "small picture", "reaches nothing", "no business name", "same landmark",
    "same on hover", "current unmarked", "unused files",
    # while a page is scrolled
    "covered", "gap", "never", "brief", "limited", "overlap", "hidden focus", "anchor", "flicker",
    # of menus
    "no page", "page gone", "to come", "no place", "nothing", "double", "same label", "deep", "nothing grows",
    "two buttons", "two buttons in one",
    # of who is shown what
    "never shown", "no effect", "without header", "without footer", "nobody", "past", "no way on",
    # of gates
    "no yes", "no no", "no field", "goes round", "refused to a door", "many presses", "locked picture", "told by a file",
    "quotes a title",
    # of questions about consent
    "no yes to all", "no no to all", "unequal answers", "no policy", "no way back", "over a bar", "over a button", "two at once", "unknown hosts", "waits for nobody",
    # of languages
    "one language", "no switch", "speaks alone", "twice in a language", "not translated", "older texts", "drafts", "other letters", "in English", "older pages", "not mutual", "turned by CSS",
    # of what is read and looked at
    "weak text", "over a picture", "squeezed",
    # of what does not fit, or hardly, at a width
    "tight", "wraps", "breaks words", "clips", "overflows", "collides", "short lines", "long lines", "small target",
]  # fmt: skip


class SeenAt(NamedTuple):
    """Where it is seen: the page's id, the stage's, the width band's; the viewport and the scroll position in px. What
    is not told does not matter for it."""

    page: str = ""
    stage: str = ""
    band: str | None = None
    viewport_px: tuple[int, int] = (0, 0)
    scroll_px: float = 0.0


class Finding(NamedTuple):
    """`node`: its id. `other`: of the node that it is about besides. `about`: the numbers and texts that its words
    name. `language`: in which it is so, where that matters; `is_estimate`: as far as can be foreseen."""

    kind: FindingKind
    node: str
    other: str = ""
    about: Mapping[str, int | float | str] = {}
    place: SeenAt = SeenAt()
    remedy: Edit | None = None
    language: str = ""
    is_estimate: bool = False

    @property
    def amount(self) -> float:
        """How much it is, in px; of what is covered, in %; 0 where there is no more or less."""
        return float(self.about.get("px", self.about.get("percent", 0.0)))
