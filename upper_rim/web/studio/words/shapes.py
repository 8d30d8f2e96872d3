"""How is a page laid out, and what is done so that pieces hold in it?"""

from __future__ import annotations

from collections.abc import Iterator

from ....core.kinds.page_shapes import PageShape
from ....core.page_shape.measured import Unlike


def shape_words(shape: PageShape) -> Iterator[str]:
    """A sentence for each thing that is not as it is on most pages."""
    if not shape.on:
        yield "It is laid out in a way of its own, and left as it is: pieces may not hold in it."
        return
    if shape.is_measured:
        yield "It is laid out as a browser measured it, which was otherwise than its CSS tells."
    if shape.is_shell:
        yield (
            "Its window does not scroll: a part of the page does, and fills it. Header and footer take their room at the "
            "edges, and that part has what is left."
        )
    elif shape.is_boxed:
        yield (
            "Its body is no plain one. Pieces lie across the whole window, and the content has a box of its own, in which "
            "it is laid out as before."
        )
    if shape.heights:
        yield "Its body is as high as the window, and no higher: it grows with its content, so that what is pinned stays."
    if shape.clips:
        yield "Its root and its body both hide what is too wide: the body leaves that to the root, so that what is pinned stays."
    if shape.at_edges and not shape.is_shell:
        yield "Parts of its own are pinned to an edge of the window: they keep their distance from pieces that are pinned there."
    if shape.is_quirky:
        yield "It has no document type that browsers know, so that they read it as in former times (quirks mode)."


def declared_words(shape: PageShape) -> list[tuple[str, str]]:
    """What the page says of its body, as it is written: conditions, declarations."""
    return [
        (" ".join(rule.within), "; ".join(f"{name}: {value}" for name, value in rule.declared))
        for rule in (*shape.root, *shape.box)
    ]


LONGEST_SAID = 160


def unlike_words(one: Unlike) -> str:
    """What was measured otherwise than was foreseen."""
    from_on = f"From {one.from_px} px on" if one.from_px else "From the narrowest window on"
    if one.name == "body":
        by = f" ({one.measured[:LONGEST_SAID]})" if one.measured else ""
        return f"{from_on}, pieces would not lie across the window: its body leaves them less{by}"
    if one.name == "left":
        return f"{from_on}, its content begins {one.measured} from the left, where {one.foreseen} was foreseen"
    if one.name == "width":
        return f"{from_on}, its content is as wide as {one.measured}, where {one.foreseen} was foreseen"
    return f"{from_on}, {one.name} is {one.measured}, where {one.foreseen} was foreseen"


def hold_words(pages: int) -> str:
    """What is switched on or off, for so many pages of a shape."""
    return f"Make pieces hold in it, on {pages} page{'' if pages == 1 else 's'} laid out like this one"
