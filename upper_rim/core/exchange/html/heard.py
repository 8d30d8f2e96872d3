"""Does it say anything to who hears a page read (Accessible Name and Description Computation 1.1)?"""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Set
from itertools import islice

from selectolax.lexbor import LexborNode

_UNASKED = frozenset({"hidden", "submit", "button", "reset", "image"})
"""Types of fields that ask for nothing."""
MOST_LEVELS, MOST_NODES = 200, 1_000


def says_something(node: LexborNode) -> bool:
    """A text, or a picture's. Of what holds very much the beginning is looked at."""
    return _holds_text(node) or any(map(_speaks, islice(node.traverse(include_text=True), MOST_NODES)))


def _holds_text(node: LexborNode) -> bool:
    """As `has_text`, faster; for elements that are asked once each, since all of it is read."""
    return bool(node.text().strip())


def has_text(node: LexborNode) -> bool:
    return any(
        one.tag == "-text" and one.text().strip() for one in islice(node.traverse(include_text=True), MOST_NODES)
    )


def _speaks(node: LexborNode) -> bool:
    if node.tag == "-text":
        return bool((node.text() or "").strip())
    said = node.attributes
    return bool((said.get("alt") or said.get("aria-label") or "").strip())


def is_named(node: LexborNode) -> bool:
    """By an attribute of its own, or hidden from all who would hear its name."""
    said = node.attributes
    if said.get("aria-hidden") == "true" or "hidden" in said or said.get("role") in {"none", "presentation"}:
        return True
    return any((said.get(name) or "").strip() for name in ("aria-label", "aria-labelledby", "title"))


def is_nameless(node: LexborNode) -> bool:
    """No text, no label, no picture with words (Accessible Name and Description Computation 1.1)."""
    if _holds_text(node) or is_named(node):
        return False
    within = node.css("img[alt], [aria-label], svg title, input[value]")
    return not any(
        (one.attributes.get("alt") or one.attributes.get("aria-label") or one.text()).strip() for one in within
    )


def is_labelled(node: LexborNode, labels: Set[str]) -> bool:
    """`labels`: the ids for which a label says something (HTML AAM 1.0, 4.1)."""
    said = node.attributes
    if (
        is_named(node)
        or (said.get("type") or "").strip().lower() in _UNASKED
        or (said.get("placeholder") or "").strip()
    ):
        return True
    return (said.get("id") or "") in labels or any(above.tag == "label" and has_text(above) for above in above_it(node))


def labelled_ids(labels: Iterable[LexborNode]) -> frozenset[str]:
    return frozenset(said for label in labels if (said := label.attributes.get("for")) and has_text(label))


def above_it(node: LexborNode) -> Iterator[LexborNode]:
    """The elements that it stands in, from the inside out; of very many the nearest."""
    above = node.parent
    for _ in range(MOST_LEVELS):
        if above is None:
            return
        yield above
        above = above.parent
