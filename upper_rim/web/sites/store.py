"""How is a site loaded as one value, and how does an edit become part of it?

One lock a site: edits to it queue in the database. Each process keeps the newest values it has seen and brings them up
to date by the recorded edits.
"""

from __future__ import annotations

import json
import secrets
from collections.abc import Callable, Iterable, Mapping, Sequence
from threading import Lock
from typing import NamedTuple

from cachetools import LRUCache
from django.contrib.auth.base_user import AbstractBaseUser
from django.db import transaction
from django.db.models import F, JSONField, TextField, Value
from django.db.models.expressions import CombinedExpression
from django.db.models.functions import Cast
from django.utils.text import slugify

from ...core.kinds.pieces.base import Piece
from ...core.model.editing.apply import apply, inverse
from ...core.model.editing.edits import Add, Edit, Move, Remove, Set, SetEach, Together, edit_adapter, parts_of_edit
from ...core.model.editing.refusal import Refusal
from ...core.model.editing.replay import GONE, Conflict, rebase
from ...core.model.site import Asset, Menu, Page, Site
from .contents import keep_contents
from .models import Revision, StoredNode, StoredSite
from .rules import rules_of


class Loaded(NamedTuple):
    site: Site
    revision: int


class Clash(NamedTuple):
    """A conflict, and who made the other change."""

    conflict: Conflict
    other: str


class NothingThere(NamedTuple):
    """Nothing left to undo or redo."""

    sentence: str


Answer = Loaded | Refusal | Clash | NothingThere

_KEPT_SITES, _KEPT_REVISIONS = 24, 12
_known: LRUCache[int, LRUCache[int, Site]] = LRUCache(_KEPT_SITES)
_lock = Lock()

LONGEST_SAID = 300
LONGEST_WALK = 200
"""How many recorded edits, the parts of each counted, are walked along before the whole site is read anew."""


def load(site_id: int) -> Loaded:
    """The newest state of a site."""
    revision = StoredSite.objects.values_list("revision", flat=True).get(pk=site_id)
    return Loaded(_at(site_id, revision), revision)


def load_revision(site_id: int, number: int) -> Site:
    """The site as it was after that revision."""
    return _at(site_id, number)


Tells = Callable[[Edit, Site, Site], str]
"""What an edit did, in words, from the site before and after it."""


def submit(
    site_id: int, author: AbstractBaseUser | None, edit: Edit, base: int | None = None, tells: Tells | None = None
) -> Answer:
    """Makes an edit part of the site, replayed where others came in between `base` and now. `tells`: it is told while
    both states are at hand, so that nobody has to walk back to them."""
    with transaction.atomic():
        stored, newest = _locked(site_id)
        base_site = newest if base is None or base >= stored.revision else _at(site_id, max(0, base))
        answer = _record(stored, newest, author, edit, base_site, Revision.Kind.EDIT, base, tells)
        if isinstance(answer, Loaded) and answer.revision > stored.revision:
            Revision.objects.filter(site_id=site_id, author=author, kind=Revision.Kind.UNDO, spent=False).update(
                spent=True
            )
    return _finished(site_id, answer)


def undo(site_id: int, author: AbstractBaseUser) -> Answer:
    """Takes back the author's own newest edit that still stands."""
    return _step(
        site_id, author, (Revision.Kind.EDIT, Revision.Kind.REDO), Revision.Kind.UNDO, "There is nothing left to undo."
    )


def redo(site_id: int, author: AbstractBaseUser) -> Answer:
    """Does again what the author undid last."""
    return _step(site_id, author, (Revision.Kind.UNDO,), Revision.Kind.REDO, "There is nothing to redo.")


FURTHEST_BACK = 500
"""So many steps are taken back at once, at the most."""


def way_back(site_id: int, number: int) -> Edit | None:
    """What makes the newest state the one after that revision again; None where it is none, or too far back."""
    newest = StoredSite.objects.values_list("revision", flat=True).get(pk=site_id)
    if not 0 <= number < newest or newest - number > FURTHEST_BACK:
        return None
    rows = Revision.objects.filter(site_id=site_id, number__gt=number).order_by("-number")
    return Together(edits=_without_what_is_overtaken(edit_adapter.validate_python(row.inverse) for row in rows))


