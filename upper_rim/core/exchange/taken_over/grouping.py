"""Which links belong together? Those of one list, or beside each other in one place, are a menu; profiles beside each other a
row; a list has the title that stands over it; one thing is the logo."""

from __future__ import annotations

import re
from collections.abc import Iterator, Sequence
from dataclasses import replace
from itertools import pairwise

from .measured import Measured
from .seen import Link, Rect, Seen, around_all

LOGO = re.compile(r"logo|brand|site-?title|site-?name", re.I)
SAME_LINE_PX = 4.0


def grouped(seen: Sequence[Seen], measured: Measured, front: str) -> list[Seen]:
    """`front`: address of the site's front page, as the page's links have it."""
    return [*_titled(_with_logo(_Grouper(measured).grouped(seen), measured, front))]


class _Grouper:
    def __init__(self, measured: Measured) -> None:
        self.measured, self.parts = measured, measured.parts

    def grouped(self, seen: Sequence[Seen]) -> list[Seen]:
        """Links of one list, or beside each other in one place, as menus; profiles beside each other as one row."""
        found: list[Seen] = []
        run: list[Seen] = []
        for one in seen:
            joins = bool(run) and self._belongs(run, one)
            if not joins:
                found += self._menu_of(run)
                run = []
            if one.kind == "social" or one.is_bare_link:
                run.append(one)
            else:
                found.append(one)
        return [*found, *self._menu_of(run)]

    def _belongs(self, run: Sequence[Seen], one: Seen) -> bool:
        last = run[-1]
        if one.kind != last.kind or not (one.kind == "social" or one.is_bare_link):
            return False
        if self._home_of(one) != self._home_of(last):
            return False
        if one.kind == "social":
            return True
        same_style = self._style(one) == self._style(last) or one.links[0].is_current or last.links[0].is_current
        if not same_style:
            return False
        in_row = abs(one.box.middle - last.box.middle) <= SAME_LINE_PX and (
            one.box.left >= last.box.right - 1 or one.box.right <= last.box.left + 1
        )
        below = one.box.top >= last.box.bottom - 2 and _lined_up(one.box, last.box)
        if len(run) == 1:
            return in_row or below
        first_in_row = abs(run[0].box.middle - run[1].box.middle) <= SAME_LINE_PX
        return in_row if first_in_row else below

    def _home_of(self, one: Seen) -> int:
        """The list that a link stands in; else what it stands in, past what holds it alone."""
        link = one.links[0].at
        for around in self.measured.around(link):
            part = self.parts[around]
            if part.tag in {"ul", "ol", "nav", "menu"} or part.attributes.get("role") in {
                "navigation",
                "menubar",
                "menu",
            }:
                return around
        for around in self.measured.around(link):
            shown = [number for number in self.measured.within(around) if self.parts[number].tag == "a"]
            if len(shown) > 1:
                return around
        return 0

    def _style(self, one: Seen) -> tuple[str, ...]:
        styles = self.parts[one.at].styles
        own = self.parts[one.links[0].at].styles
        names = ("font-size", "font-family", "text-transform", "font-weight")
        return (*(styles.get(name, "") for name in names), own.get("background-color", ""))

    def _menu_of(self, run: Sequence[Seen]) -> list[Seen]:
        if not run:
            return []
        links = tuple(link for one in run for link in one.links)
        box, anchors = around_all(one.box for one in run), tuple(one.anchors[0] for one in run)
        if run[0].kind == "social":
            return [replace(run[0], box=box, anchors=anchors, links=links, in_row=_in_row(anchors))]
        links = tuple(replace(link, below=self._below(link)) for link in links)
        if len(run) == 1 and not links[0].below and not links[0].mark:
            return [replace(run[0], links=links)]
        style_at = next((one.at for one in run if not one.links[0].is_current), run[0].at)
        return [Seen("menu", style_at, box, anchors, "", "", links, in_row=_in_row(anchors))]

    def _below(self, link: Link) -> tuple[Link, ...]:
        """What is in a list within the same line, whether it shows or not."""
        item = next((one for one in self.measured.around(link.at) if self.parts[one].tag == "li"), None)
        if item is None:
            return ()
        return self._hidden_links(item, link.at)

    def _hidden_links(self, item: int, own: int) -> tuple[Link, ...]:
        links: list[Link] = []
        for number in self.measured.within(item):
            part = self.parts[number]
            if part.tag != "a" or number == own or part.shows or not part.attributes.get("href"):
                continue
            nearest = next((one for one in self.measured.around(number) if self.parts[one].tag == "li"), item)
            outer = next((one for one in self.measured.around(nearest) if self.parts[one].tag == "li"), None)
            if nearest != item and outer != item:
                continue
            words = self.measured.text(number, shown=False)
            nowhere = Rect(0, 0, 0, 0)
            below = self._hidden_links(nearest, number) if nearest != item else ()
            if words:
                links.append(Link(words, part.attributes["href"], number, nowhere, nowhere, below=below))
        return tuple(links)


def _lined_up(one: Rect, other: Rect) -> bool:
    return min(abs(one.left - other.left), abs(one.right - other.right), abs(one.centre - other.centre)) <= SAME_LINE_PX


def _in_row(boxes: Sequence[Rect]) -> bool:
    return len(boxes) < 2 or abs(boxes[0].middle - boxes[1].middle) <= SAME_LINE_PX


def _with_logo(seen: list[Seen], measured: Measured, front: str) -> list[Seen]:
    """The first that leads home, or is named so, is the site's title, where no picture is."""
    if any(one.kind == "logo" for one in seen):
        return seen
    for at, one in enumerate(seen):
        attributes = [measured.parts[part].attributes for part in (one.at, *list(measured.around(one.at))[:2])]
        named = any(LOGO.search(f"{said.get('id', '')} {said.get('class', '')}") for said in attributes)
        home = one.is_bare_link and one.href.partition("#")[0].removesuffix("index.html") == front
        if one.kind == "text" and one.lines == 1 and (named or home):
            return [*seen[:at], replace(one, kind="logo", is_bare_link=False), *seen[at + 1 :]]
    pictures = [at for at, one in enumerate(seen) if one.kind == "picture"]
    if pictures and pictures[0] == 0:
        return [replace(seen[0], kind="logo"), *seen[1:]]
    return seen


def _titled(seen: Sequence[Seen]) -> Iterator[Seen]:
    """A list of links with the title that stands over it."""
    waiting: Seen | None = None
    for one, after in pairwise([*seen, None]):
        assert one is not None
        if waiting is not None:
            yield replace(
                one,
                kind="list",
                title=waiting,
                box=around_all((waiting.box, one.box)),
                anchors=(*waiting.anchors, *one.anchors),
            )
            waiting = None
        elif _is_title(one, after):
            waiting = one
        elif one.kind == "menu" and not one.in_row:
            yield replace(one, kind="list")
        else:
            yield one


def _is_title(one: Seen, after: Seen | None) -> bool:
    if one.kind != "text" or one.href or after is None or after.kind != "menu" or after.in_row:
        return False
    over = 0 <= after.box.top - one.box.bottom < 48 and abs(one.box.left - after.box.left) <= 24
    return over and one.lines == 1
