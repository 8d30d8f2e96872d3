"""A menu as text, and which edit a changed text means.

An outline holds an entry's words in the site's own language, where it leads, its second line and its mark, and which
pages grow. What it does not hold (translations, icon, picture, new window) stays with the entry, which is known again
by its line, else by where it leads or what it says. See `imports.import_menu` for how a line is written.
"""

from __future__ import annotations

import csv
import re
from bisect import bisect_left
from collections.abc import Callable, Iterator, Sequence
from difflib import SequenceMatcher
from functools import cached_property
from io import StringIO
from itertools import groupby
from typing import Any, NamedTuple

from pydantic import JsonValue, ValidationError

from ..kinds.entries import Entry, Grown
from ..model.editing.apply import field_json
from ..model.editing.edits import Add, Edit, Move, Remove, Set, Together
from ..model.navigation.links import Links
from ..model.navigation.menus import all_entries
from ..model.site import Menu, Site
from ..values.targets import Target, ToPage
from ..values.words import Words
from .imports.import_menu import Draft, LineFault, escaped, read_menu
from .imports.typed_links import TypedLinks, as_typed

INDENT = "    "
HEADINGS = ("level", "label", "leads to", "second line", "mark")
NOTHING = "(nothing)"
"""Stands for an entry that says nothing and leads nowhere."""


class Columns(NamedTuple):
    label: str
    leads_to: str = ""
    second: str = ""
    mark: str = ""


class Line(NamedTuple):
    """`holder`: the entry, or what the pages grow in."""

    depth: int
    text: str
    holder: Entry | Menu
    columns: Columns | None


class MenuRead(NamedTuple):
    """`edit` is None where nothing is to change."""

    edit: Edit | None
    faults: list[LineFault]


