"""Which edit do forms about styles, looks, defaults and swatches mean?"""

from __future__ import annotations

import re
from collections.abc import Callable, Iterable
from typing import Any, cast

from django.http import QueryDict
from pydantic import JsonValue

from ....core.model.editing.apply import apply
from ....core.model.editing.check import roles_of
from ....core.model.editing.edits import Add, Edit, Remove, Set, Together
from ....core.model.editing.refusal import Refusal
from ....core.model.site import Site
from ....core.model.tree import ROOT, find, holder_of, walk
from ....core.style.boxes import extent
from ....core.style.resolve import alike_in_piece, band_at, default_of, styling_of, wearers
from ....core.values.colours import REFERENCE, ROLE_COLOURS
from ....core.values.properties import NotAValue, check_value, completed
from ....core.values.styling import LOOK_PARTS, Declaration, Part, State
from ...sites import ids
from ..controls.of_styles import SIDED
from .form_error import FormError, NotThere, Posted
from .numbers import stage_width

NO_WIDTHS = ("0", "0px")
SHOWN = {"style": "solid", "width": "1px"}
"""By what it says of a line: what makes one show."""


def style(site: Site, post: QueryDict) -> Posted:
    """A property of a holder gets a value in one state and band, or gives it back (an empty value)."""
    name, text = post["property"], post.get("value", "").strip()
    part = "box" if post["node"].startswith("role:") else post.get("part", "box")
    state, band = post.get("state", "rest"), post.get("band", "") or None
    holder_id, beginning = _holder(site, post["node"])
    names = SIDED.get(name, (name,))
    said = _for_sides(typed(site, text), names, holder_id) if text else [""] * len(names)
    values = [completed(one, value) if value else "" for one, value in zip(names, said, strict=True)]
    holder: Any = holder_of(site, holder_id)
    edits = list(beginning)
    added: list[JsonValue] = []
    for one, value in zip(names, values, strict=True):
        known = _known(holder, one, part, state, band)
        if not value:
            edits += [Remove(nodes=(known.id,))] if known else []
            continue
        try:
            check_value(one, value)
        except NotAValue as fault:
            raise FormError(holder_id, name, str(fault)) from None
        if known is not None:
            edits.append(Set(node=known.id, field="value", value=value))
        else:
            declaration: dict[str, JsonValue] = {"id": ids.new_id("st"), "property": one, "value": value}
            added.append({**declaration, "part": part, "state": state, "band": band})
    added += _partners(site, holder_id, zip(names, values, strict=True), part, state, band)
    given_back = [name for name, value in zip(names, values, strict=True) if not value]
    edits += [Remove(nodes=(one,)) for one in _came_along(site, holder_id, given_back, part, state, band)]
    if added:
        edits.append(Add(parent=holder_id, slot="styles", values=tuple(added)))
    if not edits:
        return Posted(Together(edits=()))
    return Posted(edits[0] if len(edits) == 1 else Together(edits=tuple(edits)))


def _partners(
    site: Site, holder_id: str, said: Iterable[tuple[str, str]], part: str, state: str, band: str | None
) -> list[JsonValue]:
    """A line has a width and a kind: setting one of them to something that shows makes the other show, too, where it
    does not yet."""
    made: list[JsonValue] = []
    for name, value in said:
        other = _partner(name)
        if other is None or value in {"", "none", *NO_WIDTHS}:
            continue
        if _shows_nothing(site, holder_id, other, part, state, band):
            declaration: dict[str, JsonValue] = {
                "id": ids.new_id("st"),
                "property": other,
                "value": SHOWN[_end(other)],
            }
            made.append({**declaration, "part": part, "state": state, "band": band})
    return made


def _came_along(
    site: Site, holder_id: str, given_back: Iterable[str], part: str, state: str, band: str | None
) -> list[str]:
    """What was made to show with what is given back, and would show a line by itself: it goes, too."""
    holder: Any = holder_of(site, holder_id)
    known: dict[str, str] = {}
    for other in filter(None, map(_partner, given_back)):
        declared = _known(holder, other, part, state, band)
        if declared is not None and declared.value == SHOWN[_end(other)]:
            known[declared.id] = other
    without = apply(site, Remove(nodes=tuple(known))) if known else site
    if isinstance(without, Refusal):
        return []
    return [one for one, other in known.items() if _shows_nothing(without, holder_id, other, part, state, band)]


def _shows_nothing(site: Site, holder_id: str, name: str, part: str, state: str, band: str | None) -> bool:
    styling = styling_of(site)
    element = styling.elements.get((holder_id, cast(Part, part)))
    if element is None:
        return False
    hidden = {"style": ("none", "hidden"), "width": NO_WIDTHS}[_end(name)]
    return styling.resolve(element, name, cast(State, state), band).value in hidden


def _end(name: str) -> str:
    return name.rpartition("-")[2]


