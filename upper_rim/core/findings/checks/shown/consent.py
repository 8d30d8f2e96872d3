"""What is wrong or doubtful about a question about consent: answers that are not alike, no way back, no word of who learns
what, hosts that nobody has spoken for?"""

from __future__ import annotations

from collections.abc import Iterator

from ....gates.waiting import HostFound, asks, items_with
from ....kinds.items.answer import Answer
from ....kinds.items.base import Leads
from ....kinds.items.menu import MenuItem
from ....kinds.items.privacy import PrivacyChoices
from ....kinds.items.rich import RichText
from ....kinds.pieces.bottom import BottomBar
from ....kinds.pieces.consent import ConsentQuestion
from ....kinds.pieces.header import Header
from ....kinds.pieces.notice import Notice
from ....model.site import Site, drawer_width
from ....reach.coverage import coverage_of, sorted_by_rules
from ....values.targets import ToNothing
from ...finding import Finding, FindingKind, SeenAt


def in_consent(site: Site, found: list[HostFound]) -> list[Finding]:
    """`found`: all hosts of the site (`hosts_found`)."""
    if not asks(site):
        waits = [one for one in site.hosts if one.category]
        return [Finding("waits for nobody", waits[0].id, about={"count": len(waits)})] if waits else []
    questions = [piece for piece in site.pieces if isinstance(piece, ConsentQuestion) and piece.on]
    made = [one for piece in questions for one in _made(piece, site)]
    return [*made, *_on_pages(site, questions), *_hosts(questions, found)]


def _made(piece: ConsentQuestion, site: Site) -> Iterator[Finding]:
    items = site.shown_items(piece)
    answers = {item.says: item for item in reversed(items) if isinstance(item, Answer)}
    yes, no = answers.get("yes"), answers.get("no")
    if yes is None:
        yield Finding("no yes to all", piece.id)
    if no is None:
        yield Finding("no no to all", piece.id)
    if yes and no and not _are_alike(yes, no):
        yield Finding("unequal answers", piece.id)
    if not any(_leads(item) for item in items):
        yield Finding("no policy", piece.id)


def _are_alike(one: Answer, other: Answer) -> bool:
    """Size, contrast and presses: they look alike, say nothing of their own about that, and show to the same."""
    styles = [{(s.property, s.part, s.state, s.band): s.value for s in item.styles} for item in (one, other)]
    return styles[0] == styles[1] and all(
        getattr(one, field) == getattr(other, field) for field in ("look", "wears", "classes", "hidden_in", "audience")
    )


def _leads(item: object) -> bool:
    if isinstance(item, Leads):
        return not isinstance(item.target, ToNothing)
    return isinstance(item, RichText) and "<a " in item.rich.text


def _on_pages(site: Site, questions: list[ConsentQuestion]) -> Iterator[Finding]:
    """What stands beside a question on the pages that it reaches; told of the first page of each."""
    ways_back = {p.id for p in site.pieces if any(isinstance(i, PrivacyChoices) for i in items_with(site, p))}
    bars = [piece.id for piece in site.pieces if isinstance(piece, BottomBar)]
    notices = [piece for piece in site.pieces if isinstance(piece, Notice)]
    buttons = [piece.id for piece in site.pieces if isinstance(piece, Header) and _has_button(piece, site)]
    coverage, told = coverage_of(site), set[tuple[str, str]]()
    for page in sorted_by_rules(coverage).firsts:
        shown = coverage.pieces_on(page)
        for piece in questions:
            if piece.id not in shown:
                continue
            found: list[tuple[FindingKind, str]] = [] if ways_back & shown else [("no way back", "")]
            if piece.place.startswith(("bar-bottom", "bottom")):
                found += [("over a bar", bar) for bar in bars if bar in shown][:1]
            if piece.place.startswith(("bar-top", "top")):
                found += [("over a button", one) for one in buttons if one in shown][:1]
            edge = "top" if "top" in piece.place else "bottom" if "bottom" in piece.place else ""
            found += [("two at once", one.id) for one in notices if one.id in shown and one.edge == edge][:1]
            for kind, other in found:
                if (kind, piece.id) not in told:
                    told.add((kind, piece.id))
                    yield Finding(kind, piece.id, other, about={"path": page.path}, place=SeenAt(page=page.id))


def _has_button(piece: Header, site: Site) -> bool:
    """Whether at some widths a menu of it is a button."""
    menus = (item for item in site.shown_items(piece) if isinstance(item, MenuItem))
    return any(drawer_width(item, site) is not None for item in menus)


def _hosts(questions: list[ConsentQuestion], found: list[HostFound]) -> Iterator[Finding]:
    unknown = [one.host for one in found if one.said is None]
    if unknown:
        yield Finding("unknown hosts", questions[0].id, about={"host": unknown[0], "count": len(unknown)})
