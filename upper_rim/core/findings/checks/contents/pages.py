"""What is wrong or doubtful about the pages themselves: titles, descriptions, headings, landmarks, ids, links that break?"""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Callable, Iterator, Sequence
from itertools import pairwise
from typing import NamedTuple
from urllib.parse import unquote

from ....exchange.html.outline import PageOutline
from ....languages import direction
from ....model.site import Page, Site
from ....model.tree import ROOT
from ...finding import Finding, FindingKind, SeenAt

OutlineOf = Callable[[Page], PageOutline | None]
"""Of a page's own content, as it is published; None where that cannot be read, or is still to come."""


class Given(NamedTuple):
    """What pieces of ours are on a page: its banner (`headed`), its footer (`footed`), its first heading where it has none
    of its own (`titled`)."""

    headed: bool
    footed: bool
    titled: bool


def in_contents(site: Site, outline_of: OutlineOf, given: Callable[[Page], Given]) -> list[Finding]:
    """Each once, with how many pages it is on and one of them."""
    found: dict[FindingKind, list[tuple[Page, str]]] = defaultdict(list)
    titles: dict[tuple[str, str], list[Page]] = defaultdict(list)
    there = {unquote(path).rstrip("/") for path in _paths(site)}
    for page in site.pages:
        outline = outline_of(page)
        if outline is None:
            continue
        titles[page.language, outline.title].append(page)
        for kind, first in _of_page(page, outline, site, there, given(page)):
            found[kind].append((page, first))
    for (_, title), pages in titles.items():
        if title and len(pages) > 1:
            found["same title"] += [(page, title) for page in pages]
    return [_told(kind, listed) for kind, listed in found.items()]


def _told(kind: FindingKind, listed: Sequence[tuple[Page, str]]) -> Finding:
    page, first = listed[0]
    about: dict[str, float | str] = {"count": len(listed), "path": page.path, "first": first}
    return Finding(kind, ROOT, about=about, place=SeenAt(page=page.id))


def _paths(site: Site) -> Iterator[str]:
    for page in site.pages:
        yield page.path
        yield page.path.removesuffix("index.html")
        if page.path.endswith("/"):
            yield f"{page.path}index.html"
    yield from (asset.path for asset in site.assets)


def _of_page(
    page: Page, outline: PageOutline, site: Site, there: set[str], given: Given
) -> Iterator[tuple[FindingKind, str]]:
    """With what is said of it first."""
    if not outline.title:
        yield "no title", ""
    if not outline.is_described and not site.description.in_language(page.language):
        yield "no description", ""
    if not outline.has_icon and not site.icon:
        yield "no icon", ""
    if 1 not in outline.headings and not given.titled:
        yield "no first heading", ""
    if outline.headings.count(1) > 1:
        yield "two first headings", ""
    skipped = next((f"h{below} after h{above}" for above, below in pairwise(outline.headings) if below > above + 1), "")
    if skipped:
        yield "skips a level", skipped
    if outline.mains != 1:
        yield ("no main" if outline.mains == 0 else "two mains"), ""
    if outline.twice:
        yield "id twice", outline.twice[0]
    if outline.nameless:
        yield "nameless link", outline.nameless
    if outline.ordered:
        yield "own order", ""
    if outline.banners and given.headed:
        yield "two banners", ""
    if outline.closings and given.footed:
        yield "two footers", ""
    if outline.unseen_picture:
        yield "unseen picture", outline.unseen_picture
    if outline.nameless_frame:
        yield "nameless frame", outline.nameless_frame
    if outline.nameless_field:
        yield "nameless field", outline.nameless_field
    if outline.cannot_grow:
        yield "cannot grow", ""
    if outline.empty_heading:
        yield "empty heading", outline.empty_heading
    if outline.dead_link:
        yield "dead link", outline.dead_link
    if not outline.says_language and not page.likely:
        yield "no language", ""
    if not outline.says_letters:
        yield "no encoding", ""
    if direction(page.language) == "rtl" and outline.runs != "rtl" and not (page.splice and page.splice.turned):
        yield "not turned", ""
    gone = next((one for one in outline.wants if unquote(one).rstrip("/") not in there), outline.unsourced)
    if gone:
        yield "lost file", gone
    lost = next((one for one in outline.links if unquote(one).rstrip("/") not in there), "")
    if lost:
        yield "broken link", lost
