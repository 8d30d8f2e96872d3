"""Which edit does a form about sets of rules mean?"""

from __future__ import annotations

from collections.abc import Callable

from django.http import QueryDict

from ....core.kinds.pieces.base import Piece
from ....core.model.editing.edits import Add, Edit, Move, Remove, Set, Together
from ....core.model.site import Site
from ....core.model.tree import ROOT
from ...sites import ids
from .form_error import FormError, NotThere, Posted


def keep_as_set(site: Site, post: QueryDict) -> Posted:
    """The rules of a piece's own become a set with a name, that it uses."""
    piece, name = _piece(site, post), post.get("name", "").strip()
    if not piece.reach:
        raise FormError(piece.id, "reach_sets", "it has no rules of its own that could be kept")
    if not name:
        raise FormError(piece.id, "reach_sets", "give the set a name first")
    if any(one.name == name for one in site.reach_sets):
        raise FormError(piece.id, "reach_sets", f"there is a set of this name: use it, or take another than {name}")
    made = ids.new_id("rs")
    moved = (Move(node=rule.id, parent=made, slot="rules", at=at) for at, rule in enumerate(piece.reach))
    kept = Add(parent=ROOT, slot="reach_sets", values=({"id": made, "name": name},))
    return Posted(Together(edits=(kept, *moved, _using(piece, (*piece.reach_sets, made)))))


def use_set(site: Site, post: QueryDict) -> Posted:
    piece, wished = _piece(site, post), post.get("set", "")
    if not any(one.id == wished for one in site.reach_sets):
        raise FormError(piece.id, "reach_sets", "choose the set first")
    return Posted(_using(piece, (*(one for one in piece.reach_sets if one != wished), wished)))


def leave_set(site: Site, post: QueryDict) -> Posted:
    """A set that no piece uses any more goes."""
    piece, left = _piece(site, post), post.get("set", "")
    edits: list[Edit] = [_using(piece, tuple(one for one in piece.reach_sets if one != left))]
    if left in piece.reach_sets and not any(left in other.reach_sets for other in site.pieces if other is not piece):
        edits.append(Remove(nodes=(left,)))
    return Posted(Together(edits=tuple(edits)))


def _piece(site: Site, post: QueryDict) -> Piece:
    piece = next((piece for piece in site.pieces if piece.id == post["node"]), None)
    if piece is None:
        raise NotThere(post["node"], "reach_sets")
    return piece


def _using(piece: Piece, sets: tuple[str, ...]) -> Set:
    return Set(node=piece.id, field="reach_sets", value=list(sets))


READERS: dict[str, Callable[[Site, QueryDict], Posted]] = {
    "keep-as-set": keep_as_set,
    "use-set": use_set,
    "leave-set": leave_set,
}
