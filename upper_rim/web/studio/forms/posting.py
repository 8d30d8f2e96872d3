"""Which edit does a posted form mean?

A form names what is done (`do`) and carries plain texts; they become the JSON that the core's edits carry. Whether it
is allowed is not decided here: the core's `apply` checks it.
"""

from __future__ import annotations

import json
import re
from collections.abc import Callable, Iterator, Sequence
from typing import Any, cast

from django.http import QueryDict
from pydantic import JsonValue, ValidationError

from ....core.kinds.items.icon import IconLink
from ....core.kinds.items.social import SocialRow
from ....core.kinds.rows import Cell, Row
from ....core.model.editing.apply import reason_of
from ....core.model.editing.edits import Add, Edit, Move, Remove, Set, SetEach, Together, edit_adapter, parts_of_edit
from ....core.model.editing.refusal import Refusal
from ....core.model.fonts import Font
from ....core.model.names import shared_row
from ....core.model.navigation.page_index import index_of
from ....core.model.navigation.pairing import proposed_pairs
from ....core.model.references import renamed
from ....core.model.site import Asset, Page, Site
from ....core.model.tree import ROOT, find, holder_of, siblings_of, slots_of
from ....core.style.shapes import SHAPES, shaped
from ....core.style.type.scale import content_of_whole
from ....core.values.nodes import Value
from ....core.values.words import Translatable
from ...sites import ids
from ..controls.of_nodes import ROW_CENTRE
from . import audience as audience_posts
from . import consent as consent_posts
from . import findings as finding_posts
from . import languages as language_posts
from . import menus as menu_posts
from . import pages as page_posts
from . import reach as reach_posts
from . import styles as styling_posts
from . import visitors as visitor_posts
from . import wording as wording_posts
from .form_error import FormError, FormFault, NoSuchField, NotThere, Posted
from .listed import LISTED, NODES
from .new_nodes import MAKERS, written
from .numbers import whole_number
from .targets import target_of, where_of


def posted_edit(site: Site, post: QueryDict) -> Posted | FormFault | Refusal:
    """The edit, or why the form means none. `do` may carry how: `step:-1`, `indent:in`."""
    read = _READERS.get(post.get("do", "").partition(":")[0])
    if read is None:
        return FormFault(ROOT, "do", "this form does not say what is to be done")
    try:
        return read(site, post)
    except FormError as unclear:
        return unclear.fault
    except (ValidationError, ValueError, KeyError, RecursionError):
        return FormFault(ROOT, "do", "this form is not filled in as it should be")


def _set(site: Site, post: QueryDict) -> Posted:
    node, (field, _, part) = post["node"], post["field"].partition(".")
    if wording_posts.is_phrase(node) and field == "words":
        return wording_posts.say_phrase(site, post)
    holder = holder_of(site, node)
    if holder is None:
        raise NotThere(node, field)
    if field in NODES and field in slots_of(holder):
        return NODES[field](site, holder, post)
    if field == "align" and isinstance(holder, Cell) and post.get("value") == ROW_CENTRE:
        return Posted(_in_the_rows_centre(site, holder))
    if field == "shape" and isinstance(holder, SocialRow | IconLink):
        wished = post.get("value", "")
        return Posted(shaped(holder, wished, ids.new_id) if wished in SHAPES else Together(edits=()))
    if field not in type(holder).model_fields or is_computed(holder, field):
        raise NoSuchField(node, field)
    if part:
        whole = getattr(holder, field)
        if not isinstance(whole, Value) or part not in type(whole).model_fields:
            raise NoSuchField(node, post["field"])
        value: JsonValue = {**whole.model_dump(mode="json"), part: _value(site, whole, part, post)}
    else:
        value = _value(site, holder, field, post)
    if isinstance(holder, Page) and field == "translates":
        return Posted(Together(edits=tuple(_translating(site, [(holder.id, value)]))))
    return Posted(Set(node=node, field=field, value=value))


def _translating(site: Site, pairs: Sequence[tuple[str, JsonValue]]) -> Iterator[Edit]:
    """Pages translate others, as far as one knows what these say now."""
    contents = {page.id: page.content for page in site.pages}
    yield SetEach(field="translates", values=tuple(pairs))
    yield SetEach(field="of", values=tuple((page, contents.get(str(original))) for page, original in pairs))


def _in_the_rows_centre(site: Site, cell: Cell) -> Edit:
    """Its neighbours share what is left alike, so that its middle is the row's."""
    row = next(row for piece in site.pieces for row in piece.rows if cell in row.cells)
    share: JsonValue = {"kind": "share", "amount": 1}
    tracks: list[Edit] = [
        Set(node=one.id, field="track", value={"kind": "content"} if one is cell else share) for one in row.cells
    ]
    return Together(edits=(*tracks, Set(node=cell.id, field="align", value="center")))


