"""What has to be known to turn a piece into boxes: the site, one language, one width band."""

from __future__ import annotations

import re
from collections.abc import Callable, Sequence
from dataclasses import dataclass, field, replace
from typing import Any, NamedTuple

from ...kinds.items.trail import Step, Trail
from ...model.navigation.links import Links
from ...model.navigation.menus import Menus
from ...model.site import Site
from ...style.paint.pictures import Pictures
from ...style.resolve import Styling
from ...values.brands import Brands
from ...values.styling import Part
from ...values.words import Words
from ..css.base import BaseSheets
from ..css.boxes import Box
from ..css.inline import Inline, InlineAround
from ..text.breaking import transformed
from ..text.paragraph import Measurer, Paragraph, Run
from ..text.typesetting import Type
from .estimates import Estimates
from .styles import BoxStyle, box_style

MOST_BOXES = 4_000
"""Boxes that are kept with the styles of a row; with more they are made anew."""
_WHITE = re.compile(r"[ \t\n\r\f]+")


class Skeleton(NamedTuple):
    """All that the styles of a row's elements depend on. `nodes`: what the row, its cells and their items say of
    themselves, and the node in which they stand, by their ids."""

    foundations: tuple[Any, ...]
    piece: tuple[Any, ...]
    nodes: dict[str, tuple[Any, ...]]

    def unmoved_since(self, before: Skeleton) -> frozenset[str]:
        """The nodes that say what they did, in nodes that do: what is inherited is the same, too."""
        if (self.foundations, self.piece) != (before.foundations, before.piece):
            return frozenset()
        unmoved = {self.piece[0]}
        # What stands in a node comes after it.
        for node, said in self.nodes.items():
            if said[0] in unmoved and before.nodes.get(node) == said:
                unmoved.add(node)
        return frozenset(unmoved)


class Known(dict[Any, BoxStyle]):
    """Styles worked out so far, and boxes made with them; equal to nothing but itself. `ground`: equal for all that
    are carried over from each other."""

    def __init__(self, skeleton: Skeleton) -> None:
        super().__init__()
        self.skeleton = skeleton
        self.ground = skeleton.foundations
        self.alike: dict[tuple[str, str], list[BoxStyle]] = {}
        self.boxes: dict[Any, tuple[tuple[BoxStyle, ...], Box, frozenset[str]]] = {}

    def carried(self, skeleton: Skeleton) -> Known:
        """What is known of the nodes that an edit has left as they were. Another thread may be finding out more: what
        is there is copied first."""
        unmoved = skeleton.unmoved_since(self.skeleton)
        made = Known(skeleton)
        if unmoved:
            made.ground = self.ground
        made.update((key, style) for key, style in list(self.items()) if key[0] in unmoved)
        made.alike = {key: list(styles) for key, styles in list(self.alike.items()) if key[0] in unmoved}
        held = {id(style) for styles in made.alike.values() for style in styles}
        made.boxes = {key: kept for key, kept in list(self.boxes.items()) if held.issuperset(map(id, kept[0]))}
        return made

    def __eq__(self, other: object) -> bool:
        return self is other


class Styles:
    """The styles of one piece's elements, each worked out once for each band. `styling` is made when it is first
    needed: where nothing but words has changed, it never is."""

    def __init__(self, styling: Callable[[], Styling], known: Known) -> None:
        self._make = styling
        self._styling: Styling | None = None
        self.known = known

    def of(self, node: str, part: Part, band: str | None, within: Part | None = None) -> BoxStyle:
        """`within`: the part in which it stands, where that is not the one it is resolved in."""
        key = (node, part, within, band)
        if key not in self.known:
            styling = self._made()
            element = styling.elements[node, part]
            if within is not None:
                element = element._replace(parent=styling.elements[node, within])
            told = (node, part, within, styling.band_told(element, band))
            if told not in self.known:
                self.known[told] = self._shared((node, part), box_style(styling, element, told[3]))
            self.known[key] = self.known[told]
        return self.known[key]

    def _shared(self, key: tuple[str, str], made: BoxStyle) -> BoxStyle:
        """The same object for all bands in which an element is styled alike."""
        alike = self.known.alike.setdefault(key, [])
        for other in alike:
            if other == made:
                return other
        alike.append(made)
        return made

    def _made(self) -> Styling:
        if self._styling is None:
            self._styling = self._make()
        return self._styling


