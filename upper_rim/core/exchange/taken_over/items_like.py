"""Which item takes the place of something that was seen? With what it said, where it led, and as it looked."""

from __future__ import annotations

import re
from collections import Counter
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from itertools import pairwise
from typing import Any
from urllib.parse import unquote

from ...model.arrangements.arranging import JsonNode, NewId
from ...model.editing.edits import Add, Edit
from ...model.fonts import Font
from ...model.site import Asset, Site
from ...model.tree import ROOT
from ...values.properties import CORNERS, SIDES
from ..imports.import_pages import page_path
from ..imports.typed_links import TypedLinks
from .looks import Looks, Values, px, styles_json
from .measured import Measured, px_of
from .reading import rights_of
from .seen import Link, Rect, Seen, split_address

_NO_BLOCK_PADDING = {"padding-block-start": "0px", "padding-block-end": "0px"}
_PLAIN_BOX = {
    **{f"border-{side}-width": "0px" for side in SIDES},
    **{f"border-{corner}-radius": "0px" for corner in CORNERS},
    "background-color": "transparent",
}
"""Without what buttons and fields have by themselves."""
_TAGS = re.compile(r"<[^<>]*+>")
MOST_LETTERS = 400
"""Of a text in one style, or a label."""
TARGET_PX = 44.0
"""So high are entries by themselves (`style.built_in`)."""
BRANCH_PX = 28
"""So wide is what opens a branch, beside its entry (runtime, `sub-button`)."""


@dataclass(frozen=True)
class Brought:
    """What of the page's files comes along. `drawings`: drawings that stand in the page by their source, as files; `fonts`:
    families in lower case."""

    drawings: Mapping[str, Asset] = field(default_factory=dict)
    fonts: Mapping[str, Font] = field(default_factory=dict)


@dataclass
class Stood:
    """What of an item has to stand where: `part` of it is compared, of a list each of them in turn; `texts` that are as
    long as they were; `wraps`: its box is compared, in which lines end as there is room."""

    item: str
    part: str
    rects: tuple[Rect, ...]
    names: tuple[str, ...]
    texts: tuple[str, ...] = ()
    wraps: bool = False