def _partner(name: str) -> str | None:
    """Of a line's width its kind, and the other way round."""
    for own, other in (("-width", "-style"), ("-style", "-width")):
        if name.startswith(("border-", "outline-")) and name.endswith(own):
            return name.removesuffix(own) + other
    return None


def _holder(site: Site, node: str) -> tuple[str, tuple[Edit, ...]]:
    """The id of whose declarations are meant, and the edit that makes a role's defaults where there are none yet.

    `role:button` are the site's defaults for buttons, `role:button@pc-main` those within a piece.
    """
    if not node.startswith("role:"):
        if holder_of(site, node) is None:
            raise NotThere(node)
        return node, ()
    role, _, piece_id = node.removeprefix("role:").partition("@")
    parent: Any = holder_of(site, piece_id) if piece_id else site
    if parent is None:
        raise NotThere(piece_id, "roles")
    known = default_of(parent.roles, role)
    if known is not None:
        return known.id, ()
    made = ids.new_id("rd")
    return made, (Add(parent=piece_id or ROOT, slot="roles", values=({"id": made, "role": role},)),)


def _known(holder: Any, name: str, part: str, state: str, band: str | None) -> Declaration | None:
    for declaration in getattr(holder, "styles", ()):
        said = (declaration.property, declaration.part, declaration.state, declaration.band)
        if said == (name, part, state, band):
            return declaration  # type: ignore[no-any-return]
    return None


def _for_sides(text: str, names: tuple[str, ...], node: str) -> list[str]:
    if len(names) == 1:
        return [text]
    words = _outer_words(text)
    match len(words):
        case 1:
            return words * 4
        case 2:
            return words * 2
        case 3:
            return [words[0], words[1], words[2], words[1]]
        case 4:
            return words
    raise FormError(node, names[0], "one value for all sides, two (above and below, at the sides), or four, clockwise")


def _outer_words(text: str) -> list[str]:
    words, depth, word = [], 0, ""
    for char in text + " ":
        depth += (char == "(") - (char == ")")
        if char == " " and depth == 0:
            words += [word] if word else []
            word = ""
        else:
            word += char
    return words


def typed(site: Site, text: str) -> str:
    """A value as it was typed, with the names of swatches made references: `Deep water 40%` becomes `@sw-deep/40%`."""
    named = {swatch.name.lower(): swatch.id for swatch in site.swatches}
    named |= {role: f":{role}" for role in ROLE_COLOURS if role not in named}
    if not named:
        return text
    pattern = "|".join(re.escape(name) for name in sorted(named, key=len, reverse=True))
    outside = re.compile(
        rf'("[^"]*"|@:?[\w-]+)|(?<![\w#@:-])({pattern})(?:\s+(\d{{1,3}})\s*%(?=$|[\s,)]))?(?![\w-])', re.IGNORECASE
    )

    def replaced(found: re.Match[str]) -> str:
        if found[1]:
            return found[1]
        return f"@{named[found[2].lower()]}" + (f"/{found[3]}%" if found[3] else "")

    return outside.sub(replaced, text)


def wear(site: Site, post: QueryDict) -> Posted:
    """A look is put on, last; `off:` taken off; `alike:` put on all in its piece that are what it is."""
    node, look, way = post["node"], post["look"], post["do"].partition(":")[2]
    holder: Any = holder_of(site, node)
    if holder is None:
        raise NotThere(node, "wears")
    edits: list[Edit] = []
    for one in alike_in_piece(site, holder) if way == "alike" else (holder,):
        worn: list[JsonValue] = [other for other in one.wears if other != look]
        edits.append(Set(node=one.id, field="wears", value=worn if way == "off" else [*worn, look]))
    return Posted(edits[0] if len(edits) == 1 else Together(edits=tuple(edits)))


def look_from(site: Site, post: QueryDict) -> Posted:
    """A look is made of what an item declares itself, and the item wears it instead."""
    holder: Any = holder_of(site, post["node"])
    if holder is None or not holder.styles:
        raise FormError(post["node"], "styles", "nothing is set here that a look could be made of")
    look = ids.new_id("lk")
    taken = [one for one in holder.styles if one.part in LOOK_PARTS]
    if not taken:
        raise FormError(post["node"], "styles", "what is set here is of parts that no look has")
    styles = [{**one.model_dump(mode="json"), "id": ids.new_id("st")} for one in taken]
    edits: tuple[Edit, ...] = (
        Add(
            parent=ROOT,
            slot="looks",
            values=({"id": look, "name": post.get("name", "").strip() or "New look", "styles": styles},),
        ),
        Remove(nodes=tuple(one.id for one in taken)),
        Set(node=holder.id, field="wears", value=[*holder.wears, look]),
    )
    return Posted(Together(edits=edits), (look,))