def _value(site: Site, holder: Any, field: str, post: QueryDict) -> JsonValue:
    text = post.get("value", "").strip()
    current = getattr(holder, field)
    if isinstance(current, Translatable):
        try:
            return current.saying(post.get("language", ""), post.get("value", "")).model_dump(mode="json")
        except ValidationError as error:
            raise FormError(getattr(holder, "id", ROOT), field, reason_of(error)) from None
    if isinstance(current, bool):
        return text in {"true", "on", "1"}
    if field in LISTED:
        return LISTED[field](site, holder, post)
    if field == "target":
        return target_of(site, text)
    if field in {"list_on", "translates"}:
        return _page_id(site, holder, field, text)
    if field == "track":
        return _track(text)
    if field == "where":
        return where_of(site, post)
    if field == "tied" and current is not None:
        return {**current.model_dump(mode="json"), "lightness": text}
    if field in {"css", "code"}:
        return post.get("value", "").replace("\r\n", "\n")
    if field == "tags":
        return [tag.strip() for tag in text.split(",") if tag.strip()]
    if field == "hidden_in":
        shown = set(post.getlist("values"))
        return [band.id for band in site.bands if band.id not in shown]
    if text == "" and type(holder).model_fields[field].default is None:
        return None
    if field == "picture" and text and not text.startswith("/"):
        return "/" + text
    return text


def _page_id(site: Site, holder: Any, field: str, text: str) -> JsonValue:
    if not text:
        return None
    target = cast(dict[str, JsonValue], target_of(site, text))
    if target["kind"] != "page":
        raise FormError(holder.id, field, f"there is no page at {text}")
    if target["page"] == holder.id:
        raise FormError(holder.id, field, "a page is no translation of itself")
    return target["page"]


def _track(text: str) -> JsonValue:
    found = re.fullmatch(r"(content)|(?:share\s*)?(\d+)\s*(?:fr|parts?)?|(\d+)\s*px", text)
    if found is None:
        raise ValueError(text)
    if found[1]:
        return {"kind": "content"}
    return {"kind": "fixed", "amount": int(found[3])} if found[3] else {"kind": "share", "amount": int(found[2])}


def _add(site: Site, post: QueryDict) -> Posted:
    made = MAKERS[post["what"]](site, post)
    edit = Add(
        parent=post.get("parent", ROOT),
        slot=made.slot,
        values=tuple(made.values),
        at=whole_number(post.get("at", "")),
    )
    others = made.first or made.then
    whole = Together(edits=(*made.first, edit, *made.then)) if others else edit
    return Posted(whole, tuple(str(cast(dict[str, JsonValue], value)["id"]) for value in made.values))


def _rewrite(site: Site, post: QueryDict) -> Posted:
    """A page written by hand gets another text: title, source and what follows from them, as one edit."""
    node = post["node"]
    page = next((page for page in site.pages if page.id == node), None)
    if page is None or page.source is None:
        raise FormError(node, "source", "only a page that was written here can be rewritten here")
    title = post.get("title", "").strip() or page.title
    fields = written(title, page.language, post.get("source", ""))
    edits = tuple(Set(node=node, field=field, value=value) for field, value in fields.items() if field != "language")
    original = next((one.content for one in site.pages if one.id == page.translates), None)
    of = Set(node=node, field="of", value=original)
    return Posted(Together(edits=(*edits, Set(node=node, field="cuts", value=[]), of)))


def _pair(site: Site, post: QueryDict) -> Posted:
    """What is proposed for a branch and a language is said to be so: which pages translate which."""
    asked = (post["below"], post["language"])
    values: list[tuple[str, JsonValue]] = [
        (pair.page.id, pair.original.id) for pair in proposed_pairs(site) if (pair.branch, pair.page.language) == asked
    ]
    if not values:
        raise FormError(ROOT, "translates", "nothing is proposed there any more")
    return Posted(Together(edits=tuple(_translating(site, values))))


def _pair_these(site: Site, post: QueryDict) -> Posted:
    """Pages that are alike, as they were shown: each named with its original."""
    known = index_of(site.pages).by_id
    values: list[tuple[str, JsonValue]] = []
    for said in post.getlist("values"):
        page, _, original = said.partition(" ")
        if page not in known or original not in known or page == original:
            raise FormError(ROOT, "translates", "a page of these is not there any more")
        values.append((page, original))
    if not values:
        raise FormError(ROOT, "translates", "tick those that are right")
    return Posted(Together(edits=tuple(_translating(site, values))))