@dataclass
class Setting:
    """`from_px`: the least viewport width that is meant. `beside`: whether a sidebar stands beside the content.
    `posts`: titles and dates of a posts item in a language; `trails`: the longest trail of its pages. `estimates`: how
    long labels will be that are still to be translated; None: the words that are published in their place count.
    `missing` and `estimated` are filled in: characters that no face has, nodes whose words are foreseen."""

    site: Site
    styles: Styles
    measurer: Measurer
    links: Links
    menus: Menus
    brands: Brands
    sheets: BaseSheets
    pictures: Pictures
    posts: Callable[[Any, str], Sequence[tuple[str, str]]]
    trails: Callable[[Trail, str], Sequence[Step]]
    language: str
    band: str | None
    from_px: int = 0
    beside: bool = False
    year: int | None = None
    estimates: Estimates | None = None
    missing: set[str] = field(default_factory=set)
    estimated: set[str] = field(default_factory=set)

    def part(self, node: str, part: Part = "box", within: Part | None = None) -> BoxStyle:
        return self.styles.of(node, part, self.band, within)

    def kept(self, told: Any, own: tuple[BoxStyle, ...], make: Callable[[Setting], Box]) -> Box:
        """A box that is all `told`, in the language and styles that are `own`; the one from before, where there is
        one."""
        boxes = self.styles.known.boxes
        key = (told, *map(id, own), self.language, self.measurer)
        if key not in boxes:
            if len(boxes) > MOST_BOXES:
                boxes.clear()
            alone = replace(self, missing=set())
            boxes[key] = (own, make(alone), frozenset(alone.missing))
        _, box, missing = boxes[key]
        self.missing |= missing
        return box

    def trail(self, item: Trail) -> Sequence[Step]:
        return self.trails(item, self.language)

    def words(self, words: Words, node: str) -> str:
        """As they are published in the language; or, where they are not translated and that is to be foreseen, a
        stand-in as long as the translation will be."""
        shown = words.in_language(self.language)
        if self.estimates is not None and shown:
            foreseen = self.estimates.foreseen(words, self.language, self.site.language)
            if foreseen is not None:
                self.estimated.add(node)
                return foreseen
        return shown

    def line(self, text: str, kind: Type, *, part: str = "text", **how: Any) -> Inline:
        """A block of text that is set alike. `how`: as for `lines`."""
        return self.lines([Run(text, kind)], kind, part=part, **how)

    def lines(
        self,
        runs: Sequence[Run],
        kind: Type,
        *,
        node: str = "",
        part: str = "text",
        breaks: bool = True,
        is_anonymous: bool = False,
        **sizes: Any,
    ) -> Inline:
        shown = [
            run._replace(text=transformed(_WHITE.sub(" ", run.text), run.type.transform, self.language)) for run in runs
        ]
        paragraph = Paragraph(shown, self.language, self.measurer, is_anonymous=is_anonymous)
        if paragraph.missing:
            self.missing.update(paragraph.missing)
        made = Inline(
            node=node, part=part, paragraph=paragraph, type=kind, faces=self.measurer.faces, breaks=breaks, **sizes
        )  # fmt: skip
        made.settle()
        return made

    def around(self, atom: Box, kind: Type) -> InlineAround:
        """A line that holds nothing but a box."""
        made = InlineAround(part="line", type=kind, faces=self.measurer.faces, atom=atom)
        made.settle()
        return made
