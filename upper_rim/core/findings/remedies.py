"""What would mend it, in one press? Edits that have been carried out on a copy of the site and looked at there: only what
takes the finding away and adds none that breaks is offered."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping
from math import ceil
from typing import Any, NamedTuple

from pydantic import JsonValue

from ..fit.advice.remedies import Failure, remedies
from ..fit.rows.states import FAILING
from ..kinds.entries import Entry
from ..kinds.items.base import BaseItem
from ..kinds.pieces.base import Piece
from ..kinds.pieces.header import Header
from ..model.editing.apply import apply
from ..model.editing.edits import Add, Edit, Remove, Set, Together
from ..model.site import Site
from ..model.tree import ROOT, holder_of
from ..style.paint.contrast import Weak, weak_texts
from ..style.resolve import default_of
from ..values.styling import Styled
from .finding import FindingKind
from .fit_offers import offer_of
from .subjects import subject_of
from .told import Teller
from .whole import Cause, LookedAt, causes, found_again, not_used

MOST_OFFERED = 6


class Offer(NamedTuple):
    """`key`: names it among those of its finding; the same for the same site. `gain`: what it brings, where there is more
    to say."""

    key: str
    words: str
    edit: Edit
    gain: str = ""


_WITHOUT: frozenset[FindingKind] = frozenset({
    "first words", "leads nowhere", "leads to itself", "empty list", "empty piece", "no fields", "no picture", "picture gone",
    "first place", "says nothing", "unused", "page gone", "no page", "nothing", "to come", "double", "deep",
})  # fmt: skip
"""What can do without the node that it is about."""


_UNSEEN_STATES: Mapping[FindingKind, str] = {"same on hover": "hover", "current unmarked": "current"}


def offers_of(cause: Cause, looked: LookedAt, new_id: Callable[[str], str], most: int = MOST_OFFERED) -> list[Offer]:
    """The best first. `new_id`: makes the id of a new node, by its prefix."""
    found: list[Offer] = []
    for offer in _thinkable(cause, looked, new_id):
        if _mends(offer.edit, cause, looked):
            found.append(offer)
            if len(found) == most:
                break
    return found


def _mends(edit: Edit, cause: Cause, looked: LookedAt) -> bool:
    after = apply(looked.site, edit)
    if not isinstance(after, Site):
        return False
    subject = subject_of(cause.kind)
    before = {one.key for one in causes(found_again(looked, subject, cause.node)) if one.severity == "breaks"}
    found = causes(found_again(looked.at(after), subject, cause.node))
    return all(one.key != cause.key and (one.severity != "breaks" or one.key in before) for one in found)


def _thinkable(cause: Cause, looked: LookedAt, new_id: Callable[[str], str]) -> Iterator[Offer]:
    site, teller = looked.site, Teller(looked.site)
    node: Any = holder_of(site, cause.node) if cause.node != ROOT else site
    first = cause.findings[0]
    if first.remedy is not None and cause.kind == "gap":
        yield Offer("later", f"Begin {teller.name(cause.stage)} {ceil(first.amount)} px later", first.remedy)
    if cause.kind in FAILING:
        yield from _of_fit(cause, looked, new_id)
    if cause.kind == "weak text" and node is not None:
        yield from _of_shades(cause, looked, new_id)
    if cause.kind in _UNSEEN_STATES and isinstance(node, Styled):
        yield from _of_states(cause, node, new_id)
    if cause.kind in {"never", "brief", "flicker"}:
        yield from _of_stages(cause, site, teller)
    if cause.kind == "no viewport":
        yield Offer("viewport", "Add it to the head of those pages", Set(node=ROOT, field="viewport", value=True))
    if cause.kind == "no place" and isinstance(node, Entry):
        target = {**node.target.model_dump(mode="json"), "place": ""}
        yield Offer("beginning", "Lead to the page’s beginning", Set(node=node.id, field="target", value=target))
    if cause.kind == "nothing grows":
        yield Offer("none grow", "Let no entries grow there", Set(node=cause.node, field="grows", value=None))
    if cause.kind == "no effect":
        yield Offer("rule", "Remove the rule", Remove(nodes=(cause.other,)))
    if cause.kind == "no icon":
        yield from _of_icons(site)
    if cause.kind == "unused files":
        unused = tuple(asset.id for asset in not_used(looked))
        yield Offer("files", f"Remove {'these files' if len(unused) > 1 else 'this file'}", Remove(nodes=unused))
    if cause.kind in {"two buttons", "two buttons in one"}:
        yield Offer("second", f"Remove {teller.name(cause.other)}", Remove(nodes=(cause.other,)))
    if cause.kind in {"never shown", "past", "nobody"} and isinstance(node, Piece):
        yield Offer("off", f"Switch {node.name} off", Set(node=node.id, field="on", value=False))
    if cause.kind in {"past", "nobody"} and isinstance(node, BaseItem):
        yield Offer("remove", f"Remove {teller.name(node.id)}", Remove(nodes=(node.id,)))
    if cause.kind in _WITHOUT and cause.node != ROOT:
        yield Offer("remove", f"Remove {teller.name(cause.node)}", Remove(nodes=(cause.node,)))


def _of_fit(cause: Cause, looked: LookedAt, new_id: Callable[[str], str]) -> Iterator[Offer]:
    site, fitter = looked.site, looked.fitter
    piece = next((one for one in site.pieces if any(row.id == cause.node for row in site.shown_rows(one))), None)
    if piece is None:
        return
    row = next(row for row in site.shown_rows(piece) if row.id == cause.node)
    for fit in fitter.rows(site, piece):
        failing = [one for one in fit.failing if (one.state, one.cause) == (cause.kind, cause.other)]
        if fit.row == cause.node and failing:
            found = remedies(fitter, site, piece, row, Failure(fit.language, failing[0]), new_id)
            for one in (one for one in found if one.mends and one.edit is not None):
                said = offer_of(one, site, fit.language)
                assert one.edit is not None
                yield Offer(said.key, said.words, one.edit, said.gain)
            return


def _of_shades(cause: Cause, looked: LookedAt, new_id: Callable[[str], str]) -> Iterator[Offer]:
    """The nearest shades that can be read, each where its text fails."""
    site = looked.site
    weak = [one for one in weak_texts(site, looked.fitter.pictures(site)) if one.node == cause.node]
    shades = dict.fromkeys(one.shade for one in weak)
    if not weak or None in shades:
        return
    edits = tuple(edit for one in weak for edit in _dyed(one, site, new_id))
    yield Offer(
        "shade", f"Use {' and '.join(map(str, shades))}", edits[0] if len(edits) == 1 else Together(edits=edits)
    )


def _dyed(weak: Weak, site: Site, new_id: Callable[[str], str]) -> Iterator[Edit]:
    """By the text's own declaration, or the piece's defaults for what it is."""
    part, value = (weak.element.part if weak.element.node else "box"), str(weak.shade)
    holder: Any = holder_of(site, weak.node)
    if not weak.element.node:
        piece: Any = holder_of(site, weak.element.piece)
        holder = default_of(piece.roles, weak.element.role)
        if holder is None:
            styles: list[JsonValue] = [_declared(new_id, value, "box", weak.state, band) for band in _bands(weak, site)]
            made: JsonValue = {"id": new_id("ro"), "role": weak.element.role, "styles": styles}
            yield Add(parent=piece.id, slot="roles", values=(made,))
            return
    for band in _bands(weak, site):
        yield _told(holder, _declared(new_id, value, part, weak.state, band))


def _told(holder: Any, declared: dict[str, JsonValue]) -> Edit:
    """A node with that declaration, in place of its own where it has one."""
    where = ("property", "part", "state", "band")
    for one in holder.styles:
        if all(getattr(one, field) == declared[field] for field in where):
            return Set(node=one.id, field="value", value=declared["value"])
    return Add(parent=holder.id, slot="styles", values=(declared,))


def _bands(weak: Weak, site: Site) -> tuple[str | None, ...]:
    """In which it fails; all at once where that is everywhere."""
    return (None,) if len(weak.bands) == max(1, len(site.bands)) else weak.bands


def _declared(
    new_id: Callable[[str], str], value: str, part: str, state: str, band: str | None, name: str = "color"
) -> dict[str, JsonValue]:
    return {"id": new_id("st"), "property": name, "value": value, "part": part, "state": state, "band": band}


def _of_states(cause: Cause, node: Any, new_id: Callable[[str], str]) -> Iterator[Offer]:
    """What shows that something is in a state."""
    part, state = str(cause.findings[0].about["part"]), _UNSEEN_STATES[cause.kind]
    ways = [("underline", "Underline it then", "text-decoration-line", "underline")]
    if state == "hover":
        ways.append(("paler", "Make it paler then", "opacity", "0.75"))
    for key, words, name, value in ways:
        yield Offer(key, words, _told(node, _declared(new_id, value, part, state, None, name)))


def _of_stages(cause: Cause, site: Site, teller: Teller) -> Iterator[Offer]:
    piece = next((one for one in site.pieces if one.id == cause.node), None)
    stage = next((one for one in piece.stages if one.id == cause.stage), None) if isinstance(piece, Header) else None
    if piece is None or stage is None:
        return
    least_px = cause.findings[0].about.get("least_px")
    if least_px is not None and stage.after.kind == "px":
        after: JsonValue = {"kind": "px", "px": ceil(float(least_px))}
        yield Offer("later", f"Begin it at {ceil(float(least_px))} px", Set(node=stage.id, field="after", value=after))
    rows = tuple(row.id for row in piece.rows if row.stage == stage.id)
    removal = Remove(nodes=(*rows, stage.id))
    yield Offer("remove", f"Remove the stage {teller.name(stage.id)}", removal)


def _of_icons(site: Site) -> Iterator[Offer]:
    """A picture that is called as icons are."""
    for asset in site.assets:
        name = asset.path.rpartition("/")[2].lower()
        if "icon" in name and name.endswith((".svg", ".png", ".ico")):
            yield Offer(f"icon {asset.id}", f"Use {asset.path}", Set(node=ROOT, field="icon", value=asset.path))
