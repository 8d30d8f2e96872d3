"""How is a cause shown in the list: in words, with where one sees it and where one mends it?"""

from __future__ import annotations

from typing import NamedTuple
from urllib.parse import quote, urlencode

from django.urls import reverse

from ....core.findings.severity import SOURCES, Severity
from ....core.findings.subjects import Subject, subject_of
from ....core.findings.told import Teller
from ....core.findings.whole import Cause
from ....core.kinds.let_be import LetBe
from ....core.kinds.pieces.base import Piece
from ....core.model.site import Site
from ....core.model.tree import ROOT, holder_of
from ....core.reach.coverage import coverage_of


class Line(NamedTuple):
    """`there`: the address of the screen on which it is seen, with its control lit up. `let_be`: who said so, where it is;
    `before`: who let it be, where it has come back."""

    key: str
    severity: Severity
    subject: Subject
    said: str
    where: str
    when: str
    source: str
    there: str
    cause: Cause
    let_be: LetBe | None = None
    before: LetBe | None = None


class Filters(NamedTuple):
    """Empty: all."""

    severity: str = ""
    about: str = ""
    piece: str = ""
    page: str = ""
    language: str = ""

    def place(self, **other: str) -> str:
        """As an address has it, with others in place of some."""
        return urlencode({name: value for name, value in {**self._asdict(), **other}.items() if value})


class Lister:
    """Of one site, for who works on it at `slug`."""

    def __init__(self, site: Site, slug: str) -> None:
        self.site, self.slug, self.teller = site, slug, Teller(site)

    def line(self, cause: Cause, let_be: LetBe | None = None, before: LetBe | None = None) -> Line:
        said = self.teller.said(cause)
        return Line(
            cause.key,
            cause.severity,
            subject_of(cause.kind),
            f"{said[:1].upper()}{said[1:]}",
            " › ".join(self.teller.where(cause)),
            self._when(cause),
            SOURCES.get(cause.kind, ""),
            self._there(cause),
            cause,
            let_be,
            before,
        )

    def _when(self, cause: Cause) -> str:
        more = len(cause.findings) - 1
        others = [f"and in {more} place{'' if more == 1 else 's'} more"] if more else []
        return " · ".join((*self.teller.when(cause), *others))

    def passes(self, line: Line, wished: Filters) -> bool:
        holder = self.teller.holder(line.cause.node)
        piece = holder.id if isinstance(holder, Piece) else ""
        return (
            wished.severity in {"", line.severity}
            and wished.about in {"", line.subject}
            and wished.piece in {"", piece}
            and (not wished.language or wished.language in line.cause.languages)
            and (not wished.page or self._is_on(line.cause, wished.page))
        )

    def _is_on(self, cause: Cause, path: str) -> bool:
        """It is found there, or is about a piece that shows there."""
        page = next((page for page in self.site.pages if page.path == path), None)
        if page is None:
            return False
        holder = self.teller.holder(cause.node)
        seen = {one.place.page for one in cause.findings}
        return page.id in seen or (isinstance(holder, Piece) and holder.id in coverage_of(self.site).pieces_on(page))

    def _there(self, cause: Cause) -> str:
        """The screen, and the control that is lit up on it."""
        first, holder = cause.findings[0], self.teller.holder(cause.node)
        if isinstance(holder, Piece):
            if subject_of(cause.kind) == "movement":
                return self._url("movement", holder.id) + _asked(path=None, page=self.teller.page(first.place.page))
            at_px = first.about.get("at_px", first.about.get("to_px"))
            asked = _asked(
                select=cause.node,
                page=self._page_in(first.language, first.place.page, holder),
                width=str(min(int(at_px), 1920)) if at_px is not None else None,
                tray=_TRAYS.get(subject_of(cause.kind)),
            )
            field = first.about.get("field")
            lit = f"#lit:c-{cause.node}-{field}" if field else ""
            return self._url("workbench", holder.id) + asked + lit
        if holder is not None:
            lit = f"#lit:entry-{cause.node}" if cause.node != holder.id else ""
            return self._url("menu", holder.id) + _asked(select=cause.node if cause.node != holder.id else None) + lit
        page = first.place.page or (cause.node if self.teller.page(cause.node) else "")
        if cause.kind in {"no description", "no icon"}:
            return self._url("settings")
        if page:
            return self._url("page", page)
        return self._elsewhere(cause)

    def _elsewhere(self, cause: Cause) -> str:
        node = holder_of(self.site, cause.node) if cause.node != ROOT else None
        for slot, screen in _SCREENS.items():
            if node is not None and node in getattr(self.site, slot):
                return self._url(screen)
        subject = subject_of(cause.kind)
        if subject == "languages":
            return self._url("wording" if cause.findings[0].language else "languages")
        return self._url({"gates": "gates", "consent": "gates", "who sees it": "board"}.get(subject, "pages"))

    def _page_in(self, language: str, page: str, piece: Piece) -> str | None:
        """A page on which one sees it."""
        if page:
            return self.teller.page(page)
        if not language:
            return None
        coverage = coverage_of(self.site)
        spoken = (one for one in self.site.pages if one.language == language)
        return next((one.path for one in spoken if piece.id in coverage.pieces_on(one)), None)

    def _url(self, name: str, *args: str) -> str:
        return reverse(name, args=[self.slug, *args])


_TRAYS = {"fit": "fit", "reading": "text", "who sees it": "who", "unfinished": "content"}
_SCREENS = {
    "swatches": "foundations",
    "looks": "looks",
    "fonts": "type",
    "cards": "visitors",
    "hosts": "gates",
    "menus": "menus",
}


def _asked(**asked: str | None) -> str:
    said = {name: value for name, value in asked.items() if value}
    return f"?{urlencode(said, quote_via=quote)}" if said else ""