def _move(site: Site, post: QueryDict) -> Posted:
    if not post["parent"]:
        raise FormError(post["node"], "", "choose the place first")
    return Posted(Move(node=post["node"], parent=post["parent"], slot=post["slot"], at=int(post["at"])))


def _beside(site: Site, post: QueryDict) -> Posted:
    """`beside:before` or `beside:after` another node of its kind, wherever that stands; `beside:in` a cell or a piece
    that has none yet."""
    node, beside, where = post["node"], post["beside"], _how(post)
    own, other = find(site, node), find(site, beside)
    if own is None or other is None:
        raise NotThere(node if own is None else beside)
    if where == "in":
        return Posted(Move(node=node, parent=beside, slot=own.slot, at=0))
    if where not in {"before", "after"} or own.slot != other.slot:
        raise ValueError(where)
    at = other.at + (where == "after")
    if own.parent == other.parent and own.at < at:
        at -= 1
    return Posted(Move(node=node, parent=other.parent, slot=other.slot, at=at))


def _step(site: Site, post: QueryDict) -> Posted:
    """A node one place on or back among its siblings; at an end, into the neighbouring holder of the same kind."""
    node, by = post["node"], int(_how(post))
    spot = find(site, node)
    if spot is None:
        raise NotThere(node)
    siblings = siblings_of(site, spot)
    at = spot.at + by
    while isinstance(spot.node, Row) and 0 <= at < len(siblings) and _stage(siblings[at]) != spot.node.stage:
        at += by
    if 0 <= at < len(siblings):
        return Posted(Move(node=node, parent=spot.parent, slot=spot.slot, at=at))
    neighbour = _neighbour(site, spot.parent, by) if spot.slot == "items" else None
    if neighbour is None:
        raise FormError(node, "", "there is no place further on in this direction")
    return Posted(Move(node=node, parent=neighbour.id, slot="items", at=0 if by > 0 else len(neighbour.items)))


def _stage(row: Any) -> str | None:
    stage: str | None = row.stage
    return stage


def _how(post: QueryDict) -> str:
    return post["do"].partition(":")[2]


def _neighbour(site: Site, cell_id: str, by: int) -> Any:
    for piece in site.pieces:
        own = next((row.stage for row in piece.rows if any(cell.id == cell_id for cell in row.cells)), None)
        cells = [cell for row in piece.rows for cell in row.cells if row.stage == own]
        ids = [cell.id for cell in cells]
        if cell_id in ids:
            at = ids.index(cell_id) + (1 if by > 0 else -1)
            return cells[at] if 0 <= at < len(cells) else None
    return None


def _indent(site: Site, post: QueryDict) -> Posted:
    """A menu entry one level in (below the entry before it) or out."""
    node, spot = post["node"], find(site, post["node"])
    if spot is None or spot.slot != "entries":
        raise NotThere(node)
    if _how(post) == "in":
        if spot.at == 0:
            raise FormError(node, "", "there is no entry before it that it could go below")
        before: Any = siblings_of(site, spot)[spot.at - 1]
        return Posted(Move(node=node, parent=before.id, slot="entries", at=len(before.entries)))
    outer = find(site, spot.parent)
    if outer is None or outer.slot != "entries":
        raise FormError(node, "", "it already stands on the outermost level")
    return Posted(Move(node=node, parent=outer.parent, slot="entries", at=outer.at + 1))


def _remove(site: Site, post: QueryDict) -> Posted:
    nodes = post.getlist("node")
    removal = Remove(nodes=tuple(nodes))
    own_rows = tuple(row.id for piece in site.pieces for row in piece.rows if row.stage in nodes)
    if own_rows:
        return Posted(Together(edits=(Remove(nodes=own_rows), removal)))
    lifts = [lift for lift in site.lifts if lift.id in nodes]
    if not lifts:
        return Posted(removal)
    ids = {lift.id for lift in lifts}
    freed: list[tuple[str, JsonValue]] = [
        (page.id, [cut.model_dump(mode="json") for cut in page.cuts if cut.lift not in ids])
        for page in site.pages
        if any(cut.lift in ids for cut in page.cuts)
    ]
    return Posted(Together(edits=(SetEach(field="cuts", values=tuple(freed)), removal)) if freed else removal)


def _duplicate(site: Site, post: QueryDict) -> Posted:
    spot = find(site, post["node"])
    if spot is None or spot.slot not in {"items", "rows", "cells", "pieces", "entries", "cards"}:
        raise FormError(post["node"], "", "it cannot be doubled")
    copy = _copied(spot.node)
    if spot.slot in {"pieces", "cards"}:
        copy["name"] = f"{copy['name']}, copy"
    return Posted(Add(parent=spot.parent, slot=spot.slot, values=(copy,), at=spot.at + 1), (copy["id"],))


