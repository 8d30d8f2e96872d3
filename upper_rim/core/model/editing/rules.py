"""What may be set, beside what the types of the model say, and needs something from outside to know?

Which icons there are, which selectors can be read, whether a stage would flicker: the shell hands these in as one
value, and `apply` asks them of all that an edit has changed, whichever way it came.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass

from ...kinds.entries import Entry
from ...kinds.items.base import BaseItem
from ...kinds.moving import ByElement, Stage
from ...kinds.pieces.base import Moving
from ...values.nodes import Node, Value
from ..site import Lift, Site
from ..tree import SLOTS, walk
from .edits import Edit
from .refusal import Refusal

Fault = str | None


@dataclass(frozen=True)
class Rules:
    """`is_icon`: whether there is an icon of that name; `is_mark`: a service's mark, drawn for icon links alone.
    `selector_fault`: why a CSS selector cannot be read. `edit_fault`: what else an edit of a site must not do."""

    is_icon: Callable[[str], bool]
    is_mark: Callable[[str], bool]
    selector_fault: Callable[[str], Fault]
    edit_fault: Callable[[Site, Edit], Refusal | None] = lambda site, edit: None


def broken_rule(before: Site, after: Site, rules: Rules) -> Refusal | None:
    """The first fault in what is not as it was."""
    return next((fault for node, was in _changed(before, after) for fault in _faults(node, was, rules)), None)


def _changed(before: Site, after: Site) -> Iterator[tuple[Node, Node | None]]:
    """Nodes that are not the same values, each with what it was."""
    for slot in ("pieces", "menus", "lifts"):
        old = {id(node) for node in getattr(before, slot)}
        tops = [node for node in getattr(after, slot) if id(node) not in old]
        if not tops:
            continue
        known = {node.id: node for top in getattr(before, slot) for node in _whole(top)}
        for top in tops:
            for node in _whole(top):
                was = known.get(node.id)
                if was is not node:
                    yield node, was


def _whole(node: Node) -> Iterator[Node]:
    yield node
    if type(node) in SLOTS:
        yield from walk(node)


def _faults(node: Node, was: Node | None, rules: Rules) -> Iterator[Refusal]:
    for field, name in _icons(node).items():
        if name != getattr(was, field, None) and not (
            rules.is_icon(name) or (isinstance(node, BaseItem) and node.TAKES_BRANDS and rules.is_mark(name))
        ):
            yield Refusal(node.id, field, "no such icon", {"icon": name})
    for field, selector in _selectors(node).items():
        if getattr(node, field) != getattr(was, field, None):
            fault = rules.selector_fault(selector)
            if fault is not None:
                yield Refusal(node.id, field, "selector not read", {"fault": fault})


def _icons(node: Node) -> Mapping[str, str]:
    """Fields that name an icon."""
    if isinstance(node, BaseItem):
        return node.named_icons()
    return {"icon": node.icon} if isinstance(node, Entry) and node.icon is not None else {}


def _selectors(node: Value) -> Mapping[str, str]:
    """Fields that hold a CSS selector."""
    match node:
        case BaseItem():
            return node.named_selectors()
        case Lift():
            return {"selector": node.selector}
        case Moving() if isinstance(node.hides_until, ByElement):
            return {"hides_until": node.hides_until.selector}
        case Stage() if isinstance(node.after, ByElement):
            return {"after": node.after.selector}
        case _:
            return {}