def _without_what_is_overtaken(edits: Iterable[Edit]) -> tuple[Edit, ...]:
    """Of values that are set one after the other, with nothing but such between them, the last alone."""
    kept: list[Edit] = []
    run: dict[tuple[str, str], Edit] = {}
    for part in (part for edit in edits for part in parts_of_edit(edit)):
        if isinstance(part, Set):
            run.pop((part.node, part.field), None)
            run[part.node, part.field] = part
        else:
            kept += (*run.values(), part)
            run.clear()
    return (*kept, *run.values())


def steps_left(site_id: int, author: AbstractBaseUser) -> tuple[bool, bool]:
    """Whether the author can undo, and redo."""
    kinds = set(
        Revision.objects.filter(site_id=site_id, author_id=author.pk, spent=False)
        .order_by("kind")
        .values_list("kind", flat=True)
        .distinct()
    )
    return bool(kinds & {Revision.Kind.EDIT, Revision.Kind.REDO}), Revision.Kind.UNDO in kinds


def _step(site_id: int, author: AbstractBaseUser, from_kinds: tuple[str, ...], kind: str, nothing: str) -> Answer:
    with transaction.atomic():
        stored, newest = _locked(site_id)
        row = (
            Revision.objects.filter(site_id=site_id, author_id=author.pk, spent=False, kind__in=from_kinds)
            .order_by("-number")
            .first()
        )
        if row is None:
            return NothingThere(nothing)
        base = newest if row.number == stored.revision else _at(site_id, row.number)
        back, said = edit_adapter.validate_python(row.inverse), row.said
        answer = _record(stored, newest, author, back, base, kind, row.number, lambda *_: said)
        if isinstance(answer, Loaded):
            row.spent = True
            row.save(update_fields=["spent"])
    return _finished(site_id, answer)


def _locked(site_id: int) -> tuple[StoredSite, Site]:
    stored = StoredSite.objects.select_for_update().defer("document").get(pk=site_id)
    return stored, _at(site_id, stored.revision)


def _record(
    stored: StoredSite,
    newest: Site,
    author: AbstractBaseUser | None,
    edit: Edit,
    base: Site,
    kind: str,
    since: int | None,
    tells: Tells | None = None,
) -> Answer:
    """`since`: the revision that the edit was made on."""
    rebased = rebase(edit, base, newest)
    if isinstance(rebased, Conflict):
        return Clash(rebased, _who_changed(stored, rebased, since or 0, author))
    edit = rebased
    after = apply(newest, edit, rules_of(stored.pk))
    if isinstance(after, Refusal):
        return after
    if after is newest:
        return Loaded(newest, stored.revision)
    number = stored.revision + 1
    Revision.objects.create(
        site=stored,
        number=number,
        author_id=author.pk if author else None,
        kind=kind,
        edit=_as_json(edit_adapter.dump_json(edit).decode()),
        inverse=_as_json(edit_adapter.dump_json(inverse(newest, edit)).decode()),
        said=tells(edit, newest, after)[:LONGEST_SAID] if tells else "",
    )
    _write_changes(stored, newest, after, number)
    return Loaded(after, number)


def _finished(site_id: int, answer: Answer) -> Answer:
    """Keeps a new state only after its transaction has ended well."""
    if isinstance(answer, Loaded):
        _keep(site_id, answer.revision, answer.site)
    return answer


def _who_changed(stored: StoredSite, conflict: Conflict, since: int, author: AbstractBaseUser | None) -> str:
    """Whoever last changed what the conflict is about: that field of that node."""
    later = stored.revisions.filter(number__gt=since).order_by("-number").select_related("author")
    for revision in later[:MOST_SEARCHED]:
        if revision.author and any(_touches(part, conflict) for part in parts_of_edit(_edit_of(revision))):
            mine = author is not None and revision.author_id == author.pk
            return "You, in another window," if mine else str(revision.author.get_username())
    return "Somebody"


MOST_SEARCHED = 500