def _copy(site: Site, post: QueryDict) -> Posted:
    """A copy of an item into a cell, or of a row into a piece, of whichever piece it is."""
    spot = find(site, post["node"])
    if spot is None or spot.slot not in {"items", "rows"}:
        raise FormError(post["node"], "", "what was to be copied is not there any more")
    if not post["parent"]:
        raise FormError(post["node"], "", "choose the place first")
    copy = _copied(spot.node)
    if spot.slot == "rows" and post["parent"] != spot.parent:
        copy["stage"] = None
    return Posted(Add(parent=post["parent"], slot=spot.slot, values=(copy,)), (copy["id"],))


def _hand_over(site: Site, post: QueryDict) -> Posted:
    """A stage gets other rows: copies of those at rest, or a new one (`hand-over:new`)."""
    stage = post["node"]
    spot = find(site, stage)
    piece = next((piece for piece in site.pieces if spot is not None and piece.id == spot.parent), None)
    if piece is None:
        raise FormError(stage, "rows", "the stage is not there any more")
    if _how(post) == "new":
        made = cast(list[dict[str, Any]], MAKERS["row"](site, post).values)
    else:
        made = [_copied(row) for row in site.rows_in(piece)]
    rows = tuple({**row, "stage": stage, "shares": None} for row in made)
    return Posted(Add(parent=piece.id, slot="rows", values=cast(Any, rows)), (stage,))


def _copied(node: Any) -> dict[str, Any]:
    """A node as JSON, with new ids, also where one part of it names another."""
    made = renamed(node, lambda _, old: old, lambda old: ids.new_id(old.partition("-")[0]))
    return cast(dict[str, Any], made)


def _own(site: Site, post: QueryDict) -> Posted:
    """A row that shares another one becomes a copy of it, on its own."""
    spot = find(site, post["node"])
    if spot is None or not isinstance(spot.node, Row) or spot.node.shares is None:
        raise FormError(post["node"], "", "it shares nothing")
    copy = _copied(shared_row(site, spot.node.shares)[0])
    addition = Add(parent=spot.parent, slot="rows", values=(copy,), at=spot.at)
    return Posted(Together(edits=(Remove(nodes=(spot.node.id,)), addition)), (copy["id"],))


_COMPUTED: dict[type[Any], frozenset[str]] = {
    Page: frozenset({"content", "splice", "source", "cuts", "remark"}),
    Asset: frozenset({"content", "size"}),
    Font: frozenset({"files", "measures"}),
}
"""Fields that only our own reading of uploaded bytes may fill: a hash typed in could name somebody else's content."""


def is_computed(holder: Any, field: str) -> bool:
    return field in _COMPUTED.get(type(holder), ())


def _raw(site: Site, post: QueryDict) -> Posted:
    edit = edit_adapter.validate_python(json.loads(post["edit"]))
    if any(_fills_computed(site, part) for part in parts_of_edit(edit)):
        raise FormError(ROOT, "edit", "contents come in by upload only")
    return Posted(edit)


def _fills_computed(site: Site, edit: Edit) -> bool:
    match edit:
        case Set():
            return is_computed(holder_of(site, edit.node), edit.field)
        case SetEach():
            return any(is_computed(holder_of(site, node), edit.field) for node, _ in edit.values)
        case Add():
            return edit.slot in {"pages", "assets", "fonts"}
        case _:
            return False


def _whole(site: Site, post: QueryDict) -> Posted:
    """The whole is typed, gutters counted; the content's width follows."""
    return Posted(Set(node=ROOT, field="content_px", value=content_of_whole(int(post["value"]), site.gutter_px)))


_READERS: dict[str, Callable[[Site, QueryDict], Posted]] = {
    "set": _set,
    "add": _add,
    "move": _move,
    "beside": _beside,
    "step": _step,
    "indent": _indent,
    "remove": _remove,
    "duplicate": _duplicate,
    "copy": _copy,
    "own": _own,
    "hand-over": _hand_over,
    "rewrite": _rewrite,
    "pair": _pair,
    "pair-these": _pair_these,
    "edit": _raw,
    "whole": _whole,
    **audience_posts.READERS,
    **consent_posts.READERS,
    **finding_posts.READERS,
    **language_posts.READERS,
    **menu_posts.READERS,
    **page_posts.READERS,
    **reach_posts.READERS,
    **styling_posts.READERS,
    **visitor_posts.READERS,
    **wording_posts.READERS,
}
