"""Made-up trees of boxes, each told twice: as `core.fit` has it, and as the HTML and CSS that a browser lays out."""

from __future__ import annotations

import random
from collections.abc import Iterator
from typing import Any

from upper_rim.core.fit.css.amount import Viewport, amount
from upper_rim.core.fit.css.block import Block, Void
from upper_rim.core.fit.css.boxes import Box, Frame, Sides
from upper_rim.core.fit.css.flex import Flex
from upper_rim.core.fit.css.grid import Grid, GridTrack
from upper_rim.core.fit.css.linear import Length, value

DEPTH = 3
SIDES = ("block-start", "inline-end", "block-end", "inline-start")
TRACKS = {"content": "auto", "share": "{0:g}fr", "equal": "minmax(0, 1fr)", "fixed": "{0:g}px"}
ALIGNED = {"start": "start", "center": "center", "end": "end", "stretch": "stretch"}


class BoxMaker:
    """`tree()` makes a box and its HTML; the same seed, the same ones. Each box's `part` is its element's id."""

    def __init__(self, seed: int) -> None:
        self.chance = random.Random(seed)
        self.count = 0

    def tree(self) -> tuple[Box, str]:
        kids = [self._box(DEPTH, "block") for _ in range(self.chance.randrange(1, 4))]
        root = Block(part="root", within=[box for box, _ in kids]).settle()
        return root, f'<div id="root">{"".join(html for _, html in kids)}</div>'

    def _box(self, depth: int, inside: str) -> tuple[Box, str]:
        self.count += 1
        part = f"b{self.count}"
        # A grid is a row: its width comes from outside.
        kind = (
            self.chance.choice(["void", "flex", "flex", "block", *(["grid"] * (depth == DEPTH))]) if depth else "void"
        )
        kind = "column" if kind == "flex" and self.chance.random() < 0.25 else kind
        own, css = self._sizes(inside, kind)
        if kind == "void":
            wide, high = self.chance.choice([0, 12, 40, 90, 160]), self.chance.choice([0, 10, 24, 61])
            made: Box = Void(part=part, inner_width=float(wide), inner_height=float(high), **own)
            return made.settle(), self._html(part, css, [f'<i style="width:{wide}px;height:{high}px"></i>'])
        within, more, written = self._container(kind, depth, inside)
        box = {"flex": Flex, "column": Flex, "grid": Grid, "block": Block}[kind](
            part=part, within=[one for one, _ in within], **more, **own
        )
        return box.settle(), self._html(part, {**css, **written}, [html for _, html in within])

    def _container(
        self, kind: str, depth: int, inside: str
    ) -> tuple[list[tuple[Box, str]], dict[str, Any], dict[str, str]]:
        chance = self.chance
        if kind == "block":
            return [self._box(depth - 1, "block") for _ in range(chance.randrange(1, 4))], {}, {"display": "flow-root"}
        gap, row_gap = chance.choice(["0px", "7px", "20px"]), chance.choice(["0px", "5px"])
        align = chance.choice(list(ALIGNED))
        written = {"column-gap": gap, "row-gap": row_gap, "align-items": ALIGNED[align]}
        more: dict[str, Any] = {"column_gap": amount(gap, 16.0), "row_gap": amount(row_gap, 16.0), "align": align}
        if kind == "grid":
            tracks = self._tracks()
            within = [self._box(depth - 1, "grid") for _ in range(len(tracks) * chance.randrange(1, 3))]
            columns = " ".join(TRACKS[track.kind].format(track.amount) for track in tracks)
            return within, {**more, "tracks": tracks}, {**written, "display": "grid", "grid-template-columns": columns}
        row = kind == "flex"
        wraps = row and chance.random() < 0.5
        justify = chance.choice(["start", "center", "end"])
        if wraps:
            # Where its lines stand in a height that is more, or less, than they need (CSS Flexbox 1, 8.4).
            pack = chance.choice(list(ALIGNED))
            written["align-content"] = ALIGNED[pack]
            more["pack"] = pack
        into = ("cell" if inside == "grid" else "row") if row else "column"
        within = [self._box(depth - 1, into) for _ in range(chance.randrange(1, 5))]
        written |= {
            "display": "flex",
            "flex-direction": "row" if row else "column",
            "flex-wrap": "wrap" if wraps else "nowrap",
            "justify-content": justify,
        }
        return within, {**more, "direction": "row" if row else "column", "wraps": wraps, "justify": justify}, written

    def _tracks(self) -> tuple[GridTrack, ...]:
        chance = self.chance
        if chance.random() < 0.25:
            return (GridTrack("equal"),) * chance.randrange(1, 4)
        kinds = (GridTrack("content"), GridTrack("share"), GridTrack("share", 2.0), GridTrack("fixed", 110.0))
        return tuple(chance.choice(kinds) for _ in range(chance.randrange(1, 4)))

    def _sizes(self, inside: str, kind: str) -> tuple[dict[str, Any], dict[str, str]]:
        """What a box says of its own size, as its fields and as declarations."""
        chance = self.chance
        own: dict[str, Any] = {}
        css: dict[str, str] = {}
        for name in ("width", "min-width", "max-width"):
            if chance.random() < 0.15:
                css[name] = chance.choice(["60px", "150px", "calc(30px + 8vw)"])
                own[name.replace("-", "_")] = amount(css[name], 16.0)
        # No piece has a grid or a column of boxes of a height that is said, nor such boxes in one.
        has_height = kind not in {"column", "grid"} and inside != "column"
        shares = ["40%", "clamp(10px, 30%, 90px)"] if inside in {"grid", "cell"} else []
        for name in ("height", "min-height", "max-height") if has_height else ():
            if chance.random() < 0.12:
                css[name] = chance.choice(["50px", "calc(10px + 4vh)", *shares])
                own[name.replace("-", "_")] = amount(css[name], 16.0)
        for name, choices in (
            ("padding", ["0px", "9px", "2vw"]),
            ("border", ["0px", "3px"]),
            ("margin", ["0px", "6px", "-4px"]),
        ):
            if chance.random() < 0.25:
                texts = [chance.choice(choices) for _ in SIDES]
                own[name] = Sides(*(amount(text, 16.0) for text in texts))
                ends = "-width" if name == "border" else ""
                css |= {f"{name}-{side}{ends}": text for side, text in zip(SIDES, texts, strict=True)}
        if inside in {"row", "cell"}:
            own["grow"] = chance.choice([0.0, 0.0, 1.0, 2.0])
            own["shrink"] = chance.choice([1.0, 1.0, 0.0, 3.0])
            css |= {"flex-grow": f"{own['grow']:g}", "flex-shrink": f"{own['shrink']:g}"}
        if inside in {"row", "cell", "grid"} and chance.random() < 0.2:
            own["align_self"] = chance.choice(list(ALIGNED))
            css["align-self"] = ALIGNED[own["align_self"]]
        return own, css

    @staticmethod
    def _html(part: str, css: dict[str, str], within: list[str]) -> str:
        style = ";".join(f"{name}:{text}" for name, text in css.items())
        return f'<div id="{part}" style="{style}">{"".join(within)}</div>'


def page(html: str) -> str:
    base = "*{box-sizing:border-box;margin:0;border:0 solid}html{overflow:hidden}div{display:flow-root}i{display:block}"
    return f"<!doctype html><style>{base}</style>{html}"


def laid_out(root: Box, viewport: Viewport) -> dict[str, tuple[Length, Length, Length, Length]]:
    """Each box's x, y, width and height."""
    return dict(_places(root.lay_out(viewport.width, viewport, viewport.width), 0.0, 0.0))


def _places(frame: Frame, x: Length, y: Length) -> Iterator[tuple[str, tuple[Length, Length, Length, Length]]]:
    yield frame.box.part, (x, y, frame.width, frame.height)
    for inner_x, inner_y, kid in frame.kids:
        yield from _places(kid, x + inner_x, y + inner_y)


def in_px(place: tuple[Length, ...], moved_px: float = 0.0) -> tuple[float, ...]:
    """A place so many px to the right of its span's start."""
    return tuple(value(one) + (getattr(one, "slope", 0.0)) * moved_px for one in place)