def _edit_of(revision: Revision) -> Edit:
    return edit_adapter.validate_python(revision.edit)


def _touches(edit: Edit, conflict: Conflict) -> bool:
    match edit:
        case Set():
            return (edit.node, edit.field) == (conflict.node, conflict.field) or (
                edit.node == conflict.node and not conflict.field
            )
        case SetEach():
            return edit.field == conflict.field and any(node == conflict.node for node, _ in edit.values)
        case Move():
            return edit.node == conflict.node
        case Remove():
            return conflict.theirs == GONE or conflict.node in edit.nodes
        case Add():
            return conflict.node in {
                str(value["id"]) for value in edit.values if isinstance(value, dict) and "id" in value
            }
        case _:
            return False


def _write_changes(stored: StoredSite, before: Site, after: Site, number: int) -> None:
    document = CombinedExpression(F("document"), "||", _document(after, before), output_field=JSONField())
    StoredSite.objects.filter(pk=stored.pk).update(revision=number, document=document, name=after.name)
    changed = [slot for slot in StoredNode.Slot.values if getattr(before, slot) is not getattr(after, slot)]
    known = {slot: {node.id: node for node in getattr(before, slot)} for slot in changed}
    kept = {node.id for slot in changed for node in getattr(after, slot)}
    gone = [node_id for nodes in known.values() for node_id in nodes if node_id not in kept]
    if gone:
        StoredNode.objects.filter(site=stored, node_id__in=gone).delete()
    for slot in changed:
        write_nodes(stored, slot, [node for node in getattr(after, slot) if known[slot].get(node.id) is not node])


_ORDERED = (StoredNode.Slot.MENUS, StoredNode.Slot.PIECES)
"""Whose nodes have an order that no value of theirs tells: the document keeps their ids in it."""


def _document(site: Site, before: Site | None = None) -> Cast:
    """All that has no rows of its own; with `before`, no more of it than is new."""
    fields = set(Site.model_fields) - set(StoredNode.Slot.values)
    ordered = {str(slot): [node.id for node in getattr(site, slot)] for slot in _ORDERED}
    if before is not None:
        fields = {field for field in fields if getattr(site, field) is not getattr(before, field)}
        ordered = {slot: ids for slot, ids in ordered.items() if getattr(site, slot) is not getattr(before, slot)}
    return _as_json(json.dumps({**site.model_dump(mode="json", include=fields), **ordered}))


def _as_json(text: str) -> Cast:
    """What is written already need not be taken apart for the database, and be put together again."""
    return Cast(Value(text, TextField()), JSONField())


def write_nodes(stored: StoredSite, slot: str, nodes: Sequence[Page | Asset | Menu | Piece]) -> None:
    for begin in range(0, len(nodes), WRITTEN_AT_ONCE):
        rows = [
            StoredNode(
                site=stored,
                slot=slot,
                node_id=node.id,
                path=node.path if isinstance(node, (Page, Asset)) else "",
                content=(node.content or "") if isinstance(node, (Page, Asset)) else "",
                document=node.model_dump(mode="json"),
            )
            for node in nodes[begin : begin + WRITTEN_AT_ONCE]
        ]
        StoredNode.objects.bulk_create(
            rows,
            update_conflicts=True,
            unique_fields=["site", "node_id"],
            update_fields=["path", "content", "document", "slot"],
        )


WRITTEN_AT_ONCE = 500
"""Of many pages not all are in memory as rows, too."""


def _at(site_id: int, number: int) -> Site:
    """A state of the site, from what this process keeps, or from the database."""
    with _lock:
        known = dict(_known.get(site_id, ()))
    if number in known:
        return known[number]
    nearest = min(known, key=lambda one: abs(one - number), default=None)
    walk = None if nearest is None else _way(site_id, nearest, number, LONGEST_WALK)
    if nearest is not None and walk is not None:
        site = _walked(site_id, known[nearest], walk)
    else:
        stored = StoredSite.objects.get(pk=site_id)
        site = _walked(site_id, _read(stored), _way(site_id, stored.revision, number) or [])
        if nearest is not None:
            site = _sharing(site, known[nearest])
    return _keep(site_id, number, site)