class MenuText:
    """The menus of a site as text. Made once for a site."""

    def __init__(self, site: Site) -> None:
        self._site = site
        self._links = Links(site)

    def written(self, menu: Menu) -> str:
        return "".join(f"{INDENT * line.depth}{line.text}\n" for line in self.lines(menu))

    def table(self, menu: Menu) -> str:
        """The same as CSV (RFC 4180), with a column for each language that the site's pages or the labels have."""
        lines = self.lines(menu)
        own = {self._site.language}
        said = {one.language for line in lines for one in _label(line).translations}
        languages = sorted(({page.language for page in self._site.pages} | said) - own)
        out = StringIO()
        table = csv.writer(out, lineterminator="\n")
        table.writerow([*HEADINGS, *(f"label {language}" for language in languages)])
        for line in lines:
            texts = {one.language: one.text for one in _label(line).translations}
            told = [" ".join(texts.get(language, "").split()) for language in languages]
            table.writerow([line.depth + 1, *(line.columns or Columns("", line.text)), *told])
        return out.getvalue()

    def lines(self, menu: Menu) -> list[Line]:
        return list(self._lines(menu, 0))

    def read(self, text: str, menu: Menu, new_id: Callable[[str], str]) -> MenuRead:
        """The one edit after which the menu's text is this one. All or nothing: where a line is broken there is none."""
        lines = self.lines(menu)
        drafts = read_menu(text)
        reading = _Reading(self, lines, drafts.entries, new_id)
        wanted = menu.replaced(**reading.level(drafts.entries, menu))
        faults = sorted([*drafts.faults, *reading.faults])
        edits = [] if faults else list(edits_between(menu, wanted))
        return MenuRead(Together(edits=tuple(edits)) if edits else None, faults)

    def navigation(self, drafts: Sequence[Draft], depth: int = 0) -> str:
        """What was read of a page, as lines to go on with."""
        return "".join(
            f"{INDENT * depth}{_line_text(_columns(draft))}\n{self.navigation(draft.below, depth + 1)}"
            for draft in drafts
        )

    def columns(self, entry: Entry) -> Columns:
        label = " ".join(self._links.label(entry, self._site.language).split())
        leads_to = as_typed(entry.target, self._path)
        second, mark = (" ".join(words.text.split()) for words in (entry.second, entry.mark))
        return Columns(label if label or leads_to else NOTHING, leads_to, second, mark)

    def title(self, page: str) -> str:
        found = self._links.pages.get(page)
        return " ".join(found.title.split()) if found else ""

    @cached_property
    def _typed(self) -> TypedLinks:
        return TypedLinks(self._site)

    def target(self, text: str) -> Target:
        return self._typed.target(text)

    def growth_text(self, grows: Grown) -> str:
        """`* all below /guide/ | 3 levels | by title | without /guide/old/`: levels where they are not two, the order
        where it is not that of the paths."""
        without = [path for page in grows.without if (path := self._path(page))]
        parts = [f"* all below {grows.path}"]
        parts += [f"{grows.depth} level{'' if grows.depth == 1 else 's'}"] if grows.depth != 2 else []
        parts += [f"by {_ORDERS[grows.order]}"] if grows.order != "path" else []
        parts += [f"without {', '.join(without)}"] if without else []
        return " | ".join(parts)

    def growth(self, said: str) -> Grown:
        """Raises ValueError, with the reason in words."""
        path, *options = re.split(r"\s+\|\s+", said.strip())
        fields: dict[str, JsonValue] = {"path": path}
        for option in options:
            levels = re.fullmatch(r"(\d+) levels?", option)
            order = next((name for name, words in _ORDERS.items() if option == f"by {words}"), None)
            if levels:
                fields["depth"] = int(levels[1])
            elif order:
                fields["order"] = order
            elif option.startswith("without "):
                fields["without"] = [self._page(one) for one in re.split(r",\s+", option.removeprefix("without "))]
            else:
                raise ValueError(f"“{option[:60]}” says nothing about pages that grow")
        try:
            return Grown.model_validate(fields)
        except ValidationError as error:
            raise ValueError(error.errors()[0]["msg"].removeprefix("Value error, ")) from None

    def _page(self, path: str) -> str:
        target = self._typed.target(path)
        if not isinstance(target, ToPage):
            raise ValueError(f"there is no page at {path[:60]}")
        return target.page

    def _path(self, page: str) -> str:
        found = self._links.pages.get(page)
        return found.path if found else ""

    def _lines(self, holder: Menu | Entry, depth: int) -> Iterator[Line]:
        for entry in holder.entries:
            columns = self.columns(entry)
            yield Line(depth, _line_text(columns), entry, columns)
            yield from self._lines(entry, depth + 1)
        if holder.grows:
            yield Line(depth, self.growth_text(holder.grows), holder, None)


_ORDERS = {"path": "path", "title": "title", "newest": "date"}


def _line_text(columns: Columns) -> str:
    parts = [escaped(one) for one in columns]
    while len(parts) > 1 and not parts[-1]:
        parts.pop()
    return " | ".join(parts).lstrip().replace("|  |", "| |").replace("|  |", "| |")