def detach(site: Site, post: QueryDict) -> Posted:
    """What the looks worn say is declared by the item itself, where it says nothing itself; the looks are taken off."""
    holder: Any = holder_of(site, post["node"])
    if holder is None or not holder.wears:
        raise FormError(post["node"], "wears", "it wears no look")
    looks = {look.id: look for look in site.looks}
    kept: dict[tuple[str, str, str, str | None], Declaration] = {}
    for look_id in holder.wears:
        for one in looks[look_id].styles:
            kept[one.part, one.property, one.state, one.band] = one
    own = {(one.part, one.property, one.state, one.band) for one in holder.styles}
    parts = set(roles_of(holder))
    copied: dict[tuple[str, str, str, str | None], JsonValue] = {}
    for (part, name, state, band), one in kept.items():
        place = (part if part in parts else "box", name, state, band)
        if place not in own and (part in parts or part == "content"):
            copied[place] = {**one.model_dump(mode="json"), "id": ids.new_id("st"), "part": place[0]}
    edits: tuple[Edit, ...] = (
        Set(node=holder.id, field="wears", value=[]),
        Add(parent=holder.id, slot="styles", values=tuple(copied.values())),
    )
    return Posted(Together(edits=edits))


def remove_look(site: Site, post: QueryDict) -> Posted:
    """A look goes; whoever wears it takes it off in the same edit."""
    look = post["node"]
    off: list[Edit] = [
        Set(node=node.id, field="wears", value=[one for one in node.wears if one != look])
        for node in wearers(site, look)
    ]
    return Posted(Together(edits=(*off, Remove(nodes=(look,)))))


def tint(site: Site, post: QueryDict) -> Posted:
    """A swatch that stays tied to another, lighter or darker by a share of OKLCH lightness."""
    spot = find(site, post["node"])
    if spot is None or spot.slot != "swatches":
        raise NotThere(post["node"])
    lightness = int(post.get("lightness", "12"))
    name = f"{spot.node.name}, {'lighter' if lightness > 0 else 'darker'}"  # type: ignore[attr-defined]
    made = ids.new_id("sw")
    value: JsonValue = {"id": made, "name": name, "tied": {"parent": spot.node.id, "lightness": lightness}}
    return Posted(Add(parent=ROOT, slot="swatches", values=(value,), at=spot.at + 1), (made,))


def merge(site: Site, post: QueryDict) -> Posted:
    """Every use of a swatch becomes one of another, and the swatch goes."""
    node, other = post["node"], post.get("other", "")
    names = {swatch.id: swatch.name for swatch in site.swatches}
    if node not in names:
        raise NotThere(node)
    if not other or other == node or other not in names:
        raise FormError(node, "other", f"“{names[node]}” is in use: choose the swatch that takes its place")
    edits: list[Edit] = []
    for holder in walk(site):
        if isinstance(holder, Declaration) and f"@{node}" in holder.value:
            value = REFERENCE.sub(lambda found: _renamed(found, node, other), holder.value)
            edits.append(Set(node=holder.id, field="value", value=value))
    gone = next(swatch for swatch in site.swatches if swatch.id == node)
    heir = next(swatch for swatch in site.swatches if swatch.id == other)
    if gone.role is not None and heir.role is None:
        edits.append(Set(node=other, field="role", value=gone.role))
    for swatch in site.swatches:
        if swatch.tied is not None and swatch.tied.parent == node:
            tied = swatch.tied.replaced(parent=other) if swatch.id != other else None
            if tied is None:
                raise FormError(node, "other", f"“{names[other]}” is tied to “{names[node]}”: choose another one")
            edits.append(Set(node=swatch.id, field="tied", value=tied.model_dump(mode="json")))
    return Posted(Together(edits=(*edits, Remove(nodes=(node,)))))


def _renamed(found: re.Match[str], node: str, other: str) -> str:
    if found[1] != node:
        return found[0]
    return f"@{other}" + (f"/{found[2]}%" if found[2] else "")


def content_width(site: Site, post: QueryDict) -> Posted:
    """The content's width is typed; the whole is set, with borders and padding added."""
    styling = styling_of(site)
    element = styling.elements.get((post["node"], post.get("part", "box")))  # type: ignore[arg-type]
    if element is None:
        raise NotThere(post["node"], "inline-size")
    width = stage_width(post)
    found = extent(styling, element, post.get("band") or band_at(site, width), width)
    if found is None:
        raise FormError(
            post["node"], "inline-size", "its padding is a share of what only the page knows; type the whole width"
        )
    form = post.copy()
    form["property"], form["value"] = (
        "inline-size",
        f"{float(post['value']) + found.around_px:g}px" if post["value"] else "",
    )
    return style(site, form)


READERS: dict[str, Callable[[Site, QueryDict], Posted]] = {
    "style": style,
    "wear": wear,
    "look-from": look_from,
    "detach": detach,
    "remove-look": remove_look,
    "tint": tint,
    "merge": merge,
    "content-width": content_width,
}