class ItemMaker:
    """`edits`: what the site needs for the items; `stood`: what of them has to stand where; `notes`: what is not the same.
    `around`: values that the piece hands down; `row_high`: how high the present row is, in px."""

    def __init__(
        self,
        site: Site,
        measured: Measured,
        origin: str,
        new_id: NewId,
        looks: Looks,
        brought: Brought,
        *,
        in_header: bool,
    ) -> None:
        self.site, self.measured, self.origin, self.new_id, self.looks = site, measured, origin, new_id, looks
        self.brought, self.in_header = brought, in_header
        self.links = TypedLinks(site)
        self.paths = {asset.path for asset in site.assets}
        self.edits: list[Edit] = []
        self.stood: list[Stood] = []
        self.notes = looks.notes
        self.band = looks.widest_band
        self.around: Values = {}
        self.row_high = TARGET_PX

    def items(self, seen: Seen) -> list[JsonNode]:
        make: Callable[[Seen], JsonNode | None] = {
            "logo": self._logo,
            "picture": self._picture,
            "menu": self._menu,
            "list": self._list,
            "text": self._text,
            "rich": self._rich,
            "button": self._button,
            "search": self._search,
            "social": self._social,
            "copyright": self._copyright,
        }[seen.kind]
        item = make(seen)
        return [item] if item is not None else []

    def _item(self, kind: str, values: Values, **fields: Any) -> JsonNode:
        return {"id": self.new_id("it"), "kind": kind, "styles": styles_json(values, self.new_id), **fields}

    def _stands(self, item: JsonNode, part: str, seen: Seen, texts: Sequence[str] = (), name: str = "") -> None:
        names = tuple(texts) or (name or seen.words or seen.kind,)
        wraps = seen.lines > 1 and not texts
        # Lines that end as there is room may end anywhere within their box.
        rects = tuple(one._replace(left=seen.box.left, right=seen.box.right) if wraps else one for one in seen.anchors)
        self.stood.append(Stood(item["id"], part, rects, names, tuple(texts), wraps))

    def _target(self, href: str) -> JsonNode:
        text = href
        if href.startswith(self.origin + "/") or href == self.origin:
            path, mark, place = unquote(href.removeprefix(self.origin)).partition("#")
            text = page_path(path or "/") + mark + place
        try:
            return self.links.target(text).model_dump(mode="json")
        except ValueError:
            if href:
                self.note(f"A link to “{href[:80]}” leads nowhere now.")
            return {"kind": "nothing"}

    def note(self, sentence: str) -> None:
        if sentence not in self.notes:
            self.notes.append(sentence)

    def _text_values(self, seen: Seen, name: str) -> Values:
        values = self.looks.type_of(seen.at, name, self.around)
        line = self.looks.line_under(seen.at, 0)
        if line == "underline":
            values["text-decoration-line"] = line
        return values

    def _whole_text(self, at: int, name: str) -> Values:
        """For roles that have values of their own for what a piece hands down."""
        return {**self.looks.type_of(at, name), "text-decoration-line": self.looks.line_under(at, 0)}

    def _file(self, seen: Seen) -> str | None:
        if seen.drawing:
            asset = self.brought.drawings.get(seen.drawing)
            if asset is None:
                self.note("A drawing that stands in the page could not be made a file.")
                return None
            if asset.path not in self.paths:
                self.paths.add(asset.path)
                self.edits.append(Add(parent=ROOT, slot="assets", values=(asset.model_dump(mode="json"),)))
            return asset.path
        path = self.looks.path_of(seen.source)
        if path is None:
            self.note(f"The picture {seen.source[:80] or '(none)'} is not among the site’s files: upload it.")
            return None
        return path

    def _logo(self, seen: Seen) -> JsonNode | None:
        target = self._target(seen.href) if seen.href else {"kind": "nothing"}
        words = {"text": seen.words[:MOST_LETTERS] if seen.words != self.site.name else ""}
        if seen.source or seen.drawing:
            path = self._file(seen)
            if path is not None:
                item = self._item(
                    "logo",
                    {},
                    picture=path,
                    height_px=round(min(400, max(8, seen.box.height))),
                    words=words,
                    target=target,
                )
                self._stands(item, "picture", seen, name="Logo")
                return item
        values = self._whole_text(seen.at, "Title")
        item = self._item("logo", values, words=words, target=target)
        self._stands(item, "", seen, (seen.words or self.site.name,))
        return item

    def _picture(self, seen: Seen) -> JsonNode | None:
        path = self._file(seen)
        if path is None:
            return None
        fields = {
            "words": {"text": seen.words[:MOST_LETTERS]},
            "ornament": not seen.words,
            "width_px": round(min(4000, max(8, seen.box.width))),
        }
        item = self._item("picture", {}, picture=path, target=self._target(seen.href), **fields)
        self._stands(item, "picture", seen, name="Picture")
        return item

    def _entry(self, link: Link, *, apart: bool = False) -> JsonNode:
        fields = {"new_window": True} if link.new_window else {}
        return {
            "id": self.new_id("en"),
            "label": {"text": link.words[:MOST_LETTERS]},
            "mark": {"text": link.mark[:MOST_LETTERS]},
            "target": self._target(link.href) if link.href else {"kind": "nothing"},
            "entries": [self._entry(one) for one in link.below],
            "apart": apart,
            **fields,
        }

    def _new_menu(self, name: str, entries: list[JsonNode]) -> str:
        menu = {"id": self.new_id("mn"), "name": name[:60], "entries": entries}
        self.edits.append(Add(parent=ROOT, slot="menus", values=(menu,)))
        return str(menu["id"])

    def _menu(self, seen: Seen) -> JsonNode | None:
        branching = [bool(link.below) for link in seen.links]
        mixed = any(branching) and not all(branching)
        odd = self._odd_links(seen)
        apart = [has if mixed else link in odd for link, has in zip(seen.links, branching, strict=True)]
        entries = [self._entry(link, apart=one) for link, one in zip(seen.links, apart, strict=True)]
        menu = self._new_menu("Main" if self.in_header and not self.site.menus else "Menu", entries)
        values, room = self._entry_values(seen)
        gap = self._gap(seen, room)
        fields: JsonNode = {"menu": menu, "way": "row", "gap_px": round(max(0.0, gap))}
        if self.in_header and len(seen.links) > 2 and self.looks.shows_from:
            fields |= {"drawer_below": self.looks.shows_from, "drawer_when_full": True}
        styles = styles_json(values, self.new_id, "content")
        if any(branching):
            less = min(float(BRANCH_PX), gap)
            fields["gap_px"] = round(max(0.0, gap - less))
            if mixed:
                beside: Values = {"margin-inline-end": px(less)}
                styles += styles_json(beside, self.new_id, "content", band=self.band)
                styles += styles_json({**values, "margin-inline-end": "0px"}, self.new_id, "apart")
            if mixed and odd:
                self.note("Some entries had a colour of their own, which was left out.")
            if gap < BRANCH_PX:
                self.note("Entries that open a list have a button beside them, for which there was less room.")
        styles += styles_json(
            self.looks.pointed(self.measured.parts[seen.links[0].at], "Menu"), self.new_id, "content", "hover"
        )
        if odd and not mixed:
            own = self._whole_text(self._text_at(odd[0].at), "Entry set apart")
            styles += styles_json({**values, **own}, self.new_id, "apart")
        styles += self._current(seen) + self._mark(seen)
        item = {"id": self.new_id("it"), "kind": "menu", "styles": styles, **fields}
        self._stands(item, "entry", seen, [link.words for link in seen.links])
        return item

    def _mark(self, seen: Seen) -> list[JsonNode]:
        """How the words beside entries are set."""
        at = next((link.mark_at for link in seen.links if link.mark_at is not None), None)
        if at is None:
            return []
        own = self.looks.box_of(self.measured.parts[at], "Mark")
        return styles_json({**_PLAIN_BOX, **self._whole_text(at, "Mark text"), **own}, self.new_id, "badge")

    def _ink(self, link: Link) -> str:
        return self.measured.parts[self._text_at(link.at)].styles.get("color", "")

    def _plain_links(self, seen: Seen) -> list[Link]:
        """Those that are set as most are; all, where there are no others than the present page's."""
        others = [link for link in seen.links if not link.is_current] or list(seen.links)
        (most, _), *_ = Counter(map(self._ink, others)).most_common(1)
        return [link for link in others if self._ink(link) == most]

    def _odd_links(self, seen: Seen) -> list[Link]:
        """Those in another colour, the same for all of them."""
        plain = self._plain_links(seen)
        odd = [link for link in seen.links if not link.is_current and link not in plain]
        return [link for link in odd if self._ink(link) == self._ink(odd[0])]

    def _text_at(self, at: int) -> int:
        """The element in which the words of another one stand."""
        texts = (self.measured.parts[one] for one in self.measured.within(at) if self.measured.parts[one].is_text)
        return next((text.parent for text in texts), at)

    def _current(self, seen: Seen) -> list[JsonNode]:
        """How the entry is set that leads to the page itself, where that is told."""
        link = next((link for link in seen.links if link.is_current), None)
        if link is None or len(seen.links) < 2:
            return []
        part = self.measured.parts[link.at]
        own = self._text_at(link.at)
        values = {
            "color": self.looks.colour(self.measured.parts[own].styles.get("color", ""), "Current entry"),
            "background-color": self.looks.colour(part.styles.get("background-color", ""), "Current entry ground"),
            "text-decoration-line": self.looks.line_under(own, link.at),
        }
        return styles_json({name: value for name, value in values.items() if value}, self.new_id, "content", "current")

    def _entry_values(self, seen: Seen) -> tuple[Values, tuple[float, float]]:
        """How entries are set, and the room that each has within itself before and behind its words."""
        plain = self._plain_links(seen)[0]
        part = self.measured.parts[plain.at]
        values = self._whole_text(self._text_at(plain.at), "Menu")
        values |= _NO_BLOCK_PADDING
        box = self.looks.box_of(part, "Menu", with_padding=False) if part.styles.get("display") != "inline" else {}
        room = (0.0, 0.0)
        if box:
            before, behind = plain.text.left - plain.box.left, plain.box.right - plain.text.right
            room = (behind, before) if self.looks.is_rtl else (before, behind)
            values |= box
            values |= {"padding-inline-start": px(max(0.0, room[0])), "padding-inline-end": px(max(0.0, room[1]))}
        values["min-block-size"] = px(plain.box.height if box else min(TARGET_PX, self.row_high))
        return values, room

    @staticmethod
    def _gap(seen: Seen, room: tuple[float, float]) -> float:
        """Between entries, in the mean."""
        links = sorted(seen.links, key=lambda link: link.text.left)
        apart = [after.text.left - before.text.right - sum(room) for before, after in pairwise(links)]
        return sum(apart) / len(apart) if apart else 0.0

    def _list(self, seen: Seen) -> JsonNode | None:
        title = seen.title
        menu = self._new_menu((title.words if title else "") or "Links", [self._entry(link) for link in seen.links])
        values = self._whole_text(seen.at, "Links")
        steps = [after.text.middle - before.text.middle for before, after in pairwise(seen.links)]
        step = sum(steps) / len(steps) if steps else TARGET_PX
        values |= {**_NO_BLOCK_PADDING, "min-block-size": px(step)}
        styles = styles_json(values, self.new_id, "content")
        styles += styles_json(
            self.looks.pointed(self.measured.parts[seen.links[0].at], "Links"), self.new_id, "content", "hover"
        )
        if title is not None:
            heading = self._whole_text(title.at, "List title")
            line = px_of(heading.get("font-size", "16px")) * float(heading.get("line-height", "1.2"))
            first = seen.links[0].text.middle - title.anchors[0].middle
            heading["margin-block-end"] = px(first - (line + step) / 2)
            styles += styles_json(heading, self.new_id, "heading")
        item: JsonNode = {
            "id": self.new_id("it"), "kind": "links" if title else "menu", "menu": menu, "styles": styles,
            **({"words": {"text": title.words[:MOST_LETTERS]}} if title else {"way": "column"}),
        }  # fmt: skip
        words = [link.words for link in seen.links]
        if title is not None:
            self._stands(item, "title", title, (title.words,))
        anchors = seen.anchors[1:] if title else seen.anchors
        self._stands(item, "entry", replace(seen, anchors=anchors), words)
        return item

    def _text(self, seen: Seen) -> JsonNode:
        values = self._text_values(seen, "Text")
        if seen.has_box:
            values |= self.looks.box_of(self.measured.parts[seen.at], "Label")
        item = self._item(
            "text",
            values,
            words={"text": seen.words[:MOST_LETTERS]},
            target=self._target(seen.href),
            new_window=seen.new_window,
        )
        self._stands(item, "", seen, (seen.words,))
        return item

    def _rich(self, seen: Seen) -> JsonNode:
        html = self._own_links(seen.html)
        values = {**self._text_values(seen, "Text"), "max-inline-size": "100%"}
        texts = self._whole_lines(seen, html)
        if seen.lines > 1:
            align = self.measured.parts[seen.at].styles.get("text-align", "start").removeprefix("-webkit-")
            if align in {"center", "right", "end", "justify"}:
                values["text-align"] = "end" if align == "right" and not self.looks.is_rtl else align
        if not texts:
            values |= {"inline-size": px(seen.box.width + 0.5), "letter-spacing": px(self.looks.closer(seen.at))}
        styles = styles_json(values, self.new_id)
        if seen.link_at is not None:
            link = self.looks.colour(self.measured.parts[seen.link_at].styles.get("color", ""), "Link")
            line = self.looks.line_under(seen.link_at, seen.link_at)
            styles += styles_json({"color": link or "currentcolor", "text-decoration-line": line}, self.new_id, "link")
        item = {"id": self.new_id("it"), "kind": "rich", "rich": {"text": html}, "styles": styles}
        self._stands(item, "", seen, texts)
        return item

    @staticmethod
    def _whole_lines(seen: Seen, html: str) -> Sequence[str]:
        """The longest of its lines, where they end as the page says: it is as long as it was. Nothing where lines end as
        there is room."""
        if seen.lines == 1:
            return (seen.words,)
        ended = [_TAGS.sub("", line).strip() for line in html.split("<br>")]
        return (max(ended, key=len),) if len(ended) == seen.lines else ()

    def _own_links(self, html: str) -> str:
        """Links within the site as it has them."""
        return html.replace(f'href="{self.origin}/', 'href="/')

    def _button(self, seen: Seen) -> JsonNode:
        part = self.measured.parts[seen.at]
        text_at = self._text_at(seen.at)
        values = {
            **_PLAIN_BOX,
            **self._whole_text(text_at, "Button text"), **self.looks.box_of(part, "Button"),
            "min-block-size": px(seen.box.height),
        }  # fmt: skip
        values |= _NO_BLOCK_PADDING
        item = self._item(
            "button",
            values,
            words={"text": seen.words[:MOST_LETTERS]},
            target=self._target(seen.href),
            new_window=seen.new_window,
        )
        item["styles"] += styles_json(self.looks.pointed(part, "Button text"), self.new_id, state="hover")
        self._stands(item, "", seen, (seen.words,))
        return item

    def _search(self, seen: Seen) -> JsonNode:
        part = self.measured.parts[seen.at]
        values = {
            **_PLAIN_BOX,
            **self.looks.type_of(seen.at, "Field text"), **self.looks.box_of(part, "Field"),
            "inline-size": px(seen.box.width), "min-block-size": px(seen.box.height),
        }  # fmt: skip
        values |= _NO_BLOCK_PADDING
        item: JsonNode = {
            "id": self.new_id("it"),
            "kind": "search",
            "styles": styles_json(values, self.new_id, "field"),
        }
        small = {"min-block-size": px(min(TARGET_PX, seen.box.height))}
        item["styles"] += styles_json(small, self.new_id, "icon")
        if seen.words:
            item["words"] = {"text": seen.words[:80]}
        self._stands(item, "field", seen, name="Search")
        return item

    def _social(self, seen: Seen) -> JsonNode:
        links = seen.links
        size = round(sum(max(link.text.width, link.text.height) for link in links) / len(links))
        steps = [after.text.centre - before.text.centre for before, after in pairwise(links)] if seen.in_row else []
        step = sum(steps) / len(steps) if steps else TARGET_PX
        size = max(12, min(96, size))
        target = max(float(size), min(TARGET_PX, step))
        values: Values = {"min-inline-size": px(target), "min-block-size": px(max(target, 24.0))}
        colour = self.looks.colour(self.measured.parts[links[0].at].styles.get("color", ""), "Profiles")
        if colour:
            values["color"] = colour
        profiles = [{"id": self.new_id("pf"), "address": link.href, "name": link.words[:80]} for link in links]
        gap = round(max(0.0, step - target))
        item: JsonNode = {
            "id": self.new_id("it"), "kind": "social", "profiles": profiles, "icon_px": size, "gap_px": gap,
            "styles": styles_json(values, self.new_id, "content"),
        }  # fmt: skip
        names = [link.words or split_address(link.href).hostname or link.href for link in links]
        self.stood.append(Stood(item["id"], "icon", seen.anchors, tuple(names)))
        return item

    def _copyright(self, seen: Seen) -> JsonNode:
        since, holder = rights_of(seen.words)
        values = self._text_values(seen, "Text")
        fields: JsonNode = {"words": {"text": holder[:MOST_LETTERS]}, **({"first_year": since} if since else {})}
        item = self._item("copyright", values, **fields)
        self._stands(item, "", seen, (seen.words,))
        return item