def _sharing(site: Site, other: Site) -> Site:
    """With the very values of another state of it, wherever they are equal: what has been worked out from those is found
    without comparing them again, page by page."""
    shared = {}
    for slot in StoredNode.Slot.values:
        known, fresh = {node.id: node for node in getattr(other, slot)}, getattr(site, slot)
        nodes = tuple(known[node.id] if known.get(node.id) == node else node for node in fresh)
        shared[slot] = getattr(other, slot) if nodes == getattr(other, slot) else nodes
    return site.replaced(**shared)


def _way(site_id: int, start: int, end: int, most: int | None = None) -> list[tuple[int, Edit]] | None:
    """From one revision's state to another's: the recorded edits by number, or back along their inverses; None where
    these are more than `most`, all their parts counted."""
    low, high = sorted((start, end))
    forwards = end >= start
    if most is not None and high - low > most:
        return None
    rows = Revision.objects.filter(site_id=site_id, number__gt=low, number__lte=high)
    way: list[tuple[int, Edit]] = []
    parts = 0
    for row in rows.order_by("number" if forwards else "-number"):
        edit = edit_adapter.validate_python(row.edit if forwards else row.inverse)
        parts += sum(1 for _ in parts_of_edit(edit))
        if most is not None and parts > most:
            return None
        way.append((row.number, edit))
    return way


def _walked(site_id: int, site: Site, way: Iterable[tuple[int, Edit]]) -> Site:
    for number, edit in way:
        after = apply(site, edit)
        if isinstance(after, Refusal):
            raise RuntimeError(f"revision {number} of site {site_id} cannot be replayed: {after.words}")
        site = after
    return site


def _keep(site_id: int, number: int, site: Site) -> Site:
    """The state that counts from now on: where two have read it at the same time, that of the first."""
    with _lock:
        if site_id not in _known:
            _known[site_id] = LRUCache(_KEPT_REVISIONS)
        return _known[site_id].setdefault(number, site)


def forget_all() -> None:
    """Drops what this process keeps; for tests, where databases come and go."""
    with _lock:
        _known.clear()


def _read(stored: StoredSite) -> Site:
    """The rows are put together as the text that they are kept as: of many pages that is read twice as fast."""
    nodes: dict[str, list[tuple[str, str, str]]] = {slot: [] for slot in StoredNode.Slot.values}
    rows = stored.nodes.annotate(text=Cast("document", TextField()))
    for slot, *node in rows.values_list("slot", "node_id", "path", "text"):
        nodes[slot].append(tuple(node))
    for slot in (StoredNode.Slot.PAGES, StoredNode.Slot.ASSETS):
        nodes[slot].sort(key=lambda node: node[1])
    for slot in _ORDERED:
        place = {node_id: at for at, node_id in enumerate(stored.document[slot])}
        nodes[slot].sort(key=lambda node: place[node[0]])
    rest = {name: value for name, value in stored.document.items() if name not in nodes}
    lists = (f'"{slot}":[{",".join(text for _, _, text in listed)}]' for slot, listed in nodes.items())
    return Site.model_validate_json(f"{json.dumps(rest)[:-1]},{','.join(lists)}}}")


def new_site(owner: AbstractBaseUser, site: Site, contents: Mapping[str, bytes], slug: str = "") -> StoredSite:
    """A site of its own for somebody, its contents kept."""
    with transaction.atomic():
        keep_contents(contents)
        stored = StoredSite.objects.create(slug=slug or free_slug(site.name), name=site.name, document=_document(site))
        stored.people.add(owner)
        for slot in StoredNode.Slot.values:
            write_nodes(stored, slot, getattr(site, slot))
    return stored


_RESERVED = ("stage", "www", "studio", "localhost")


def free_slug(name: str) -> str:
    """A host label for a name, not taken yet."""
    wanted = slugify(name)[:30].strip("-_").replace("_", "-") or "site"
    if wanted.startswith(_RESERVED):
        wanted = f"site-{wanted}"
    slug = wanted
    while StoredSite.objects.filter(slug=slug).exists():
        slug = f"{wanted}-{secrets.token_hex(2)}"
    return slug