class _Reading:
    """What the drafts of a text make of a menu's entries."""

    def __init__(
        self, texts: MenuText, lines: Sequence[Line], drafts: Sequence[Draft], new_id: Callable[[str], str]
    ) -> None:
        self._texts, self._new_id = texts, new_id
        listed = [draft for draft in _all_drafts(drafts) if not draft.grows]
        known = [(one.holder, one.columns) for one in lines if one.columns and isinstance(one.holder, Entry)]
        pairs = matched([columns for _, columns in known], [_columns(draft) for draft in listed])
        self._known = {id(draft): known[pairs[at]] for at, draft in enumerate(listed) if at in pairs}
        self.faults: list[LineFault] = []

    def level(self, drafts: Sequence[Draft], holder: Menu | Entry) -> dict[str, Any]:
        """Entries, and which pages grow beside them. `holder` is what holds them, as it is: what a line about growing
        cannot say, that pages which are gone are left out, stays with it."""
        known = self._texts.growth_text(holder.grows) if holder.grows else ""
        grows: Grown | None = None
        entries: list[Entry] = []
        for draft in drafts:
            try:
                if draft.grows and (grows or draft.below):
                    raise ValueError("what grows is said once beside the same entries, and nothing stands below it")
                if draft.grows:
                    is_known = known == f"* all below {draft.grows}"
                    grows = holder.grows if is_known else self._texts.growth(draft.grows)
                else:
                    entries.append(self._entry(draft))
            except ValidationError as error:
                self.faults.append(LineFault(draft.line, error.errors()[0]["msg"]))
            except ValueError as error:
                self.faults.append(LineFault(draft.line, str(error)))
        return {"entries": tuple(entries), "grows": grows}

    def _entry(self, draft: Draft) -> Entry:
        columns = _columns(draft)
        entry, was = self._known.get(id(draft)) or (Entry(id=self._new_id("en")), Columns(NOTHING))
        below = self.level(draft.below, entry)
        changed: dict[str, Any] = {}
        if columns[:2] != was[:2]:
            changed = self._link(entry, columns, was, draft)
        elif draft.languages:
            changed["label"] = _in_others(entry.label, draft)
        if columns.second != was.second:
            changed["second"] = entry.second.saying("", columns.second)
        if columns.mark != was.mark:
            changed["mark"] = entry.mark.saying("", columns.mark)
        return entry.replaced(**changed, **below)

    def _link(self, entry: Entry, columns: Columns, was: Columns, draft: Draft) -> dict[str, Any]:
        """Label and target. A label that is the title of its page is not kept: it follows the page."""
        target = entry.target if columns.leads_to == was.leads_to else self._target(columns.leads_to)
        label = entry.label.saying("", "" if columns[:2] == (NOTHING, "") else columns.label)
        label = _in_others(label, draft)
        follows = isinstance(target, ToPage) and self._texts.title(target.page) == columns.label
        return {"target": target, "label": label.saying("", "") if follows and not label.translations else label}

    def _target(self, text: str) -> Target:
        try:
            return self._texts.target(text)
        except ValueError as error:
            raise ValueError(f"“{text[:60]}” leads nowhere: {error}") from None


def _label(line: Line) -> Words:
    return line.holder.label if line.columns is not None and isinstance(line.holder, Entry) else Words()


def _in_others(label: Words, draft: Draft) -> Words:
    """In the other languages that the draft tells of, it says what that does."""
    told = dict(draft.translations)
    was = {one.language: " ".join(one.text.split()) for one in label.translations}
    for tag in draft.languages:
        if told.get(tag, "") != was.get(tag, ""):
            label = label.saying(tag, told.get(tag, ""))
    return label


def _all_drafts(drafts: Sequence[Draft]) -> Iterator[Draft]:
    for draft in drafts:
        yield draft
        yield from _all_drafts(draft.below)


def _columns(draft: Draft) -> Columns:
    told = (draft.label, draft.leads_to, draft.second, draft.mark)
    return Columns(*(" ".join(one.split()) for one in told))


def matched(old: Sequence[Columns], new: Sequence[Columns]) -> dict[int, int]:
    """For the lines of a text, by their place: which of the old lines each of them is. The same lines in the same
    order first; then the same line elsewhere, one that leads to the same, one that says the same, one that stands in
    the same place."""
    pairs: dict[int, int] = {}
    blocks = SequenceMatcher(None, old, new, autojunk=False).get_opcodes()
    for tag, from_old, to_old, from_new, to_new in blocks:
        if tag == "equal":
            pairs |= zip(range(from_new, to_new), range(from_old, to_old), strict=True)
    ways: tuple[Callable[[Columns], Any], ...] = (lambda one: one, lambda one: one.leads_to, lambda one: one.label)
    for said in ways:
        free: dict[Any, list[int]] = {}
        for at in sorted(set(range(len(old))) - set(pairs.values()), reverse=True):
            free.setdefault(said(old[at]), []).append(at)
        for at, columns in enumerate(new):
            if at not in pairs and said(columns) and free.get(said(columns)):
                pairs[at] = free[said(columns)].pop()
    taken = set(pairs.values())
    for tag, from_old, to_old, from_new, to_new in blocks:
        if tag == "replace" and to_old - from_old == to_new - from_new:
            beside = zip(range(from_new, to_new), range(from_old, to_old), strict=True)
            pairs |= {at: other for at, other in beside if at not in pairs and other not in taken}
    return pairs


