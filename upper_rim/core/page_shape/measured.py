"""What a page's root and body are like as a browser shows them, and whether that is what was read in its CSS.

Sheets on other hosts, scripts and selectors that only a browser judges are in what is measured. It comes from a page of
somebody else's, so that nothing in it is more than a proposal.
"""

from __future__ import annotations

import hashlib
import re
from collections.abc import Iterator, Mapping
from typing import Annotated, Literal, NamedTuple

from pydantic import Field, StringConstraints

from ..kinds.page_shapes import PageShape
from ..values.nodes import Value
from .cascade import Attributes, Sheet
from .shape import shaped

Name = Annotated[str, StringConstraints(pattern=r"^[a-z-]{3,40}$")]
Said = Annotated[str, StringConstraints(pattern=r"^[^{}<>;@\\]*$", max_length=300)]
Px = Annotated[float, Field(ge=-100_000, le=100_000, allow_inf_nan=False)]
Declared = Annotated[dict[Name, Said], Field(max_length=60)]
NEAR_PX = 1
_NOT_COMPARED = frozenset({"width", "min-height", "position", "background-image"})
"""The box of a body's content is as wide and as high by other means, and a body may be painted by itself."""
_ZERO = re.compile(r"0(px)?")


class MeasuredSpan(Value):
    """From a width of the window on, in px, until the next one: computed values of a page's root and body, and of what
    stands for its body where pieces are in it; both of their boxes, from the window's left edge."""

    from_px: Annotated[int, Field(ge=0, le=10_000)]
    root: Declared
    body: Declared
    stands_for_it: Declared
    body_box: tuple[Px, Px]
    box: tuple[Px, Px]
    is_plain: bool = Field(
        description="With pieces in it, the body is as wide as the window, and lays them out in its order."
    )


class MeasuredPage(Value):
    """`is_quirky`: the browser reads it in quirks mode."""

    spans: Annotated[tuple[MeasuredSpan, ...], Field(min_length=1, max_length=40)]
    is_quirky: bool = False


class Unlike(NamedTuple):
    """What is otherwise than the page's own CSS told, from a width on. `name`: a property, `left` or `width` of its box in
    px, or `body` where pieces would not lie across the window: by what, of it."""

    from_px: int
    name: str
    measured: str
    foreseen: str


def unlike(measured: MeasuredPage) -> Iterator[Unlike]:
    """Nothing, where the page is laid out as was foreseen."""
    for span in measured.spans:
        if not span.is_plain:
            said = (f"{name}: {value}" for name, value in span.body.items() if not _ZERO.fullmatch(value))
            yield Unlike(span.from_px, "body", "; ".join(said), "")
        names = (span.body.keys() | span.stands_for_it.keys()) - _NOT_COMPARED
        for name in sorted(one for one in names if not one.endswith(("-color", "-style"))):
            value, foreseen = span.body.get(name, "none"), span.stands_for_it.get(name, "none")
            if foreseen != value:
                yield Unlike(span.from_px, name, value, foreseen)
        for name, is_so, foreseen_px in zip(("left", "width"), span.body_box, span.box, strict=True):
            if abs(is_so - foreseen_px) > NEAR_PX:
                yield Unlike(span.from_px, name, f"{is_so:g}px", f"{foreseen_px:g}px")


def measured_shape(measured: MeasuredPage, known: PageShape | None) -> PageShape:
    """The shape that is measured. What only the page's CSS tells, of its parts and heights, is kept of the one `known`."""
    said = Attributes({}, {}, measured.is_quirky)
    found = shaped(said, [Sheet(_css(measured), "/")], _nothing, _nowhere).shape or PageShape(id="sh-0")
    known = known or PageShape(id="sh-0")
    children = known.children if found.is_boxed or known.is_shell else ()
    made = found.replaced(
        is_measured=True,
        instead_of=known.instead_of if known.is_measured else "" if known.id == "sh-0" else known.id,
        is_shell=known.is_shell,
        is_boxed=found.is_boxed or known.is_shell,
        is_tall=found.is_tall or (known.is_tall and _is_directed(measured)),
        children=children,
        **{name: getattr(known, name) for name in ("heights", "clips", "of_window", "at_edges")},
    )
    return made.replaced(id=f"sh-{hashlib.sha256(made.model_dump_json(exclude={'id'}).encode()).hexdigest()[:12]}")


def _nothing(_: str) -> None:
    return None


def _nowhere(_: str) -> Literal[False]:
    return False


def _is_directed(measured: MeasuredPage) -> bool:
    return any(
        "flex" in span.body.get("display", "") or "grid" in span.body.get("display", "") for span in measured.spans
    )


def _css(measured: MeasuredPage) -> str:
    """A sheet by which a page would be laid out as it is measured."""
    written: list[str] = []
    ends = [*(span.from_px for span in measured.spans[1:]), None]
    for at, (span, end) in enumerate(zip(measured.spans, ends, strict=True)):
        bounds = [f"(min-width:{span.from_px}px)"] if at else []
        bounds += [f"(max-width:{end - 0.02:g}px)"] if end is not None else []
        rules = f":root{{{_block(span.root)}}}body{{{_block(span.body)}}}"
        written.append(f"@media {' and '.join(bounds)}{{{rules}}}" if bounds else rules)
    return "".join(written)


def _block(declared: Mapping[str, str]) -> str:
    return ";".join(f"{name}:{value}" for name, value in declared.items())