TOLD_FIELDS = ("label", "target", "second", "mark", "grows")


def edits_between(old: Menu, new: Menu) -> Iterator[Edit]:
    """Edits that make one menu of another, with entries known by their ids: what is new is added, what stands elsewhere
    is moved, what is gone is removed, and of the rest the fields that a text tells are set."""
    known = {entry.id: entry for entry in all_entries(old.entries)}
    wanted = {entry.id for entry in all_entries(new.entries)}
    placing = _Placing(old, known)
    yield from placing.below(new)
    for holder, children in placing.children.items():
        gone = tuple(one for one in children if one not in wanted)
        if gone and (holder in wanted or holder == old.id):
            yield Remove(nodes=gone)
    for one in (new, *all_entries(new.entries)):
        was = old if one is new else known.get(one.id)
        for field in TOLD_FIELDS if was is not None else ():
            if getattr(one, field, None) != getattr(was, field, None):
                yield Set(node=one.id, field=field, value=field_json(one, field))


class _Placing:
    """Which entries stand where, edit by edit."""

    def __init__(self, menu: Menu, known: dict[str, Entry]) -> None:
        self.children = {holder.id: [one.id for one in holder.entries] for holder in (menu, *known.values())}
        self._parent = {child: holder for holder, children in self.children.items() for child in children}

    def below(self, holder: Menu | Entry) -> Iterator[Edit]:
        """From the top down, so that whatever is moved goes into something that stands where it will stand."""
        yield from self._beside(holder)
        for entry in holder.entries:
            if entry.id in self.children:
                yield from self.below(entry)

    def _beside(self, holder: Menu | Entry) -> Iterator[Edit]:
        here = self.children[holder.id]
        places = {child: at for at, child in enumerate(here)}
        steady = {here[at] for at in _longest_rising([places[one.id] for one in holder.entries if one.id in places])}
        at = 0
        for is_whole, run in groupby(holder.entries, key=self._is_wholly_new):
            if is_whole:
                new = list(run)
                yield Add(parent=holder.id, slot="entries", values=tuple(map(_json, new)), at=at)
                here[at:at] = [entry.id for entry in new]
                at += len(new)
                continue
            for entry in run:
                if entry.id in steady:
                    at = here.index(entry.id, at) + 1
                    continue
                if entry.id in self.children:
                    siblings = self.children[self._parent[entry.id]]
                    was = siblings.index(entry.id)
                    at -= siblings is here and was < at
                    del siblings[was]
                    yield Move(node=entry.id, parent=holder.id, slot="entries", at=at)
                else:
                    yield Add(parent=holder.id, slot="entries", values=(_json(entry.replaced(entries=())),), at=at)
                    self.children[entry.id] = []
                self._parent[entry.id] = holder.id
                here.insert(at, entry.id)
                at += 1

    def _is_wholly_new(self, entry: Entry) -> bool:
        return not any(one.id in self.children for one in (entry, *all_entries(entry.entries)))


def _json(entry: Entry) -> JsonValue:
    value: JsonValue = entry.model_dump(mode="json")
    return value


def _longest_rising(numbers: Sequence[int]) -> list[int]:
    """The longest subsequence that rises."""
    ends: list[int] = []
    chains: list[list[int]] = []
    for number in numbers:
        at = bisect_left(ends, number)
        chain = [*(chains[at - 1] if at else []), number]
        if at == len(ends):
            ends.append(number)
            chains.append(chain)
        else:
            ends[at], chains[at] = number, chain
    return chains[-1] if chains else []
